import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distinct, falling, inTurn, keyOf, rising, sumOf, upwards } from '.';

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
  it('are told apart by the first of several comparisons that can', () => {
    const pairs = fc.array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 3 })));
    fc.assert(
      fc.property(pairs, (list) => {
        const sorted = list.toSorted(
          inTurn(
            rising(([x]) => x),
            falling(([, y]) => y),
          ),
        );
        for (const [i, [x, y]] of sorted.entries()) {
          const [before, beside] = sorted[i - 1] ?? [-1, 0];
          expect(before < x || (before === x && beside >= y)).toBe(true);
        }
      }),
      { seed: 7 },
    );
    expect(inTurn<number>()(1, 2)).toBe(0);
  });
  it('are each told once, those nearer than a millionth as one', () => {
    expect(distinct([3, 1.0000001, 2.5, 1, 3])).toEqual([1, 2.5, 3]);
    expect(distinct([1, 1.000002])).toEqual([1, 1.000002]);
    expect(distinct([])).toEqual([]);
    const key = keyOf([1, 0, 0.5]);
    expect(keyOf([1 + 1e-8, -1e-9, 0.5])).toBe(key);
    for (const other of [
      [1, 0.5, 0],
      [1, 0, -0.5],
      [1.00001, 0, 0.5],
      [1, 0],
    ])
      expect(keyOf(other)).not.toBe(key);
  });
});
