import { describe, expect, it } from 'vitest';
import { resawnLeaf } from '../units';
import { cutsThrough, resawFromEdges, wayThrough } from './deepcut';

const REACH = { guidedMm: 55, freeMm: 66 };

describe('cuts through a piece thicker than the saw is deep', () => {
  it('55 guided: 90 meets from both faces with 20 over, 120 leaves 10', () => {
    expect(cutsThrough('both', 90, REACH).overMm).toBe(20);
    expect(cutsThrough('both', 120, REACH).overMm).toBe(-10);
  });
  it('a third cut, 66 free from one face, meets the 55 of the other: 121, 1 over', () => {
    const { cuts, overMm } = cutsThrough('third', 120, REACH);
    expect(overMm).toBe(1);
    expect(cuts.map(({ deepMm, guided }) => [deepMm, guided])).toEqual([
      [55, true],
      [55, true],
      [66, false],
    ]);
    // The free cut goes into the kerf that the guided one left, from the same face.
    expect(cuts[2].from).toBe(cuts[1].from);
  });
  it.each([
    [55, 'one'],
    [55.1, 'both'],
    [110, 'both'],
    [110.1, 'third'],
    [121, 'third'],
    [121.1, 'hand'],
  ] as const)('%d thick is cut: %s', (thick, way) => expect(wayThrough(thick, REACH)).toBe(way));
  it('a saw whose depth nobody said comes through at once', () =>
    expect(wayThrough(300, { guidedMm: 0, freeMm: 0 })).toBe('one'));
});

describe('resawing from both edges', () => {
  it('240 high, 70 deep a side in steps of 25: 3 heights, 6 cuts, 100 left', () =>
    expect(resawFromEdges(240, 70, 25)).toEqual({ heights: 3, cuts: 6, leftMm: 100 }));
  it('never counts more than there is, and one height where it is not raised', () => {
    expect(resawFromEdges(120, 70, 25)).toEqual({ heights: 3, cuts: 6, leftMm: 0 });
    expect(resawFromEdges(240, 70, 0).heights).toBe(1);
    expect(resawFromEdges(240, 75, 25).heights).toBe(3);
  });
  it('a leaf of 24 by 3 of kerf is 10.5; 0.8 off the middle leaves 0.2 over 9.5, 1.2 lacks 0.2', () => {
    expect(resawnLeaf(24, 3)).toBe(10.5);
    expect(resawnLeaf(24, 3, 0.8) - 9.5).toBeCloseTo(0.2, 9);
    expect(resawnLeaf(24, 3, 1.2) - 9.5).toBeCloseTo(-0.2, 9);
  });
});
