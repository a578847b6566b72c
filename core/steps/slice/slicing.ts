import { countObtainable, type Length } from '../../units';

/** What a slicing needs to know of itself: its head, its slices and what stays in hand. */
interface Slicing {
  head: Length;
  thickness: Length;
  hold?: Length;
}

/** What the cleaning cut takes, its kerf with it, mm. */
const spentFirst = ({ head }: Slicing, kerfMm: number): number => (head.mm > 0 ? head.mm + kerfMm : 0);

/** What must stay in hand after the last slice, mm. */
export const heldBack = ({ hold }: Pick<Slicing, 'hold'>): number => Math.max(0, hold?.mm ?? 0);

/**
 * Slices that a blank gives, mm: head and kerf first, then slice and kerf in turn, and what must stay in hand stays.
 * Where nothing need stay, the last slice needs no cut behind it. Counts with the tolerance of core/units/count.
 */
export function slicesFrom(lengthMm: number, step: Slicing, kerfMm: number): number {
  const held = heldBack(step);
  const room = lengthMm - spentFirst(step, kerfMm) - held + (held > 0 ? 0 : kerfMm);
  return Math.max(0, countObtainable(room / (step.thickness.mm + kerfMm)));
}

/** The least length of a blank that gives so many slices and leaves in hand what must stay there, mm. */
export function lengthForSlices(count: number, step: Slicing, kerfMm: number): number {
  const held = heldBack(step);
  return spentFirst(step, kerfMm) + count * (step.thickness.mm + kerfMm) + held - (held > 0 ? 0 : kerfMm);
}
