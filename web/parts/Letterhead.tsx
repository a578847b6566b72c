import { useKitQuery } from '../app/api';

/** Whose paper it is: the shop's name and its address line. */
export function Letterhead() {
  const { data } = useKitQuery();
  if (!data) return null;
  const { name, address } = data.shop;
  return (
    <p className="text-graphite pb-1 text-[13px]" data-testid="letterhead">
      {[name, address].filter(Boolean).join(', ')}
    </p>
  );
}
