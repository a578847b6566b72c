import { describe, expect, it } from 'vitest';
import { build, GLUE, last, size, three } from '../steps.fixture';

describe('turn', () => {
  it.each([
    ['standOnEnd', [25, 150, 500], [2, 1, 0]],
    ['tipOnEdge', [500, 25, 150], [0, 2, 1]],
    ['endForEnd', [500, 150, 25], [0, 1, 2]],
    ['rollOver', [500, 150, 25], [0, 1, 2]],
  ] as const)('%s exchanges sizes, and their errors with them', (turn, sizes, axes) => {
    const before = last(build(three, [GLUE]));
    const after = last(
      build(three, [GLUE, { id: 't', kind: 'turn', inputs: ['panel'], output: 'turned', turn }]),
    );
    expect(size(after)).toEqual(sizes.map((v) => expect.closeTo(v, 9)));
    axes.forEach((from, to) => expect(after.tolerance[to]).toEqual(before.tolerance[from]));
  });
});
