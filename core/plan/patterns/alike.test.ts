import { describe, expect, it } from 'vitest';
import type { Brief, PatternId } from '../../document';
import { defaultShop } from '../../kit';
import { run } from '../../run';
import { blankVolume, CAUSES, extents, lostTo } from '../../solid';
import { fixed, panelBrief, plannedFor } from '../briefs.fixture';
import { mustFit } from '../fit';
import { patternOf, PATTERNS } from './patterns';
import { startingBrief } from './start';

const shop = defaultShop('alike');

const batch = PATTERNS.filter((pattern) => pattern.batch).map(({ id }) => [id] as const);

const alike = (id: PatternId, quantity: number, change: Partial<Brief> = {}) =>
  mustFit({ ...startingBrief(id, shop), quantity, ...change }, shop, { name: id, use: '' });

describe.each(batch)('four alike of %s', (id) => {
  const kinds = patternOf(id).measures.find(({ key }) => key === 'grain' || key === 'alike')?.options ?? [];
  it.each([
    undefined,
    ...kinds.map(({ value }) => value),
  ])('are four, all of the size asked for (%s)', (kind) => {
    const key = patternOf(id).measures.some((measure) => measure.key === 'grain') ? 'grain' : 'alike';
    const build = alike(id, 4, kind ? { measures: { [key]: kind } } : {});
    const timeline = run(build);
    expect(timeline.problems.filter(({ severity }) => severity !== 'note')).toEqual([]);
    const pieces = timeline.finished?.pieces ?? [];
    expect(pieces).toHaveLength(4);
    const { length, width, thickness } = build.targets[0];
    for (const { blank } of pieces)
      [length, width, thickness].forEach((aim, a) =>
        expect(Math.abs(extents(blank)[a] - (aim.value?.mm ?? 0))).toBeLessThan(1e-6),
      );
    const kept = pieces.reduce((sum, { blank }) => sum + blankVolume(blank), 0);
    const gone = CAUSES.reduce((sum, cause) => sum + lostTo(timeline.ledger, cause), 0);
    expect((kept + gone + timeline.leftOverMm3) / timeline.woodInMm3).toBeCloseTo(1, 9);
  });
});

describe('panels alike', () => {
  const glueUps = (build: ReturnType<typeof alike>) =>
    build.steps.flatMap((step) => (step.kind === 'glue' ? [[step.id, step.blanks ?? 1]] : []));
  it('are glued up one by one, each of its own strips', () => {
    const build = alike('panel', 3);
    expect(glueUps(build)).toEqual([['glue', 3]]);
    expect(build.assemblies[0].slots).toHaveLength(15);
    expect(build.steps.some(({ kind }) => kind === 'slice')).toBe(false);
  });
  it('in sections are joined one by one too, sections of one strip as well', () => {
    for (const module of ['3', '12']) {
      const build = plannedFor(
        panelBrief({ width: fixed('24'), module: { mm: Number(module) * 25.4 }, quantity: 2 }),
        shop,
      );
      const timeline = run(build);
      expect(timeline.problems).toEqual([]);
      expect(timeline.finished?.pieces.map(({ blank }) => Math.round(extents(blank)[1] * 1e6) / 1e6)).toEqual(
        [609.6, 609.6],
      );
    }
  });
  it('from one long panel are cut from it, where boards are long enough', () => {
    const build = alike('panel', 3, { measures: { alike: 'long' } });
    expect(glueUps(build)).toEqual([['glue', 1]]);
    expect(build.steps.at(-1)).toMatchObject({ kind: 'slice', count: 3 });
    // 7 of 32 in, six kerfs and two end trims: 225 in and more, against boards of 192.
    expect(() => alike('panel', 7, { measures: { alike: 'long' } })).toThrow(/225 1\/8 in long.*192 in/);
  });
});
