import { DIMENSIONS, isTurned, type LaidPart, type LaidPlace, shiftOf } from '../../document';
import {
  type Axis,
  type Blank,
  book,
  bounds,
  compose,
  emptyLedger,
  extents,
  glueBlanks,
  IDENTITY,
  moveBlank,
  quarterTurn,
  rotation,
  toOrigin,
  translation,
  turnedToOrigin,
  TURNS,
  type Vec3,
} from '../../solid';
import { counted, sumOf } from '../../units';
import { type Outcome, type RunContext, stopAt } from '../context';
import type { Laid, WorkPiece } from '../timeline';
import { addErrors, type Errors } from '../tolerance';
import { apart, glueOf, overlaps } from './joined';
import type { GlueStep } from './step';

/** A part laid into a glue-up with all that its own marks and the rules do to it. */
export interface LaidWork extends LaidPart {
  work: WorkPiece;
  /** Along its joint, mm. */
  shift: number;
}

/**
 * Parts of a glue-up that are there, in order. Where an input comes as other pieces than were named, because it is cut or
 * joined before by now, these lie where the first lay that is gone; what was named on other inputs stays as it was.
 */
function partsThere(
  step: GlueStep,
  inputs: readonly WorkPiece[],
  outputs: RunContext['outputs'],
): LaidPart[] {
  const all = inputs.map((piece): LaidPart => ({ piece: piece.id }));
  if (!step.parts) return all;
  const here = new Set(inputs.map(({ id }) => id));
  const gone = step.parts.findIndex(({ piece }) => !here.has(piece));
  if (gone < 0) return [...step.parts];
  const named = new Set(step.parts.map(({ piece }) => piece));
  const renamed = step.inputs
    .map((input) => (outputs.get(input) ?? []).filter(({ id }) => here.has(id)))
    .filter((pieces) => pieces.every(({ id }) => !named.has(id)))
    .flatMap((pieces) => pieces.map(({ id }) => ({ piece: id })));
  return step.parts.flatMap((part, i) => (i === gone ? renamed : here.has(part.piece) ? [part] : []));
}

/** Parts of a glue-up in order, each with how it is turned and shifted: by its own mark and by the rules. */
export function layParts(
  step: GlueStep,
  inputs: readonly WorkPiece[],
  outputs: RunContext['outputs'],
): LaidWork[] {
  const byId = new Map(inputs.map((piece) => [piece.id, piece]));
  const named = partsThere(step, inputs, outputs);
  const each = Math.ceil(named.length / (step.blanks ?? 1));
  return named.map((part, i) => {
    const nth = (i % Math.max(1, each)) + 1;
    const byRule = step.turns && isTurned(step.turns, nth) ? step.turns.turn : undefined;
    return {
      ...part,
      endForEnd: Boolean(part.endForEnd) !== (byRule === 'endForEnd'),
      rollOver: Boolean(part.rollOver) !== (byRule === 'rollOver'),
      quarter: Boolean(part.quarter) !== (byRule === 'quarter'),
      shift: (part.place?.offset?.mm ?? 0) + (step.shifts ? shiftOf(step.shifts, nth) : 0),
      work: byId.get(part.piece) as WorkPiece,
    };
  });
}

const orient = (part: LaidPart, blank: Blank): Blank => {
  let turn = IDENTITY;
  if (part.endForEnd) turn = compose(TURNS.endForEnd, turn);
  if (part.rollOver) turn = compose(TURNS.rollOver, turn);
  if (part.quarter) turn = compose(quarterTurn(2, 1), turn);
  return turn === IDENTITY ? toOrigin(blank) : turnedToOrigin(blank, turn);
};

const isPlaced = (place: LaidPlace | undefined): place is LaidPlace =>
  place !== undefined &&
  [place.x, place.y, place.z, place.about, place.angleDegrees].some((v) => v !== undefined);

function put(place: LaidPlace, blank: Blank): Blank {
  const about = DIMENSIONS.indexOf(place.about ?? 'thickness') as Axis;
  const angle = place.angleDegrees ?? 0;
  const turned = angle % 90 === 0 ? quarterTurn(about, angle / 90) : rotation(about, (angle * Math.PI) / 180);
  return moveBlank(
    blank,
    compose(translation([place.x?.mm ?? 0, place.y?.mm ?? 0, place.z?.mm ?? 0]), turned),
  );
}

/**
 * Joins the parts. Across the width the first part lies at the far edge, as on the bench seen from the front; starts
 * and lower faces are flush where nothing is shifted. Parts come in rows, butted, or placed one by one.
 */
export function runGlue(step: GlueStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const parts = layParts(step, inputs, context.outputs);
  if (parts.length === 0)
    return stopAt(step, 'nothing-to-glue', ['Nothing is laid into this glue-up.'], { numbers: { parts: 0 } });
  const blanks = step.blanks ?? 1;
  if (parts.length < blanks)
    return stopAt(
      step,
      'too-few-parts',
      [`${counted(parts.length, 'part')} cannot be shared out to ${counted(blanks, 'blank')}.`],
      { numbers: { parts: parts.length, blanks } },
    );
  let lost = emptyLedger();
  const laidIds = new Set(parts.map(({ piece }) => piece));
  const missing = inputs.filter(({ id }) => !laidIds.has(id));
  for (const spare of missing) lost = book(lost, 'offcut', spare.blank);
  if (missing.length > 0)
    context.notes.push({
      code: 'part-not-laid',
      step: step.id,
      severity: 'note',
      message: [
        `${missing.length} of ${counted(inputs.length, 'part')} ${missing.length === 1 ? 'is' : 'are'} not laid into this glue-up: spare, booked as offcut.`,
      ],
      numbers: { missing: missing.length, parts: inputs.length },
      fixes: [],
    });
  if (parts.length === 1)
    context.notes.push({
      code: 'one-part',
      step: step.id,
      severity: 'note',
      message: ['Only one part lies in this glue-up: lay another one in, or take the step out.'],
      numbers: { parts: 1 },
      fixes: [{ label: 'Take this step out', edit: { do: 'removeStep', step: step.id } }],
    });
  const each = Math.ceil(parts.length / blanks);
  const pieces: WorkPiece[] = [];
  let laid: Laid[] | undefined;
  let joints = 0;
  let areaMm2 = 0;
  for (let b = 0; b < blanks; b++) {
    const share = parts.slice(b * each, (b + 1) * each);
    if (share.length === 0) continue;
    const done = assemble(step, share);
    const inOneAnother = done.placed ? overlaps(step, share, done.blank) : [];
    context.notes.push(...inOneAnother);
    if (done.alone !== undefined && b === 0 && inOneAnother.length === 0)
      context.notes.push(apart(step, share.length, done.alone));
    pieces.push({
      id: blanks > 1 ? `${step.output}.${b + 1}` : step.output,
      blank: toOrigin(done.blank),
      errors: done.errors,
    });
    laid ??= done.laid;
    joints += done.joints;
    areaMm2 += done.areaMm2;
  }
  return { pieces, lost, laid, glue: { joints, areaMm2 } };
}

interface Assembled {
  blank: Blank;
  laid: Laid[];
  errors: readonly [Errors, Errors, Errors];
  joints: number;
  areaMm2: number;
  placed: boolean;
  /** The first part that no glue ties to the first one, counted from 1. */
  alone?: number;
}

/** Lays parts out: cells of all in one frame, in the order of the parts. */
function assemble(step: GlueStep, parts: readonly LaidWork[]): Assembled {
  const axis = DIMENSIONS.indexOf(step.along) as Axis;
  const oriented = parts.map((part) => orient(part, part.work.blank));
  const placed = parts.some(({ place }) => isPlaced(place));
  const works = parts.map(({ work }) => work);
  let moved: Blank[];
  let errors: Assembled['errors'];
  if (placed) {
    moved = oriented.map((blank, i) => (isPlaced(parts[i].place) ? put(parts[i].place, blank) : blank));
    errors = gluedErrors(works, axis, false);
  } else if (step.rows) {
    const across = DIMENSIONS.indexOf(step.rows.across) as Axis;
    const rows = inRows(step.rows.counts, parts.length);
    const butted = rows.map((row) => ({
      row,
      blanks: butt(
        row.map((i) => oriented[i]),
        axis,
        row.map((i) => parts[i]),
      ),
    }));
    moved = stack(butted, across, parts.length);
    errors = rowErrors(rows, works, axis, across);
  } else {
    moved = butt(oriented, axis, parts);
    errors = gluedErrors(works, axis, true);
  }
  const whole: Blank = { cells: moved.flatMap(({ cells }) => cells) };
  const least = bounds(whole).min;
  const laid = moved.map((blank, i): Laid => {
    const box = bounds(blank);
    const shifted = (v: Vec3): Vec3 => [v[0] - least[0], v[1] - least[1], v[2] - least[2]];
    return {
      piece: parts[i].piece,
      min: shifted(box.min),
      max: shifted(box.max),
      endForEnd: Boolean(parts[i].endForEnd),
      rollOver: Boolean(parts[i].rollOver),
      ...(parts[i].quarter ? { quarter: true } : {}),
      ...(parts[i].locked ? { locked: true } : {}),
    };
  });
  const owner = moved.flatMap((blank, i) => blank.cells.map(() => i));
  const simple = !placed && !step.rows;
  const open = parts.filter(({ place }, i) => i > 0 && (place?.spacer?.mm ?? 0) > 0).length;
  const glued = glueOf(whole, owner, simple ? axis : undefined);
  return {
    blank: whole,
    laid,
    errors,
    joints: simple ? parts.length - 1 - open : glued.joints,
    areaMm2: glued.areaMm2,
    placed,
    ...(glued.alone === undefined ? {} : { alone: glued.alone }),
  };
}

/**
 * Butts blanks along an axis, each shifted along its joint: across the width where they run in the length, else along it.
 * A part with a spacer lies as far from the one before it: a gap that stays open.
 */
function butt(
  blanks: readonly Blank[],
  axis: Axis,
  parts: readonly Pick<LaidWork, 'shift' | 'place'>[],
): Blank[] {
  const order = axis === 1 ? blanks.toReversed() : [...blanks];
  const laid = axis === 1 ? parts.toReversed() : [...parts];
  const side = axis === 0 ? 1 : 0;
  const glued = glueBlanks(
    order,
    axis,
    'min',
    laid.map(({ shift }) => (side === 1 ? [0, shift, 0] : [shift, 0, 0])),
  );
  let at = 0;
  let gap = 0;
  const out = order.map(({ cells }, i) => {
    const own = glued.cells.slice(at, at + cells.length);
    at += cells.length;
    // Across the width the order is turned round: the gap before a part lies behind it there.
    const before = axis === 1 ? laid[i - 1] : laid[i];
    if (i > 0) gap += Math.max(0, before.place?.spacer?.mm ?? 0);
    if (gap === 0) return { cells: own };
    const by: [number, number, number] = [0, 0, 0];
    by[axis] = gap;
    return moveBlank({ cells: own }, translation(by));
  });
  return axis === 1 ? out.toReversed() : out;
}

/** Indices of the parts in each row; parts past the last row make one more. */
function inRows(counts: readonly number[], parts: number): number[][] {
  const rows: number[][] = [];
  let at = 0;
  for (const count of [...counts, parts]) {
    if (at >= parts) break;
    rows.push(Array.from({ length: Math.min(count, parts - at) }, (_, i) => at + i));
    at += count;
  }
  return rows;
}

/** Lays rows beside one another; across the width the first row lies at the far edge. */
function stack(rows: readonly { row: number[]; blanks: Blank[] }[], across: Axis, parts: number): Blank[] {
  const moved: Blank[] = Array.from({ length: parts });
  let at = 0;
  for (const { row, blanks } of across === 1 ? rows.toReversed() : rows) {
    const box = bounds({ cells: blanks.flatMap(({ cells }) => cells) });
    const shift = [0, 0, 0];
    shift[across] = at - box.min[across];
    row.forEach((part, i) => {
      moved[part] = moveBlank(blanks[i], translation(shift as unknown as Vec3));
    });
    at += box.max[across] - box.min[across];
  }
  return moved;
}

function gluedErrors(
  works: readonly WorkPiece[],
  axis: Axis,
  butted: boolean,
): readonly [Errors, Errors, Errors] {
  const sizes = works.map((work) => extents(work.blank));
  const of = (a: Axis): Errors => {
    if (a === axis && butted) return addErrors(...works.map((work): [Errors, number] => [work.errors[a], 1]));
    const greatest = sizes.reduce((best, size, i) => (size[a] > sizes[best][a] + 1e-9 ? i : best), 0);
    return works[greatest].errors[a];
  };
  return [of(0), of(1), of(2)];
}

/** Errors of rows: along, those of the longest row; across, one part of each row. */
function rowErrors(
  rows: readonly number[][],
  works: readonly WorkPiece[],
  axis: Axis,
  across: Axis,
): readonly [Errors, Errors, Errors] {
  const long = (row: readonly number[]) => sumOf(row, (i) => extents(works[i].blank)[axis]);
  const longest = rows.reduce((best, row) => (long(row) > long(best) ? row : best), rows[0]);
  const of = (a: Axis): Errors => {
    if (a === axis) return addErrors(...longest.map((i): [Errors, number] => [works[i].errors[a], 1]));
    if (a === across) return addErrors(...rows.map((row): [Errors, number] => [works[row[0]].errors[a], 1]));
    return works[0].errors[a];
  };
  return [of(0), of(1), of(2)];
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** Nothing is laid into a glue-up. */
    'nothing-to-glue': true;
    /** Only one part lies in a glue-up. */
    'one-part': true;
    /** Fewer parts than the blanks they are shared out to. */
    'too-few-parts': true;
    /** Parts that come in are not laid: spare. */
    'part-not-laid': true;
  }
}
