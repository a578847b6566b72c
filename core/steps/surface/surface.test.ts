import { describe, expect, it } from 'vitest';
import { LADDERS, LADDER_NAMES, SHEET_M2, takesOf } from '../../kit';
import { expectMended } from '../../review/mended.fixture';
import { run } from '../../run';
import { applyEdit } from '../../edit';
import type { BuildDocument } from '../../document';
import type { Feature } from '../feature';
import type { FeatureStep } from '../feature/feature';
import { balanced, build, GLUE, last, lost, size, slot, three } from '../steps.fixture';
import { blankVolume } from '../../solid';
import { softened } from './edges';
import { surface, surfacedMm, type SurfaceStep } from './surface';

const step: SurfaceStep = { id: 's', kind: 'surface', inputs: ['panel'], output: 'smooth' };
const played = (own: SurfaceStep) => {
  const document = build(three, [GLUE, own]);
  return { build: document, entry: last(document) };
};

describe('surface', () => {
  it('of an earlier file says nothing: sizes pass through, with a note, whatever settings it holds', () => {
    for (const each of [step, { ...step, settings: { grit: [80, 120], by: 'hand' } }]) {
      const timeline = run(build(three, [GLUE, each]));
      const [glued, smooth] = timeline.steps.slice(-2);
      expect(size(smooth)).toEqual(size(glued));
      expect(timeline.problems).toMatchObject([{ step: 's', severity: 'note' }]);
    }
  });

  it('what a ladder takes off is booked as dust, faces alone or edges and ends too', () => {
    const ladder: SurfaceStep = { ...step, by: 'sand', after: 'routed', grits: [80, 120, 180] };
    // Half of what made the scratches: 0.15 of ridges, 0.201 / 2, 0.125 / 2 (mean grains: FEPA 43-1, from memory).
    const takes = 0.15 + 0.1005 + 0.0625;
    expect(surfacedMm(ladder)).toBeCloseTo(takes, 9);
    const done = last(build(three, [GLUE, ladder]));
    expect(size(done)[2]).toBeCloseTo(25 - 2 * takes, 6);
    expect(size(done).slice(0, 2)).toEqual([500, 150]);
    expect(lost(done).dust).toBe(Math.round(500 * 150 * 2 * takes));
    const round = last(build(three, [GLUE, { ...ladder, edges: true }]));
    expect(size(round)[0]).toBeCloseTo(500 - 2 * takes, 6);
    expect(size(round)[1]).toBeCloseTo(150 - 2 * takes, 6);
    balanced(build(three, [GLUE, { ...ladder, edges: true }]));
    expect(lost(last(build(three, [GLUE, { ...step, by: 'plane' }]))).shaving).toBeGreaterThan(0);
  });

  it('a chamfer of 1 after a ladder of 0.3 keeps 0.7 of its depth, in the report and in the wood', () => {
    const chamfer = {
      id: 'e',
      kind: 'edge',
      side: 'upper',
      u: { from: 'middle', by: { mm: 0 } },
      v: { from: 'middle', by: { mm: 0 } },
      profile: 'chamfer',
      size: { mm: 1 },
      which: 'edges',
    } as unknown as Feature;
    const cut: FeatureStep = {
      id: 'cut',
      kind: 'feature',
      inputs: ['panel'],
      output: 'cut',
      features: [chamfer],
      edges: 'now',
    };
    const sanded: SurfaceStep = { ...step, inputs: ['cut'], by: 'sand', grits: [120], face: { mm: 0.3 } };
    const document = build(three, [GLUE, cut, sanded]);
    const [fact] =
      surface
        .facts?.(sanded, { build: document, entry: last(document) })
        .filter(({ name }) => name.startsWith('Edge')) ?? [];
    expect(fact.says[1]).toEqual({ mm: 0.7 });
    // What is hollow along both long edges: triangles of 0.7 in place of 1, all along 500.
    const whole = last(build(three, [GLUE, { ...sanded, inputs: ['panel'] }]));
    const left = (entry: typeof whole) =>
      entry.pieces.reduce((sum, { blank }) => sum + blankVolume(blank), 0);
    const gone = left(whole) - left(last(document));
    // A profile is kept in levels: cut between two of them it is off by one, here of 1 mm in 8 (how-it-works.md).
    expect(Math.abs(gone - (2 * 500 * 0.7 * 0.7) / 2)).toBeLessThan((2 * 500 * 0.7) / 8);
    expect(softened([chamfer as never], 0.3, true)[0].says[0]).toBe('keeps ');
    expect(softened([chamfer as never], 0.6, false)[0].state).toBe('close');
  });

  it('begins with the ladder for how the faces were made: by the machine before it, or end grain', () => {
    const flat = (machine: string) => ({
      id: 'flat',
      kind: 'flatten' as const,
      inputs: ['panel'],
      output: 'flat',
      machine,
      top: { mm: 1 },
      bottom: { mm: 1 },
    });
    const begun = (document: BuildDocument, after: string) => {
      const next = applyEdit(document, { do: 'addStep', kind: 'surface', after });
      return 'refused' in next
        ? undefined
        : (next.steps.find(({ kind }) => kind === 'surface') as SurfaceStep);
    };
    expect(begun(build(three, [GLUE, flat('planer')]), 'flat')).toMatchObject({
      after: 'planed',
      grits: LADDERS.planed.grits,
    });
    expect(begun(build(three, [GLUE, flat('sled')]), 'flat')?.after).toBe('routed');
    expect(begun(build(three, [GLUE, flat('drum')]), 'flat')?.after).toBe('sanded');
    const own = build(three, [GLUE, flat('planer')], {
      shop: { ...build([], []).shop, ladders: [{ after: 'planed', grits: [100, 150] }] },
    });
    expect(begun(own, 'flat')?.grits).toEqual([100, 150]);
  });

  it('finds grits that go back or skip too far, and mends them', () => {
    for (const grits of [
      [120, 80],
      [60, 180],
    ])
      expectMended(build(three, [GLUE, { ...step, by: 'sand', grits }]), 'grits-out-of-order');
    for (const after of LADDER_NAMES) {
      const { grits, marksMm } = LADDERS[after];
      const own: SurfaceStep = { ...step, by: 'sand', after, grits: [...grits] };
      expect(surface.findings?.(own, played(own))).toEqual([]);
      const takes = takesOf(grits, marksMm);
      expect(takes.slice(2).every((mm, i) => mm < takes[i + 1])).toBe(true);
    }
  });

  it('tells sheets and minutes by area, and wants so many sheets of each grit', () => {
    const own: SurfaceStep = { ...step, by: 'sand', grits: [120, 180] };
    const { entry } = played(own);
    // 2 x 500 x 150 = 0.15 m2: a sheet each, ten minutes a square metre and grit.
    expect(surface.needs?.(own, { pieces: entry.pieces })).toEqual([
      { what: 'supply', kind: 'abrasive', size: 'P120', amount: 1 },
      { what: 'supply', kind: 'abrasive', size: 'P180', amount: 1 },
    ]);
    expect(surface.labour.minutes?.(own, entry.pieces)).toBeCloseTo(10 + 0.15 * 10 * 2, 6);
    expect(surface.needsSettled).toBe(true);
  });

  it('a reading explains what the ladder really takes', () => {
    const own: SurfaceStep = { ...step, by: 'sand', after: 'planed', grits: [120, 150] };
    const next = surface.explains?.(own, 'thickness', 0.2, 24) as SurfaceStep;
    expect(surfacedMm(next)).toBeCloseTo(surfacedMm(own) + 0.1, 9);
    expect(surface.explains?.(own, 'width', 0.2, 24)).toBeUndefined();
  });
});

it('is sanded with as many sheets as its faces ask for, end grain counted twice', () => {
  const needed = (long: number, wide: number, edges: boolean) => {
    const own = {
      ...step,
      by: 'sand',
      after: 'routed',
      grits: [120, 180],
      ...(edges ? { edges } : {}),
    } as SurfaceStep;
    const job = build([slot('a', long, wide, 25), slot('b', long, wide, 25)], [GLUE]);
    const needs = surface.needs?.(own, last(job)) ?? [];
    return needs.map((need) => (need as { amount?: number }).amount);
  };
  const sheets = (m2: number) => Math.max(1, Math.ceil(m2 / SHEET_M2));
  // 3 m by 2 m: 12 m2 of faces; its edges 0.15, its ends 0.1 that count as 0.2.
  expect(needed(3000, 1000, false)).toEqual([sheets(12), sheets(12)]);
  expect(needed(3000, 1000, true)).toEqual([sheets(12.35), sheets(12.35)]);
  // Just as much as sheets take, and a small piece takes one all the same.
  expect(needed(1000, 250, false)).toEqual([2, 2]);
  expect(needed(300, 60, true)).toEqual([1, 1]);
});
