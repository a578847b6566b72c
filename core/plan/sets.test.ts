import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { byWidth, matchedSets } from '.';

describe('matched sets', () => {
  it('an L of two legs, three slabs each of four widths twice over: six sets of eight', () => {
    // The slabs of a worked example: 45, 38, 30 and 24 mm, each twice.
    const set = [45, 38, 30, 24, 45, 38, 30, 24];
    expect(set.reduce((sum, mm) => sum + mm, 0)).toBe(274);
    const all = Array.from({ length: 6 }, () => set).flat();
    expect(all).toHaveLength(48);
    expect(matchedSets(all, set)).toEqual({
      sets: 6,
      missing: [45, 38, 30, 24].map((mm) => ({ mm, count: 2 })),
      over: [],
    });
    const oneGone = all.filter((_, i) => i !== 2);
    expect(matchedSets(oneGone, set, 6)).toMatchObject({ sets: 5, missing: [{ mm: 30, count: 1 }] });
    expect(matchedSets(oneGone, set).over).toContainEqual({ mm: 45, count: 2 });
  });
  it('a width that is not there makes no set, and an empty set is none', () => {
    expect(matchedSets([45, 45], [45, 38])).toMatchObject({ sets: 0, missing: [{ mm: 38, count: 1 }] });
    expect(matchedSets([45], [])).toMatchObject({ sets: 0, missing: [] });
  });
  it('sets and what is over are all there is, whatever there is', () => {
    const widths = fc.array(fc.constantFrom(20, 30, 45.5), { maxLength: 40 });
    fc.assert(
      fc.property(widths, fc.array(fc.constantFrom(20, 30), { minLength: 1, maxLength: 4 }), (have, set) => {
        const { sets, over, missing } = matchedSets(have, set);
        const left = over.reduce((sum, { count }) => sum + count, 0);
        expect(sets * set.length + left).toBe(have.length);
        // With what is missing there is exactly one set more.
        const more = missing.flatMap(({ mm, count }) => Array.from({ length: count }, () => mm));
        expect(matchedSets([...have, ...more], set).sets).toBe(sets + 1);
      }),
      { seed: 20261128 },
    );
  });
  it('counts widths a hair apart as one', () => {
    expect(byWidth([45, 45.02, 38])).toEqual([
      { mm: 45, count: 2 },
      { mm: 38, count: 1 },
    ]);
  });
});
