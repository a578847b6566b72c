import { sumOf } from '../units';
import { roomOfShop, schedule, tasksOf } from '../bench';
import {
  type BuildDocument,
  cameThrough,
  type DimensionName,
  type Edit,
  type Failure,
  FAILURE_KINDS,
  FAILURE_NAMES,
  type FailureKind,
  type Finding,
  type Fix,
  isRefused,
  type Phrase,
  phraseText,
} from '../document';
import { applyEdit, applyEdits } from '../edit';
import { compareTarget, findingsOf, reviewingThese } from '../review';
import { run } from '../run';
import { stepTitle, type Timeline } from '../steps';
import { type Asked, FAILURES } from './failures';
import { REMEDIES, type RemedyName } from './remedies';
import { type Attempt, troubleOf } from './trouble';
import { warnedOf } from './warned';
import { type JointPlace, jointsAt, whereAt } from './where';

/** A failure that can be told at a step: what it is called and what is asked of it. */
export interface Tellable {
  kind: FailureKind;
  name: string;
  asks: readonly Asked[];
}

/** What can fail at a step, and what there is to point at. */
export interface FailureSheet {
  step: string;
  kinds: Tellable[];
  /** Its pieces by id, in order, those already spoilt left out. */
  pieces: string[];
  joints: JointPlace[];
  /** How a bad band lies: measured from the near edge, or from the left end. */
  band: 'width' | 'length';
  sizes: readonly [number, number, number];
}

/** What can be told at a step; undefined where it was not played. */
export function failureSheet(
  build: BuildDocument,
  timeline: Timeline,
  step: string,
): FailureSheet | undefined {
  const where = whereAt(build, timeline, step);
  if (!where) return undefined;
  return {
    step,
    kinds: FAILURE_KINDS.flatMap((kind) => {
      const { at, asks } = FAILURES[kind];
      // Of one piece nobody asks which.
      const asked = asks(where).filter((each) => each !== 'pieces' || where.entry.pieces.length > 1);
      return at(where) ? [{ kind, name: FAILURE_NAMES[kind], asks: asked }] : [];
    }),
    pieces: where.entry.pieces.map(({ id }) => id),
    joints: jointsAt(where),
    band: where.joined?.along === 'length' ? 'length' : 'width',
    sizes: where.entry.greatest,
  };
}

/** A size of the piece that a plan does not come to, and by how much it is off, mm. */
export interface Miss {
  target: string;
  dimension: DimensionName;
  offMm: number;
}

/** A way to go on, played forward: where it comes out, what it costs against the job as it was planned, and how to take it. */
export interface Plan {
  ways: readonly RemedyName[];
  label: string;
  says: Phrase[];
  /** Steps that it adds to the chain, by name. */
  steps: string[];
  misses: Miss[];
  /** Fewer pieces come out than before. */
  fewer: number;
  /** Warnings that were not there before it failed. */
  raised: Finding[];
  /** More wood than was planned, mm3, and more work for hands, minutes. */
  woodMm3: number;
  minutes: number;
  /** When this job by itself is done now and was to be done before, ms. */
  doneAt: number;
  wasDoneAt: number;
  /** Tells the failure, makes what is true of it so, and takes this way. */
  edit: Edit;
}

/** When it is, for the calendar and the bottles. */
export interface Moment {
  now: number;
  today: string;
  zone: string;
}

/** What is compared of a job before and after: its wood, its hours and its end. */
interface Sum {
  timeline: Timeline;
  found: Finding[];
  minutes: number;
  doneAt: number;
  pieces: number;
}

/** The job with all that a step came through done: what is cut does not grow, and costs nothing any more. */
function asDoneUpTo(build: BuildDocument, id: string): BuildDocument {
  const step = build.steps.find((each) => each.id === id);
  const behind = new Set(step && cameThrough(build, step.output));
  return {
    ...build,
    steps: build.steps.map((each) => (behind.has(each) && !each.done ? { ...each, done: true } : each)),
  };
}

const anywhere = ({ code, dimension }: Finding) => [code, dimension ?? ''].join(' ');

const RANK = { note: 0, warning: 1, stop: 2 } as const;
/** Two findings are the same trouble where they say the same of the same step. */
const key = ({ code, step, dimension }: Finding) => [code, step, dimension ?? ''].join(' ');
/** So many ways of making up for what a plan lacks are tried with it. */
const MOST_MENDS = 2;
/** A plan of the same name and end is the same plan. */
const sameEnd = (a: Plan, b: Plan) => a.label === b.label;

function summed(build: BuildDocument, { now, today, zone }: Moment, before?: Timeline): Sum {
  const timeline = run(build, before);
  const tasks = tasksOf('job', build, timeline);
  const ends = schedule(tasks, now, roomOfShop(build.shop, zone)).map(({ to }) => to);
  return {
    timeline,
    found: findingsOf(build, timeline, today),
    minutes: sumOf(
      tasks.filter(({ kind }) => kind === 'work'),
      (task) => task.minutes,
    ),
    doneAt: Math.max(now, ...ends),
    pieces: sumOf(timeline.wanted, ({ step }) => step?.pieces.length ?? 0),
  };
}

/** What of the pieces wanted is not as asked. */
const missesOf = (build: BuildDocument, timeline: Timeline): Miss[] =>
  build.targets.flatMap((target) =>
    (compareTarget(build, timeline, target) ?? [])
      .filter(({ fits }) => !fits)
      .map(({ dimension, differenceMm }) => ({ target: target.id, dimension, offMm: differenceMm })),
  );

/**
 * Ways to go on after a failure, the best first: each is carried out and played forward to the end before it is offered, with
 * what it then misses, raises and costs. Where one comes out short, the ways that make up for it are offered with it. What
 * cannot be played to the end is not offered. Yields them one by one: each takes a moment.
 */
export function* planning(asked: BuildDocument, told: Failure, moment: Moment): Generator<Plan> {
  const build = asDoneUpTo(asked, told.step);
  const before = summed(build, moment);
  const codes = new Set(before.found.map(anywhere));
  const warned = warnedOf(asked, told);
  const where = whereAt(build, before.timeline, told.step);
  if (!where) return;
  const { facts, ways } = FAILURES[told.kind];
  const known = facts(told, where);
  const struck = applyEdits(build, known);
  if (isRefused(struck)) return;
  const step = asked.steps.find(({ id }) => id === told.step);
  const trouble = troubleOf(told, where, { struck, open: !step?.done });
  const display = build.shop.display;
  const was = new Set(before.found.filter(({ severity }) => RANK[severity] > 0).map(key));
  const offered: Plan[] = [];
  const played = (names: readonly RemedyName[], { label, says, edits }: Attempt): Plan | undefined => {
    const words = phraseText(label, display);
    const edit: Edit = {
      do: 'many',
      edits: [{ do: 'fail', failure: { ...told, way: words.slice(0, 200), warned } }, ...known, ...edits],
    };
    const next = applyEdit(build, edit);
    if (isRefused(next)) return undefined;
    const after = summed(next, moment, before.timeline);
    const stopped = after.found.some((each) => each.severity === 'stop' && !was.has(key(each)));
    if (stopped || (before.pieces > 0 && after.pieces === 0)) return undefined;
    const here = new Set(build.steps.map(({ id }) => id));
    return {
      ways: names,
      label: words,
      says,
      steps: next.steps.filter(({ id }) => !here.has(id)).map((step) => stepTitle(next, step)),
      misses: missesOf(next, after.timeline),
      fewer: Math.max(0, before.pieces - after.pieces),
      raised: after.found.filter(
        (each) =>
          RANK[each.severity] > 0 &&
          !was.has(key(each)) &&
          !isMiss(each) &&
          // What is done once more meets what it met the first time.
          (here.has(each.step) || !codes.has(anywhere(each))),
      ),
      woodMm3: after.timeline.woodInMm3 - before.timeline.woodInMm3,
      minutes: after.minutes - before.minutes,
      doneAt: after.doneAt,
      wasDoneAt: before.doneAt,
      edit,
    };
  };
  for (const name of ways) {
    const tries = REMEDIES[name](trouble).flatMap((attempt) => {
      const plan = played([name], attempt);
      return plan ? [{ attempt, plan }] : [];
    });
    // Of tries that differ in nothing but what they are made of, the first that raises nothing.
    const best =
      tries.find(({ plan }) => plan.misses.length === 0 && plan.raised.length === 0) ?? tries.at(-1);
    if (!best || (best.attempt.whole && best.plan.misses.length > 0)) continue;
    if (offered.some((each) => sameEnd(each, best.plan))) continue;
    offered.push(best.plan);
    yield best.plan;
    if (best.plan.misses.length === 0) continue;
    for (const attempt of mended(build, best, moment)) {
      const plan = played([name], attempt);
      if (
        !plan ||
        plan.misses.length >= best.plan.misses.length ||
        offered.some((each) => sameEnd(each, plan))
      )
        continue;
      offered.push(plan);
      yield plan;
    }
  }
}

const isMiss = ({ code }: Finding): boolean => code === 'target-not-reached' || code === 'target-overshot';

const accents = (edit: Edit): boolean =>
  edit.do === 'addAccent' || (edit.do === 'many' && edit.edits.some(accents));
const asksLess = (edit: Edit): boolean =>
  edit.do === 'setAim' || (edit.do === 'many' && edit.edits.some(asksLess));
const replans = (edit: Edit): boolean =>
  edit.do === 'replan' || (edit.do === 'many' && edit.edits.some(replans));

/** A plan that misses, with each of the ways that make up for it. */
function mended(
  build: BuildDocument,
  { attempt, plan }: { attempt: Attempt; plan: Plan },
  { today }: Moment,
): Attempt[] {
  const next = applyEdit(build, plan.edit);
  if (isRefused(next)) return [];
  const fixes: Fix[] = [];
  // A plan made anew knows nothing of what failed.
  for (const { fixes: some } of reviewingThese(next, run(next), isMiss, today))
    fixes.push(...some.filter((fix) => !replans(fix.edit)));
  const own = attempt.edits.some(({ do: what }) => what === 'glueAnew');
  return fixes
    .filter(({ edit }) => !own || !accents(edit))
    .slice(0, MOST_MENDS)
    .map((fix) => ({
      label: [...attempt.label, `, and: ${fix.label.charAt(0).toLowerCase()}${fix.label.slice(1)}`],
      says: attempt.says,
      edits: [...attempt.edits, fix.edit],
    }));
}

/** All plans, the best first: those that come to what was asked and raise nothing before the others, then by days, wood and hours. */
export const plansFor = (build: BuildDocument, told: Failure, moment: Moment): Plan[] =>
  inOrder([...planning(build, told, moment)]);

/** Plans in the order in which they are shown. */
export const inOrder = (plans: readonly Plan[]): Plan[] => {
  const worth = ({ misses, fewer, raised, edit, doneAt, woodMm3, minutes }: Plan) => [
    misses.length + fewer,
    // To ask less of the piece is a way for when the others cost too much.
    Number(asksLess(edit)),
    raised.length,
    Math.round(doneAt / 3_600_000),
    woodMm3,
    minutes,
  ];
  return plans.toSorted((a, b) => {
    const [x, y] = [worth(a), worth(b)];
    const at = x.findIndex((value, i) => value !== y[i]);
    return at < 0 ? 0 : x[at] - y[at];
  });
};
