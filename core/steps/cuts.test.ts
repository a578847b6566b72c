import { describe, expect, it } from 'vitest';
import type { Step } from '../document';
import { run } from '../run';
import { lostTo } from '../solid';
import { INCH } from '../units';
import { build, GLUE, last, lost, size, slot, three } from './steps.fixture';

describe('slice, turn, crosscut, trim', () => {
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
  it('crosscutting to a length books kerf and the rest, and refuses to lengthen', () => {
    const cut = (mm: number): Step => ({
      id: 'c',
      kind: 'crosscut',
      inputs: ['strips'],
      output: 'cut',
      saw: 'bandsaw',
      length: { mm },
    });
    const step = last(build(three, [cut(480)]));
    expect(size(step)[0]).toBeCloseTo(480, 9);
    expect(lostTo(step.lost, 'kerf')).toBeCloseTo(150 * 25 * (INCH / 16), 6);
    expect(run(build(three, [cut(501)])).problems).toMatchObject([
      { code: 'too-short-to-cut', numbers: { length: 500, wanted: 501 } },
    ]);
  });
  const trim = (cutter: Extract<Step, { kind: 'trim' }>['cutter'], mm: number): Step => ({
    id: 't',
    kind: 'trim',
    inputs: ['panel'],
    output: 'piece',
    cutter,
    start: { mm },
    end: { mm },
    near: { mm },
    far: { mm },
  });
  it('a sawn trim turns one kerf to dust and leaves the rest as offcut; the size is exact', () => {
    const step = last(build(three, [GLUE, trim({ saw: 'table-full' }, 5)]));
    expect(size(step)).toEqual([490, 140, 25].map((v) => expect.closeTo(v, 9)));
    expect(lostTo(step.lost, 'kerf')).toBeCloseTo(25 * 3.175 * (2 * 500 + 2 * 140), 6);
    expect(lostTo(step.lost, 'offcut')).toBeCloseTo(25 * (5 - 3.175) * (2 * 500 + 2 * 140), 6);
  });
  it('a trim thinner than the kerf is all dust, a planed one all shavings, to the same size', () => {
    const sawn = last(build(three, [GLUE, trim({ saw: 'table-full' }, 2)]));
    const planed = last(build(three, [GLUE, trim({ machine: 'hand' }, 2)]));
    expect(lost(sawn)).toMatchObject({ offcut: 0, kerf: 25 * 2 * (2 * 500 + 2 * 146) });
    expect(lost(planed)).toMatchObject({ kerf: 0, shaving: 25 * 2 * (2 * 500 + 2 * 146) });
    expect(size(sawn)).toEqual(size(planed).map((v) => expect.closeTo(v, 9)));
  });
  it('trims nothing where nothing is asked, and keeps the error of that size', () => {
    const before = last(build(three, [GLUE]));
    const after = last(
      build(three, [GLUE, { ...trim({ saw: 'table-full' }, 4), near: { mm: 0 }, far: { mm: 0 } } as Step]),
    );
    expect(size(after)[1]).toBe(size(before)[1]);
    expect(after.tolerance[1]).toEqual(before.tolerance[1]);
    expect(after.tolerance[0].likelyMm).toBeCloseTo(0.008 * INCH, 9);
  });
});
