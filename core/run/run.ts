import { sumOf } from '../units';
import {
  type BuildDocument,
  type Finding,
  type FindingCode,
  firstOf,
  type Step,
  targetOfStep,
  usersOf,
} from '../document';
import {
  blankVolume,
  compensatedSum,
  contacts,
  emptyLedger,
  extents,
  jointSide,
  mergeLedgers,
  type Vec3,
} from '../solid';
import {
  type Done,
  isHeld,
  isStopped,
  laterTrims,
  outlineBefore,
  passThrough,
  roomOf,
  type RunContext,
  settled,
  type Sources,
  stepName,
  type Timeline,
  type TimelineStep,
  toleranceOf,
  type WorkPiece,
  massOf,
} from '../steps';
import { isAsBefore, type KeptStep, keysOf } from './kept';
import { withoutSpoilt, withReadings } from './readings';

/** More cells than this are refused before the browser stalls. */
export const MOST_CELLS = 20_000;

/**
 * Plays a build forward on the solid model. Gives the timeline up to the first step that cannot be carried out, with
 * the finding that says why; never throws for anything a document can hold. Pure: the same build, the same timeline.
 * With a timeline from before only what changed since is played, and what comes after it; what comes out is the same.
 */
export function run(build: BuildDocument, before?: Timeline): Timeline {
  const sources: Sources = new Map();
  const notes: Finding[] = [];
  const cutBoards: RunContext['cutBoards'] = new Map();
  const outputs = new Map<string, WorkPiece[]>();
  const madeBy = new Map<string, string>();
  const consumed = new Set<WorkPiece>();
  const steps: TimelineStep[] = [];
  const played = new Map<string, KeptStep>();
  const keyOf = keysOf(build);
  let ledger = emptyLedger();
  let woodInMm3 = 0;
  let stopped: Finding | undefined;
  for (const step of build.steps) {
    const inputs = gathered(step, outputs, consumed, build);
    if (isStopped(inputs)) {
      stopped = inputs.stop;
      break;
    }
    const key = keyOf(step);
    const from = step.inputs.flatMap((input) => madeBy.get(input) ?? []);
    const last = before?.played.get(step.id) as KeptStep | undefined;
    let kept: KeptStep;
    if (isAsBefore(last, key, inputs)) {
      for (const source of last.sources) sources.set(source.id, source);
      kept = last;
    } else {
      const own: RunContext = {
        build,
        sources: new Map(),
        notes: [],
        cutBoards,
        outputs,
        laterTrims: (output, size) => laterTrims(build, output, size),
        outlineBefore: (at) => outlineBefore(build, at),
      };
      const as = settled(step, inputs);
      const done = carryOut(as, inputs, own);
      widen(own.sources, build.shop.band);
      for (const [id, source] of own.sources) sources.set(id, source);
      if (isStopped(done)) {
        notes.push(...own.notes);
        stopped = done.stop;
        break;
      }
      const entry = {
        ...describe(step, { ...done, used: inputs }, from, sources),
        ...(as === step ? {} : { as }),
      };
      kept = { key, inputs, done, notes: own.notes, sources: [...own.sources.values()], entry };
    }
    played.set(step.id, kept);
    notes.push(...kept.notes);
    ledger = mergeLedgers(ledger, kept.done.lost);
    woodInMm3 += kept.done.woodInMm3 ?? 0;
    for (const piece of inputs) consumed.add(piece);
    outputs.set(step.output, kept.done.pieces);
    steps.push({ ...kept.entry, from });
    madeBy.set(step.output, step.id);
  }
  const lies = (output: string) => outputs.get(output)?.some((piece) => !consumed.has(piece));
  const endOf = (output: string): string =>
    lies(output)
      ? output
      : (firstOf(usersOf(build, output), (step) => lies(step.output) === true)?.output ?? output);
  const stepOf = (id: string | undefined) =>
    stillThere(
      steps.find((step) => step.id === id),
      consumed,
    );
  const wanted = build.targets.map(({ id: target, output }): Timeline['wanted'][number] => {
    const step = stepOf(madeBy.get(endOf(output)));
    return { target, ...(step ? { step } : {}) };
  });
  const finished = wanted[0]?.step ?? (stopped ? undefined : stepOf(steps.at(-1)?.id));
  const ends = [finished, ...wanted.map(({ step }) => step)].flatMap((step) => step ?? []);
  let joints: Timeline['joints'] | undefined;
  return {
    steps,
    sources,
    woodInMm3,
    ledger,
    finished,
    wanted,
    leftOverMm3: leftOver(
      outputs,
      consumed,
      build.steps.filter((step) => ends.some(({ id }) => id === step.id)).map(({ output }) => output),
    ),
    get joints() {
      // Counted when first asked for: playing a build forward does not need it.
      joints ??= countJoints(steps, ends);
      return joints;
    },
    problems: [...unsupported(build), ...notes, ...(stopped ? [stopped] : [])],
    played,
  };
}

/** Sizes scatter more, or less, than the spreads say: what the shop's readings missed its bands by goes into all of them. */
function widen(sources: Sources, band = 1): void {
  if (band === 1) return;
  for (const [id, source] of sources)
    sources.set(id, {
      ...source,
      likelyMm: source.likelyMm * band,
      worstMm: source.worstMm * Math.max(1, band),
    });
}

/** What a step finds on its inputs: of one that a later step takes too, only the parts named. */
function piecesFor(
  step: Step,
  input: string,
  pieces: readonly WorkPiece[],
  { consumed, build }: { consumed: ReadonlySet<WorkPiece>; build: BuildDocument },
): WorkPiece[] {
  const free = pieces.filter((piece) => !consumed.has(piece));
  if (step.only) {
    const only = new Set(step.only);
    return free.filter(({ id }) => only.has(id));
  }
  const named = roomOf(step).takes?.(step);
  if (!named) return free;
  const after = build.steps.slice(build.steps.indexOf(step) + 1);
  if (!after.some(({ inputs }) => inputs.includes(input))) return free;
  const wanted = new Set(named);
  return free.filter(({ id }) => wanted.has(id));
}

const problem = (
  step: Step,
  code: FindingCode,
  words: string,
  numbers: Finding['numbers'],
): { stop: Finding } => ({
  stop: { code, step: step.id, severity: 'stop', message: [words], numbers, fixes: [] },
});

const listed = (ids: readonly string[]): string =>
  ids.length > 3 ? `${ids.slice(0, 3).join(', ')} and ${ids.length - 3} more` : ids.join(', ');

/** All that comes into a step, or the finding that it has nothing to work on. */
function gathered(
  step: Step,
  outputs: ReadonlyMap<string, WorkPiece[]>,
  consumed: ReadonlySet<WorkPiece>,
  build: BuildDocument,
): WorkPiece[] | { stop: Finding } {
  const inputs: WorkPiece[] = [];
  for (const input of step.inputs) {
    const pieces = outputs.get(input);
    if (!pieces)
      return problem(
        step,
        'no-such-input',
        `${stepName(step)} needs “${input}”, which no earlier step makes.`,
        { outputs: outputs.size },
      );
    const free = piecesFor(step, input, pieces, { consumed, build });
    if (pieces.length > 0 && free.length === 0 && !step.only)
      return problem(step, 'used-twice', `“${input}” was already used up when ${stepName(step)} needs it.`, {
        pieces: pieces.length,
        free: 0,
      });
    inputs.push(...free);
  }
  if (step.only && inputs.length === 0)
    return {
      stop: {
        ...problem(
          step,
          'pieces-gone',
          `${stepName(step)} is to take ${listed(step.only)}, and nothing of it comes here any more.`,
          { wanted: step.only.length, here: 0 },
        ).stop,
        fixes: [
          {
            label: 'Take all that lies there',
            edit: { do: 'setStep', step: step.id, change: { only: undefined } },
          },
        ],
      },
    };
  if (!roomOf(step).flow.source && inputs.length === 0)
    return problem(step, 'no-input', `${stepName(step)} has nothing to work on.`, { pieces: 0 });
  return inputs;
}

function carryOut(
  step: Step,
  inputs: readonly WorkPiece[],
  context: RunContext,
): { stop: Finding } | (Done & { predicted?: Vec3 }) {
  const readings = step.off ? [] : context.build.readings;
  const played = withReadings(step, readings, context, (as, measuredLeaves) =>
    (roomOf(as).run ?? passThrough)(as, inputs, measuredLeaves ? { ...context, measuredLeaves } : context),
  );
  if (isStopped(played)) return played;
  const outcome = onTheirOwn(step.off ? played : withoutSpoilt(step, played), inputs);
  const cells = sumOf(outcome.pieces, (piece) => piece.blank.cells.length);
  if (cells > MOST_CELLS)
    return problem(
      step,
      'too-many-pieces',
      `This step makes ${cells} pieces of wood; Junta plans up to ${MOST_CELLS}.`,
      { pieces: cells, most: MOST_CELLS },
    );
  return { ...outcome, ...(played.predicted ? { predicted: played.predicted } : {}) };
}

/** Pieces that a step passes through unchanged are its own from then on: what it was given is used up. */
const onTheirOwn = (done: Done & { predicted?: Vec3 }, inputs: readonly WorkPiece[]): Done => {
  const given = new Set(inputs);
  return { ...done, pieces: done.pieces.map((piece) => (given.has(piece) ? { ...piece } : piece)) };
};

function describe(
  step: Step,
  done: Done & { predicted?: Vec3; used: WorkPiece[] },
  from: string[],
  sources: Sources,
): TimelineStep {
  const sizes = done.pieces.map((piece) => extents(piece.blank));
  const pick = (best: (...values: number[]) => number): Vec3 =>
    [0, 1, 2].map((a) => (sizes.length === 0 ? 0 : best(...sizes.map((s) => s[a])))) as unknown as Vec3;
  const least = pick(Math.min);
  const greatest = pick(Math.max);
  const toleranceOn = (a: number) => {
    const widest = sizes.findIndex((size) => size[a] === greatest[a]);
    return toleranceOf(done.pieces[widest]?.errors[a] ?? {}, sources);
  };
  const massKg = compensatedSum(done.pieces.map(({ blank }) => massOf(blank)));
  return {
    id: step.id,
    kind: step.kind,
    name: stepName(step),
    from,
    pieces: done.pieces,
    entered: done.used,
    least,
    greatest,
    tolerance: [toleranceOn(0), toleranceOn(1), toleranceOn(2)],
    lost: done.lost,
    laid: done.laid,
    glue: done.glue,
    wanted: done.wanted,
    massKg,
    ...(done.predicted ? { predicted: done.predicted } : {}),
  };
}

/** The finished pieces without those that went another way after. */
const stillThere = (
  step: TimelineStep | undefined,
  consumed: ReadonlySet<WorkPiece>,
): TimelineStep | undefined => {
  const pieces = step?.pieces.filter((piece) => !consumed.has(piece)) ?? [];
  return step && pieces.length < step.pieces.length ? { ...step, pieces } : step;
};

const leftOver = (
  outputs: Map<string, WorkPiece[]>,
  consumed: ReadonlySet<WorkPiece>,
  finished: readonly string[],
): number =>
  compensatedSum(
    [...outputs]
      .filter(([id]) => !finished.includes(id))
      .flatMap(([, pieces]) => pieces.filter((p) => !consumed.has(p)).map((p) => blankVolume(p.blank))),
  );

function countJoints(steps: readonly TimelineStep[], ends: readonly TimelineStep[]): Timeline['joints'] {
  const bySideMm2: Timeline['joints']['bySideMm2'] = { 'long grain': 0, sloped: 0, 'end grain': 0 };
  const areas: number[] = [];
  const finished = new Map(ends.map((step) => [step.id, step]));
  for (const { blank } of [...finished.values()].flatMap(({ pieces }) => pieces))
    for (const { a, b, areaMm2, normal } of contacts(blank)) {
      areas.push(areaMm2);
      bySideMm2[jointSide(blank.cells[a], blank.cells[b], normal)] += areaMm2;
    }
  return {
    count: sumOf(steps, (step) => step.glue?.joints ?? 0),
    areaMm2: compensatedSum(steps.map((step) => step.glue?.areaMm2 ?? 0)),
    contacts: areas.length,
    finishedAreaMm2: compensatedSum(areas),
    bySideMm2,
  };
}

/** What the document asks for and the run does not carry out yet: said, not dropped in silence. */
function unsupported(build: BuildDocument): Finding[] {
  const out: Finding[] = [];
  const say = (
    code: FindingCode,
    step: string,
    words: string,
    numbers: Finding['numbers'] = { computed: 0 },
  ) => void out.push({ code, step, severity: 'note', message: [words], numbers, fixes: [] });
  for (const step of build.steps) {
    if (isHeld(step))
      say(
        'not-run-yet',
        step.id,
        `${roomOf(step).name} is kept in the job but not computed yet: sizes pass through unchanged.`,
      );
    const words = roomOf(step).notYet?.(step);
    if (words) say('not-run-yet', step.id, words);
  }
  for (const assembly of build.assemblies) {
    if (assembly.repeat < 2) continue;
    const rip = build.steps.find((step) => (step as { assembly?: string }).assembly === assembly.id);
    const target = targetOfStep(build, rip);
    out.push({
      code: 'not-run-yet',
      step: '',
      severity: 'note',
      message: [`“${assembly.name}” is to be made ${assembly.repeat} times: one of them is computed.`],
      numbers: { repeat: assembly.repeat, computed: 1 },
      fixes: target ? [{ label: 'Write each of them out', edit: { do: 'makeEach', target: target.id } }] : [],
    });
  }
  return out;
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A step has nothing to work on. */
    'no-input': true;
    /** A step takes what no earlier step makes. */
    'no-such-input': true;
    /** Nothing of the pieces that a step is to take comes to it. */
    'pieces-gone': true;
    /** What a step takes was used up before. */
    'used-twice': true;
    /** A step makes more pieces of wood than Junta plans. */
    'too-many-pieces': true;
    /** Kept in the job and not computed yet: sizes pass through. */
    'not-run-yet': true;
  }
}
