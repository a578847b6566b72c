import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { INCH } from '../units';
import { leavesOf } from './leaves';

describe('leaves from a board', () => {
  it('15/16 through the middle with a kerf of 1/8 gives two of 13/32 to the last bit', () => {
    // Shop arithmetic: (15/16 - 1/8) / 2 = 13/32.
    const leafMm = (13 / 32) * INCH;
    const given = leavesOf({ thicknessMm: (15 / 16) * INCH, leafMm, kerfMm: INCH / 8 });
    expect(given).toMatchObject({ leaves: 2, pairs: 1 });
    expect(given.restMm).toBeCloseTo(0, 9);
    expect(leavesOf({ thicknessMm: (15 / 16) * INCH, leafMm: leafMm + 0.01, kerfMm: INCH / 8 }).leaves).toBe(
      1,
    );
  });
  it('faces come off first; nothing comes of nothing', () => {
    expect(leavesOf({ thicknessMm: 30, leafMm: 6, kerfMm: 1, faceMm: 1 })).toEqual({
      leaves: 4,
      pairs: 2,
      restMm: 1,
    });
    for (const bad of [
      { thicknessMm: 0, leafMm: 6, kerfMm: 1 },
      { thicknessMm: 30, leafMm: 0, kerfMm: 1 },
      { thicknessMm: 30, leafMm: 6, kerfMm: Number.NaN },
    ])
      expect(leavesOf(bad).leaves).toBe(0);
  });
  it('one more never fits, and all wood is leaf, kerf or rest', () => {
    const size = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true });
    fc.assert(
      fc.property(size(5, 120), size(1, 30), size(0.5, 4), (thicknessMm, leafMm, kerfMm) => {
        const { leaves, restMm } = leavesOf({ thicknessMm, leafMm, kerfMm });
        // Less than one leaf: nothing but the rest. A board a hair short of a leaf counts as one.
        const kerfs = Math.max(0, leaves - 1) * kerfMm;
        if (leaves === 0) expect(thicknessMm).toBeLessThan(leafMm);
        expect(leaves * leafMm + kerfs + restMm).toBeCloseTo(thicknessMm, 3);
        expect(restMm).toBeLessThan(leafMm + kerfMm + 1e-4);
      }),
      { seed: 20261128 },
    );
  });
});
