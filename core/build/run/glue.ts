import {
  book,
  bounds,
  compensatedSum,
  contacts,
  emptyLedger,
  extents,
  glueBlanks,
  TURNS,
  moveBlank,
  toOrigin,
  type Axis,
  type Blank,
} from '../../solid';
import { DIMENSIONS, type GlueStep, type LaidPart } from '../document';
import { addErrors, type Errors } from '../tolerance';
import type { Laid, WorkPiece } from '../timeline';
import { stopAt, type Outcome, type RunContext } from './context';
import { isTurned } from '../turns';

/** Parts of a glue-up in order, each with how it is turned: by its own mark and by the rule. */
export function layParts(step: GlueStep, inputs: readonly WorkPiece[]): (LaidPart & { work: WorkPiece })[] {
  const byId = new Map(inputs.map((piece) => [piece.id, piece]));
  const named =
    step.parts?.filter((part) => byId.has(part.piece)) ??
    inputs.map((piece): LaidPart => ({ piece: piece.id }));
  return named.map((part, i) => {
    const byRule = step.turns && isTurned(step.turns, i + 1) ? step.turns.turn : undefined;
    return {
      ...part,
      endForEnd: Boolean(part.endForEnd) !== (byRule === 'endForEnd'),
      rollOver: Boolean(part.rollOver) !== (byRule === 'rollOver'),
      work: byId.get(part.piece) as WorkPiece,
    };
  });
}

const orient = (part: LaidPart, blank: Blank): Blank => {
  let out = blank;
  if (part.endForEnd) out = moveBlank(out, TURNS.endForEnd);
  if (part.rollOver) out = moveBlank(out, TURNS.rollOver);
  return toOrigin(out);
};

/**
 * Butts the parts along an axis. The first part of a lay-up across the width lies at the far edge, as on the bench
 * seen from the front; starts and lower faces are flush.
 */
export function runGlue(step: GlueStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const axis = DIMENSIONS.indexOf(step.along) as Axis;
  const parts = layParts(step, inputs);
  if (parts.length === 0)
    return stopAt(step, 'nothing-to-glue', ['Nothing is laid into this glue-up.'], { parts: 0 });
  const missing = inputs.filter((piece) => step.parts && !step.parts.some((part) => part.piece === piece.id));
  let lost = emptyLedger();
  for (const spare of missing) lost = book(lost, 'offcut', spare.blank);
  if (missing.length > 0)
    context.notes.push({
      code: 'part-not-laid',
      step: step.id,
      severity: 'note',
      message: [
        { count: missing.length },
        ` of ${inputs.length} parts are not laid into this glue-up: they are spares, booked as offcuts.`,
      ],
      numbers: { missing: missing.length, parts: inputs.length },
      fixes: [],
    });
  const order = axis === 1 ? parts.toReversed() : parts;
  const blanks = order.map((part) => orient(part, part.work.blank));
  const blank = glueBlanks(blanks, axis);
  const laid = laidBoxes(order, blanks, blank);
  const errors = gluedErrors(
    order.map((part) => part.work),
    axis,
  );
  const owner = blanks.flatMap((part, i) => part.cells.map(() => i));
  return {
    pieces: [{ id: step.output, blank, errors }],
    lost,
    laid: axis === 1 ? laid.toReversed() : laid,
    glue: { joints: parts.length - 1, areaMm2: glueArea(blank, owner, axis) },
  };
}

function laidBoxes(order: readonly LaidPart[], blanks: readonly Blank[], glued: Blank): Laid[] {
  let at = 0;
  return order.map((part, i) => {
    const cells = glued.cells.slice(at, at + blanks[i].cells.length);
    at += blanks[i].cells.length;
    const box = bounds({ cells });
    return {
      piece: part.piece,
      min: box.min,
      max: box.max,
      endForEnd: Boolean(part.endForEnd),
      rollOver: Boolean(part.rollOver),
    };
  });
}

function gluedErrors(works: readonly WorkPiece[], axis: Axis): readonly [Errors, Errors, Errors] {
  const sizes = works.map((work) => extents(work.blank));
  const of = (a: Axis): Errors => {
    if (a === axis) return addErrors(...works.map((work): [Errors, number] => [work.errors[a], 1]));
    const greatest = sizes.reduce((best, size, i) => (size[a] > sizes[best][a] + 1e-9 ? i : best), 0);
    return works[greatest].errors[a];
  };
  return [of(0), of(1), of(2)];
}

/** Area glued between different parts, mm2: only faces across the axis can meet, so only they are compared. */
function glueArea(blank: Blank, owner: readonly number[], axis: Axis): number {
  const facing = {
    cells: blank.cells.map((cell) => ({
      ...cell,
      faces: cell.faces.filter((face) => Math.abs(face.normal[axis]) > 1e-6),
    })),
  };
  return compensatedSum(
    contacts(facing)
      .filter((c) => owner[c.a] !== owner[c.b])
      .map((c) => c.areaMm2),
  );
}
