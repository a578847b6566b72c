import { axisOf, type DimensionName, DIMENSIONS, type Finding, type Reading, type Step } from '../document';
import { type Axis, type Blank, book, extents, type Ledger, planeSide, toOrigin, type Vec3 } from '../solid';
import {
  type Done,
  type Errors,
  greatestSize,
  isStopped,
  noiseOf,
  type Outcome,
  roomOf,
  type RunContext,
  settingErrors,
  stepName,
  type WorkPiece,
} from '../steps';

/** Sizes nearer than this agree, mm. */
const SAME = 1e-6;

/** Both sides take half of the difference each; where one side has not so much, both take half of all. */
function shared(a: number, b: number, over: number): [number, number] | undefined {
  const total = a + b + over;
  if (total < -SAME) return undefined;
  const [x, y] = [a + over / 2, b + over / 2];
  return x >= 0 && y >= 0 ? [x, y] : [Math.max(0, total) / 2, Math.max(0, total) / 2];
}

/**
 * A step whose settings explain a reading: with what it takes off, or the stop it sets, changed so that the size comes
 * out as measured. The same step where no setting explains it. `over` is what was predicted less what was measured, mm.
 */
function explained(step: Step, dimension: DimensionName, over: number, measured: number): Step {
  const { explains, takesOff } = roomOf(step);
  if (explains) return explains(step, dimension, over, measured) ?? step;
  const taken = takesOff?.(step).find((each) => each.dimension === dimension);
  const off = taken && shared(taken.min, taken.max, over);
  if (!taken || !off) return step;
  const [min, max] = taken.settings;
  return {
    ...step,
    [min]: { mm: off[0] },
    [max]: { mm: off[1] },
    // The size that was to be reached is not the one that came out.
    ...(taken.to && taken.reach ? { [taken.reach.to]: undefined } : {}),
  };
}

/** Takes off a piece what a reading says is not there: length from the end, width and thickness from both sides. */
function takenTo(blank: Blank, axis: Axis, mm: number, ledger: Ledger): { blank: Blank; ledger: Ledger } {
  let kept = blank;
  let booked = ledger;
  for (const [side, depth] of axis === 0
    ? ([['max', mm]] as const)
    : ([
        ['min', mm / 2],
        ['max', mm / 2],
      ] as const)) {
    const layer = planeSide(kept, axis, side, depth);
    kept = layer.kept;
    booked = book(booked, axis === 0 ? 'offcut' : 'shaving', layer.removed);
  }
  return { blank: toOrigin(kept), ledger: booked };
}

/**
 * Carries out a step and lets its readings replace what was predicted: by the setting that explains them, or, where
 * none does, by taking the difference off, booked with the step. More wood than went in is a finding. Gives what was
 * predicted beside it.
 */
export function withReadings(
  step: Step,
  readings: readonly Reading[],
  context: RunContext,
  carryOut: (step: Step, leaves?: ReadonlyMap<string, number>) => Outcome,
): Outcome & { predicted?: Vec3 } {
  const notes = context.notes.length;
  let outcome = carryOut(step);
  const own = readings.filter((reading) => reading.step === step.id);
  if (own.length === 0 || isStopped(outcome)) return outcome;
  const { pieces: before } = outcome;
  const predicted = DIMENSIONS.map((dimension) => greatestSize(before, dimension)) as unknown as Vec3;
  const leaves = leavesRead(step, own, before);
  if (leaves) {
    context.notes.length = notes;
    outcome = carryOut(step, leaves);
    if (isStopped(outcome)) return outcome;
    // Refused, the leaves stay as they were planned.
    if (context.notes.slice(notes).some(({ code }) => code === 'more-than-went-in'))
      return { ...outcome, predicted };
  }
  let changed = step;
  for (const { dimension, measured, piece } of own) {
    const axis = axisOf(dimension);
    if (!piece && measured.mm > 0)
      changed = explained(changed, dimension, predicted[axis] - measured.mm, measured.mm);
  }
  if (changed !== step) {
    context.notes.length = notes;
    const again = carryOut(changed);
    if (isStopped(again)) return again;
    outcome = again;
  }
  return { ...measuredTo(step, outcome, own, context), predicted };
}

/** Leaves measured one by one, by their ids; undefined where none was, or pieces of this kind are not. */
function leavesRead(
  step: Step,
  readings: readonly Reading[],
  pieces: readonly WorkPiece[],
): ReadonlyMap<string, number> | undefined {
  const measured = roomOf(step).each?.measured;
  if (!measured) return undefined;
  const known = new Set(pieces.map(({ id }) => id));
  const read = readings.filter(
    ({ dimension, piece, measured: size }) =>
      dimension === measured && piece !== undefined && known.has(piece) && size.mm > 0,
  );
  return read.length > 0
    ? new Map(read.map(({ piece, measured }) => [piece as string, measured.mm]))
    : undefined;
}

function measuredTo(step: Step, done: Done, readings: readonly Reading[], context: RunContext): Done {
  let { lost } = done;
  let { pieces } = done;
  for (const { dimension, measured, piece } of readings) {
    const axis = axisOf(dimension);
    const errors = settingErrors(
      context.sources,
      `${step.id}:measured:${axis}`,
      'measured with rule or caliper',
      {
        // Rounding to a step, nine times in ten: 0.475 of it (a uniform error of that width).
        likely: { mm: 0.475 * context.build.shop.settingStep.mm },
        worst: { mm: context.build.shop.settingStep.mm / 2 },
        basis: 'common practice',
      },
    );
    let short = 0;
    pieces = pieces.map((work) => {
      if (piece && work.id !== piece) return work;
      const over = extents(work.blank)[axis] - measured.mm;
      if (over < -SAME) short = Math.max(short, -over);
      const all = work.errors.map((own, a) => (a === axis ? errors : own)) as [Errors, Errors, Errors];
      if (over <= SAME || !(measured.mm > 0)) return { ...work, errors: all };
      const taken = takenTo(work.blank, axis, over, lost);
      lost = taken.ledger;
      return { ...work, blank: taken.blank, errors: all };
    });
    if (short > noiseOf(context.build.shop))
      context.notes.push(moreThanWentIn(step, dimension, { measured: measured.mm, short, piece }));
  }
  return { ...done, pieces, lost };
}

const moreThanWentIn = (
  step: Step,
  dimension: DimensionName,
  { measured, short, piece }: { measured: number; short: number; piece?: string },
): Finding => ({
  code: 'more-than-went-in',
  step: step.id,
  severity: 'warning',
  dimension,
  message: [
    `The ${dimension} was measured as `,
    { mm: measured },
    `, `,
    { mm: short },
    ` more than ${stepName(step)} can leave: more wood than went in. Measure again, or correct an earlier step.`,
  ],
  numbers: { measured, more: short },
  fixes: [
    {
      label: 'Take the reading back',
      edit: { do: 'measure', step: step.id, dimension, ...(piece ? { piece } : {}) },
    },
  ],
});

/** Takes spoilt pieces out of a step's output; they leave as offcuts. */
export function withoutSpoilt(step: Step, done: Done): Done {
  if (!step.spoilt?.length) return done;
  const gone = new Set(step.spoilt);
  const lost = done.pieces
    .filter(({ id }) => gone.has(id))
    .reduce((ledger, { blank }) => book(ledger, 'offcut', blank), done.lost);
  return { ...done, lost, pieces: done.pieces.filter(({ id }) => !gone.has(id)) };
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Something was measured larger than what went in can leave. */
    'more-than-went-in': true;
  }
}
