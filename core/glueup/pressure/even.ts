import { sumOf } from '../../units';
import { press, type LinePressure, type PressCase } from './contact';
import { EVEN } from './words';

/** Least over mean of the worst of the lines named, 0 to 1. */
export const worstOfLines = (found: readonly LinePressure[], lines: readonly number[]): number =>
  Math.min(
    ...lines.map((l) => {
      const { pressure } = found[l];
      const last = pressure.length - 1;
      const mean = sumOf(pressure, (p, i) => p * (i === 0 || i === last ? 0.5 : 1)) / last;
      return mean > 0 ? Math.min(...pressure) / mean : 0;
    }),
  );

/** Whether a line's least over mean looks even: three quarters (Junta's word, no standard has one). */
export const evenEnough = (leastOverMean: number): boolean => leastOverMean >= EVEN;

/** Places of n clamps with a given first one, the rest evenly between, mm. */
export const evenPlaces = (count: number, first: number, length: number): number[] =>
  count === 1
    ? [length / 2]
    : Array.from({ length: count }, (_, i) => first + (i * (length - 2 * first)) / (count - 1));

/**
 * The even layout of n equal clamps whose worst line is best: the first clamp's distance from the end is searched, from
 * the rule of thumb (spacing L/(n - 0.12), first clamp 0.44 of it). Judges the lines named.
 */
export function evenLayout(
  given: Omit<PressCase, 'clamps'>,
  count: number,
  pad: number,
  lines: readonly number[],
): { first: number; places: number[]; leastOverMean: number } {
  const { length } = given;
  const score = (first: number) =>
    worstOfLines(
      press({ ...given, clamps: evenPlaces(count, first, length).map((at) => ({ at, force: 1000, pad })) })
        .lines,
      lines,
    );
  const rule = (0.44 * length) / (count - 0.12);
  if (count === 1) return { first: length / 2, places: [length / 2], leastOverMean: score(length / 2) };
  let best = { first: rule, value: score(rule) };
  for (let step = rule * 0.25; step > rule * 0.02; step /= 2)
    for (const first of [best.first - step, best.first + step]) {
      const value = first > 0 && first < length / 2 ? score(first) : -1;
      if (value > best.value) best = { first, value };
    }
  return { first: best.first, places: evenPlaces(count, best.first, length), leastOverMean: best.value };
}
