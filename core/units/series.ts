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
