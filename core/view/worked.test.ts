import { describe, expect, it } from 'vitest';
import { tasksOf } from '../bench';
import { type BuildDocument, copiesOf, type Edit, timesMade } from '../document';
import { mustEdit } from '../edit';
import { glueUpOf, planClamps, plannedGlueUp, sessionsOf } from '../glueup';
import { clampsOf, type ShopSnapshot } from '../kit';
import { freeJob } from '../plan';
import { shopWith } from '../plan/briefs.fixture';
import { review } from '../review';
import { run } from '../run';
import { demandOf } from '../stock';
import { blankLengthForSlices, rowsFromBlank, slicesNeeded } from '../units';
import { interleaved, lineEdit, usualLine } from '.';

/* Whole jobs as a maker works them out on paper, forward from the stock (common practice: sums of widths, floors of lengths). */
const shop = shopWith({ display: { system: 'mm', fraction: 0 } });
const mm = (value: number) => ({ mm: value });
const free = (): BuildDocument => freeJob(shop, { name: 'worked', use: '' });
const glueAfter = (build: BuildDocument, along: string) =>
  mustEdit(build, { do: 'addStep', kind: 'glue', after: build.steps.at(-1)?.id ?? '', settings: { along } });

describe('six legs of two layers', () => {
  const strips = mustEdit(
    free(),
    lineEdit(free(), 'rip', {
      ...usualLine(free()),
      species: 'ash_white',
      widths: [mm(60), mm(60)],
      length: mm(720),
      thickness: mm(32),
    }),
  );
  const leg = mustEdit(glueAfter(strips, 'thickness'), {
    do: 'setTarget',
    target: 'piece',
    change: { quantity: 6 },
  });
  const glue = leg.steps.at(-1)?.id ?? '';
  const timeline = run(leg);
  it('are twelve strips, six glue-ups', () => {
    expect(timeline.finished?.greatest).toEqual([720, 60, 64].map((v) => expect.closeTo(v, 9)));
    expect(copiesOf(leg, leg.assemblies[0])).toBe(6);
    expect(demandOf([leg]).strips).toHaveLength(12);
  });
  it('with clamps for two at once are three sessions, thirty hours at ten each', () => {
    const glueUp = glueUpOf(leg, timeline, glue);
    if (!glueUp) throw new Error('no glue-up');
    // One set, first without end to see how many a glue-up wants, then enough for two of them.
    const [set] = clampsOf(shop).toSorted((a, b) => b.opening.mm - a.opening.mm);
    const withClamps = (count: number): ShopSnapshot => ({ ...shop, clamps: [{ ...set, count }] });
    const [pick] = planClamps(glueUp, withClamps(500)).picks;
    const twice = withClamps(2 * pick.count + 1);
    const build = { ...leg, shop: twice };
    const sessions = sessionsOf(6, planClamps(glueUp, twice).picks, twice);
    expect(sessions).toMatchObject({ glueUps: 6, atOnce: 2, sessions: 3 });
    expect(sessions.sessions * 10).toBe(30);
    const planned = plannedGlueUp(build, run(build), glue, '2027-03-01');
    expect(planned?.sessions?.sessions).toBe(3);
    const waits = tasksOf('job', build, run(build)).filter(({ kind }) => kind === 'clamps');
    expect(waits).toHaveLength(3);
    expect(waits.reduce((sum, { minutes }) => sum + minutes, 0)).toBeCloseTo(
      3 * 60 * (planned?.gates.unclampH ?? 0),
      6,
    );
    // Each session waits for the one before: the clamps are on it.
    const ids = tasksOf('job', build, run(build)).map(({ id, after }) => [id, after]);
    expect(ids).toContainEqual([`${glue}:2`, [`${glue}:clamps`]]);
  });
});

describe('an L of two legs, three slabs each', () => {
  const order = [45, 38, 30, 24, 45, 38, 30, 24];
  let build = free();
  for (let slab = 1; slab <= 6; slab++) {
    const widths = (slab <= 3 ? order : order.toReversed()).map(mm);
    build = mustEdit(
      build,
      lineEdit(build, 'rip', {
        ...usualLine(build),
        name: `Slab ${slab}`,
        species: 'oak_white',
        widths,
        length: mm(900),
        thickness: mm(40),
      }),
    );
    build = glueAfter(build, 'width');
  }
  it('takes twelve strips of each width, 48 in all, in slabs of 274 mm', () => {
    const timeline = run(build);
    const slabs = timeline.steps.filter(({ kind }) => kind === 'glue');
    expect(slabs.map(({ greatest }) => greatest[1])).toEqual(Array(6).fill(expect.closeTo(274, 9)));
    const { strips } = demandOf([build]);
    expect(strips).toHaveLength(48);
    for (const width of [45, 38, 30, 24])
      expect(
        build.assemblies.flatMap(({ slots }) => slots).filter((slot) => slot.width.mm === width),
      ).toHaveLength(12);
  });
  it('mirrors the order on the second leg', () => {
    const widthsOf = (nth: number) => build.assemblies[nth].slots.map(({ width }) => width.mm);
    expect(widthsOf(3)).toEqual(widthsOf(0).toReversed());
  });
});

describe('a field of twenty slices from two panels', () => {
  const [kerf, slice, first] = [3.2, 40, 12];
  it('of 670 mm gives fifteen: five short, and a second panel of 228 mm', () => {
    const got = rowsFromBlank(670, first, slice, { k: kerf, farEndClean: false });
    expect(got).toBe(15);
    expect(slicesNeeded(20 * slice, 0, slice) - got).toBe(5);
    expect(blankLengthForSlices(5, slice, kerf, { head: first - kerf, remnant: 0 })).toBeCloseTo(228, 9);
  });
  it('of which 228 mm are shorter than a planer takes, and with runners glued on are not', () => {
    const kit = {
      ...shop,
      machines: shop.machines.map((machine) =>
        machine.kind === 'planer' ? { ...machine, minLength: mm(300) } : machine,
      ),
    };
    const planer = kit.machines.find(({ kind }) => kind === 'planer')?.id;
    const bring = (build: BuildDocument, length: number, width: number, count: number) =>
      mustEdit(build, {
        do: 'addLine',
        kind: 'have',
        settings: { species: 'ash_white', count, length: mm(length), width: mm(width), thickness: mm(40) },
      });
    const planed = (build: BuildDocument, after: string) =>
      mustEdit(build, {
        do: 'addStep',
        kind: 'flatten',
        after,
        settings: { machine: planer, top: mm(1), bottom: mm(1) },
      });
    const short = (build: BuildDocument) =>
      review(build, run(build)).find(({ code }) => code === 'shorter-than-machine');
    const panel = bring({ ...free(), shop: kit }, 228, 240, 1);
    const [have] = panel.steps;
    expect(short(planed(panel, have.id))?.numbers).toEqual({ length: 228, least: 300, short: 72 });
    // A runner of 320 mm along each edge: what the planer sees is as long as they are.
    const glued = mustEdit(
      mustEdit(bring(panel, 320, 30, 2), {
        do: 'addStep',
        kind: 'glue',
        after: have.id,
        settings: { along: 'width' },
      }),
      { do: 'rename', name: 'with runners' },
    );
    const glue = glued.steps.find(({ kind }) => kind === 'glue')?.id ?? '';
    const runners = glued.steps.find(({ id, kind }) => kind === 'have' && id !== have.id);
    const parts = [`${runners?.id}.1`, `${have.id}.1`, `${runners?.id}.2`].map((piece) => ({ piece }));
    const joined = mustEdit(glued, { do: 'takeIn', step: glue, output: runners?.output ?? '', parts });
    const done = planed(joined, glue);
    expect(run(done).steps.at(-1)?.greatest).toEqual([320, 300, 38].map((v) => expect.closeTo(v, 6)));
    expect(short(done)).toBeUndefined();
  });
  it('lays one new slice after every three old ones', () => {
    const old = Array.from({ length: 15 }, (_, i) => `old ${i + 1}`);
    const fresh = Array.from({ length: 5 }, (_, i) => `new ${i + 1}`);
    const laid = interleaved(old, fresh, 3);
    expect(laid).toHaveLength(20);
    expect(laid.flatMap((piece, i) => (piece.startsWith('new') ? [i + 1] : []))).toEqual([4, 8, 12, 16, 20]);
  });
});

it('four pieces that come out at once and are wanted are made once, as the finding’s way out says', () => {
  const four = mustEdit(
    mustEdit(free(), {
      do: 'addLine',
      kind: 'have',
      settings: { species: 'ash_white', count: 4, length: mm(720), width: mm(60), thickness: mm(60) },
    }),
    { do: 'setTarget', target: 'piece', change: { quantity: 4 } },
  );
  const found = (build: BuildDocument) =>
    review(build, run(build)).find(({ code }) => code === 'more-at-once');
  expect(found(four)?.numbers).toEqual({ pieces: 4, counted: 1, wanted: 4 });
  const mended = mustEdit(four, found(four)?.fixes[0].edit as Edit);
  expect(found(mended)).toBeUndefined();
  expect(timesMade(mended, mended.targets[0])).toBe(1);
});

it('strips of 32 mm stock glued as they are stay 32', () => {
  const build = glueAfter(
    mustEdit(free(), {
      do: 'addLine',
      kind: 'have',
      settings: { species: 'ash_white', count: 4, length: mm(800), width: mm(50), thickness: mm(32) },
    }),
    'width',
  );
  expect(run(build).finished?.greatest).toEqual([800, 200, 32].map((v) => expect.closeTo(v, 9)));
});
