import { sawIdOf, type BuildDocument, type Step } from '../document';
import { roomOf } from './list';
import type { Took } from './room';

/**
 * The amounts a step takes by its settings, mm: of a cut its kerfs, of planing what comes off both sides. Slicing counts
 * the kerf of every slice that is cut; slices that do not fit are not cut. `cut` is how many came of each blank, all that
 * were asked for if missing. Empty where it takes nothing.
 */
export function tookBy(step: Step, build: BuildDocument, cut?: number): Took[] {
  const { took, takesOff } = roomOf(step);
  const saw = build.shop.saws.find(({ id }) => id === sawIdOf(step));
  const list: Took[] =
    took?.(step, saw?.kerf.mm ?? 0, cut) ??
    takesOff?.(step).map(({ sides, min, max }) => ({ from: sides, mm: min + max })) ??
    [];
  return list.filter(({ mm }) => mm > 0);
}
