import type { Step } from '../document';
import { limitOf, type Machine } from '../kit';
import { passesNeeded, sumOf } from '../units';
import { isSoftwood } from '../wood';
import { roomOf } from './list';
import type { WorkPiece } from './timeline';

/** Passes over one side: the last one lighter. One where the machine has no limit to a pass; none where nothing comes off. */
const passesOver = (mm: number, bite: number): number => {
  if (!(mm > 1e-6)) return 0;
  return bite > 0 ? passesNeeded(mm, bite) : 1;
};

/**
 * The most that comes off in one pass of a step, mm; 0 where there is no limit. What the step says, never over what the machine
 * takes; of hardwood what the machine takes of that, where its kit says so.
 */
export function biteOf(step: Step, machine: Machine | undefined, entered: readonly WorkPiece[]): number {
  const own = (step as { bite?: { mm: number } }).bite?.mm ?? 0;
  const hard = entered.some(({ blank }) => blank.cells.some(({ origin }) => !isSoftwood(origin.species)));
  const limits = [
    own,
    machine && hard ? limitOf(machine, 'hardBite') : 0,
    machine ? limitOf(machine, 'bite') : 0,
  ].filter((mm) => mm > 0);
  return limits.length > 0 ? Math.min(...limits) : 0;
}

/**
 * How often a piece goes over a machine: every side for itself, no more than the bite (mm, 0 for no limit) at a time.
 * Undefined for a step that takes nothing off in passes.
 */
export function passesOf(step: Step, bite: number): number | undefined {
  const sides = roomOf(step).machining?.sides(step);
  return sides && sumOf(sides, (mm) => passesOver(mm, bite));
}
