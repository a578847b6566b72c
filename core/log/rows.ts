import { sumOf } from '../units';
import { mean, median } from './average';
import type { Row } from './estimate';

/** How finely a gauge reads: its standard deviation, and the step that is read to, mm. */
export interface Fineness {
  sd: number;
  step: number;
}

/** The variance of one reading: the gauge, and rounding to its step (a uniform error of that width). */
export const readingVariance = ({ sd, step }: Fineness): number => sd ** 2 + step ** 2 / 12;
/** The variance of the mean of several that are alike: they all round alike, so rounding is not divided. */
const meanVariance = ({ sd, step }: Fineness, many: number): number => sd ** 2 / many + step ** 2 / 12;

/** Farther off the median of its own row than this, in standard deviations, a reading is left out before anything is made of it. */
const LEFT_OUT_SD = 5.7;

/**
 * Readings of a row without those that lie far off its median; `sd` is that of one reading, piece and gauge together. Where half of them
 * are wild the median lies between, and nothing near it: then all stay, and the row as a whole is weighted out.
 */
export const withoutFar = (readings: readonly number[], sd: number): number[] => {
  const middle = median(readings);
  const near = readings.filter((each) => Math.abs(each - middle) <= LEFT_OUT_SD * sd);
  return near.length > 0 ? near : [...readings];
};

/** What several pieces of one setting read, and what was dialled. */
export interface OneSetting {
  readings: readonly number[];
  dial: number;
  fineness: Fineness;
  /** Ids: the bias of the scale, its spread from setting to setting, the spread from piece to piece. */
  bias: string;
  setting: string;
  piece: string;
  /** The spread from piece to piece by common practice. */
  pieceSd: number;
}

/** Strips or slices of one setting: one row of how far it was off, and, of two and more, one of how far the pieces scatter. */
export function settingRows({ readings, dial, fineness, bias, setting, piece, pieceSd }: OneSetting): Row[] {
  const good = withoutFar(readings, Math.sqrt(pieceSd ** 2 + readingVariance(fineness)));
  const many = good.length;
  const middle = mean(good);
  const off: Row = {
    y: middle - dial,
    a: { [bias]: 1 },
    b: { [setting]: 1, [piece]: 1 / many },
    g2: meanVariance(fineness, many),
    kind: `${setting} mean`,
  };
  if (many < 2) return [off];
  return [
    off,
    {
      y: sumOf(good, (each) => (each - middle) ** 2) / (many - 1),
      df: many - 1,
      a: {},
      b: { [piece]: 1 },
      g2: fineness.sd ** 2,
      kind: `${piece} scatter`,
    },
  ];
}

/** What pieces that were not all read add to a sum of `n` that is reckoned from `m` of them, in squares of their spread. */
export const unreadShare = (n: number, m: number): number => n - m + m * (1 - n / m) ** 2;

/** A width of `n` glued strips, of which some were read: what the joints gained or lost. */
export function widthRow({
  width,
  strips,
  n,
  fineness,
  own,
  joint,
  piece,
}: {
  width: number;
  strips: readonly number[];
  n: number;
  fineness: Fineness;
  /** How the width itself was read. */
  own: Fineness;
  joint: string;
  piece: string;
}): Row {
  const m = strips.length;
  return {
    y: width - n * mean(strips),
    a: { [joint]: n - 1 },
    b: { [piece]: unreadShare(n, m) },
    g2: n ** 2 * meanVariance(fineness, m) + readingVariance(own),
    kind: `${joint} width`,
  };
}

/** A tail that was left after `n` slices of a blank: what the saw took. `cuts` is one more than the slices where both ends were cut. */
export function tailRow({
  blank,
  tail,
  slices,
  n,
  cuts,
  practice,
  fineness,
  tape,
  kerf,
  piece,
}: {
  blank: number;
  tail: number;
  slices: readonly number[];
  n: number;
  cuts: number;
  /** The kerf by common practice. */
  practice: number;
  fineness: Fineness;
  tape: Fineness;
  kerf: string;
  piece: string;
}): Row {
  const m = slices.length;
  return {
    y: tail - (blank - n * mean(slices) - cuts * practice),
    a: { [kerf]: -cuts },
    b: { [piece]: unreadShare(n, m) },
    g2: n ** 2 * meanVariance(fineness, m) + 2 * readingVariance(tape),
    kind: `${kerf} tail`,
  };
}

/** A thickness before and after: what was taken off. */
export const takeOffRow = ({
  before,
  after,
  practice,
  fineness,
  off,
  spread,
}: {
  before: number;
  after: number;
  /** What comes off by common practice. */
  practice: number;
  fineness: Fineness;
  off: string;
  spread: string;
}): Row => ({
  y: before - after - practice,
  a: { [off]: 1 },
  b: { [spread]: 1 },
  g2: 2 * readingVariance(fineness),
  kind: `${off} take-off`,
});

/** Half of a reading's weight is left after so long, weeks. */
const HALF_LIFE_WEEKS = 52;
const WEEK_MS = 7 * 86_400_000;

/** How much of a reading is left at an age, ms. */
export const freshness = (ageMs: number): number => 2 ** (-Math.max(0, ageMs) / (HALF_LIFE_WEEKS * WEEK_MS));
