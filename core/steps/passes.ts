import type { Step } from '../document';
import type { Machine } from '../kit';
import { passesNeeded } from '../units';
import { roomOf } from './list';

/** Passes over one side: the last one lighter. One where the machine has no limit to a pass; none where nothing comes off. */
const passesOver = (mm: number, bite: number): number => {
  if (!(mm > 1e-6)) return 0;
  return bite > 0 ? passesNeeded(mm, bite) : 1;
};

/**
 * How often a piece goes over a machine: every side for itself, no more than the machine's bite at a time. Undefined for
 * a step that takes nothing off in passes.
 */
export function passesOf(step: Step, machine: Pick<Machine, 'bite'> | undefined): number | undefined {
  const bite = machine?.bite.mm ?? 0;
  return roomOf(step)
    .machining?.sides(step)
    .reduce((sum, mm) => sum + passesOver(mm, bite), 0);
}
