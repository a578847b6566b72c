import { describe, expect, it } from 'vitest';
import { axisOf, type BuildDocument } from '../../document';
import { run } from '../../run';
import { extents } from '../../solid';
import { build, lost } from '../steps.fixture';
import { have, type HaveStep } from './have';

const mm = (value: number) => ({ mm: value });
const step = (change: Partial<HaveStep> = {}): HaveStep => ({
  id: 'slab',
  kind: 'have',
  inputs: [],
  output: 'slabs',
  species: 'walnut_black',
  count: 2,
  length: mm(600),
  width: mm(200),
  thickness: mm(40),
  ...change,
});
const alone = (change: Partial<HaveStep> = {}): BuildDocument => ({
  ...build([], []),
  assemblies: [],
  steps: [step(change)],
});
const first = (change: Partial<HaveStep> = {}) => run(alone(change)).steps[0];

describe('what I have', () => {
  it.each([
    'length',
    'width',
    'thickness',
  ] as const)('keeps its sizes with the grain along the %s', (grainAlong) => {
    const { pieces } = first({ grainAlong });
    expect(pieces).toHaveLength(2);
    for (const { blank } of pieces)
      expect(extents(blank)).toEqual([600, 200, 40].map((v) => expect.closeTo(v, 9)));
    // The log runs along the axis that was said: its own long direction is the third of the log's.
    const [{ toLog }] = pieces[0].blank.cells as unknown as { toLog: readonly number[] }[];
    const along = [toLog[8], toLog[9], toLog[10]].map(Math.abs);
    expect(along.indexOf(Math.max(...along))).toBe(axisOf(grainAlong));
  });
  it('counts all of its wood as wood in, and takes nothing', () => {
    const timeline = run(alone());
    expect(timeline.woodInMm3).toBeCloseTo(2 * 600 * 200 * 40, 3);
    expect(Object.values(lost(timeline.steps[0]))).toEqual([0, 0, 0, 0, 0]);
  });
  it('does not begin without a size or with a count that cannot be', () => {
    for (const change of [
      { length: mm(0) },
      { width: mm(Number.NaN) },
      { count: 0 },
      { count: 501 },
      { count: 1.5 },
    ]) {
      const { steps, problems } = run(alone(change));
      expect(steps).toEqual([]);
      expect(problems[0].severity).toBe('stop');
    }
  });
  it('says how many and of what', () => {
    expect(have.subtitle?.(step(), { strips: 0 })).toBe('2 pieces of Black walnut');
  });
});
