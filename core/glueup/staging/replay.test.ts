import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDocument } from '../../../contract/read';
import { type BuildDocument, DIMENSIONS, type Edit } from '../../document';
import { mustEdit } from '../../edit';
import { type ShopSnapshot, typed } from '../../kit';
import { mustFit, startingBrief } from '../../plan';
import { fixed, panelBrief, plannedFor, shopWith } from '../../plan/briefs.fixture';
import { findingsOf } from '../../review';
import { run } from '../../run';
import { blankVolume, CAUSES, extents, lostTo } from '../../solid';
import { type GlueUp, glueUpOf, glueUpsOf } from '../glueup';
import { splitEdit } from './machining';
import { stagingOf } from './ways';

const metric = (shop: ShopSnapshot): ShopSnapshot => ({
  ...shop,
  settingStep: { mm: 0.1 },
  display: { system: 'mm', fraction: 0 },
});
const paid = shopWith({}, { paid: { maxWidth: typed('40'), days: 9, priceMinor: 6000 } });

/** A wide panel, or a lamination on edge: strips or layers laid along the width. */
const wideJob = (
  metrical: boolean,
  lamination: boolean,
  [length, width, thickness, module]: [number, number, number, number],
): BuildDocument => {
  const shop = metrical ? metric(paid) : paid;
  const size = (mm: number) => ({ aim: 'fixed' as const, value: { mm } });
  const brief = lamination
    ? startingBrief('lamination', shop, {
        length: size(length),
        width: size(width),
        thickness: size(thickness + 30),
        module: { mm: module },
        measures: { lay: 'edge', stock: { mm: 3000 } },
        flattenWith: 'sled',
      })
    : panelBrief({
        length: size(length),
        width: size(width),
        thickness: size(thickness),
        module: { mm: module + 20 },
        flattenWith: 'sled',
        sections: 1,
      });
  return mustFit(brief, shop, { name: 'wide', use: '' });
};

/** Nothing is lost: what went in is in the piece, in the ledger, or left over. */
function expectBalance(build: BuildDocument): void {
  const timeline = run(build);
  const kept = timeline.finished?.pieces.reduce((sum, { blank }) => sum + blankVolume(blank), 0) ?? 0;
  const gone = CAUSES.reduce((sum, cause) => sum + lostTo(timeline.ledger, cause), 0);
  expect((kept + gone + timeline.leftOverMm3) / timeline.woodInMm3).toBeCloseTo(1, 9);
}

describe('every way of gluing up, chosen, is what its column said', () => {
  it('on panels and laminations of any size, in inches and in millimetres', () => {
    let played = 0;
    fc.assert(
      fc.property(
        fc.boolean(),
        fc.boolean(),
        fc.tuple(
          fc.integer({ min: 500, max: 1500 }),
          fc.integer({ min: 250, max: 950 }),
          fc.integer({ min: 15, max: 45 }),
          fc.integer({ min: 18, max: 60 }),
        ),
        (metrical, lamination, sizes) => {
          const build = wideJob(metrical, lamination, sizes);
          const before = run(build);
          const glueUp = glueUpOf(build, before, 'glue');
          const staging = glueUp && stagingOf(build, before, glueUp);
          for (const way of staging?.ways ?? []) {
            if (!way.edit) continue;
            played += 1;
            const after = mustEdit(build, way.edit);
            const timeline = run(after);
            expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
            expectBalance(after);
            // The finished piece is what it was, unless the column says otherwise.
            DIMENSIONS.forEach((_, a) => {
              const less = (before.finished?.least[a] ?? 0) - (timeline.finished?.least[a] ?? 0);
              if (way.walls.length === 0) expect(Math.abs(less), way.name).toBeLessThan(1e-6);
            });
            const old = new Set(build.steps.map(({ id }) => id));
            const own = glueUpsOf(after, timeline).filter(
              ({ step }) => step.id === 'glue' || !old.has(step.id),
            );
            expect(own).toHaveLength(way.glueUps);
            // Sections hold the strips that were said, and one strip alone is no glue-up.
            if (way.counts.length > 1)
              expect(own.filter(({ step }) => step.id !== 'glue').map(({ parts }) => parts)).toEqual(
                way.counts.filter((count) => count > 1),
              );
            const lost =
              timeline.woodInMm3 -
              before.woodInMm3 -
              ((timeline.finished?.pieces ?? []).reduce((sum, { blank }) => sum + blankVolume(blank), 0) -
                (before.finished?.pieces ?? []).reduce((sum, { blank }) => sum + blankVolume(blank), 0));
            expect(Math.abs(way.lostMm3 - lost)).toBeLessThan(1);
            if (way.walls.length > 0) continue;
            // What the way was chosen for holds: no section is too wide for its machine, and none too slow for its glue.
            const limits = findingsOf(after, timeline).filter(
              ({ code, step }) => code === 'wider-than-machine' && !old.has(step),
            );
            expect(limits).toEqual([]);
            if (way.way === 'sections')
              for (const step of after.steps)
                if (step.kind === 'flatten' && !old.has(step.id)) {
                  const planer = after.shop.machines.find(({ id }) => id === step.machine);
                  const entered = timeline.steps.find(({ id }) => id === step.id)?.entered ?? [];
                  for (const { blank } of entered)
                    expect(extents(blank)[1]).toBeLessThanOrEqual(planer?.maxWidth.mm || Infinity);
                }
            const join = after.steps.find(({ id }) => id === 'glue');
            if (way.way === 'pairs' && join?.kind === 'glue') expect(join.plan?.aids?.kind).toBe('biscuits');
          }
        },
      ),
      { seed: 10, numRuns: 40 },
    );
    expect(played).toBeGreaterThan(40);
  });
});

const seven = plannedFor(
  panelBrief({
    length: fixed('30'),
    width: fixed('21'),
    module: typed('3'),
    flattenWith: 'sled',
    sections: 1,
  }),
  shopWith(),
);

describe('a panel of seven strips split by hand 3 + 3 + 1', () => {
  const glueUp = glueUpOf(seven, run(seven), 'glue') as GlueUp;
  const edit = splitEdit(seven.shop, glueUp, [3, 6], { machined: true });
  const split = mustEdit(seven, edit);
  const timeline = run(split);
  it('keeps its seven strips and its size, passes the planer, and glues no strip to nothing', () => {
    expect(split.steps.flatMap((step) => (step.kind === 'glue' ? [step.parts?.length] : []))).toEqual([
      3, 3, 3,
    ]);
    expect(timeline.finished?.greatest[1]).toBeCloseTo(21 * 25.4, 6);
    expect(timeline.finished?.greatest[2]).toBeCloseTo((7 / 8) * 25.4, 6);
    expectBalance(split);
    const flats = split.steps.flatMap((step) =>
      step.kind === 'flatten' && step.id !== 'flatten' ? [[step.name, step.machine]] : [],
    );
    expect(flats).toEqual([
      ['Flatten section 1', 'planer'],
      ['Flatten section 2', 'planer'],
      ['Flatten the single strip', 'planer'],
    ]);
    expect(findingsOf(split, timeline).map(({ code }) => code)).not.toContain('wider-than-machine');
  });
  it('chosen twice changes nothing the second time', () => {
    expect(mustEdit(split, edit)).toBe(split);
  });
  it('of strips that are cut already takes what jointing takes out of the trim, and says what is missing', () => {
    const cut = mustEdit(seven, { do: 'setStep', step: 'rip', change: { done: true } });
    const after = mustEdit(cut, edit);
    expect(after.assemblies[0].slots.map(({ width }) => width.mm)).toEqual(
      seven.assemblies[0].slots.map(({ width }) => width.mm),
    );
    // Three edges are jointed: 3/16 in all, which the trims of 3/16 an edge can give.
    expect(run(after).finished?.greatest[1]).toBeCloseTo(21 * 25.4, 6);
    const trim = after.steps.find(({ kind }) => kind === 'trim');
    const before = seven.steps.find(({ kind }) => kind === 'trim');
    if (trim?.kind !== 'trim' || before?.kind !== 'trim') throw new Error();
    expect(before.near.mm + before.far.mm - trim.near.mm - trim.far.mm).toBeCloseTo((3 / 16) * 25.4, 9);
  });
  it('planned again in another size it is split again, where it was; turns made by hand stay', () => {
    const turned = mustEdit(split, {
      do: 'turnPart',
      step: 'glue-section-2',
      piece: 'strip-5',
      turn: 'rollOver',
    });
    const longer = mustEdit(turned, { do: 'replan', change: { length: fixed('36') } });
    expect(longer.steps.flatMap((step) => (step.kind === 'glue' ? [step.parts?.length] : []))).toEqual([
      3, 3, 3,
    ]);
    const second = longer.steps.find(({ id }) => id === 'glue-section-2');
    expect(second?.kind === 'glue' && second.parts?.find(({ piece }) => piece === 'strip-5')?.rollOver).toBe(
      true,
    );
    const played = run(longer);
    expect(played.problems.filter(({ severity }) => severity !== 'note')).toEqual([]);
    expect(played.finished?.greatest.map((mm) => Math.round(mm * 1e6) / 1e6)).toEqual([914.4, 533.4, 22.225]);
    expectBalance(longer);
    // With fewer strips, joints that are not there any more are passed over.
    const narrow = mustEdit(split, { do: 'replan', change: { width: fixed('12') } });
    expect(narrow.steps.flatMap((step) => (step.kind === 'glue' ? [step.parts?.length] : []))).toEqual([
      3, 2,
    ]);
    expect(run(narrow).finished?.greatest[1]).toBeCloseTo(12 * 25.4, 6);
  });
  it('travels in a file', () => {
    const wire = JSON.parse(JSON.stringify(split));
    expect(readDocument(wire)).toEqual({ ok: true, build: wire });
  });
  it('strip by strip is no split at all', () => {
    const each: Edit = { do: 'splitGlue', step: 'glue', joints: [1, 2, 3, 4, 5, 6] };
    expect(mustEdit(seven, each)).toBe(seven);
  });
});

describe('a panel of two boards', () => {
  it('planned in two sections has one glue-up, not three', () => {
    const two = plannedFor(panelBrief({ width: fixed('20'), module: typed('10'), sections: 2 }), shopWith());
    expect(two.steps.filter(({ kind }) => kind === 'glue').map(({ id }) => id)).toEqual(['join']);
    expect(run(two).finished?.greatest[1]).toBeCloseTo(20 * 25.4, 6);
  });
});
