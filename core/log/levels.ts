import { sumOf } from '../units';
/** What was found of one machine, wood or season alone. */
export interface Group {
  id: string;
  readings: number;
  mean: number;
}

/** What a group is taken to be, and how much of that is its own word, 0 to 1. */
export interface Level {
  id: string;
  value: number;
  own: number;
}

/**
 * Groups alike, each pulled towards what they have in common as far as its readings are few: by how far groups really lie apart
 * (DerSimonian and Laird 1986), with half a spread by common practice counted as four groups. `spread` is that of single readings.
 */
export function levelsOf(
  groups: readonly Group[],
  spread: number,
): { q: number; between2: number; apart2: number; levels: Level[] } {
  const v = groups.map(({ readings }) => spread ** 2 / readings);
  const W = v.map((each) => 1 / each);
  const weighted = (weights: readonly number[]) =>
    sumOf(groups.map(({ mean }, i) => weights[i] * mean)) / sumOf(weights);
  const middle = weighted(W);
  const q = sumOf(groups.map(({ mean }, i) => W[i] * (mean - middle) ** 2));
  const G = groups.length;
  const scale = sumOf(W) - sumOf(W.map((each) => each ** 2)) / sumOf(W);
  const between2 = scale > 0 ? Math.max(0, (q - G + 1) / scale) : 0;
  const apart2 = (4 * (spread / 2) ** 2 + (G - 1) * between2) / (G + 3);
  const m = weighted(v.map((each) => 1 / (each + apart2)));
  return {
    q,
    between2,
    apart2,
    levels: groups.map(({ id, mean }, i) => {
      const own = apart2 / (apart2 + v[i]);
      return { id, value: m + own * (mean - m), own };
    }),
  };
}

/** The yield of a grade, 0 to 1, out of boards that were used up: common practice counts as six average boards. `all` and `good` in one unit. */
export function yieldOf(boards: readonly { all: number; good: number }[], practice: number): number {
  const all = sumOf(boards, (board) => board.all);
  if (all <= 0) return practice;
  const six = (6 * all) / boards.length;
  return (six * practice + sumOf(boards, (board) => board.good)) / (six + all);
}
