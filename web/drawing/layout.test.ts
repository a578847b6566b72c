import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mustEdit } from '../../core/edit';
import { outlook } from '../../core/review';
import { demoJobs } from '../../demo/jobs';
import { pieceAction, pieceActions } from '../screens/job/strip-actions';
import { layBench, onFace } from './layout';

const sceneOf = (job: number, step: string) => {
  const { scene } = outlook(demoJobs[job], step);
  if (!scene) throw new Error('no scene');
  return scene;
};

describe('the bench', () => {
  it('fits all three views into any room, at one scale, without overlap', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: demoJobs.length - 1 }),
        fc.integer({ min: 320, max: 1800 }),
        fc.integer({ min: 260, max: 1100 }),
        fc.boolean(),
        (job, width, height, under) => {
          const scene = sceneOf(job, 'trim');
          const layout = layBench(scene, under ? 'underside' : 'face', { width, height });
          const { face, edge, end } = layout;
          for (const view of [face, edge, end]) {
            expect(view.left).toBeGreaterThanOrEqual(0);
            expect(view.left + view.width).toBeLessThanOrEqual(width + 0.5);
            expect(view.top + view.height).toBeLessThanOrEqual(height + 0.5);
          }
          expect(edge.width).toBeCloseTo(face.width, 6);
          expect(end.height).toBeCloseTo(face.height, 6);
          expect(edge.height).toBeCloseTo(end.width, 6);
          expect(edge.top).toBeGreaterThan(face.top + face.height);
          expect(end.left).toBeGreaterThan(face.left + face.width);
        },
      ),
      { seed: 20282, numRuns: 60 },
    );
  });
  it('lays strips over their picture: from the far edge down, from the near edge on the underside', () => {
    const view = outlook(demoJobs[1], 'glue');
    const laid = view.steps.find(({ id }) => id === 'glue')?.laid ?? [];
    if (!view.scene) throw new Error();
    for (const side of ['face', 'underside'] as const) {
      const layout = layBench(view.scene, side, { width: 900, height: 500 });
      const tops = laid.map((part) => onFace(view.scene as never, layout, part).top);
      const sorted = tops.toSorted((a, b) => a - b);
      expect(tops).toEqual(side === 'face' ? sorted : sorted.toReversed());
      const heights = laid.map((part) => onFace(view.scene as never, layout, part).height);
      expect(heights.reduce((a, b) => a + b)).toBeCloseTo(layout.face.height, 6);
    }
  });
  it('keeps the last step that could be played when the chosen one could not', () => {
    const broken = structuredClone(demoJobs[4]);
    const slice = broken.steps.find(({ id }) => id === 'slice');
    Object.assign(slice ?? {}, { thickness: { mm: 9999 } });
    expect(outlook(broken, 'trim').scene?.step).toBe('flatten');
  });
});

describe('what can be done to a piece', () => {
  const step = (id: string) => {
    const found = demoJobs[4].steps.find((s) => s.id === id);
    if (!found) throw new Error(id);
    return found;
  };
  it('a strip is turned, rolled, doubled, removed and moved; the first cannot move up', () => {
    expect(pieceActions(demoJobs[4], step('glue'), 'strip-1').map(({ name }) => name)).toEqual([
      'End for end',
      'Roll over',
      'Duplicate',
      'Lock',
      'Remove',
      'Move down',
    ]);
    // In a glue-up that was split, a strip chosen at an earlier step is turned where it is laid.
    const split = mustEdit(demoJobs[4], { do: 'splitGlue', step: 'glue', joints: [4] });
    const rip = split.steps.find(({ id }) => id === 'rip');
    const [turn] = rip ? pieceActions(split, rip, 'strip-6') : [];
    expect(turn.edit).toMatchObject({ do: 'turnPart', step: 'glue-section-2', piece: 'strip-6' });
    expect(pieceActions(demoJobs[4], step('glue'), 'strip-8').map(({ name }) => name)).toContain('Move up');
  });
  it('a slice does the opposite of its rule; other steps offer nothing', () => {
    expect(pieceActions(demoJobs[4], step('glue-block'), 'slice.3')).toMatchObject([
      { name: 'End for end', edit: { do: 'flipSlice', part: 3 } },
    ]);
    expect(pieceActions(demoJobs[4], step('slice'), 'slice.3')).toMatchObject([
      { name: 'Spoilt', key: 'x', edit: { do: 'spoil', step: 'slice', piece: 'slice.3' } },
    ]);
    expect(pieceActions(demoJobs[4], step('trim'), 'slice.3')).toEqual([]);
    expect(pieceActions(demoJobs[4], step('glue'), 'nobody')).toEqual([]);
  });
  it('keys find their action, in either case', () => {
    expect(pieceAction(demoJobs[4], step('glue'), 'strip-2', { key: 'E' })?.name).toBe('End for end');
    expect(pieceAction(demoJobs[4], step('glue'), 'strip-2', { key: 'Backspace' })?.name).toBe('Remove');
    expect(pieceAction(demoJobs[4], step('glue'), 'strip-2', { key: 'q' })).toBeUndefined();
  });
  it('a part of a glue-up can be held back, but not the last one', () => {
    const back = pieceAction(demoJobs[4], step('glue'), 'strip-2', {
      key: 'h',
      laid: ['strip-1', 'strip-2'],
    });
    expect(back).toMatchObject({ name: 'Hold back', edit: { do: 'layParts', step: 'glue' } });
    expect(
      pieceAction(demoJobs[4], step('glue'), 'strip-2', { key: 'h', laid: ['strip-2'] }),
    ).toBeUndefined();
    expect(pieceAction(demoJobs[4], step('slice'), 'slice.3', { key: 'h', laid: [] })).toBeUndefined();
  });
  it('every action changes the build', () => {
    for (const [id, piece] of [
      ['glue', 'strip-3'],
      ['rip', 'strip-3'],
      ['glue-block', 'slice.5'],
    ])
      for (const { edit } of pieceActions(demoJobs[4], step(id), piece))
        expect(mustEdit(demoJobs[4], edit)).not.toEqual(demoJobs[4]);
  });
});
