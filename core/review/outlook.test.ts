import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import type { BuildDocument } from '../document';
import { mustEdit } from '../edit';
import { run } from '../run';
import { CAUSES } from '../solid';
import { compareTarget, outlook, review } from '.';

const block = demoJobs[4];

describe('what the screen reads', () => {
  it('is plain data: it survives being sent to another thread', () => {
    for (const build of demoJobs) {
      const view = outlook(build, build.steps[2].id);
      expect(structuredClone(view)).toEqual(view);
      expect(JSON.parse(JSON.stringify(view)).steps).toHaveLength(build.steps.length);
    }
  });
  it('adds up: losses of all steps and the piece are the wood that went in', () => {
    for (const build of demoJobs) {
      const view = outlook(build, undefined);
      const lost = view.steps.reduce(
        (sum, step) => sum + CAUSES.reduce((all, cause) => all + step.lost[cause], 0),
        0,
      );
      expect((lost + view.finishedMm3) / view.woodInMm3).toBeCloseTo(1, 9);
    }
  });
  it('lays the chosen step on the bench, with a box for each piece inside the whole', () => {
    const { scene } = outlook(block, 'slice');
    expect(scene?.pieces).toHaveLength(12);
    for (const { box } of scene?.pieces ?? [])
      for (const axis of [0, 1, 2]) {
        expect(box.min[axis]).toBeGreaterThanOrEqual((scene?.box.min[axis] ?? 0) - 1e-9);
        expect(box.max[axis]).toBeLessThanOrEqual((scene?.box.max[axis] ?? 0) + 1e-9);
      }
  });
  it('has nothing on the bench when not even the first step can be played', () => {
    const empty: BuildDocument = { ...block, assemblies: [{ ...block.assemblies[0], slots: [] }] };
    const view = outlook(empty, 'trim');
    expect([view.scene, view.steps.length, view.comparison]).toEqual([undefined, 0, undefined]);
    expect(view.findings[0].code).toBe('no-strips');
  });
  it('findings keep their order, the run’s own first', () => {
    const odd = mustEdit(mustEdit(block, { do: 'removeStrip', step: 'rip', strip: 'strip-8' }), {
      do: 'setStep',
      step: 'trim',
      change: { near: { mm: 9 } },
    });
    const codes = () => review(odd, run(odd)).map(({ code }) => code);
    expect(codes()).toEqual(codes());
    expect(codes()).toEqual(expect.arrayContaining(['odd-columns', 'lopsided-trim', 'target-not-reached']));
  });
  it('a target counts as met within its tolerance, or within a quarter of the shop’s step', () => {
    const off = (mm: number, tolerance?: number) => {
      const trim = block.steps.find(({ id }) => id === 'trim') as { near: { mm: number } };
      const shifted = mustEdit(block, {
        do: 'setStep',
        step: 'trim',
        change: { near: { mm: trim.near.mm + mm } },
      });
      const build =
        tolerance === undefined
          ? shifted
          : { ...shifted, targets: [{ ...shifted.targets[0], tolerance: { mm: tolerance } }] };
      return compareTarget(build, run(build))?.[1].fits;
    };
    expect([off(0.15), off(0.25), off(0.25, 0.5), off(0.6, 0.5)]).toEqual([true, false, true, false]);
  });
});
