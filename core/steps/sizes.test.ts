import { expect, it } from 'vitest';
import { boxCell } from '../solid';
import { greatestSize, leastSize } from '.';

const piece = (size: [number, number, number]) => ({
  blank: {
    cells: [
      boxCell(
        size,
        [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0],
        { board: 'b', species: 'oak_white', seed: 1, shade: 1 },
        'b',
      ),
    ],
  },
});

it('sizes of several pieces are told by dimension: the least, the greatest, and of none', () => {
  const pieces = [piece([600, 50, 20]), piece([500, 80, 10]), piece([550, 65, 15])];
  expect(
    (['length', 'width', 'thickness'] as const).map((d) => [leastSize(pieces, d), greatestSize(pieces, d)]),
  ).toEqual([
    [500, 600],
    [50, 80],
    [10, 20],
  ]);
  expect([leastSize([], 'width'), greatestSize([], 'width')]).toEqual([Infinity, 0]);
});
