import { type Step, type DimensionName, axisOf } from '../document';
import { type Machine, removalCause, type Work } from '../kit';
import {
  across,
  type Blank,
  book,
  bounds,
  emptyLedger,
  extents,
  type Ledger,
  splitBlank,
  toOrigin,
} from '../solid';
import { isStopped, machineOf, type Outcome, type RunContext, stopAt } from './context';
import type { Length } from '../units';
import type { Rest, TakesOff } from './room';
import type { WorkPiece } from './timeline';
import type { Errors } from './tolerance';

/** What comes off one dimension of every piece. */
export interface Removal {
  dimension: DimensionName;
  min: number;
  max: number;
  /** The size to reach, mm, where one is set: a smaller piece loses less, the `max` side first. */
  to?: number;
}

/** A size to reach as the table of removals has it; nothing where none is set. */
export const reaching = (to: Length | undefined, rest?: Rest): Pick<TakesOff, 'to'> =>
  to && to.mm > 0 ? { to: { mm: to.mm, ...(rest ? { rest } : {}) } } : {};

/** The ways to share what is over, by what the sides are called. */
export const restOptions = (each: string, min: string, max: string) =>
  [
    { value: 'both', label: `Half off each ${each}` },
    { value: 'min', label: `The rest off the ${min}` },
    { value: 'max', label: `The rest off the ${max}` },
  ] as const;

/** What comes off one piece: as much as is set, or what brings it to the size, `min` side last as the machine stands then. */
export function removalFrom({ dimension, min, max, to }: Removal, { blank }: WorkPiece): Removal {
  if (to === undefined || !(to > 0)) return { dimension, min, max };
  const all = Math.max(0, extents(blank)[axisOf(dimension)] - to);
  const last = Math.min(min, all);
  return { dimension, min: last, max: all - last };
}

/** The finding that more would come off than there is; undefined where the removals fit. */
export function checkRemoval(step: { id: string }, piece: WorkPiece, removals: readonly Removal[]) {
  const size = extents(piece.blank);
  for (const { dimension, min, max } of removals) {
    const has = size[axisOf(dimension)];
    if (min < 0 || max < 0 || !Number.isFinite(min + max))
      return stopAt(step, 'bad-amount', [`What comes off the ${dimension} must be zero or more.`], {
        numbers: { amount: Math.min(min, max) },
        dimension,
      });
    if (min + max >= has - 1e-6)
      return stopAt(
        step,
        'nothing-left',
        [
          `This takes `,
          { mm: min + max },
          ` off the ${dimension}, and the piece has only `,
          { mm: has },
          '.',
        ],
        { numbers: { removed: min + max, size: has }, dimension },
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
  const cause = removalCause(machine);
  let kept = blank;
  let booked = ledger;
  // Measured on the piece as it came, as with a saw.
  const box = bounds(kept);
  for (const { dimension, min, max } of removals) {
    const axis = axisOf(dimension);
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

/** A pass over a machine: what it must do, what comes off, and how far the sizes may be off after it. */
interface Surfacing {
  work: Work;
  removals: readonly Removal[];
  errorsAfter: (piece: WorkPiece, machine: Machine) => ErrorTriple;
}

/** Takes pieces over the machine that a step names; stops where the kit has none such, or more would come off than there is. */
export function runSurface(
  step: Step & { machine: string },
  inputs: readonly WorkPiece[],
  context: RunContext,
  { work, removals, errorsAfter }: Surfacing,
): Outcome {
  const machine = machineOf(step, step.machine, context, work);
  if (isStopped(machine)) return machine;
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const own = removals.map((removal) => removalFrom(removal, piece));
    const bad = checkRemoval(step, piece, own);
    if (bad) return bad;
    const taken = takeOff(piece.blank, own, machine, lost);
    lost = taken.ledger;
    pieces.push({ ...piece, blank: taken.blank, errors: errorsAfter(piece, machine) });
  }
  return { pieces, lost };
}

declare module '../document/finding' {
  interface FindingCodes {
    /** What is to come off is less than nothing, or no number. */
    'bad-amount': true;
    /** More is to come off than there is. */
    'nothing-left': true;
  }
}
