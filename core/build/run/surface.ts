import { removalCause, type Machine } from '../../kit';
import {
  across,
  AXIS_NAMES,
  book,
  bounds,
  emptyLedger,
  extents,
  splitBlank,
  toOrigin,
  type Axis,
  type Blank,
  type Ledger,
} from '../../solid';
import type { FlattenStep, JointStep, MillStep, Step } from '../document';
import { addErrors, settingErrors, type Errors } from '../tolerance';
import type { WorkPiece } from '../timeline';
import { isStopped, machineOf, stopAt, type Outcome, type RunContext } from './context';

/** What comes off one axis of every piece. */
export interface Removal {
  axis: Axis;
  min: number;
  max: number;
}

/** The finding that more would come off than there is; undefined where the removals fit. */
export function checkRemoval(step: Step, piece: WorkPiece, removals: readonly Removal[]) {
  const size = extents(piece.blank);
  for (const { axis, min, max } of removals) {
    if (min < 0 || max < 0 || !Number.isFinite(min + max))
      return stopAt(
        step,
        'bad-amount',
        [`What comes off the ${AXIS_NAMES[axis]} must be zero or more.`],
        { amount: Math.min(min, max) },
        { axis },
      );
    if (min + max >= size[axis] - 1e-6)
      return stopAt(
        step,
        'nothing-left',
        [
          `This takes `,
          { mm: min + max },
          ` off the ${AXIS_NAMES[axis]}, and the piece has only `,
          { mm: size[axis] },
          '.',
        ],
        { removed: min + max, size: size[axis] },
        { axis },
      );
  }
  return undefined;
}

/** Planes layers off a blank and books them under what the machine makes of wood. */
export function takeOff(
  blank: Blank,
  removals: readonly Removal[],
  machine: Machine,
  ledger: Ledger,
): { blank: Blank; ledger: Ledger } {
  const cause = removalCause(machine.kind);
  let kept = blank;
  let booked = ledger;
  // Measured on the piece as it came, as with a saw.
  const box = bounds(kept);
  for (const { axis, min, max } of removals) {
    if (max > 0) {
      const [below, above] = splitBlank(kept, across(axis, box.max[axis] - max));
      kept = below;
      booked = book(booked, cause, above);
    }
    if (min > 0) {
      const [below, above] = splitBlank(kept, across(axis, box.min[axis] + min));
      kept = above;
      booked = book(booked, cause, below);
    }
  }
  return { blank: toOrigin(kept), ledger: booked };
}

type ErrorTriple = readonly [Errors, Errors, Errors];

function runSurface(
  step: Step,
  inputs: readonly WorkPiece[],
  machineId: string,
  removals: readonly Removal[],
  context: RunContext,
  errorsAfter: (piece: WorkPiece, machine: Machine) => ErrorTriple,
): Outcome {
  const machine = machineOf(step, machineId, context);
  if (isStopped(machine)) return machine;
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const bad = checkRemoval(step, piece, removals);
    if (bad) return bad;
    const taken = takeOff(piece.blank, removals, machine, lost);
    lost = taken.ledger;
    pieces.push({ ...piece, blank: taken.blank, errors: errorsAfter(piece, machine) });
  }
  return { pieces, lost };
}

/** Cleans faces and edges of strips. Thickness is then one setting of the machine, for all strips alike. */
export const runMill = (step: MillStep, inputs: readonly WorkPiece[], context: RunContext): Outcome =>
  runSurface(
    step,
    inputs,
    step.machine,
    [
      { axis: 1, min: step.edge.mm, max: step.edge.mm },
      { axis: 2, min: step.face.mm, max: step.face.mm },
    ],
    context,
    ({ errors }, machine) => [
      errors[0],
      step.edge.mm > 0
        ? addErrors(
            [errors[1], 1],
            [settingErrors(context.sources, `${step.id}:edge`, 'taken off each edge', machine.setting), -2],
          )
        : errors[1],
      step.face.mm > 0
        ? settingErrors(
            context.sources,
            `${step.id}:face`,
            `thickness set on ${machine.name}`,
            machine.setting,
          )
        : errors[2],
    ],
  );

/** Flattens both faces. The thickness is then what the machine was set to, however rough the piece was. */
export const runFlatten = (step: FlattenStep, inputs: readonly WorkPiece[], context: RunContext): Outcome =>
  runSurface(
    step,
    inputs,
    step.machine,
    [{ axis: 2, min: step.bottom.mm, max: step.top.mm }],
    context,
    ({ errors }, machine) => [
      errors[0],
      errors[1],
      step.top.mm + step.bottom.mm > 0
        ? settingErrors(
            context.sources,
            `${step.id}:thickness`,
            `thickness set on ${machine.name}`,
            machine.setting,
          )
        : errors[2],
    ],
  );

/** Joints edges before sections are joined: what comes off adds its own error to the width. */
export const runJoint = (step: JointStep, inputs: readonly WorkPiece[], context: RunContext): Outcome =>
  runSurface(
    step,
    inputs,
    step.machine,
    [{ axis: 1, min: step.near.mm, max: step.far.mm }],
    context,
    ({ errors }, machine) => {
      const edges = (step.near.mm > 0 ? 1 : 0) + (step.far.mm > 0 ? 1 : 0);
      const removal = settingErrors(
        context.sources,
        `${step.id}:edge`,
        'taken off each jointed edge',
        machine.setting,
      );
      return [errors[0], addErrors([errors[1], 1], [removal, -edges]), errors[2]];
    },
  );
