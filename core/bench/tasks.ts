import { passesOf, stepTitle, type BuildDocument, type Step, type Timeline } from '../build';
import { counted } from '../units';
import { glueTimes, climateOf, gluingOf } from '../kit';
import { adhesiveFor, gatesOf, glueUpOf, layAids, planClamps, rehearse, waitsToSurface } from '../glueup';

/** A stretch of a job on the calendar: hands are needed, or it waits by itself. */
export interface Task {
  /** Step id, with what of it: `glue` is the work, `glue:clamps` the wait after. */
  id: string;
  job: string;
  step: string;
  name: string;
  kind: 'work' | 'clamps' | 'settle' | 'rest' | 'coat' | 'outside';
  minutes: number;
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

/**
 * Minutes of work for a step, apart from glue-ups: rough guesses until the shop's own log knows better (common
 * practice): so many to set up, so many for each piece, and for each pass it goes over a machine.
 */
const STEP_MINUTES: Partial<Record<Step['kind'], { setUp: number; each: number; pass?: number }>> = {
  rip: { setUp: 10, each: 2 },
  mill: { setUp: 10, each: 2, pass: 1 },
  flatten: { setUp: 10, each: 5, pass: 5 },
  joint: { setUp: 5, each: 3, pass: 1 },
  slice: { setUp: 10, each: 1.5 },
  trim: { setUp: 15, each: 5 },
  crosscut: { setUp: 5, each: 1 },
  oblique: { setUp: 15, each: 2 },
  resaw: { setUp: 15, each: 5 },
  shape: { setUp: 20, each: 15 },
  surface: { setUp: 10, each: 40 },
  turn: { setUp: 0, each: 0 },
};
const COAT_MIN = 20;
const COAT_WAIT_H = 12;
const OUTSIDE_DAYS = 7;
/** Laying everything ready, and a dry run, before the bottle is opened. */
const GLUE_SET_UP_MIN = 20;
const SCRAPE_MIN = 10;

/**
 * A job's open steps as tasks, each after what it works on. Work that is done is left out; what must wait after it stays,
 * from the moment it was done, where that is known.
 */
export function tasksOf(job: string, build: BuildDocument, timeline: Timeline): Task[] {
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
  const begin = step.begin ? { begin: Date.parse(step.begin) } : {};
  const pieces = timeline.steps.find(({ id }) => id === step.id)?.pieces.length ?? 1;
  const work = (minutes: number, whole = false) => {
    if (minutes > 0) add({ id: step.id, name, kind: 'work', minutes, whole, ...begin });
  };
  const wait = (
    of: string,
    words: string,
    kind: Task['kind'],
    hours: number,
    clamps?: Record<string, number>,
  ) => {
    if (hours > 0)
      add({
        id: `${step.id}:${of}`,
        name: `${name}: ${words}`,
        kind,
        minutes: hours * 60,
        whole: true,
        ...(clamps ? { clamps } : {}),
      });
  };
  if (step.kind === 'glue') return glueTasks(step.id, build, timeline, work, wait);
  if (step.kind === 'rest') return wait('rest', 'rests', 'rest', step.hours ?? 12);
  if (step.kind === 'outside') return wait('outside', 'away', 'outside', (step.days ?? OUTSIDE_DAYS) * 24);
  if (step.kind === 'finish') {
    const coats = Math.max(1, step.coats ?? 1);
    work(COAT_MIN * coats);
    return wait(
      'coat',
      `${counted(coats, 'coat')} ${coats === 1 ? 'dries' : 'dry'}`,
      'coat',
      coats * (step.hours ?? COAT_WAIT_H),
    );
  }
  const { setUp, each, pass = 0 } = STEP_MINUTES[step.kind] ?? { setUp: 10, each: 5 };
  const machine = 'machine' in step ? build.shop.machines.find(({ id }) => id === step.machine) : undefined;
  work(setUp + (each + pass * (passesOf(step, machine) ?? 0)) * pieces);
}

/** When a step was done, ms: a glue-up when its last clamp was tight. Not a number where nobody noted it. */
const doneAtOf = (step: Step): number =>
  Date.parse((step.kind === 'glue' ? step.plan?.clamped : undefined) ?? step.doneAt ?? '');

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

function glueTasks(
  id: string,
  build: BuildDocument,
  timeline: Timeline,
  work: (minutes: number, whole: boolean) => void,
  wait: (
    of: string,
    words: string,
    kind: Task['kind'],
    hours: number,
    clamps?: Record<string, number>,
  ) => void,
): void {
  const { shop } = build;
  const glueUp = glueUpOf(build, timeline, id);
  // One part by itself is glued to nothing.
  if (timeline.steps.find((step) => step.id === id)?.laid?.length === 1) return;
  if (!glueUp) return work(GLUE_SET_UP_MIN, true);
  const plan = planClamps(glueUp, shop);
  const { totalMin } = rehearse(glueUp, plan, layAids(build, timeline, glueUp), shop);
  const facts = adhesiveFor(glueUp, shop);
  const gates = gatesOf(facts && glueTimes(facts, climateOf(shop)), shop);
  const scrape = gluingOf(shop).squeezeOut === 'hard' ? 0 : SCRAPE_MIN;
  work(GLUE_SET_UP_MIN + totalMin * glueUp.blanks + scrape, true);
  const clamps = Object.fromEntries(plan.picks.map(({ set, count }) => [set.id, count]));
  wait('clamps', 'in clamps', 'clamps', gates.unclampH, clamps);
  const next = build.steps.find(({ inputs }) => inputs.includes(glueUp.step.output));
  if (next && waitsToSurface(next.kind))
    wait('settle', 'joint settles', 'settle', gates.surfaceH - gates.unclampH);
}
