import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dressedSize } from '../kit';
import {
  blankLengthForSlices,
  boardFeet,
  boardWidthForStrips,
  brickShift,
  passesNeeded,
  resawnLeaf,
  rowsFromBlank,
  sectionsNeeded,
  sectionWidth,
  slicesNeeded,
  squaredBrickWidth,
  stripLedgerWidth,
  stripsFromBoard,
} from './arithmetic';
import { countNeeded, countObtainable } from './count';
import { INCH } from './length';

describe('shop arithmetic (common practice), in inches and in millimetres', () => {
  for (const [unit, k] of [
    ['inches', 1],
    ['millimetres', INCH],
  ] as const) {
    it(`gives the exact counts in ${unit}`, () => {
      expect(stripsFromBoard(7 * k, 0.25 * k, 0.125 * k)).toBe(19);
      expect(stripsFromBoard(3 * k, 1.5 * k, 0.125 * k)).toBe(1);
      expect(stripsFromBoard(7 * k, 0.25 * k, 0.125 * k, 0.625 * k)).toBe(17);
      expect(slicesNeeded(18 * k, 1 * k, 0.8125 * k)).toBe(24);
      expect(slicesNeeded(18 * k, 1 * k, 0.75 * k)).toBe(26);
      expect(rowsFromBlank(16 * k, 0.625 * k, 1 * k, { k: 0.125 * k, farEndClean: true })).toBe(13);
      expect(rowsFromBlank(15.5 * k, 0.625 * k, 1 * k, { k: 0.125 * k, farEndClean: false })).toBe(13);
      expect(rowsFromBlank(15.25 * k, 0.625 * k, 1 * k, { k: 0.125 * k, farEndClean: true })).toBe(13);
      expect(rowsFromBlank(15.125 * k, 0.625 * k, 1 * k, { k: 0.125 * k, farEndClean: false })).toBe(12);
      expect(passesNeeded(0.6 * k, 0.05 * k)).toBe(12);
    });
    it(`gives the sizes in ${unit}`, () => {
      expect(
        blankLengthForSlices(24, 1.625 * k, 0.125 * k, { head: 0.25 * k, remnant: 3 * k }) / k,
      ).toBeCloseTo(45.375, 9);
      expect(sectionWidth(34 * k, 0.5 * k, 3, 0.0625 * k) / k).toBeCloseTo(11.75, 9);
      expect(sectionsNeeded(34 * k, 0.5 * k, 0.0625 * k, 11.75 * k)).toBe(3);
      expect(sectionsNeeded(34 * k, 0.5 * k, 0.0625 * k, 11.7 * k)).toBe(4);
      expect(
        [2, 4, 3].map(
          (given) => stripLedgerWidth(10 * k, { s: 0.5 * k, k: 0.125 * k, given, received: 3 }) / k,
        ),
      ).toEqual([expect.closeTo(10.125, 9), expect.closeTo(8.875, 9), expect.closeTo(9.5, 9)]);
      expect(brickShift(2 * k, 0.25 * k) / k).toBeCloseTo(1.125, 9);
      expect(squaredBrickWidth(11 * k, 2 * k, 0.25 * k) / k).toBeCloseTo(9.875, 9);
      expect(resawnLeaf(0.9375 * k, 0.125 * k) / k).toBeCloseTo(13 / 32, 9);
      expect(boardWidthForStrips(5, 1 * k, 0.125 * k, 0.25 * k) / k).toBeCloseTo(6, 9);
    });
  }
  it('counts whole numbers as whole for any sizes made of them', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 1, max: 6400 }),
        fc.integer({ min: 0, max: 320 }),
        (n, s64, k64) => {
          const s = (s64 / 64) * INCH;
          const k = (k64 / 640) * INCH;
          expect(stripsFromBoard(n * s + (n - 1) * k, s, k)).toBe(n);
          expect(countNeeded((n * (s + k)) / (s + k))).toBe(n);
          expect(countObtainable((n * s) / s)).toBe(n);
        },
      ),
      { seed: 20277 },
    );
  });
  it('measures board feet by the rule and dressed lumber by PS 20', () => {
    expect(boardFeet(96, 6, 2)).toBe(8);
    expect(boardFeet(144, 12, 1)).toBe(12); // definition of the board foot
    expect(boardFeet(96, 4, 2)).toBeCloseTo(5.333, 3);
    const in16 = (name: string) =>
      Object.values(dressedSize(name) ?? {}).map((mm) => Number((mm / INCH).toFixed(9)));
    // American Softwood Lumber Standard PS 20, dry sizes, from memory
    expect(in16('2x4')).toEqual([1.5, 3.5]);
    expect(in16('1x6')).toEqual([0.75, 5.5]);
    expect(in16('2 × 8')).toEqual([1.5, 7.25]);
    expect(in16('1x12')).toEqual([0.75, 11.25]);
    expect(dressedSize('3x17')).toBeUndefined();
  });
});
