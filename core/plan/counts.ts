import { inTurn, rising, sumOf } from '../units';
/** So many strips of each width, and what they come to, mm. */
export interface WidthCounts {
  counts: number[];
  sumMm: number;
  /** Sum less what was wanted, mm; 0 where they make it exactly. */
  offMm: number;
}

/** Sums nearer than this are the same, mm. */
const SAME_MM = 1e-6;
/** More ways than this are not tried: such small strips make any width. */
const MOST_TRIED = 200_000;

/**
 * Which counts of strips of some fixed widths make a width exactly, the fewest strips first; where none does, those that
 * come nearest, above or below. At most `most` answers; none where a width or the sum is not more than zero.
 */
export function countsFor(wantedMm: number, widthsMm: readonly number[], most = 5): WidthCounts[] {
  const widths = [...widthsMm];
  if (!(wantedMm > 0) || widths.length === 0 || widths.some((width) => !(width > 0))) return [];
  const found: WidthCounts[] = [];
  let tried = 0;
  const keep = (counts: number[], sumMm: number) => {
    const off = sumMm - wantedMm;
    found.push({ counts: [...counts], sumMm, offMm: Math.abs(off) < SAME_MM ? 0 : off });
  };
  const go = (at: number, counts: number[], sumMm: number): void => {
    if (++tried > MOST_TRIED) return;
    const width = widths[at];
    const left = wantedMm - sumMm;
    if (at === widths.length - 1) {
      // Of the last width only the two counts around what is left can be nearest.
      const below = Math.max(0, Math.floor(left / width + SAME_MM));
      for (const count of new Set([below, below + 1])) keep([...counts, count], sumMm + count * width);
      return;
    }
    const full = Math.max(0, Math.floor(left / width + SAME_MM));
    for (let count = 0; count <= full; count++) go(at + 1, [...counts, count], sumMm + count * width);
    // One more than fits may come nearest too; then nothing else is added.
    const over = [...counts, full + 1, ...widths.slice(at + 1).map(() => 0)];
    keep(over, sumMm + (full + 1) * width);
  };
  go(0, [], 0);
  const strips = ({ counts }: WidthCounts) => sumOf(counts);
  const best = found
    .filter((each) => strips(each) > 0)
    .toSorted(
      inTurn(
        rising(({ offMm }) => Math.abs(offMm)),
        rising(strips),
      ),
    );
  const exact = best.filter(({ offMm }) => offMm === 0);
  return (exact.length > 0 ? exact : best).slice(0, most);
}
