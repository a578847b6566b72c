import { describe, expect, it } from 'vitest';
import type { Step } from '../../document';
import { run } from '../../run';
import { lostTo } from '../../solid';
import { build, closes, GLUE, last, size, slot, three } from '../steps.fixture';

describe('glue', () => {
  it('lays the first part at the far edge, the others towards the maker, starts flush', () => {
    const { laid } = last(build(three, [GLUE]));
    expect(laid?.map(({ piece, min, max }) => [piece, Math.round(min[1]), Math.round(max[1])])).toEqual([
      ['s1', 110, 150],
      ['s2', 60, 110],
      ['s3', 0, 60],
    ]);
  });
  it('follows the order and the turns it is given, and gives the joints and their area', () => {
    const parts = [{ piece: 's3' }, { piece: 's1', endForEnd: true }, { piece: 's2', rollOver: true }];
    const step = last(build(three, [{ ...GLUE, parts }]));
    expect(step.laid?.map(({ piece, endForEnd, rollOver }) => [piece, endForEnd, rollOver])).toEqual([
      ['s3', false, false],
      ['s1', true, false],
      ['s2', false, true],
    ]);
    expect(step.glue).toEqual({ joints: 2, areaMm2: expect.closeTo(2 * 500 * 25, 6) });
  });
  it('counts only the area that touches where parts differ in size', () => {
    const uneven = [slot('s1', 500, 40, 25), slot('s2', 300, 40, 20)];
    const step = last(build(uneven, [GLUE]));
    expect(step.glue?.areaMm2).toBeCloseTo(300 * 20, 6);
    expect(size(step)).toEqual([500, 80, 25].map((v) => expect.closeTo(v, 9)));
  });
  it('glues along the thickness too', () => {
    expect(
      size(last(build(three.slice(0, 1).concat(slot('x', 500, 40, 15)), [{ ...GLUE, along: 'thickness' }]))),
    ).toEqual([500, 40, 40].map((v) => expect.closeTo(v, 9)));
  });
  it('a turned strip shows the same wood the other way round', () => {
    const straight = last(build(three, [GLUE])).pieces[0].blank.cells;
    const turned = last(
      build(three, [
        { ...GLUE, parts: [{ piece: 's1', endForEnd: true }, { piece: 's2' }, { piece: 's3' }] },
      ]),
    ).pieces[0].blank.cells;
    const grain = (cells: typeof straight, id: string) => cells.find((cell) => cell.id === id)?.toLog[8];
    expect(grain(turned, 's1')).toBe(-(grain(straight, 's1') ?? 0));
    expect(grain(turned, 's2')).toBe(grain(straight, 's2'));
  });
  it.each([
    'width',
    'length',
    'thickness',
  ] as const)('a spacer leaves its gap open before its part along the %s', (along) => {
    const parts = (mm: number) => [
      { piece: 's1' },
      { piece: 's2', place: { spacer: { mm } } },
      { piece: 's3' },
    ];
    const [open, shut] = [30, 0].map((mm) => last(build(three, [{ ...GLUE, along, parts: parts(mm) }])));
    const axis = ['length', 'width', 'thickness'].indexOf(along);
    expect(size(open)[axis] - size(shut)[axis]).toBeCloseTo(30, 9);
    const [s1, s2, s3] = open.laid ?? [];
    // Across the width the first part lies at the far edge.
    const between = along === 'width' ? s1.min[1] - s2.max[1] : s2.min[axis] - s1.max[axis];
    expect(between).toBeCloseTo(30, 9);
    expect(along === 'width' ? s2.min[1] - s3.max[1] : s3.min[axis] - s2.max[axis]).toBeCloseTo(0, 9);
    expect([open.glue?.joints, shut.glue?.joints]).toEqual([1, 2]);
    expect(open.glue?.areaMm2).toBeLessThan(shut.glue?.areaMm2 ?? 0);
    closes(build(three, [{ ...GLUE, along, parts: parts(30) }]));
  });
  it('lays what its parts have become since in the place where they lay, and leaves spares where they are', () => {
    const cut: Step = {
      ...{ id: 'cut', kind: 'slice', inputs: ['strips'], output: 'cuts', saw: 'table-full', count: 2 },
      ...{ head: { mm: 0 }, thickness: { mm: 200 }, only: ['s1'] },
    };
    const parts = [{ piece: 's2' }, { piece: 's1' }];
    const step = last(build(three, [cut, { ...GLUE, inputs: ['strips', 'cuts'], parts }]));
    expect(step.laid?.map(({ piece }) => piece)).toEqual(['s2', 'cut.1', 'cut.2']);
  });
  it('of one part says so, with the way to take it out', () => {
    const { problems } = run(build(three.slice(0, 1), [GLUE]));
    expect(problems).toMatchObject([
      { code: 'one-part', fixes: [{ edit: { do: 'removeStep', step: 'glue' } }] },
    ]);
  });
  it('books parts that are not laid as spares, so that the ledger still closes', () => {
    const document = build(three, [{ ...GLUE, parts: [{ piece: 's1' }, { piece: 's2' }] }]);
    const timeline = run(document);
    expect(timeline.problems).toMatchObject([{ code: 'part-not-laid', numbers: { missing: 1, parts: 3 } }]);
    expect(lostTo(timeline.ledger, 'offcut')).toBeCloseTo(500 * 60 * 25, 6);
    closes(document);
  });
});
