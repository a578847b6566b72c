/** What values come to together, in their own unit, added in their order; 0 without any. `of` reads the number of each. */
export function sumOf(values: Iterable<number>): number;
export function sumOf<T>(values: Iterable<T>, of: (value: T, i: number) => number): number;
export function sumOf<T>(values: Iterable<T>, of = (value: T, _i: number) => value as number): number {
  let sum = 0;
  let i = 0;
  for (const value of values) {
    sum += of(value, i);
    i += 1;
  }
  return sum;
}

/** Compares two for sorting, the least first, by the number that `of` reads of each. */
export const rising =
  <T>(of: (value: T) => number) =>
  (a: T, b: T): number =>
    of(a) - of(b);

/** Compares two for sorting, the greatest first, by the number that `of` reads of each. */
export const falling =
  <T>(of: (value: T) => number) =>
  (a: T, b: T): number =>
    of(b) - of(a);

/** Compares two numbers for sorting, the least first. */
export const upwards = (a: number, b: number): number => a - b;

type Compare<T> = (a: T, b: T) => number;

/** Compares two for sorting by the first of the comparisons that tells them apart; 0 where none does. */
export const inTurn =
  <T>(...compares: Compare<T>[]): Compare<T> =>
  (a, b) => {
    for (const compare of compares) {
      const told = compare(a, b);
      if (told !== 0) return told;
    }
    return 0;
  };

/** Parts of one, such as a millimetre, to which numbers are told apart. */
const FINENESS = 1e6;

/** One key for numbers that are the same to a millionth each, and in the same order. */
export const keyOf = (values: readonly number[]): string =>
  values.map((value) => Math.round(value * FINENESS)).join(',');

/** Places or lengths in mm, each once, rounded to a millionth and the least first. */
export const distinct = (values: readonly number[]): number[] =>
  [...new Set(values.map((value) => Math.round(value * FINENESS) / FINENESS))].sort(upwards);
