import { describe, expect, it } from 'vitest';
import { demo } from '../../demo';
import { type BuildDocument, DIMENSIONS } from '../document';
import { adhesiveFor, amountFor, glueUpOf, planClamps } from '../glueup';
import { clampsOf } from '../kit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { compareTarget, woodShare } from '../review';
import { run } from '../run';
import { valueOf, workedClamps, workedGlue, workedShare, workedSize, workedTolerance } from '.';
import { expectWorked } from './worked.fixture';

const shop = shopWith();
const builds: [string, BuildDocument][] = [
  ['a panel', plannedFor(panelBrief({}), shop)],
  ['a block', plannedFor(panelBrief(CHEQUER), shop)],
  ...demo.jobs.map((job): [string, BuildDocument] => [job.name, job]),
];

describe.each(builds)('how a number came about, checked by its own text: %s', (_name, build) => {
  const timeline = run(build);
  it('the sizes that come out, and how far off they may be', () => {
    const comparison = compareTarget(build, timeline);
    let made = 0;
    for (const [axis, dimension] of DIMENSIONS.entries()) {
      const size = workedSize(build, dimension);
      // What cannot be added up (curves, oblique cuts) is not offered.
      if (size) {
        made += 1;
        expectWorked(size, timeline.finished?.greatest[axis] ?? 0, dimension);
      }
      const tolerance = workedTolerance(build, dimension);
      if (tolerance) expectWorked(tolerance, timeline.finished?.tolerance[axis].likelyMm ?? 0, dimension);
    }
    expect(comparison).toBeDefined();
    expect(made).toBeGreaterThan(0);
  });
  it('clamps and glue of each glue-up, and the share of the wood', () => {
    for (const { id, kind } of build.steps) {
      const glueUp = kind === 'glue' ? glueUpOf(build, timeline, id) : undefined;
      if (!glueUp) continue;
      const plan = planClamps(glueUp, build.shop);
      const clamps = workedClamps(build, id);
      if (clamps) expectWorked(clamps, plan.clamps.length * glueUp.blanks, `clamps of ${id}`);
      const facts = adhesiveFor(glueUp, build.shop);
      const glue = workedGlue(build, id);
      if (facts && glue) expectWorked(glue, amountFor(glueUp, facts, build.shop).toTakeG, `glue of ${id}`);
    }
    const share = workedShare(build);
    const finished = timeline.finished;
    if (share && finished) {
      const pct = woodShare(build, timeline.woodInMm3, (valueOf(share.sum) / 100) * timeline.woodInMm3)?.pct;
      expect(pct).toBe(Math.round(valueOf(share.sum)));
      expectWorked(share, valueOf(share.sum), 'share');
    }
  });
});

describe('what decides the number of clamps', () => {
  it('is the force where the clamps are weak, and the text says with which', () => {
    const weak = shopWith({ clamps: clampsOf(shop).map((set) => ({ ...set, forceN: 300, count: 200 })) });
    const build = plannedFor(panelBrief({}), weak);
    const id = build.steps.find(({ kind }) => kind === 'glue')?.id ?? '';
    const glueUp = glueUpOf(build, run(build), id);
    const plan = glueUp && planClamps(glueUp, weak);
    expect(plan?.governs).toBe('force');
    expectWorked(workedClamps(build, id), plan?.clamps.length ?? 0, 'by force');
  });
});
