import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { falling, rising, sumOf, upwards } from '.';

const numbers = fc.array(fc.integer({ min: -1000, max: 1000 }));

describe('series of numbers', () => {
  it('come to their sum, in whatever parts they are added; none come to nothing', () => {
    expect([sumOf([]), sumOf([2.5]), sumOf(new Set([1, 2, 4]))]).toEqual([0, 2.5, 7]);
    expect(sumOf([{ mm: 3 }, { mm: 4 }], ({ mm }, i) => mm * (i + 1))).toBe(11);
    fc.assert(
      fc.property(numbers, numbers, (a, b) => sumOf([...a, ...b]) === sumOf(a) + sumOf(b)),
      { seed: 5 },
    );
  });
  it('lie in order, either way, and those alike as they lay', () => {
    fc.assert(
      fc.property(numbers, (values) => {
        const sorted = values.toSorted(upwards);
        expect(values.toSorted(rising((each) => each))).toEqual(sorted);
        expect(values.toSorted(falling((each) => each))).toEqual(sorted.toReversed());
        expect(sorted.every((each, i) => i === 0 || sorted[i - 1] <= each)).toBe(true);
        expect(sumOf(sorted)).toBe(sumOf(values));
      }),
      { seed: 6 },
    );
    const alike = [
      { n: 1, at: 0 },
      { n: 0, at: 1 },
      { n: 1, at: 2 },
    ];
    expect(alike.toSorted(falling(({ n }) => n)).map(({ at }) => at)).toEqual([0, 2, 1]);
  });
});
