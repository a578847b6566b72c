import { describe, expect, it } from 'vitest';
import type { Brief, BuildDocument, Edit } from '../document';
import { mustEdit } from '../edit';
import { typed } from '../kit';
import { CHEQUER, fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { INCH } from '../units';
import { judgeShelf, strengthWords, usesOf } from './adhesive';
import { layAids } from './aids';
import { planClamps } from './clampplan/plan';
import { type GlueUp, glueUpOf, glueUpsOf } from './glueup';
import { pressureOf, pressureQuickly, strokesFor } from './linereading';
import { rehearse } from './pace';
import { plannedGlueUp } from './planned';

const planned = (change: Partial<Brief> = {}, shop = shopWith()): BuildDocument =>
  plannedFor(panelBrief(change), shop);
const block = (shop = shopWith()) => planned(CHEQUER, shop);
const first = (build: BuildDocument, step = 'glue'): GlueUp => glueUpOf(build, run(build), step) as GlueUp;
const edit = (build: BuildDocument, ...edits: Edit[]) => edits.reduce(mustEdit, build);

describe('a glue-up read off the model', () => {
  it('has its courses from the far edge on, lines between them, and as much area as the run booked', () => {
    const build = planned();
    const timeline = run(build);
    const glueUp = first(build);
    expect(glueUp.axes).toEqual({ run: 0, press: 1, depth: 2 });
    expect(glueUp.courses).toHaveLength(5);
    expect(glueUp.courses.map(({ pieces }) => pieces[0])).toEqual([
      'strip-1',
      'strip-2',
      'strip-3',
      'strip-4',
      'strip-5',
    ]);
    expect(glueUp.courses[0].to).toBeCloseTo(glueUp.widthMm, 6);
    expect(glueUp.lines.map(({ joint }) => joint)).toEqual([1, 2, 3, 4]);
    for (const line of glueUp.lines) {
      expect(line.side).toBe('long grain');
      expect(line.areaMm2).toBeCloseTo(glueUp.lengthMm * glueUp.heightMm, 3);
    }
    const booked = timeline.steps.find(({ id }) => id === 'glue')?.glue?.areaMm2 ?? 0;
    expect(glueUp.areaMm2 / booked).toBeCloseTo(1, 9);
    expect(glueUp.courses.every(({ grain }) => grain === 'along')).toBe(true);
  });
  it('knows standing grain between slices, and that the second glue-up is pressed along the length', () => {
    const build = block();
    const second = first(build, 'glue-block');
    expect(second.axes.press).toBe(0);
    expect(new Set(second.courses.map(({ grain }) => grain))).toEqual(new Set(['upright']));
    expect(second.lines).toHaveLength(second.courses.length - 1);
    expect(glueUpsOf(build, run(build))).toHaveLength(2);
  });
  it('counts rows as courses, with the ends that meet in them as end joints', () => {
    const build = planned({
      pattern: 'butcher',
      length: fixed('30'),
      width: fixed('9'),
      thickness: fixed('1 1/2'),
      module: typed('1 1/2'),
    });
    const glue = build.steps.find(({ kind }) => kind === 'glue');
    const glueUp = glueUpOf(build, run(build), glue?.id ?? '') as GlueUp;
    expect(glueUp.courses.length).toBeLessThan(glueUp.parts);
    expect(glueUp.endJoints).toBeGreaterThan(0);
    expect(glueUp.sides['end grain']).toBeGreaterThan(0);
    expect(strengthWords(glueUp)?.join(' ')).toContain('end joints');
    expect(strengthWords(first(planned()))).toBeUndefined();
  });
  it('says of cubes that no clamp presses them all at once', () => {
    const build = planned({
      pattern: 'cubes',
      length: fixed('10'),
      width: fixed('8'),
      thickness: fixed('1'),
      module: typed('1 1/4'),
      woods: ['maple_sugar', 'cherry_black', 'walnut_black'],
    });
    const last = build.steps.findLast(({ kind }) => kind === 'glue');
    expect(glueUpOf(build, run(build), last?.id ?? '')?.askew).toBe(true);
  });
});

describe('the clamp plan', () => {
  it('takes the larger of spread and force and says which', () => {
    const build = planned({}, shopWith({}, { school: 'fan', pressure: 'firm', mostSpacing: { mm: 0 } }));
    const plan = planClamps(first(build), build.shop);
    const [fan] = plan.schools;
    expect(plan.clamps).toHaveLength(Math.max(fan.spread, plan.byForce ?? 0));
    expect(plan.governs).toBe('force');
    const soft = planned({}, shopWith({}, { school: 'fan', mostSpacing: { mm: 0 } }));
    const glueUp = { ...first(soft), step: { ...first(soft).step, plan: { wantedMPa: 0.05 } } };
    expect(planClamps(glueUp, soft.shop).governs).toBe('spread');
  });
  it('gives every joint the whole force of all clamps, and the worst one what was wanted', () => {
    const build = planned();
    const plan = planClamps(first(build), build.shop);
    const worst = plan.perJoint.find(({ joint }) => joint === plan.worstJoint);
    expect(worst?.mpa).toBeCloseTo(plan.wantedMPa, 6);
    const { joints } = pressureOf(first(build), plan, build.shop);
    for (const { meanMPa } of joints) expect(meanMPa / plan.wantedMPa).toBeCloseTo(1, 2);
  });
  it('keeps clamps where a hand put them, and one at the middle is even nowhere near the ends', () => {
    const build = planned({ module: typed('1 1/2') });
    const one = edit(build, {
      do: 'planGlue',
      step: 'glue',
      change: {
        edgeCaul: { mm: 0 },
        clamps: [{ id: 'a', at: { mm: 18 * INCH }, side: 'above', forceN: 3000 }],
      },
    });
    const plan = planClamps(first(one), one.shop);
    expect([plan.byHand, plan.clamps.length, plan.governs]).toEqual([true, 1, 'hand']);
    const { joints } = pressureOf(first(one), plan, one.shop);
    expect(joints[0].words).toBe('open');
    expect(joints[0].phrase.join(' ')).toContain('open for');
  });
  it('proposes cauls where a thin outer strip would want absurdly many, and says both counts', () => {
    const thin = planned({ module: typed('7/8') });
    const plan = planClamps(first(thin), thin.shop);
    expect(plan.edgeCaulMm).toBeGreaterThan(0);
    expect(plan.bareCount).toBeGreaterThan(1.5 * plan.cauledCount);
    const bare = edit(thin, { do: 'planGlue', step: 'glue', change: { edgeCaul: { mm: 0 } } });
    expect(planClamps(first(bare), bare.shop).padMPa).toBeGreaterThan(plan.padMPa);
  });
  it('wants only contact of epoxy, whatever the practice', () => {
    const build = edit(planned(), { do: 'planGlue', step: 'glue', change: { adhesive: 'epoxy' } });
    expect(planClamps(first(build), build.shop)).toMatchObject({ wantedFrom: 'contact', wantedMPa: 0.1 });
  });
  it('is not stopped by a kit without clamps, nor by sixty joints', () => {
    const build = planned({}, shopWith({ clamps: [] }));
    const plan = planClamps(first(build), build.shop);
    expect(plan.byForce).toBeUndefined();
    expect([plan.longestMm, plan.missing]).toEqual([0, plan.clamps.length]);
    const many = planned({ width: fixed('61'), module: typed('1'), flattenWith: 'hand' });
    expect(first(many).lines.length).toBeGreaterThanOrEqual(60);
    expect(planClamps(first(many), many.shop).clamps.length).toBeGreaterThan(0);
  });
  it('answers a drag quickly with nearly what the solver says', () => {
    const build = planned();
    const plan = planClamps(first(build), build.shop);
    const [quick, exact] = [
      pressureQuickly(first(build), plan, build.shop),
      pressureOf(first(build), plan, build.shop),
    ];
    quick.joints.forEach((joint, i) =>
      expect(Math.abs(joint.leastOverMean - exact.joints[i].leastOverMean)).toBeLessThan(0.15),
    );
    expect([quick.quick, exact.quick]).toEqual([true, false]);
  });
  it('tells what a measured hollow eats, and how many strokes make the wanted one', () => {
    const build = edit(planned(), {
      do: 'planGlue',
      step: 'glue',
      change: { edges: [{ joint: 2, shape: 'wavy', depth: { mm: 0.2 }, wave: { mm: 200 } }] },
    });
    const plan = planClamps(first(build), build.shop);
    const { joints } = pressureOf(first(build), plan, build.shop);
    expect(joints[1].closing?.mpa).toBeGreaterThan(0.5);
    expect(joints[0].closing).toBeUndefined();
    expect(
      strokesFor(0, shopWith({}, { edges: 'sprung', hollow: { mm: 0.3 }, shaving: { mm: 0.05 } })),
    ).toEqual({
      strokes: 3,
      where: 'middle',
    });
    expect(strokesFor(0.1, shopWith())).toEqual({ strokes: 2, where: 'whole length' });
  });
});

describe('the rehearsal', () => {
  const rehearsed = (build: BuildDocument) => {
    const glueUp = first(build);
    return rehearse(glueUp, planClamps(glueUp, build.shop), layAids(build, run(build), glueUp), build.shop);
  };
  it('is the sum of its acts, one after the other', () => {
    const { acts, totalMin, spreadMin, placeMin, clampMin } = rehearsed(planned());
    let at = 0;
    for (const act of acts) {
      expect(act.at).toBeCloseTo(at, 9);
      at += act.minutes;
    }
    expect(totalMin).toBeCloseTo(at, 9);
    expect(spreadMin + placeMin + clampMin).toBeCloseTo(totalMin, 9);
  });
  it('that is too slow names ways out, each of which is quicker when carried out', () => {
    const slow = planned({ width: fixed('12 1/2'), module: typed('1'), length: fixed('60') });
    const before = rehearsed(slow);
    expect(before.fits).toBe(false);
    expect(before.ways.length).toBeGreaterThan(1);
    const share = (build: BuildDocument) => {
      const { openShare, closedShare } = rehearsed(build);
      return Math.max(openShare, closedShare);
    };
    for (const way of before.ways) {
      const change =
        way.kind === 'hands'
          ? { hands: 2 as const }
          : way.kind === 'applicator'
            ? { applicator: way.applicator }
            : way.kind === 'adhesive'
              ? { adhesive: way.adhesive }
              : undefined;
      if (!change) continue;
      // Another glue may also want another pressure, and so other clamps: at most as slow as said.
      expect(share(edit(slow, { do: 'planGlue', step: 'glue', change }))).toBeLessThanOrEqual(
        way.share + 1e-9,
      );
    }
  });
});

describe('which bottle', () => {
  it('follows what the piece must stand, the air and the day', () => {
    const shop = shopWith({ climate: { temperatureC: 8, humidityPct: 60 } });
    const cold = judgeShelf([], shop, { closedUsedMin: 5, today: '2027-01-01', species: [] });
    expect(cold.find(({ bottle }) => bottle.id === 'yellow')?.against.length).toBe(1);
    const warm = shopWith();
    const names = (uses: Parameters<typeof judgeShelf>[0]) =>
      judgeShelf(uses, warm, { closedUsedMin: 5, today: '2027-01-01', species: [] })
        .filter(({ against }) => against.length === 0)
        .map(({ bottle }) => bottle.id);
    expect(names(['food'])).toEqual(['water-resistant']);
    expect(names(['outdoors'])).toEqual(['epoxy']);
    expect(names(['slow'])).toEqual(['slow', 'epoxy']);
    const old = shopWith({ adhesives: [{ id: 'x', name: 'x', class: 'pva_yellow', expires: '2026-12-31' }] });
    expect(
      judgeShelf([], old, { closedUsedMin: 5, today: '2027-01-01', species: [] })[0].against,
    ).toHaveLength(1);
    expect(
      judgeShelf([], old, { closedUsedMin: 5, today: '2026-12-31', species: [] })[0].against,
    ).toHaveLength(0);
  });
  it('is guessed from words and woods until the maker says', () => {
    const board = { ...block(), use: 'end grain, for food' };
    expect(usesOf(board, [])).toEqual({ uses: ['food'], guessed: true });
    expect(usesOf({ ...board, uses: [] }, [])).toEqual({ uses: [], guessed: false });
    const oily = planned({ woods: ['teak'] });
    expect(usesOf(oily, []).uses).toContain('oily');
  });
});

describe('a whole plan', () => {
  it('has everything the bench needs, as plain data', () => {
    const build = planned();
    const plan = plannedGlueUp(build, run(build), 'glue', '2027-01-01');
    expect(JSON.parse(JSON.stringify(plan))).toEqual(plan);
    expect(plan?.clamps.schools.map(({ school }) => school)).toEqual(['fan', 'reach', 'elastic']);
    expect(plan?.ready.map(({ id }) => id)).toContain('glue');
    expect(plan?.gates.scrapeH).toBe(0.5);
    expect(plan?.gates.surfaceH).toBe(24);
    expect(plannedGlueUp(build, run(build), 'rip', '2027-01-01')).toBeUndefined();
  });
});
