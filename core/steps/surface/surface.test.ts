import { describe, expect, it } from 'vitest';
import { run } from '../../run';
import { build, GLUE, size, three } from '../steps.fixture';
import { surface, type SurfaceStep } from './surface';

const step: SurfaceStep = { id: 's', kind: 'surface', inputs: ['panel'], output: 'smooth' };

describe('surface', () => {
  it('sizes pass through, with a note, whatever settings a file holds', () => {
    for (const each of [step, { ...step, settings: { grit: [80, 120], by: 'hand' } }]) {
      const timeline = run(build(three, [GLUE, each]));
      const [glued, smooth] = timeline.steps.slice(-2);
      expect(size(smooth)).toEqual(size(glued));
      expect(timeline.problems).toMatchObject([{ step: 's', severity: 'note' }]);
    }
  });
  it('waits until glue has settled, and wants something to sand with', () => {
    expect(surface.needsSettled).toBe(true);
    expect(surface.needs?.(step, { pieces: [] })).toEqual([{ what: 'supply', kind: 'abrasive' }]);
  });
});
