import { Navigate } from 'react-router';
import { useShopsQuery } from '../../app/api';
import { wasWelcomed } from '../../app/shop-choice';

/** The first address: Today for whoever has chosen a shop, the welcome where there is none but the demo, else the choice. */
export function Home() {
  const known = wasWelcomed();
  const { data, error } = useShopsQuery(undefined, { skip: known });
  if (known || error !== undefined) return <Navigate to="/today" replace />;
  if (!data) return null;
  const own = data.shops.filter(({ demo }) => !demo);
  const to = own.length === 0 ? '/start' : data.shops.length === 1 ? '/today' : '/shops';
  return <Navigate to={to} replace />;
}
