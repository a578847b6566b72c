import { type BuildDocument, type Step, targetOfStep, timesMade } from '../document';
import {
  adhesiveFor,
  type Gates,
  gatesOf,
  type GlueUp,
  glueUpOf,
  layAids,
  planClamps,
  rehearse,
  sessionsOf,
} from '../glueup';
import { AWAY_DAYS, climateOf, glueTimes, gluingOf, machineFacts, type ShopSnapshot } from '../kit';
import {
  asGlueUp,
  asPlayed,
  handMinutes,
  machineOfStep,
  roomOf,
  stepTitle,
  type Timeline,
  type Wait,
} from '../steps';
import { handsOn } from './hands';
import { toolOf } from './tool';

/** A stretch of a job on the calendar: hands are needed, or it waits by itself. */
export interface Task {
  /** Step id, with what of it: `glue` is the work, `glue:clamps` the wait after. */
  id: string;
  job: string;
  step: string;
  name: string;
  kind: 'work' | 'clamps' | 'settle' | Wait['of'];
  minutes: number;
  /** The saw or machine it is done on, by id: not everybody may run it. */
  tool?: string;
  /** Cannot be broken off: a glue-up goes on to its last clamp. */
  whole: boolean;
  after: string[];
  /** Clamps it holds by set, from the start of its glue-up on. */
  clamps?: Record<string, number>;
  /** When the maker means to begin it. */
  begin?: number;
  /** When it really began: a wait after work that is done. It stays on the calendar until it is over. */
  began?: number;
}

/** A stretch of waiting after a step's work, h. */
interface Waiting {
  of: string;
  words: string;
  kind: Task['kind'];
  hours: number;
  clamps?: Record<string, number>;
}

const SCRAPE_MIN = 10;
/** What is begun and not ticked is never nearer to its end than this, minutes. */
const LEAST_LEFT_MIN = 5;
/** What a coat or a pour does by itself. */
const DRIES = 'dries';

/**
 * A job's open steps as tasks, each after what it works on. Work that is done is left out; what must wait after it stays,
 * from the moment it was done, where that is known.
 */
export function tasksOf(job: string, asked: BuildDocument, timeline: Timeline): Task[] {
  const build = asPlayed(asked, timeline);
  const out: Task[] = [];
  const last = new Map<string, string>();
  for (const step of build.steps) {
    const after = step.inputs.flatMap((input) => last.get(input) ?? []);
    const add = (task: Omit<Task, 'job' | 'step' | 'after'> & { after?: string[] }) => {
      const before = out.findLast((each) => each.step === step.id && each.job === job)?.id;
      out.push({ job, step: step.id, after: before ? [before] : after, ...task });
    };
    if (step.done) for (const wait of waitsAfter(step, build, timeline)) add(wait);
    else addTasks(step, build, timeline, add);
    const own = out.findLast((each) => each.step === step.id);
    if (own) last.set(step.output, own.id);
    else if (after.length === 1) last.set(step.output, after[0]);
    else if (after.length > 1) last.set(step.output, after[after.length - 1]);
  }
  return out;
}

function addTasks(
  step: Step,
  build: BuildDocument,
  timeline: Timeline,
  add: (task: Omit<Task, 'job' | 'step' | 'after'>) => void,
): void {
  // Sections go through the same steps: whose step it is must be said.
  const name = stepTitle(build, step);
  const tool = toolOf(step, build)?.id;
  const begin = {
    ...(step.begin ? { begin: Date.parse(step.begin) } : {}),
    ...(tool === undefined ? {} : { tool }),
  };
  // A piece wanted several times is gone through as often, at the same settings: set up once, done for all of them.
  const times = timesMade(build, targetOfStep(build, step));
  const entry = timeline.steps.find(({ id }) => id === step.id);
  const pieces = times * (entry?.pieces.length ?? 1);
  const nth = (session: number) => (session > 1 ? `:${session}` : '');
  // Of what was begun only the rest is still to be done: some of it, as long as it is not ticked.
  const worked = step.work ? handsOn(step, Date.parse(step.work.at(-1)?.to ?? '') || 0) / 60_000 : 0;
  const work = (planned: number, whole = false, session = 1) => {
    const left = session === 1 ? planned - worked : planned;
    const minutes = planned > 0 ? Math.max(left, Math.min(planned, LEAST_LEFT_MIN)) : 0;
    if (minutes > 0)
      add({
        id: `${step.id}${nth(session)}`,
        name: session > 1 ? `${name}, session ${session}` : name,
        kind: 'work',
        minutes,
        whole,
        ...begin,
      });
  };
  const wait = ({ of, words, kind, hours, clamps }: Waiting, session = 1) => {
    if (hours > 0)
      add({
        id: `${step.id}:${of}${nth(session)}`,
        name: `${name}${session > 1 ? `, session ${session}` : ''}: ${words}`,
        kind,
        minutes: hours * 60,
        whole: true,
        ...(clamps ? { clamps } : {}),
      });
  };
  const { flow, labour } = roomOf(step);
  if (flow.joins)
    return glueTasks({ id: step.id, setUp: labour.setUp, times }, build, timeline, { work, wait });
  const all = labour.rounds?.(step) ?? [];
  // Of what is done only the last round still waits; of what is being done, the last that was.
  const dried = step.done ? Math.max(0, all.length - 1) : Math.min(step.operations ?? 0, all.length - 1);
  const lastDone = step.done ? undefined : all[dried - 1];
  const since = Date.parse(step.work?.at(-1)?.to ?? '');
  if (lastDone && Number.isFinite(since))
    add({
      id: `${step.id}:${lastDone.of}${nth(dried)}`,
      name: `${name}, ${lastDone.words}: ${DRIES}`,
      kind: lastDone.of,
      minutes: lastDone.hours * 60,
      whole: true,
      began: since,
    });
  for (const [i, { of, words, minutes, hours }] of all.slice(dried).entries()) {
    add({
      id: i === 0 ? step.id : `${step.id}:${i + 1}`,
      name: `${name}, ${words}`,
      kind: 'work',
      minutes: minutes * times,
      whole: true,
      ...(i === 0 ? begin : {}),
    });
    if (hours > 0)
      add({
        id: `${step.id}:${of}${nth(i + 1)}`,
        name: `${name}, ${words}: ${DRIES}`,
        kind: of,
        minutes: hours * 60,
        whole: true,
      });
  }
  // What only waits asks nothing of hands; everything else is set up once and done piece by piece.
  if (all.length === 0) work(handMinutes(step, entry, { build, pieces, times }));
  const machine = machineOfStep(step, build);
  if (machine && machineFacts(machine).away)
    wait({ of: 'outside', words: 'away', kind: 'outside', hours: 24 * (machine.days ?? AWAY_DAYS) });
  for (const { of, words, hours } of labour.waits?.(step) ?? []) wait({ of, words, kind: of, hours });
}

/** When a step was done, ms: a glue-up when its last clamp was tight. Not a number where nobody noted it. */
const doneAtOf = (step: Step): number => Date.parse(asGlueUp(step)?.plan?.clamped ?? step.doneAt ?? '');

/** What waits after a step that is done: glue in its clamps and settling, coats drying. */
function waitsAfter(
  step: Step,
  build: BuildDocument,
  timeline: Timeline,
): Omit<Task, 'job' | 'step' | 'after'>[] {
  const at = doneAtOf(step);
  if (!Number.isFinite(at)) return [];
  const waits: Omit<Task, 'job' | 'step' | 'after'>[] = [];
  addTasks(step, build, timeline, (task) => task.kind !== 'work' && waits.push(task));
  let began = at;
  return waits.map((wait) => {
    const from = began;
    began += (wait.minutes * HOUR_MS) / 60;
    return { ...wait, began: from };
  });
}

const HOUR_MS = 3_600_000;

/** The gates of the glue that a glue-up takes, in the shop's air. */
function gatesFor(glueUp: GlueUp, shop: ShopSnapshot): Gates {
  const facts = adhesiveFor(glueUp, shop);
  return gatesOf(facts && glueTimes(facts, climateOf(shop)), shop);
}

/** Whether a step lays one part by itself, which is glued to nothing. */
const isAlone = (timeline: Timeline, step: string): boolean =>
  timeline.steps.find(({ id }) => id === step)?.laid?.length === 1;

/** A glue-up that is done: from when, ms, and for how long, h, its glue sets in the clamps before it is scraped. */
export interface Scrape {
  step: string;
  name: string;
  began: number;
  hours: number;
}

/**
 * Where squeeze-out is scraped while it is rubbery: when that is, for the glue-ups that are done. Where it is wiped off wet, or
 * scraped once the clamps are off, nothing rings of its own. It binds nothing, and holds no bench.
 */
export const scrapesOf = (build: BuildDocument, timeline: Timeline): Scrape[] =>
  build.steps.flatMap((step) => {
    const began = doneAtOf(step);
    if (!step.done || step.off || !roomOf(step).flow.joins || !Number.isFinite(began)) return [];
    const glueUp = isAlone(timeline, step.id) ? undefined : glueUpOf(build, timeline, step.id);
    const gates = glueUp && gatesFor(glueUp, build.shop);
    return gates && gates.scrapeH > 0 && gates.scrapeH < gates.unclampH
      ? [{ step: step.id, name: stepTitle(build, step), began, hours: gates.scrapeH }]
      : [];
  });

function glueTasks(
  { id, setUp, times }: { id: string; setUp: number; times: number },
  build: BuildDocument,
  timeline: Timeline,
  {
    work,
    wait,
  }: {
    work: (minutes: number, whole: boolean, session?: number) => void;
    wait: (waiting: Waiting, session?: number) => void;
  },
): void {
  const { shop } = build;
  const glueUp = glueUpOf(build, timeline, id);
  if (isAlone(timeline, id)) return;
  if (!glueUp) return work(setUp * times, true);
  const plan = planClamps(glueUp, shop);
  const { totalMin } = rehearse(glueUp, plan, layAids(build, timeline, glueUp), shop);
  const gates = gatesFor(glueUp, shop);
  const scrape = gluingOf(shop).squeezeOut === 'hard' ? 0 : SCRAPE_MIN;
  const next = build.steps.find(({ inputs }) => inputs.includes(glueUp.step.output));
  const settle = () => {
    if (next && roomOf(next).needsSettled)
      wait({
        of: 'settle',
        words: 'full strength after',
        kind: 'settle',
        hours: gates.surfaceH - gates.unclampH,
      });
  };
  // Pieces alike stand in clamps together as far as clamps and bench go; those laid as blanks of one step are one session.
  const { atOnce, sessions } = sessionsOf(times, plan.picks, shop);
  for (let session = 1; session <= sessions; session++) {
    const glueUps = Math.min(atOnce, times - (session - 1) * atOnce);
    work(setUp + totalMin * glueUp.blanks * glueUps + scrape, true, session);
    const clamps = Object.fromEntries(plan.picks.map(({ set, count }) => [set.id, count * glueUps]));
    wait({ of: 'clamps', words: 'in clamps', kind: 'clamps', hours: gates.unclampH, clamps }, session);
  }
  settle();
}
