import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isRefused, type Brief, type BuildDocument, DIMENSIONS } from '../../document';
import { mustEdit } from '../../edit';
import { defaultShop, type ShopSnapshot } from '../../kit';
import { run } from '../../run';
import { blankVolume, CAUSES, extents, lostTo } from '../../solid';
import type { Timeline } from '../../steps';
import { fit, mustFit } from '../fit';
import type { Pattern } from './pattern';
import { PATTERNS } from './patterns';
import { startingBrief } from './start';

const inchShop = defaultShop('inch');

const metricShop: ShopSnapshot = {
  ...defaultShop('metric'),
  settingStep: { mm: 0.1 },
  display: { system: 'mm', fraction: 0 },
};

const rule = {
  id: 'own',
  name: 'Own',
  strips: [
    { species: 'maple_sugar', share: 0.5 },
    { species: 'walnut_black', share: 0.2, rollOver: true },
    { species: 'cherry_black', share: 0.3, endForEnd: true },
  ],
};

const start = (pattern: Pattern, shop: ShopSnapshot): Brief => startingBrief(pattern.id, shop);

const plan = (brief: Brief, shop: ShopSnapshot) =>
  mustFit(brief, { ...shop, layUps: [rule] }, { name: brief.pattern, use: '' });

/** Everything a planned pattern promises when it is played forward. */
function checkForward(build: BuildDocument): Timeline {
  const timeline = run(build);
  expect(timeline.problems.filter(({ severity }) => severity !== 'note')).toEqual([]);
  const { finished } = timeline;
  if (!finished) throw new Error('nothing was finished');
  const kept = finished.pieces.reduce((sum, { blank }) => sum + blankVolume(blank), 0);
  const gone = CAUSES.reduce((sum, cause) => sum + lostTo(timeline.ledger, cause), 0);
  expect(Math.abs(timeline.woodInMm3 - kept - gone - timeline.leftOverMm3) / timeline.woodInMm3).toBeLessThan(
    1e-9,
  );
  return timeline;
}

/** The sizes asked for, to the tolerances of the architecture, and a full bounding box for rectangular pieces. */
function checkSize(build: BuildDocument, timeline: Timeline): void {
  const slack = build.brief?.pattern === 'chevron' || build.brief?.pattern === 'cubes' ? 2e-4 : 1e-6;
  const [target] = build.targets;
  for (const { blank } of timeline.finished?.pieces ?? []) {
    const size = extents(blank);
    DIMENSIONS.forEach((name, axis) => {
      const { aim, value } = target[name];
      if (aim === 'fixed' && value) expect(Math.abs(size[axis] - value.mm), name).toBeLessThan(slack);
    });
    if (build.brief?.pattern === 'corner' || build.brief?.pattern === 'leg') continue;
    const full = size[0] * size[1] * size[2];
    expect(Math.abs(blankVolume(blank) - full) / full).toBeLessThan(1e-9);
  }
}

describe.each(PATTERNS.map((pattern) => [pattern.id, pattern] as const))('%s', (_id, pattern) => {
  it('begins with a plan that comes out, with notes at most', () => {
    for (const shop of [inchShop, metricShop]) {
      const build = plan(start(pattern, shop), shop);
      checkSize(build, checkForward(build));
    }
  });
  it('comes out at random sizes, in inches and in millimetres', () => {
    fc.assert(
      fc.property(
        fc.boolean(),
        fc.double({ min: 0.8, max: 1.4, noNaN: true }),
        fc.double({ min: 0.8, max: 1.4, noNaN: true }),
        fc.double({ min: 0.85, max: 1.3, noNaN: true }),
        fc.integer({ min: 1, max: 50 }),
        (metric, l, w, m, seed) => {
          const shop = metric ? metricShop : inchShop;
          const brief = start(pattern, shop);
          const round = (mm: number) => (metric ? Math.round(mm) : (Math.round(mm / 1.5875) * 25.4) / 16);
          const sized = (name: 'length' | 'width', k: number) => ({
            aim: 'fixed' as const,
            value: { mm: round((brief[name].value?.mm ?? 0) * k) },
          });
          const seeded = pattern.measures.some(({ key }) => key === 'seed') ? { measures: { seed } } : {};
          const change = {
            length: sized('length', l),
            width: sized('width', w),
            module: { mm: round(brief.module.mm * m) },
          };
          const build = plan({ ...brief, ...change, ...seeded }, shop);
          checkSize(build, checkForward(build));
        },
      ),
      { seed: 20268, numRuns: 8 },
    );
  });
  it('is planned again in another size with its woods', () => {
    const build = plan(start(pattern, inchShop), inchShop);
    const wider = mustEdit(build, {
      do: 'replan',
      change: { length: { aim: 'fixed', value: { mm: (build.brief?.length.value?.mm ?? 0) * 1.125 } } },
    });
    checkSize(wider, checkForward(wider));
    expect(new Set(wider.assemblies.flatMap((a) => a.slots.map((s) => s.species)))).toEqual(
      new Set(build.assemblies.flatMap((a) => a.slots.map((s) => s.species))),
    );
  });
  it('answers a bad measure in words, never with a broken plan', () => {
    const bad: Partial<Brief>[] = [
      { module: { mm: 0 } },
      { length: { aim: 'fixed', value: { mm: -5 } } },
      { thickness: { aim: 'fixed', value: { mm: 0 } } },
      ...pattern.measures.flatMap(({ key, kind }): Partial<Brief>[] =>
        kind === 'length'
          ? [{ measures: { [key]: { mm: -1 } } }]
          : kind === 'count' || kind === 'angle'
            ? [{ measures: { [key]: 1e6 } }, { measures: { [key]: 'many' } }]
            : [],
      ),
    ];
    for (const change of bad)
      expect(
        isRefused(fit({ ...start(pattern, inchShop), ...change }, inchShop, { name: 'bad', use: '' })),
        JSON.stringify(change),
      ).toBe(true);
  });
});
