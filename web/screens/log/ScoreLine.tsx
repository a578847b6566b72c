import { useEffect, useRef } from 'react';
import type { ShopSnapshot } from '../../../core/kit';
import { bandAfter, type Score, withBand } from '../../../core/log';

/** How honest the bands were: how many readings lay within theirs, and by how much bands are widened; they follow by themselves. */
export function ScoreLine({
  score,
  shop,
  change,
  biased,
}: {
  score: Score;
  shop: ShopSnapshot;
  change: (change: (shop: ShopSnapshot) => ShopSnapshot) => void;
  /** A scale or a loss is off that would put them right: that comes first. */
  biased: boolean;
}) {
  const { counted, within, factor } = score;
  const now = shop.band ?? 1;
  const next = bandAfter(score, shop, biased);
  // Where the kit does not take it, it is not tried for ever.
  const tried = useRef<number>(undefined);
  useEffect(() => {
    if (next === undefined || tried.current === next) return;
    tried.current = next;
    change((kit) => withBand(kit, next));
  }, [next, change]);
  if (counted === 0) return null;
  const waits = next === undefined && bandAfter(score, shop, false) !== undefined;
  return (
    <section
      aria-label="How honest the bands are"
      className="sheet flex flex-wrap items-center gap-x-4 gap-y-2 p-4"
    >
      <p>
        <b className="font-semibold">
          {within} of {counted}
        </b>{' '}
        readings lay within the band that was predicted, {Math.round((100 * within) / counted)} %. A band is
        meant to hold nine in ten.
      </p>
      <p className="text-[14px]">
        {now === 1
          ? 'Bands are as wide as the kit’s spreads say'
          : `Bands are ${now.toFixed(2)} times as wide as the kit’s spreads say`}
        {shop.bandHeld ? `, and stay so; readings say ${factor.toFixed(2)}.` : '; they follow the readings.'}
      </p>
      {waits && (
        <p className="text-[14px]">
          Put right first what differs below: then fewer lie outside, and no band has to be wider.
        </p>
      )}
      {shop.bandHeld ? (
        <button type="button" className="action" onClick={() => change(({ bandHeld: _held, ...kit }) => kit)}>
          Let bands follow the readings
        </button>
      ) : (
        now !== 1 && (
          <button
            type="button"
            className="action"
            onClick={() => change((kit) => ({ ...withBand(kit, 1), bandHeld: true }))}
          >
            Put back 1.00 and keep it
          </button>
        )
      )}
    </section>
  );
}
