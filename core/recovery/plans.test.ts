import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import { tasksOf } from '../bench';
import {
  type BuildDocument,
  type Failure,
  FAILURE_KINDS,
  FAILURE_NAMES,
  failureWords,
  phraseText,
} from '../document';
import { mustEdit } from '../edit';
import { PATTERNS } from '../plan';
import { compareTarget } from '../review';
import { planned, randomFrom, SHOPS } from '../review/scenarios.fixture';
import { run } from '../run';
import { blankVolume, CAUSES, lostTo } from '../solid';
import { failureSheet, type FailureSheet, inOrder, type Plan, plansFor } from '.';

const MOMENT = { now: Date.parse('2027-01-04T08:00:00Z'), today: '2027-01-04', zone: 'UTC' };
const sheetOf = (build: BuildDocument, step: string): FailureSheet => {
  const sheet = failureSheet(build, run(build), step);
  if (!sheet) throw new Error(`${step} is not played`);
  return sheet;
};
/** A failure of a kind told at a step, of one piece, with all that is asked. */
const toldAt = (sheet: FailureSheet, kind: Failure['kind'], piece = sheet.pieces[0]): Failure => {
  const asks = sheet.kinds.find((each) => each.kind === kind)?.asks ?? [];
  const [, width, thickness] = sheet.sizes;
  return {
    id: 'f1',
    step: sheet.step,
    kind,
    ...(piece ? { pieces: [piece] } : {}),
    ...(asks.includes('joint') ? { joint: sheet.joints[0]?.joint } : {}),
    ...(asks.includes('band')
      ? { from: { mm: sheet.sizes[sheet.band === 'width' ? 1 : 0] / 3 }, wide: { mm: 8 } }
      : {}),
    ...(asks.includes('hole') ? { wide: { mm: 10 } } : {}),
    ...(asks.includes('width') ? { measured: { mm: width * 0.8 } } : {}),
    ...(asks.includes('thickness') ? { measured: { mm: thickness * 0.9 } } : {}),
  };
};
/** Wood in is accounted for to the last billionth. */
const expectClosed = (build: BuildDocument, where: string) => {
  const timeline = run(build);
  const ends = new Map(timeline.wanted.flatMap(({ step }) => (step ? [[step.id, step] as const] : [])));
  const kept = [...ends.values()]
    .flatMap(({ pieces }) => pieces)
    .reduce((sum, { blank }) => sum + blankVolume(blank), 0);
  const gone = CAUSES.reduce((sum, cause) => sum + lostTo(timeline.ledger, cause), 0);
  const open = timeline.woodInMm3 - kept - gone - timeline.leftOverMm3;
  expect(Math.abs(open) / timeline.woodInMm3, where).toBeLessThan(1e-9);
};
/** A plan carried out on the job itself comes to what it says, and its costs are those of the steps that it adds. */
function expectKept(build: BuildDocument, plan: Plan, where: string): void {
  const after = mustEdit(build, plan.edit);
  const timeline = run(after);
  const at = `${where}: ${plan.label}`;
  expect(
    timeline.problems.filter(({ severity }) => severity === 'stop').map(({ message }) => message),
    at,
  ).toEqual([]);
  const off = after.targets.flatMap((target) =>
    (compareTarget(after, timeline, target) ?? [])
      .filter(({ fits }) => !fits)
      .map(({ dimension, differenceMm }) => [dimension, differenceMm]),
  );
  expect(off, at).toEqual(plan.misses.map(({ dimension, offMm }) => [dimension, offMm]));
  expect(timeline.woodInMm3 - run(build).woodInMm3, at).toBeCloseTo(plan.woodMm3, 3);
  expectClosed(after, at);
  // What failed stays in the record, with what was done about it.
  expect(after.failures, at).toMatchObject([{ id: 'f1', way: plan.label.slice(0, 200) }]);
  expect(plan.label, at).not.toMatch(/NaN|undefined|Infinity/);
  expect(phraseText(plan.says, build.shop.display), at).not.toMatch(/NaN|undefined|Infinity/);
  const here = new Set(build.steps.map(({ id }) => id));
  const added = after.steps.filter(({ id }) => !here.has(id));
  expect(plan.steps, at).toHaveLength(added.length);
  if (plan.misses.length + plan.fewer > 0) return;
  // Hours: what the added steps ask of hands, and what changes for those still to be done.
  const minutes = (job: BuildDocument, ids: ReadonlySet<string>) =>
    tasksOf('job', job, run(job))
      .filter(({ kind, step }) => kind === 'work' && ids.has(step))
      .reduce((sum, task) => sum + task.minutes, 0);
  const own = minutes(after, new Set(added.map(({ id }) => id)));
  expect(own, at).toBeGreaterThanOrEqual(0);
  if (added.length > 0) expect(own, at).toBeGreaterThan(0);
}

describe('after something failed', () => {
  it.each(
    PATTERNS.map(({ id }, i) => [id, i] as const),
  )('in %s, each plan that is offered comes to where it says, and costs what it says', (id, nth) => {
    const random = randomFrom(40 + nth);
    const system = nth % 2 === 0 ? 'inch' : 'mm';
    const build = planned(id, SHOPS[system], random) ?? planned(id, SHOPS[system], random);
    if (!build) throw new Error(`${id} cannot be planned`);
    const timeline = run(build);
    const could = build.steps.flatMap(({ id: step }) => {
      const sheet = failureSheet(build, timeline, step);
      return (sheet?.kinds ?? []).map(({ kind }) => ({ kind, sheet: sheet as FailureSheet }));
    });
    expect(could.length).toBeGreaterThan(4);
    for (let n = 0; n < 3; n++) {
      const { kind, sheet } = could[Math.floor(random() * could.length)];
      const piece = sheet.pieces[Math.floor(random() * sheet.pieces.length)];
      const where = `${id}, ${kind} at ${sheet.step}, ${piece}`;
      const plans = plansFor(build, toldAt(sheet, kind, piece), MOMENT);
      expect(plans.length, where).toBeGreaterThan(0);
      // There is always a way to what was asked, if only from new wood.
      expect(plans[0].misses, where).toEqual([]);
      expect(new Set(plans.map(({ label }) => label)).size, where).toBe(plans.length);
      for (const plan of plans) expectKept(build, plan, where);
    }
  });

  it('a slice lost is made of one more panel, as short as its machines take, and dealt out evenly', () => {
    const build = planned('endGrain', SHOPS.inch, randomFrom(5)) as BuildDocument;
    const sheet = sheetOf(build, 'slice');
    const lost = [sheet.pieces[2], sheet.pieces[9]];
    const plans = plansFor(build, { ...toldAt(sheet, 'lostSlice'), pieces: lost }, MOMENT);
    const plan = plans.find(({ ways }) => ways.includes('spread'));
    if (!plan) throw new Error('no panel more');
    const after = mustEdit(build, plan.edit);
    const timeline = run(after);
    const laid = timeline.steps.find(({ id }) => id === 'glue-block')?.laid?.map(({ piece }) => piece) ?? [];
    expect(laid).toHaveLength(sheet.pieces.length);
    const fresh = laid.flatMap((piece, i) => (sheet.pieces.includes(piece) ? [] : [i]));
    // Two new ones among all: in the middle of each half.
    const n = laid.length;
    expect(fresh).toEqual([Math.floor(n / 4), Math.floor((3 * n) / 4)]);
    for (const piece of lost) expect(laid).not.toContain(piece);
    // As long as the planer wants: 12 in.
    const panel = timeline.steps.find(({ id }) => id.startsWith('slice-'))?.entered[0];
    if (!panel) throw new Error('no new panel');
    expect(plan.misses).toEqual([]);
    const [first, again] = ['rip', 'rip-1'].map(
      (id) => timeline.steps.find((each) => each.id === id)?.greatest[0] ?? 0,
    );
    expect(again).toBeLessThan(first);
    expect(again).toBeGreaterThanOrEqual(12 * 25.4 - 1e-6);
    // Two thirds of the wood of the first panel at most.
    expect(plan.woodMm3).toBeLessThan(0.67 * run(build).woodInMm3);
    expect(plan.doneAt).toBeGreaterThan(plan.wasDoneAt);
  });

  it('an open joint is sawn out: kerf and two jointed edges are lost, which an accent strip gives back', () => {
    const build = planned('panel', SHOPS.mm, randomFrom(3)) as BuildDocument;
    const glue = build.steps.findLast(({ kind }) => kind === 'glue');
    const sheet = sheetOf(build, glue?.id ?? '');
    const plans = plansFor(build, toldAt(sheet, 'openJoint'), MOMENT);
    const kerf = build.shop.saws.find(({ id }) => id === 'table-full')?.kerf.mm ?? 0;
    const edge = Math.ceil(build.shop.allowances.jointEdge.mm / 0.1 - 1e-6) * 0.1;
    const bare = plans.find(
      ({ ways, edit }) => ways.includes('reglue') && edit.do === 'many' && edit.edits.length === 2,
    );
    expect(bare?.misses).toMatchObject([{ dimension: 'width', offMm: expect.closeTo(-kerf - 2 * edge, 6) }]);
    const accent = plans.find(({ ways }) => ways.includes('reglueAccent'));
    expect(accent?.misses).toEqual([]);
    // What misses stands behind what does not.
    expect(plans.indexOf(bare as Plan)).toBeGreaterThan(plans.indexOf(accent as Plan));
  });

  it('what is cut does not grow: no plan touches steps that are behind', () => {
    const build = planned('endGrain', SHOPS.inch, randomFrom(5)) as BuildDocument;
    for (const step of ['slice', 'glue-block', 'trim']) {
      const sheet = sheetOf(build, step);
      for (const { kind } of sheet.kinds)
        for (const plan of plansFor(build, toldAt(sheet, kind), MOMENT)) {
          const after = mustEdit(build, plan.edit);
          const rip = (job: BuildDocument) =>
            job.assemblies.find(({ id }) => id === build.assemblies[0].id)?.slots;
          expect(rip(after), `${kind}: ${plan.label}`).toEqual(rip(build));
        }
    }
  });

  it('while strips are being ripped the others can take up what one lacks; once the step is done none grows', () => {
    const build = planned('endGrain', SHOPS.inch, randomFrom(5)) as BuildDocument;
    const rip = sheetOf(build, 'rip');
    const wider = (job: BuildDocument) =>
      plansFor(job, toldAt(rip, 'spoiltStrip', rip.pieces[3]), MOMENT).find(({ ways }) =>
        ways.includes('wider'),
      );
    expect(wider(build)).toMatchObject({
      misses: [],
      label: expect.stringMatching(/^Rip the other strips wider by \d/),
    });
    const done = {
      ...build,
      steps: build.steps.map((step) => (step.id === 'rip' ? { ...step, done: true } : step)),
    };
    expect(wider(done)).toBeUndefined();
  });

  it('a spare that lies ready costs no wood and no day', () => {
    const build = planned('endGrain', SHOPS.inch, randomFrom(5)) as BuildDocument;
    const slice = build.steps.find(({ kind }) => kind === 'slice');
    const glue = build.steps.findLast(({ kind }) => kind === 'glue');
    const all = sheetOf(build, slice?.id ?? '').pieces;
    // One more than is laid, out of what else would stay in hand.
    const spared = {
      ...build,
      steps: build.steps.map((each) =>
        each.id === glue?.id
          ? { ...each, parts: all.map((piece) => ({ piece })) }
          : each.kind === 'slice'
            ? { ...each, count: each.count + 1, hold: { mm: 0 } }
            : each,
      ),
    } as BuildDocument;
    expect(sheetOf(spared, 'slice').pieces).toHaveLength(all.length + 1);
    const [best] = plansFor(spared, toldAt(sheetOf(spared, 'slice'), 'lostSlice', all[3]), MOMENT).filter(
      ({ ways }) => ways.includes('spare'),
    );
    expect(best).toMatchObject({ woodMm3: 0, label: 'Lay in a spare', steps: [] });
    expect(best.doneAt).toBe(best.wasDoneAt);
  });

  it('of a piece that is gone, of a size nobody entered, or at a step nobody knows, nothing is invented', () => {
    const build = planned('panel', SHOPS.inch, randomFrom(3)) as BuildDocument;
    const glue = build.steps.findLast(({ kind }) => kind === 'glue')?.id ?? '';
    expect(failureSheet(build, run(build), 'nowhere')).toBeUndefined();
    expect(plansFor(build, { id: 'f', step: 'nowhere', kind: 'crack' }, MOMENT)).toEqual([]);
    const wrong: Omit<Failure, 'id' | 'step'>[] = [
      { kind: 'crack', pieces: ['gone'], from: { mm: 40 }, wide: { mm: 5 } },
      { kind: 'crack', from: { mm: 99_999 }, wide: { mm: 5 } },
      { kind: 'crack', from: { mm: -3 } },
      { kind: 'openJoint', joint: 99 },
    ];
    for (const told of wrong)
      expect(plansFor(build, { id: 'f', step: glue, ...told }, MOMENT).map(({ ways }) => ways[0])).toEqual([
        'startAgain',
      ]);
  });

  it('is called by its kind or in own words, in every demo job with a way on', () => {
    for (const kind of FAILURE_KINDS) expect(FAILURE_NAMES[kind]).toMatch(/^[A-Z].*[a-z]$/);
    expect(failureWords({ id: 'f', step: 's', kind: 'crack' })).toBe('it cracked');
    expect(
      failureWords({ id: 'f', step: 's', kind: 'other', words: ' the dog ate it ', way: 'Make a new strip' }),
    ).toBe('the dog ate it; way taken: Make a new strip');
    for (const build of demoJobs) {
      const step = build.steps.findLast(({ kind }) => kind === 'glue');
      if (!step) continue;
      const plans = plansFor(build, toldAt(sheetOf(build, step.id), 'skinnedGlue'), MOMENT);
      expect(plans.length, build.name).toBeGreaterThan(0);
    }
  });

  it('plans stand in order: what comes to the size first, then what asks less of it', () => {
    const plan = (change: Partial<Plan>): Plan => ({
      ways: ['again'],
      label: '',
      says: [],
      steps: [],
      misses: [],
      fewer: 0,
      raised: [],
      woodMm3: 0,
      minutes: 0,
      doneAt: 0,
      wasDoneAt: 0,
      edit: { do: 'many', edits: [] },
      ...change,
    });
    const missing = plan({ label: 'misses', misses: [{ target: 't', dimension: 'width', offMm: -1 }] });
    const dear = plan({ label: 'dear', woodMm3: 9 });
    const late = plan({ label: 'late', doneAt: 9e8 });
    const less = plan({
      label: 'less',
      edit: {
        do: 'many',
        edits: [{ do: 'setAim', dimension: 'width', aim: { aim: 'fixed', value: { mm: 1 } } }],
      },
    });
    expect(inOrder([missing, less, late, dear, plan({ label: 'best' })]).map(({ label }) => label)).toEqual([
      'best',
      'dear',
      'late',
      'less',
      'misses',
    ]);
  });
});
