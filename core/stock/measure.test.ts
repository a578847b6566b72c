import { describe, expect, it } from 'vitest';
import { dressedSize } from '../kit';
import { INCH } from '../units';
import { board as plain } from './cases.fixture';
import {
  billedBoardFeet,
  boardCost,
  boardFeetOf,
  boardVolume,
  hardwoodTally,
  softwoodTally,
  surfaceMeasure,
  worth,
} from './measure';

describe('board measure', () => {
  // NHLA Rules for the Measurement and Inspection of Hardwood and Cypress, from memory.
  it('a hardwood board by the published rules: whole feet, nearest surface foot, rough thickness', () => {
    expect(surfaceMeasure(7.5, 10.5)).toBe(6);
    expect(hardwoodTally(1, 7.5, 10.5)).toBe(6);
    expect(hardwoodTally(2, 8, 9)).toBe(12);
    expect(hardwoodTally(0.75, 6, 8)).toBe(4);
    // An exact half of a surface foot goes up; feet that a conversion left a hair short are whole.
    expect([surfaceMeasure(6, 7), surfaceMeasure(6, 8 - 1e-12)]).toEqual([4, 4]);
  });
  it('construction lumber by its nominal size (PS 20, from memory), whose real size is smaller', () => {
    expect(softwoodTally(2, 6, 8)).toBe(8);
    expect([softwoodTally(1, 6, 8), softwoodTally(0.5, 6, 8)]).toEqual([4, 4]);
    const size = dressedSize('2x6');
    expect([size?.thicknessMm, size?.widthMm]).toEqual([expect.closeTo(38.1, 9), expect.closeTo(139.7, 9)]);
    const dressed = plain('d', 96 * INCH, 139.7, 38.1, { sold: 'dressed' });
    expect(billedBoardFeet(dressed)).toBeCloseTo(8, 9);
    expect(boardFeetOf(boardVolume(dressed))).toBeCloseTo(5.5, 9);
  });
  it('a surfaced board is billed by its rough thickness', () => {
    expect(
      billedBoardFeet(plain('s', 144 * INCH, 6 * INCH, (13 / 16) * INCH, { sold: 'surfaced' })),
    ).toBeCloseTo(6, 9);
  });
  it('prices by board, board foot, metre and cubic metre; currencies are never mixed', () => {
    const of = (per: 'board' | 'boardFoot' | 'metre' | 'cubicMetre', minor: number) =>
      boardCost(plain('p', 2000, 100, 50, { price: { per, minor, currency: 'EUR' } }))?.minor;
    expect(of('board', 1200)).toBe(1200);
    expect(of('metre', 900)).toBeCloseTo(1800, 9);
    expect(of('cubicMetre', 80_000)).toBeCloseTo(800, 9);
    expect(of('boardFoot', 1000)).toBeCloseTo((1000 * 2000 * 100 * 50) / (144 * INCH ** 3), 6);
    const boards = ['EUR', 'USD', 'EUR'].map((currency, i) =>
      plain(`${i}`, 1, 1, 1, { price: { per: 'board', minor: 100, currency } }),
    );
    expect(worth([...boards, plain('x', 1, 1, 1)])).toEqual({
      byCurrency: { EUR: 200, USD: 100 },
      unpriced: 1,
    });
  });
});
