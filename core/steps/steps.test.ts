import { describe, expect, it } from 'vitest';
import type { Step } from '../document';
import { typed } from '../kit';
import { run } from '../run';
import { build, closes, GLUE, last, shop, slot, three } from './steps.fixture';
import { toleranceOf } from './tolerance';

describe('the graph', () => {
  it('refuses an output used twice or made by nobody, and keeps what came before', () => {
    const twice = run(build(three, [GLUE, { ...GLUE, id: 'again', output: 'other' }]));
    expect(twice.problems).toMatchObject([{ code: 'used-twice', step: 'again' }]);
    expect(twice.steps).toHaveLength(2);
    expect(run(build(three, [{ ...GLUE, inputs: ['nothing'] }])).problems).toMatchObject([
      { code: 'no-such-input' },
    ]);
    expect(run(build(three, [{ ...GLUE, inputs: [] }])).problems).toMatchObject([{ code: 'no-input' }]);
    expect(run(build([], [])).problems).toMatchObject([
      { code: 'no-strips', fixes: [{ label: 'Add a strip' }] },
    ]);
  });
  it('a step that is not computed yet passes pieces through and is said', () => {
    const timeline = run(
      build(three, [
        GLUE,
        { id: 'h', kind: 'shape', inputs: ['panel'], output: 'holed', settings: { holes: 4 } },
      ]),
    );
    expect(timeline.problems).toMatchObject([{ code: 'not-run-yet', step: 'h', severity: 'note' }]);
    expect(timeline.steps[2].greatest).toEqual(timeline.steps[1].greatest);
  });
  it('goes on after any step that passes pieces through: they are that step’s own, and nothing is lost or doubled', () => {
    const through: Step[] = [
      { id: 'x', kind: 'rest', inputs: ['panel'], output: 'x', hours: 24 },
      { id: 'x', kind: 'finish', inputs: ['panel'], output: 'x' },
      { id: 'x', kind: 'surface', inputs: ['panel'], output: 'x' },
      { id: 'x', kind: 'outside', inputs: ['panel'], output: 'x' },
      { id: 'x', kind: 'shape', inputs: ['panel'], output: 'x' },
    ];
    for (const step of through) {
      const after: Step = {
        id: 'flat',
        kind: 'flatten',
        inputs: ['x'],
        output: 'flat',
        machine: shop.machines[0].id,
        top: { mm: 1 },
        bottom: { mm: 1 },
      };
      const document = build(three, [GLUE, step, after]);
      const timeline = run(document);
      expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
      expect(timeline.steps.at(-1)?.greatest[2]).toBeCloseTo(23, 9);
      expect(timeline.leftOverMm3).toBe(0);
      closes(document);
      // What the step was given is used up: nothing else can take it.
      const twice = run(build(three, [GLUE, step, { ...after, inputs: ['panel'] }]));
      expect(twice.problems.at(-1)?.code).toBe('used-twice');
    }
  });
  const wanted = (output: string) => ({
    id: 't',
    purpose: '',
    quantity: 1,
    output,
    length: { aim: 'free' as const },
    width: { aim: 'free' as const },
    thickness: { aim: 'free' as const },
  });
  it('wood that no step used any more is left over, not lost', () => {
    const aside: Step = { id: 'aside', kind: 'rest', inputs: ['strips'], output: 'aside', only: ['s3'] };
    const two = run(build(three, [aside, GLUE], { targets: [wanted('panel')] }));
    expect(two.leftOverMm3).toBeCloseTo(500 * 60 * 25, 3);
    expect(two.finished?.greatest[1]).toBeCloseTo(90, 9);
  });
  it('a piece wanted of what was used up since is what became of it', () => {
    const used = run(build(three, [GLUE], { targets: [wanted('strips')] }));
    expect(used.finished?.id).toBe('glue');
    expect(used.leftOverMm3).toBe(0);
  });
  it('repeats and further targets are kept and said', () => {
    const more = build(three, [GLUE], {
      readings: [{ id: 'r', step: 'glue', dimension: 'width', measured: typed('5') }],
    });
    more.assemblies[0].repeat = 3;
    const codes = run(more).problems.map(({ message }) => message.join(''));
    expect(codes.join(' ')).toContain('3 times');
  });
  it('weighs pieces by their woods', () => {
    const maple = last(build([slot('s', 1000, 100, 10)], []));
    expect(maple.massKg).toBeCloseTo(0.001 * 1000 * 0.63 * 1.08, 2); // specific gravity 0.63 at 12 %, Wood Handbook Table 5-3, from memory
  });
  it('is pure: the same build twice gives the same timeline', () => {
    const document = build(three, [GLUE]);
    expect(JSON.stringify(run(document))).toBe(JSON.stringify(run(structuredClone(document))));
  });
});

describe('errors of sums', () => {
  it('a source that is not in the book counts nothing, weights count by size', () => {
    const sources = new Map([
      ['a', { id: 'a', label: '', likelyMm: 0.1, worstMm: 0.3, basis: '' }],
      ['b', { id: 'b', label: '', likelyMm: 0.2, worstMm: 0.4, basis: '' }],
    ]);
    expect(toleranceOf({ a: 3, b: -2, gone: 5 }, sources)).toEqual({
      likelyMm: expect.closeTo(Math.hypot(0.3, 0.4), 12),
      worstMm: expect.closeTo(1.7, 12),
    });
    expect(toleranceOf({}, sources)).toEqual({ likelyMm: 0, worstMm: 0 });
  });
});
