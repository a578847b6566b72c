import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ShopSummary } from '../../../contract/api';
import { counted } from '../../../core/units';
import { problemText, useNewDemoMutation, useRemoveShopMutation, useShopsQuery } from '../../app/api';
import { currentShop, enterShop, forgetShop } from '../../app/shop-choice';
import { Bar, Screen } from '../../parts/layout';
import { Window } from '../../parts/Window';

const day = (iso: string) => new Date(iso).toLocaleDateString('en', { day: 'numeric', month: 'long' });
const holds = ({ jobs, boards }: ShopSummary) => `${counted(jobs, 'job')}, ${counted(boards, 'board')}`;

/** The shops of this installation: go to one, set one up, remove one, put the demo back. */
export function Shops() {
  const { data, error } = useShopsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [newDemo, { isLoading }] = useNewDemoMutation();
  const [remove] = useRemoveShopMutation();
  const [refused, setRefused] = useState<string>();
  const [asked, setAsked] = useState<ShopSummary>();
  const problem = refused ?? (error === undefined ? undefined : problemText(error));
  const here = currentShop();
  const hasDemo = data?.shops.some(({ demo }) => demo);
  const act = async (doing: Promise<{ error?: unknown }>) => {
    const { error: failed } = await doing;
    setRefused(failed === undefined ? undefined : problemText(failed));
    return failed === undefined;
  };
  return (
    <Screen className="max-w-[900px]!">
      <Bar className="pb-3">
        <h1 className="text-[20px] font-semibold">Shops</h1>
        <span className="text-graphite text-[14px]">
          Each has its own kit, rack and jobs. This browser works in one of them at a time.
        </span>
        <Link to="/start/shop" className="action action-main ml-auto">
          <Plus size={16} aria-hidden /> Set up a shop
        </Link>
      </Bar>
      {problem && (
        <p role="alert" className="text-red pb-2">
          {problem}
        </p>
      )}
      {data?.shops.length === 0 && (
        <p className="sheet p-5">No shop is here. Set up your own, or put the demo there to look around.</p>
      )}
      <ul className="border-line border-b">
        {data?.shops.map((shop) => (
          <li
            key={shop.id}
            className="border-line flex flex-wrap items-center gap-x-3 gap-y-1.5 border-t py-2"
          >
            <span className="min-w-0 flex-1">
              <span className="block text-[16px] font-semibold">{shop.name}</span>
              <span className="text-graphite text-[14px]">
                {holds(shop)}
                {shop.demo && '; made up, to look around in'}
              </span>
            </span>
            {shop.id === here ? (
              <span className="text-green text-[14px] font-medium">✓ you work here</span>
            ) : (
              <button type="button" className="action" onClick={() => enterShop(shop.id)}>
                Go to {shop.name}
              </button>
            )}
            <button
              type="button"
              className="action"
              aria-label={`Remove ${shop.name}`}
              onClick={() => setAsked(shop)}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      {data?.hasDemo && !hasDemo && (
        <p className="flex flex-wrap items-center gap-3 py-3">
          The demo shop is not here.
          <button type="button" className="action" disabled={isLoading} onClick={() => void act(newDemo())}>
            Put the demo back, as new
          </button>
        </p>
      )}
      {data && data.removed.length > 0 && (
        <section aria-label="Removed shops" className="pt-5">
          <h2 className="text-[17px] font-semibold">Removed</h2>
          <ul>
            {data.removed.map((shop) => (
              <li
                key={shop.id}
                className="border-line flex flex-wrap items-center gap-3 border-t border-dotted py-1.5"
              >
                <span className="min-w-0 flex-1">
                  {shop.name} <span className="text-graphite text-[14px]">{holds(shop)}</span>
                </span>
                <span className="text-graphite text-[14px]">until {day(shop.until)}</span>
                <button
                  type="button"
                  className="action"
                  aria-label={`Bring back ${shop.name}`}
                  onClick={() => void act(remove({ id: shop.id, removed: false }))}
                >
                  Bring back
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {asked && (
        <Window title={`Remove ${asked.name}`} open onClose={() => setAsked(undefined)}>
          <p className="pb-3">
            Its {holds(asked)} and its kit go with it. They can be brought back here for 30 days; after that
            they are gone.
          </p>
          <span className="flex gap-2">
            <button
              type="button"
              className="action border-red text-red"
              onClick={() => {
                setAsked(undefined);
                void act(remove({ id: asked.id, removed: true })).then((done) => {
                  if (done && asked.id === here) forgetShop();
                });
              }}
            >
              Remove {asked.name}
            </button>
            <button type="button" className="action" onClick={() => setAsked(undefined)}>
              Keep it
            </button>
          </span>
        </Window>
      )}
    </Screen>
  );
}
