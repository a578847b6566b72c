import { describe, expect, it } from 'vitest';
import type { BuildDocument } from '../document';
import { shopAlone } from '../kit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { costOf, groupSums, type MadeCost, madeCost } from '.';

const kit = shopWith({
  currency: 'EUR',
  rates: { handMinor: 3000, wood: [{ species: 'cherry_black', minor: 400_000 }] },
});
const doneAt = (i: number) => new Date(Date.parse('2026-03-02T08:00:00Z') + i * 86_400_000).toISOString();
const made = (): BuildDocument => {
  const build = plannedFor(panelBrief({ quantity: 2 }), shopAlone(kit));
  return { ...build, steps: build.steps.map((step, i) => ({ ...step, done: true, doneAt: doneAt(i) })) };
};
const cost = (build: BuildDocument): MadeCost => {
  const found = madeCost({ job: 'j', name: 'Panel', build }, kit);
  if (!found) throw new Error('no cost');
  return found;
};

describe('what jobs cost that were made', () => {
  it('is what each says by itself, kind by kind, and the kinds make the sum to the minor unit', () => {
    const build = made();
    const whole = costOf(build, run(build), kit);
    const found = cost(build);
    expect(found).toMatchObject({
      job: 'j',
      name: 'Panel',
      at: doneAt(build.steps.length - 1),
      pieces: 2,
      plannedMinor: whole?.plannedMinor,
      realMinor: whole?.realMinor,
      unpriced: whole?.unpriced.length,
    });
    const all = Object.values(found.groups);
    expect(all.reduce((sum, { plannedMinor }) => sum + plannedMinor, 0)).toBe(found.plannedMinor);
    expect(all.reduce((sum, { realMinor }) => sum + realMinor, 0)).toBe(found.realMinor);
    expect(found.plannedMinor).toBeGreaterThan(0);
  });
  it('says at how many steps nobody timed the hands', () => {
    const build = made();
    const { untimed } = cost(build);
    expect(untimed).toBeGreaterThan(1);
    const from = '2026-03-02T08:00:00.000Z';
    const rip = build.steps.find(({ kind }) => kind === 'rip');
    const steps = build.steps.map((step) =>
      step === rip ? { ...step, work: [{ from, to: '2026-03-02T08:30:00.000Z' }] } : step,
    );
    const timed = cost({ ...build, steps });
    expect(timed.untimed).toBe(untimed - 1);
    expect(timed.groups.hands?.realMinor).toBe(1500);
  });
  it('is not told before the last step is done; a step that is left out need not be', () => {
    const build = made();
    const but = (part: object) => ({
      ...build,
      steps: build.steps.map((step, i) => (i === 1 ? { ...step, done: false, ...part } : step)),
    });
    expect(madeCost({ job: 'j', name: 'x', build: but({}) }, kit)).toBeUndefined();
    expect(madeCost({ job: 'j', name: 'x', build: but({ off: true }) }, kit)).toBeDefined();
    expect(madeCost({ job: 'j', name: 'x', build: { ...build, steps: [] } }, kit)).toBeUndefined();
    expect(madeCost({ job: 'j', name: 'x', build }, shopWith())).toBeUndefined();
  });
  it('adds up over jobs by kind; kinds that cost nothing are left out', () => {
    const one = cost(made());
    const sums = groupSums([one, one, { ...one, groups: {} }]);
    expect(sums.length).toBe(Object.keys(one.groups).length);
    for (const { group, plannedMinor, realMinor } of sums)
      expect({ plannedMinor, realMinor }).toEqual({
        plannedMinor: 2 * (one.groups[group]?.plannedMinor ?? 0),
        realMinor: 2 * (one.groups[group]?.realMinor ?? 0),
      });
    expect(groupSums([])).toEqual([]);
  });
});
