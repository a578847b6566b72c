import { describe, expect, it } from 'vitest';
import type { Step } from '../../document';
import { lostTo } from '../../solid';
import { build, GLUE, last, slot, three } from '../steps.fixture';

describe('slice', () => {
  const slice = (change: Partial<Extract<Step, { kind: 'slice' }>> = {}): Step => ({
    id: 'slice',
    kind: 'slice',
    inputs: ['panel'],
    output: 'slices',
    saw: 'table-full',
    head: { mm: 10 },
    thickness: { mm: 30 },
    count: 5,
    ...change,
  });
  it('takes n + 1 kerfs with a head, n without', () => {
    const kerf = (head: number) =>
      lostTo(last(build(three, [GLUE, slice({ head: { mm: head } })])).lost, 'kerf') / (150 * 25 * 3.175);
    expect(kerf(10)).toBeCloseTo(6, 9);
    expect(kerf(0)).toBeCloseTo(5, 9);
  });
  it('gives slices of the very same thickness, and books head and tail', () => {
    const document = build(three, [GLUE, slice()]);
    const step = last(document);
    expect(step.pieces).toHaveLength(5);
    expect([step.least[0], step.greatest[0]]).toEqual([expect.closeTo(30, 9), expect.closeTo(30, 9)]);
    expect(lostTo(step.lost, 'offcut')).toBeCloseTo((500 - 5 * 30 - 6 * 3.175) * 150 * 25, 3);
  });
  it('the last slice may end exactly at the end of the blank', () => {
    const exact = build([slot('s1', 10 + 3.175 + 3 * 30 + 2 * 3.175, 40, 25)], [GLUE, slice({ count: 3 })]);
    expect(last(exact).pieces).toHaveLength(3);
  });
  it('slices every piece that comes in, and names them by their lineage', () => {
    const ids = last(build(three, [slice({ inputs: ['strips'], count: 2 })])).pieces.map(({ id }) => id);
    expect(ids).toEqual(['slice.1.1', 'slice.1.2', 'slice.2.1', 'slice.2.2', 'slice.3.1', 'slice.3.2']);
  });
});
