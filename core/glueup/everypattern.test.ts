import { describe, expect, it } from 'vitest';
import { mustFit, PATTERNS, startingBrief } from '../plan';
import { review } from '../review';
import { SHOPS } from '../review/scenarios.fixture';
import { run } from '../run';
import { glueUpsOf } from './glueup';
import { pressureQuickly } from './linereading';
import { plannedGlueUp } from './planned';

const { inch, mm: metric } = SHOPS;

/** Every number anywhere in a plan. */
function numbersIn(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  if (value && typeof value === 'object') return Object.values(value).flatMap(numbersIn);
  return [];
}

describe.each(PATTERNS.map((pattern) => [pattern.id] as const))('the glue-ups of %s', (id) => {
  it.each([
    ['inches', inch],
    ['millimetres', metric],
  ] as const)('are planned whole, in %s', (_units, shop) => {
    const build = mustFit(startingBrief(id, shop), shop, { name: id, use: '' });
    const timeline = run(build);
    const glueUps = glueUpsOf(build, timeline);
    expect(glueUps).toHaveLength(build.steps.filter(({ kind }) => kind === 'glue').length);
    for (const glueUp of glueUps) {
      const booked = timeline.steps.find((step) => step.id === glueUp.step.id)?.glue?.areaMm2 ?? 0;
      expect((glueUp.areaMm2 * glueUp.blanks) / booked, 'as much area as the run booked').toBeCloseTo(1, 6);
      const bySide = Object.values(glueUp.sides).reduce((sum, area) => sum + area, 0);
      expect(bySide / glueUp.areaMm2).toBeCloseTo(1, 9);
      // Every part is in one course, and courses do not overlap in the direction of the clamps.
      expect(glueUp.courses.flatMap(({ parts }) => parts).toSorted((a, b) => a - b)).toEqual(
        Array.from({ length: glueUp.parts }, (_, i) => i + 1),
      );
      const spans = glueUp.courses.map(({ from, to }) => [from, to]).toSorted((a, b) => a[0] - b[0]);
      spans.slice(1).forEach(([from], i) => expect(from).toBeGreaterThanOrEqual(spans[i][1] - 0.05 - 1e-6));
      const plan = plannedGlueUp(build, timeline, glueUp.step.id, '2027-01-01');
      if (!plan) {
        expect(glueUp.lines).toEqual([]);
        continue;
      }
      expect(numbersIn(plan).every(Number.isFinite)).toBe(true);
      if (glueUp.askew) continue;
      expect(plan.clamps.clamps.length).toBeGreaterThan(0);
      for (const { at } of plan.clamps.clamps) {
        expect(at).toBeGreaterThan(0);
        expect(at).toBeLessThan(glueUp.lengthMm);
      }
      expect(plan.clamps.totalN).toBeLessThanOrEqual(plan.clamps.neededN * (1 + 1e-9));
      if (glueUp.courses.length > 14) continue;
      const { joints } = pressureQuickly(glueUp, plan.clamps, shop);
      expect(joints).toHaveLength(glueUp.lines.length);
      for (const { mpa } of joints) expect(Math.min(...mpa)).toBeGreaterThanOrEqual(0);
    }
  });
  it('are reviewed without a word that has no number', () => {
    const build = mustFit(startingBrief(id, inch), inch, { name: id, use: '' });
    for (const finding of review(build, run(build), '2027-01-01')) {
      if (finding.severity !== 'warning') continue;
      expect(Object.values(finding.numbers).length, finding.code).toBeGreaterThan(0);
      expect(Object.values(finding.numbers).every(Number.isFinite), finding.code).toBe(true);
    }
  });
});
