import { inTurn, rising } from '../../units';
import type { Tightening } from '../../kit';

/**
 * In which order clamps are tightened, as places in the list counted from 1 for each clamp. Middle first, then
 * outwards by turns, is also the order within rounds; end by end goes along from the left.
 */
export function tighteningOrder(places: readonly number[], length: number, way: Tightening): number[] {
  const nth = places.map((at, i) => ({ at, i }));
  const sorted =
    way === 'ends'
      ? nth.toSorted(rising((a) => a.at))
      : nth.toSorted(
          inTurn(
            rising(({ at }) => Math.abs(at - length / 2)),
            rising(({ at }) => at),
          ),
        );
  const order = places.map(() => 0);
  sorted.forEach(({ i }, k) => {
    order[i] = k + 1;
  });
  return order;
}

/** The order in words. */
export const TIGHTENING_WORDS: Record<Tightening, string> = {
  middle: 'middle first, then outwards by turns',
  rounds: 'three rounds from the middle: a fifth, three fifths, full force',
  ends: 'from one end to the other',
};
