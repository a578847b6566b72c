import type { ShopSnapshot } from '../../../core/kit';
import type { Score } from '../../../core/log';

/** Fewer readings than these say nothing of bands. */
const LEAST_SCORED = 20;
/** A factor this near to the one in use is the same. */
const SAME = 0.03;

/** How honest the bands were: how many readings lay within theirs, and by how much bands are widened from now on. */
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
  if (counted === 0) return null;
  const now = shop.band ?? 1;
  const other = counted >= LEAST_SCORED && Math.abs(factor - now) > SAME;
  const rounded = Math.round(factor * 100) / 100;
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
      {now !== 1 && (
        <p className="text-[14px]">Bands are {now.toFixed(2)} times as wide as the kit’s spreads say.</p>
      )}
      {other && biased && factor > now && (
        <p className="text-[14px]">
          Put right first what differs below: then fewer lie outside, and no band has to be wider.
        </p>
      )}
      {other && !(biased && factor > now) && (
        <button
          type="button"
          className="action"
          onClick={() =>
            change(({ band: _band, ...kit }) => (rounded === 1 ? kit : { ...kit, band: rounded }))
          }
        >
          Make bands {rounded.toFixed(2)} times as wide
        </button>
      )}
      {now !== 1 && (
        <button type="button" className="action" onClick={() => change(({ band: _band, ...kit }) => kit)}>
          Put back 1.00
        </button>
      )}
    </section>
  );
}
