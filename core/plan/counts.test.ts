import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countsFor } from '.';

describe('counts of strips of fixed widths that make a width', () => {
  it('are told exactly, the fewest strips first', () => {
    // 137 = 45 + 38 + 30 + 24; 274 is twice that. Sums by hand.
    const ways = countsFor(274, [45, 38, 30, 24], 500);
    expect(ways.map(({ counts }) => counts)).toContainEqual([2, 2, 2, 2]);
    expect(ways.every(({ offMm }) => offMm === 0)).toBe(true);
    const strips = ways.map(({ counts }) => counts.reduce((sum, count) => sum + count, 0));
    expect(strips).toEqual(strips.toSorted((a, b) => a - b));
  });
  it('where none makes it exactly, are the nearest, above or below', () => {
    expect(countsFor(100, [30])).toEqual([
      { counts: [3], sumMm: 90, offMm: -10 },
      { counts: [4], sumMm: 120, offMm: 20 },
    ]);
    expect(countsFor(101, [50, 40])[0]).toMatchObject({ counts: [2, 0], offMm: -1 });
  });
  it('in fractions of an inch lose nothing to rounding', () => {
    const inch = (n: number) => n * 25.4;
    expect(countsFor(inch(12), [inch(1.375), inch(0.8125)], 1)[0]).toMatchObject({
      counts: [4, 8],
      offMm: 0,
    });
    expect(countsFor(inch(10.9375), [inch(1.375), inch(0.8125)], 1)[0]).toMatchObject({
      counts: [5, 5],
      offMm: 0,
    });
  });
  it('of nothing are none', () => {
    expect([
      countsFor(0, [30]),
      countsFor(100, []),
      countsFor(100, [30, 0]),
      countsFor(Number.NaN, [3]),
    ]).toEqual([[], [], [], []]);
  });
  it('no other count comes nearer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 300 }),
        fc.integer({ min: 7, max: 60 }),
        fc.integer({ min: 7, max: 60 }),
        (wanted, a, b) => {
          let least = Infinity;
          for (let i = 0; i <= 60; i++)
            for (let j = i === 0 ? 1 : 0; j <= 60; j++)
              least = Math.min(least, Math.abs(i * a + j * b - wanted));
          expect(Math.abs(countsFor(wanted, [a, b])[0].offMm)).toBeCloseTo(least, 9);
        },
      ),
      { seed: 20261128, numRuns: 200 },
    );
  });
});
