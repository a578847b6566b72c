import { toolOf } from './tool';
import {
  type BuildDocument,
  type CheckKind,
  axisOf,
  type DimensionName,
  type EarlyStart,
  type Phrase,
  type Step,
} from '../document';
import { glueUpOf, layAids, planClamps, rehearse } from '../glueup';
import { type DialReads, machineFacts } from '../kit';
import { extents, type Vec3 } from '../solid';
import {
  asGlueUp,
  asPlayed,
  cutList,
  featureCuts,
  greatestSize,
  isNoPasses,
  machineOfStep,
  massOf,
  type Operation,
  passPlan,
  roomOf,
  stepTitle,
  type Timeline,
  type TimelineStep,
  type ToSet,
} from '../steps';
import { counted, rising } from '../units';
import { checkPlace, type CheckResult, checksAt, judged } from './checks';
import { type Task, tasksOf } from './tasks';

/** One thing to do, as it is shown at the bench. */
export interface BenchOperation {
  say: Phrase[];
  dial?: ToSet;
  /** How the scale reads that it is dialled on; as the shop does if missing. */
  reads?: DialReads;
  /** What it takes off, and how thick that leaves the piece, mm. */
  takesMm?: number;
  leavesMm?: number;
}

/** What waits before a step may begin, in words after the step that it waits for. */
const STILL: Record<Exclude<Task['kind'], 'work'>, string> = {
  clamps: 'in clamps',
  settle: 'not at full strength yet',
  rest: 'at rest',
  coat: 'a coat or layer dries',
  cure: 'not hard right through yet',
  outside: 'away',
};

/** A wait before a step may begin: what waits, in words, from when until when, ms. */
export interface BenchGate {
  step: string;
  name: string;
  kind: Exclude<Task['kind'], 'work'>;
  from: number;
  until: number;
}

/** A size to read back after a step: what was predicted, whatever was read since, and how far it may be off at most, mm. */
export interface ToRead {
  dimension: DimensionName;
  predictedMm: number;
  worstMm: number;
}

/** A check that was made: its numbers, which piece, counted from 1, where it was of one of several, and what it means. */
export interface CheckedLine {
  id: string;
  kind: CheckKind;
  values: readonly number[];
  nth?: number;
  result?: CheckResult;
}

/** One step as it is shown at the bench, two metres away. Plain data. */
export interface BenchStep {
  step: string;
  title: string;
  /** The saw or machine it is done with. */
  tool?: { id: string; name: string };
  /** The heaviest of the pieces that are handled, before or after, kg. */
  heaviestKg: number;
  operations: BenchOperation[];
  caution: string;
  marks: string[];
  note?: string;
  /** Sizes to read, what the step changes first. */
  toRead: ToRead[];
  /** Pieces it gives, each with its sizes, mm: they may be read one by one. */
  pieces: { id: string; sizes: Vec3 }[];
  /** Waits that must be over before it. */
  gates: BenchGate[];
  /** What can be checked beside sizes, and what was, with what it means. */
  mayCheck: CheckKind[];
  checked: CheckedLine[];
  /** Steps that come first and are not done. */
  before: string[];
  /** Each operation waits before the next, as coats do: the clock of the hands stops after each. */
  rounds?: true;
  /** What waits by itself once it is done, h. */
  after: { words: string; hours: number }[];
}

/** Sizes that differ by less were not changed by a step, mm. */
const SAME_MM = 1e-3;
/** So far may a reading be off where no tolerance is known, mm. */
const LEAST_WORST_MM = 0.05;

/** Passes over a machine, one after the other, each with what it takes and leaves. */
function passes(step: Step, entry: TimelineStep, build: BuildDocument): BenchOperation[] {
  const plan = passPlan(step, entry, build);
  if (!plan || isNoPasses(plan)) return [];
  const all = plan.faces.flatMap(({ face, passes: of }) => of.map((pass) => ({ face, pass })));
  return all.map(({ face, pass }) => ({
    say: [`Over ${plan.machine}, ${face} face to the cutter.`],
    dial: { name: 'set it to', value: { mm: pass.settingMm } },
    ...(plan.reads ? { reads: plan.reads } : {}),
    takesMm: pass.takesMm,
    leavesMm: pass.settingMm - plan.carrierMm,
  }));
}

/** The acts of a glue-up as they are rehearsed. */
function gluing(
  step: Step,
  _entry: TimelineStep,
  build: BuildDocument,
  timeline: Timeline,
): BenchOperation[] {
  const glueUp = asGlueUp(step) && glueUpOf(build, timeline, step.id);
  if (!glueUp || glueUp.lines.length === 0) return [];
  const plan = planClamps(glueUp, build.shop);
  const { acts } = rehearse(glueUp, plan, layAids(build, timeline, glueUp), build.shop);
  return acts.map(({ words, minutes }) => ({
    say: [`${words[0].toUpperCase()}${words.slice(1)}.`],
    dial: { name: 'takes about', value: { minutes } },
  }));
}

/** Lines of a list, each with its length to measure where it has just one. */
const said = (lines: readonly Phrase[][]): BenchOperation[] =>
  lines.map((say) => {
    const lengths = say.filter((part) => typeof part === 'object' && 'mm' in part);
    return { say, ...(lengths.length === 1 ? { dial: { name: 'measure', value: lengths[0] } } : {}) };
  });

/** Lists that stand in the place of an operation. */
const LISTS: Record<
  NonNullable<Operation['instead']>,
  (step: Step, entry: TimelineStep, build: BuildDocument, timeline: Timeline) => BenchOperation[]
> = {
  passes,
  cuts: (step, entry, build) => said(cutList(step, entry, build)),
  features: (step, entry, build) => said(featureCuts(step, entry, build)),
  'glue-up': gluing,
};

/** What hands do at a step, in order; at least one thing. */
function operationsOf(
  step: Step,
  entry: TimelineStep,
  build: BuildDocument,
  timeline: Timeline,
): BenchOperation[] {
  const out = roomOf(step)
    .operations(step, { build, entry })
    .flatMap(({ instead, ...own }) => {
      const list = instead ? LISTS[instead](step, entry, build, timeline) : [];
      return list.length > 0 ? list : [own];
    });
  return out.length > 0 ? out : [{ say: [roomOf(step).says] }];
}

/** The waits that run before a step: of every step that gives what it takes, steps left out counted through. */
function gatesBefore(step: Step, build: BuildDocument, tasks: readonly Task[]): BenchGate[] {
  // What it waits for in the middle of itself, as between two coats, is its own.
  return [...makersBefore(step, build).filter(({ done }) => done), ...(step.done ? [] : [step])]
    .flatMap((maker) =>
      tasks.flatMap(({ step: of, kind, began, minutes }) =>
        of === maker.id && began !== undefined && kind !== 'work'
          ? [
              {
                step: of,
                name: `${stepTitle(build, maker)}, ${STILL[kind]}`,
                kind,
                from: began,
                until: began + minutes * 60_000,
              },
            ]
          : [],
      ),
    )
    .toSorted(rising((a) => a.until));
}

/** The steps whose outputs a step takes; through a step that is left out, those before it. */
function makersBefore({ inputs }: Step, build: BuildDocument): Step[] {
  return build.steps
    .filter(({ output }) => inputs.includes(output))
    .flatMap((maker) => (maker.off ? makersBefore(maker, build) : [maker]));
}

/** Of sizes that a step changes alike, which is read first: thickness, width, length; of strips just ripped their width. */
const FIRST: readonly DimensionName[] = ['thickness', 'width', 'length'];
const FIRST_RIPPED: readonly DimensionName[] = ['width', 'thickness', 'length'];

/** Sizes to read after a step, what it changes first. */
function toReadAt({ entered, greatest, predicted = greatest, tolerance }: TimelineStep): ToRead[] {
  const changes = (dimension: DimensionName) =>
    Math.abs(greatestSize(entered, dimension) - greatest[axisOf(dimension)]) > SAME_MM;
  const order = entered.length === 0 ? FIRST_RIPPED : FIRST;
  return [...order.filter(changes), ...order.filter((each) => !changes(each))].map((dimension) => ({
    dimension,
    predictedMm: predicted[axisOf(dimension)],
    worstMm: Math.max(LEAST_WORST_MM, tolerance[axisOf(dimension)].worstMm),
  }));
}

/**
 * A step as it is worked on at the bench: every operation with what is dialled, the caution, what to read back, and the
 * waits before it. Undefined where the job does not come so far, or the step is left out.
 */
export function benchStep(asked: BuildDocument, timeline: Timeline, id: string): BenchStep | undefined {
  const build = asPlayed(asked, timeline);
  const step = build.steps.find((each) => each.id === id);
  const entry = timeline.steps.find((each) => each.id === id);
  if (!step || !entry || step.off) return undefined;
  const machine = machineOfStep(step, build);
  const tool = toolOf(step, build);
  const place = checkPlace(build, timeline, id);
  const tasks = tasksOf('', build, timeline);
  const own = tasks.filter((task) => task.step === id && task.kind !== 'work');
  return {
    step: id,
    title: stepTitle(build, step),
    ...(tool ? { tool: { id: tool.id, name: tool.name } } : {}),
    heaviestKg: Math.max(0, ...[...entry.entered, ...entry.pieces].map(({ blank }) => massOf(blank))),
    operations: operationsOf(step, entry, build, timeline),
    caution: [roomOf(step).caution, machine && machineFacts(machine).caution].filter(Boolean).join(' '),
    marks: step.marks ?? [],
    ...(step.note ? { note: step.note } : {}),
    toRead: entry.pieces.length > 0 ? toReadAt(entry) : [],
    pieces: entry.pieces.map(({ id: piece, blank }) => ({ id: piece, sizes: extents(blank) })),
    gates: gatesBefore(step, build, tasks),
    mayCheck: place ? checksAt(place) : [],
    checked: (build.checks ?? [])
      .filter((check) => check.step === id)
      .map((check): CheckedLine => {
        const nth = entry.pieces.findIndex((piece) => piece.id === check.piece) + 1;
        const result = judged(check, build, timeline);
        const { id: own, kind, values } = check;
        return {
          id: own,
          kind,
          values,
          ...(nth > 0 && entry.pieces.length > 1 ? { nth } : {}),
          ...(result ? { result } : {}),
        };
      }),
    before: makersBefore(step, build)
      .filter(({ done }) => !done)
      .map((maker) => stepTitle(build, maker)),
    ...(roomOf(step).labour.rounds ? { rounds: true as const } : {}),
    after: own.map(({ name, minutes }) => ({ words: name, hours: minutes / 60 })),
  };
}

/** Where the bench goes on: what was begun and is not done, else the first step that is not done. */
export const goesOnAt = ({ steps }: BuildDocument): Step | undefined =>
  steps.findLast(({ done, off, work }) => !done && !off && (work?.length ?? 0) > 0) ??
  steps.find(({ done, off }) => !done && !off);

/** The steps that are worked on, in order: those left out are passed by. */
export const worked = ({ steps }: BuildDocument): Step[] => steps.filter(({ off }) => !off);

/** How near two moments of one wait lie, ms: the shop's air may have been entered anew in between. */
const SAME_WAIT_MS = 60_000;

/**
 * What stands before a step at a moment: the wait that ends last, where one is not over. Waits that ran when a step was
 * begun all the same are not asked about again; one that began after, as of the next coat, is.
 */
export const bindingGate = (
  gates: readonly BenchGate[],
  now: number,
  early: readonly EarlyStart[] = [],
): BenchGate | undefined =>
  gates
    .filter(({ step, until }) => {
      // Waits after one step follow one another: full strength counts from the clamps on.
      const began = Math.min(...gates.filter((each) => each.step === step).map(({ from }) => from));
      const past = early.some(
        (each) => Date.parse(each.at) >= began && Date.parse(each.until) >= until - SAME_WAIT_MS,
      );
      return until > now && !past;
    })
    .at(-1);

/** “3 of 6”, for a line over the work. */
export const placeOf = (build: BuildDocument, step: string): string => {
  const all = worked(build);
  return `${all.findIndex(({ id }) => id === step) + 1} of ${counted(all.length, 'step')}`;
};
