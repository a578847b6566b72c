import {
  across,
  book,
  bounds,
  emptyLedger,
  extents,
  sawCut,
  sliceBlank,
  toOrigin,
  turnBlank,
  type Axis,
  type Blank,
  type Ledger,
} from '../../solid';
import type { CrosscutStep, Cutter, ObliqueStep, SliceStep, TrimStep, TurnStep } from '../document';
import { heldBack, slicesFrom } from '../slicing';
import { settingErrors, type Errors } from '../tolerance';
import type { WorkPiece } from '../timeline';
import { isStopped, machineOf, sawOf, stopAt, type Outcome, type RunContext } from './context';
import { thinnerSaws } from './rip';
import { checkRemoval, takeOff, type Removal } from './surface';

/** Most slices one step may give: more is a slip of the finger. */
const MOST_SLICES = 2000;

/** The finding that slices cannot be cut as set, whatever the piece; undefined where they can. */
export function checkSlices(step: SliceStep | ObliqueStep) {
  const thickness = step.thickness.mm;
  if (!(thickness > 0 && Number.isFinite(thickness)) || !(step.head.mm >= 0))
    return stopAt(
      step,
      'no-size',
      ['A slice needs a thickness above zero, and the head cannot be negative.'],
      { thickness, head: step.head.mm },
    );
  if (!(Number.isInteger(step.count) && step.count > 0 && step.count <= MOST_SLICES))
    return stopAt(
      step,
      'bad-count',
      [`The number of slices must be a whole number from 1 to ${MOST_SLICES}.`],
      { slices: step.count },
    );
  return undefined;
}

/** Slices every piece against a stop, and stops where the rest must stay in hand. What is left of it is offcut. */
export function runSlice(step: SliceStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const thickness = step.thickness.mm;
  const bad = checkSlices(step);
  if (bad) return bad;
  if (saw.kerf.mm > thickness)
    context.notes.push({
      code: 'kerf-thicker-than-slice',
      step: step.id,
      severity: 'warning',
      message: [
        `The kerf of ${saw.name}, `,
        { mm: saw.kerf.mm },
        ', is more than the slice, ',
        { mm: thickness },
        '.',
      ],
      numbers: { kerf: saw.kerf.mm, thickness },
      fixes: thinnerSaws(step.id, saw, thickness, context.build.shop.saws),
    });
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  const stopErrors = settingErrors(
    context.sources,
    `${step.id}:stop`,
    `slice thickness set by the stop of ${saw.name}`,
    saw.setting,
  );
  inputs.forEach((piece, index) => {
    const fit = Math.min(step.count, slicesFrom(extents(piece.blank)[0], step, saw.kerf.mm));
    const cut = sliceBlank(piece.blank, 0, step.head.mm, Array(fit).fill(thickness), saw.kerf.mm);
    lost = book(book(book(lost, 'kerf', cut.kerf), 'offcut', cut.head), 'offcut', cut.tail);
    cut.slices.forEach((slice, i) => {
      const lineage = inputs.length > 1 ? `${step.id}.${index + 1}` : step.id;
      pieces.push({
        id: `${lineage}.${i + 1}`,
        blank: toOrigin(slice),
        errors: [stopErrors, piece.errors[1], piece.errors[2]],
      });
    });
  });
  if (pieces.length === 0) {
    const length = inputs[0] ? extents(inputs[0].blank)[0] : 0;
    return stopAt(
      step,
      'no-slice-fits',
      [
        'Not one slice of ',
        { mm: thickness },
        ' fits: the blank is ',
        { mm: length },
        ' long and the head takes ',
        { mm: step.head.mm + saw.kerf.mm },
        ...(heldBack(step) > 0 ? [', and ', { mm: heldBack(step) }, ' must stay in hand'] : []),
        '.',
      ],
      { thickness, length, head: step.head.mm, hold: heldBack(step) },
      { axis: 0 },
    );
  }
  return { pieces, lost, wanted: step.count * inputs.length };
}

/** A named turn: sizes change places, nothing is taken. */
export function runTurn(step: TurnStep, inputs: readonly WorkPiece[]): Outcome {
  const permuted = (e: readonly [Errors, Errors, Errors]): readonly [Errors, Errors, Errors] => {
    if (step.turn === 'standOnEnd') return [e[2], e[1], e[0]];
    return step.turn === 'tipOnEdge' ? [e[0], e[2], e[1]] : e;
  };
  const pieces = inputs.map((piece) => ({
    ...piece,
    blank: turnBlank(piece.blank, step.turn),
    errors: permuted(piece.errors),
  }));
  return { pieces, lost: emptyLedger() };
}

/** Trims long edges first, then ends. A saw's kerf lies outside the finished line. */
export function runTrim(step: TrimStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const removals: Removal[] = [
    { axis: 1, min: step.near.mm, max: step.far.mm },
    { axis: 0, min: step.start.mm, max: step.end.mm },
  ];
  const setting = cutterSetting(step, step.cutter, context);
  if ('stop' in setting) return setting;
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const bad = checkRemoval(step, piece, removals);
    if (bad) return bad;
    const cut = setting.trim(piece.blank, removals, lost);
    lost = cut.ledger;
    const errors = [0, 1, 2].map((a) => {
      const taken = removals.find(({ axis, min, max }) => axis === a && min + max > 0);
      return taken
        ? settingErrors(context.sources, `${step.id}:${a}`, `trimmed with ${setting.name}`, setting.spread)
        : piece.errors[a];
    });
    if (cut.blank.cells.length === 0)
      return stopAt(step, 'nothing-left', ['Nothing is left of the piece after this trim.'], {});
    pieces.push({ ...piece, blank: toOrigin(cut.blank), errors: errors as [Errors, Errors, Errors] });
  }
  return { pieces, lost };
}

function cutterSetting(step: TrimStep, cutter: Cutter, context: RunContext) {
  if ('saw' in cutter) {
    const saw = sawOf(step, cutter.saw, context);
    if (isStopped(saw)) return saw;
    const trim = (blank: Blank, removals: readonly Removal[], ledger: Ledger) =>
      sawOff(blank, removals, saw.kerf.mm, ledger);
    return { name: saw.name, spread: saw.setting, trim };
  }
  const machine = machineOf(step, cutter.machine, context);
  if (isStopped(machine)) return machine;
  const trim = (blank: Blank, removals: readonly Removal[], ledger: Ledger) =>
    takeOff(blank, removals, machine, ledger);
  return { name: machine.name, spread: machine.setting, trim };
}

function sawOff(
  blank: Blank,
  removals: readonly Removal[],
  kerfMm: number,
  ledger: Ledger,
): { blank: Blank; ledger: Ledger } {
  let kept = blank;
  let booked = ledger;
  // All amounts are measured on the piece as it came: with slanted ends, a cut edge would take corners along.
  const box = bounds(kept);
  for (const { axis, min, max } of removals) {
    if (max > 0) {
      const cut = sawCut(kept, across(axis, box.max[axis] - max), kerfMm);
      kept = cut.before;
      booked = book(book(booked, 'kerf', cut.kerf), 'offcut', cut.after);
    }
    if (min > 0) {
      const cut = sawCut(kept, across(axis as Axis, box.min[axis] + min - kerfMm), kerfMm);
      kept = cut.after;
      booked = book(book(booked, 'kerf', cut.kerf), 'offcut', cut.before);
    }
  }
  return { blank: kept, ledger: booked };
}

/** Cuts pieces to a length from their start; what is over is offcut. */
export function runCrosscut(step: CrosscutStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const length = extents(piece.blank)[0];
    if (!(step.length.mm > 0) || step.length.mm > length + 1e-6)
      return stopAt(
        step,
        'too-short-to-cut',
        ['A piece of ', { mm: length }, ' cannot be cut to ', { mm: step.length.mm }, '.'],
        { length, wanted: step.length.mm },
        { axis: 0 },
      );
    const cut = sawCut(piece.blank, across(0, step.length.mm), saw.kerf.mm);
    lost = book(book(lost, 'kerf', cut.kerf), 'offcut', cut.after);
    const errors = settingErrors(
      context.sources,
      `${step.id}:stop`,
      `length set by the stop of ${saw.name}`,
      saw.setting,
    );
    pieces.push({ ...piece, blank: cut.before, errors: [errors, piece.errors[1], piece.errors[2]] });
  }
  return { pieces, lost };
}
