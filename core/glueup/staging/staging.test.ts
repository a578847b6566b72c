import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mustEdit } from '../../edit';
import { typed } from '../../kit';
import { CHEQUER, fixed, panelBrief, plannedFor, shopWith } from '../../plan/briefs.fixture';
import { run } from '../../run';
import { INCH, sectionsNeeded, sectionWidth } from '../../units';
import { type GlueUp, glueUpOf } from '../glueup';
import { evenCounts, jointsOf, runsOf, splitStrips, stagingOf, whyOwnStage } from '.';

/* Check values marked "design" are the trade's own worked sizes. */
describe('splits fall on joints', () => {
  it('34 wide in 3 sections are 11 3/4 each; 38 wide fails in 3 at 13.08 and passes in 4 at 9.84 (design)', () => {
    expect(sectionWidth(34, 0.5, 3, 1 / 16)).toBeCloseTo(11.75, 9);
    expect(sectionWidth(38, 0.5, 3, 1 / 16)).toBeCloseTo(13.08, 2);
    expect(sectionWidth(38, 0.5, 4, 1 / 16)).toBeCloseTo(9.84, 2);
    expect(sectionsNeeded(38, 0.5, 1 / 16, 12.5)).toBe(4);
    expect(sectionsNeeded(34, 0.5, 1 / 16, 12)).toBe(3);
  });
  it('16 laminations of 41 mm on a 330 mm planer with 6 mm to spare: 6 + 5 + 5 (design)', () => {
    expect(splitStrips(Array(16).fill(41), 330 - 6)).toEqual([6, 5, 5]);
  });
  it('14 wide of three strips on 12 1/2 splits 2 + 1, never through a strip (design)', () => {
    expect(splitStrips([14 / 3, 14 / 3, 14 / 3], 12.5)).toEqual([2, 1]);
  });
  it('eight boards of 1 27/64 are 11 3/8 and pass 12 1/2, nine are 12 51/64 and fail (design)', () => {
    const board = 1 + 27 / 64;
    expect(8 * board).toBe(11.375);
    expect(9 * board).toBe(12 + 51 / 64);
    expect(splitStrips(Array(8).fill(board), 12.5)).toEqual([8]);
    expect(splitStrips(Array(9).fill(board), 12.5)).toEqual([5, 4]);
  });
  it('a strip wider than the limit cannot be split', () => {
    expect(splitStrips([3, 14, 3], 13)).toBeUndefined();
  });
  it('loses no strip, keeps the order, stays within the limit, and never takes one run more than it must', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 10, max: 120 }), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 120, max: 500 }),
        (widths, limit) => {
          const counts = splitStrips(widths, limit) as number[];
          expect(runsOf(widths, counts).flat()).toEqual(widths);
          for (const run of runsOf(widths, counts))
            expect(run.reduce((s, w) => s + w, 0)).toBeLessThanOrEqual(limit);
          // First fit along the order is the fewest runs there can be.
          let [fewest, sum] = [1, 0];
          for (const width of widths) {
            if (sum + width > limit) [fewest, sum] = [fewest + 1, 0];
            sum += width;
          }
          expect(counts).toHaveLength(fewest);
          expect(jointsOf(counts)).toHaveLength(counts.length - 1);
        },
      ),
      { seed: 20265 },
    );
    expect(evenCounts(16, 3)).toEqual([6, 5, 5]);
  });
});

const shop = shopWith({}, { paid: { maxWidth: typed('40'), days: 9, priceMinor: 6000 } });
const brief = panelBrief({
  length: fixed('40'),
  width: fixed('24'),
  thickness: fixed('1'),
  module: typed('3'),
  flattenWith: 'sled',
  sections: 1,
});
const wide = plannedFor(brief, shop);
const glueUp = glueUpOf(wide, run(wide), 'glue') as GlueUp;

describe('the ways to glue up a wide panel', () => {
  const staging = stagingOf(wide, run(wide), glueUp);
  it('say why with the numbers, and compare one piece, sections, pairs and a paid machine', () => {
    expect(staging?.reasons.map(({ kind }) => kind)).toContain('planer');
    expect(staging?.ways.map(({ way }) => way)).toEqual(['sled', 'sections', 'pairs', 'paid']);
    const [sled, sections, pairs, paid] = staging?.ways ?? [];
    expect(pairs.lostMm3).toBe(0);
    expect(sled.handMm2).toBeGreaterThan(sections.handMm2);
    expect(sections.lostMm3).toBeGreaterThan(0);
    expect([sled.glueUps, sections.glueUps]).toEqual([1, sections.counts.length + 1]);
    expect(sections.timeShare).toBeLessThan(sled.timeShare);
    expect(paid.days).toBeGreaterThanOrEqual(9);
    expect(paid.priceMinor).toBe(6000);
  });
  it('are carried out: sections come out at the same finished size, pairs lose no wood', () => {
    const sections = staging?.ways.find(({ way }) => way === 'sections');
    const pairs = staging?.ways.find(({ way }) => way === 'pairs');
    const bySections = mustEdit(wide, sections?.edit as never);
    expect(bySections.steps.filter(({ kind }) => kind === 'glue')).toHaveLength(sections?.glueUps ?? 0);
    for (const build of [bySections, mustEdit(wide, pairs?.edit as never)]) {
      const timeline = run(build);
      expect(timeline.finished?.greatest[1]).toBeCloseTo(24 * INCH, 6);
      expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
    }
  });
  it('say where wishes exclude one another: a strip wider than the planer', () => {
    const boards = plannedFor({ ...brief, module: typed('14'), width: fixed('42'), sections: 1 }, shop);
    const up = glueUpOf(boards, run(boards), 'glue') as GlueUp;
    const { conflicts } = stagingOf(boards, run(boards), up) ?? { conflicts: [] };
    expect(JSON.stringify(conflicts)).toContain('wider than the planer');
  });
});

describe('a split by hand', () => {
  it('glues each run by itself and joins them where the step was; wood in is wood out', () => {
    const before = run(wide);
    const split = mustEdit(wide, { do: 'splitGlue', step: 'glue', joints: [2, 5, 99] });
    const after = run(split);
    const glues = split.steps.filter(({ kind }) => kind === 'glue');
    expect(glues.map(({ id }) => id)).toEqual(['glue-section-1', 'glue-section-2', 'glue-section-3', 'glue']);
    expect(after.finished?.greatest.map((mm) => Math.round(mm * 1e6))).toEqual(
      before.finished?.greatest.map((mm) => Math.round(mm * 1e6)),
    );
    expect(after.woodInMm3 / before.woodInMm3).toBeCloseTo(1, 9);
    const area = (timeline: typeof after) =>
      timeline.steps.reduce((sum, step) => sum + (step.glue?.areaMm2 ?? 0), 0);
    expect(area(after) / area(before)).toBeCloseTo(1, 9);
    // The order of the strips from the far edge on is as it was.
    const order = after.steps
      .filter(({ id }) => id.startsWith('glue-section'))
      .flatMap(({ laid }) => laid?.map(({ piece }) => piece) ?? []);
    expect(order).toEqual(before.steps.find(({ id }) => id === 'glue')?.laid?.map(({ piece }) => piece));
  });
  it('keeps turns by rule, changes nothing without a joint, and can be edited section by section', () => {
    const ruled = mustEdit(wide, {
      do: 'setRule',
      step: 'glue',
      rule: { turn: 'rollOver', every: 2, first: 2, except: [] },
    });
    const split = mustEdit(ruled, { do: 'splitGlue', step: 'glue', joints: [3] });
    const laid = run(split)
      .steps.filter(({ id }) => id.startsWith('glue-section'))
      .flatMap((step) => step.laid ?? []);
    expect(laid.map(({ rollOver }) => rollOver)).toEqual(
      run(ruled)
        .steps.find(({ id }) => id === 'glue')
        ?.laid?.map(({ rollOver }) => rollOver),
    );
    expect(mustEdit(wide, { do: 'splitGlue', step: 'glue', joints: [] })).toBe(wide);
    const turned = mustEdit(split, {
      do: 'turnPart',
      step: 'glue-section-2',
      piece: 'strip-5',
      turn: 'endForEnd',
    });
    const second = run(turned).steps.find(({ id }) => id === 'glue-section-2');
    expect(second?.laid?.find(({ piece }) => piece === 'strip-5')?.endForEnd).toBe(true);
    const locked = mustEdit(split, { do: 'lockPart', step: 'rip', piece: 'strip-5' });
    expect(run(locked).steps.find(({ id }) => id === 'glue-section-2')?.laid?.[1].locked).toBe(true);
    const longer = mustEdit(split, { do: 'duplicateStrip', step: 'rip', strip: 'strip-5' });
    expect(run(longer).steps.find(({ id }) => id === 'glue-section-2')?.laid).toHaveLength(6);
  });
});

describe('why a glue-up is a stage of its own', () => {
  const words = (build: typeof wide, step: string) =>
    JSON.stringify(whyOwnStage(build, glueUpOf(build, run(build), step) as GlueUp));
  it('is said where a pattern is cut, where sections are joined, and not where there is only one', () => {
    expect(words(wide, 'glue')).toBe('[]');
    const block = plannedFor({ ...brief, ...CHEQUER, flattenWith: 'drum' }, shop);
    expect(words(block, 'glue')).toContain('before “Slice” cuts the pattern');
    expect(words(block, 'glue-block')).toContain('exist only after “Slice”');
    const split = mustEdit(wide, { do: 'splitGlue', step: 'glue', joints: [3] });
    expect(words(split, 'glue-section-1')).toContain('joins it');
    expect(words(split, 'glue')).toContain('joins 2 pieces');
  });
});
