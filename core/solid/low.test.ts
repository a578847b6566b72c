import { describe, expect, it } from 'vitest';
import { boxCell, type Cell, moveCell } from './cell';
import { lowestOpen } from './low';
import { translation } from './rigid';

const ORIGIN = { board: 'b', species: 'oak_white', seed: 1, shade: 1 };
/** A part of a panel, from its lower near corner on, mm. */
const part = (size: [number, number, number], at: [number, number, number]): Cell =>
  moveCell(boxCell(size, [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0], ORIGIN, 'b'), translation(at));
const low = (cells: Cell[]) => [lowestOpen({ cells }, true), lowestOpen({ cells }, false)];

describe('the lowest open place of a face', () => {
  it('is the thinnest of parts side by side, on the face it does not reach', () => {
    const beside = (height: number, at: number) => [
      part([600, 50, 20], [0, 0, 0]),
      part([600, 50, height], [0, 50, at]),
      part([600, 50, 20], [0, 100, 0]),
    ];
    expect(low(beside(20, 0))).toEqual([0, 0]);
    expect(low(beside(18, 0))).toEqual([2, 0]);
    expect(low(beside(18, 2))).toEqual([0, 2]);
    expect(low(beside(17, 1))).toEqual([2, 1]);
  });
  it('is not what lies under another part, but what lies beside its edge is', () => {
    const base = part([600, 100, 20], [0, 0, 0]);
    // All over it, and over its middle: no face of its own there.
    expect(low([base, part([600, 100, 20], [0, 0, 20])])).toEqual([0, 0]);
    expect(low([base, part([200, 60, 20], [200, 20, 20])])).toEqual([0, 0]);
    expect(low([base, part([100, 60, 20], [200, 20, 20])])).toEqual([20, 0]);
    // From its middle on, either way and along it: the middle itself is bare.
    for (const at of [50, -50])
      expect(lowestOpen({ cells: [base, part([600, 100, 20], [0, at, 20])] }, true)).toBe(20);
    for (const at of [300, -300])
      expect(lowestOpen({ cells: [base, part([600, 100, 20], [at, 0, 20])] }, true)).toBe(20);
    expect(lowestOpen({ cells: [base, part([600, 100, 20], [0, 50, -20])] }, false)).toBe(20);
  });
});
