import { type BuildDocument, type DimensionName, userOf } from '../document';
import type { Vec3 } from '../solid';
import { roomOf } from './list';
import { sharedOff } from './reach';
import type { TakesOff } from './room';
import type { PieceSide } from './feature/model';
import type { Trims } from './feature/frame';

const SIDES: Record<DimensionName, readonly [PieceSide, PieceSide, axis: 0 | 1 | 2]> = {
  length: ['left', 'right', 0],
  width: ['near', 'far', 1],
  thickness: ['lower', 'upper', 2],
};

/** What a step takes off the low and high side of one dimension of a piece that is so long there. */
function amounts({ min, max, to }: TakesOff, size: number): [number, number] {
  return to ? sharedOff(Math.max(0, size - to.mm), to.rest ?? 'both', { min, max }) : [min, max];
}

/**
 * What later steps take off each side of what a step gives, as long as it lies as it does: until it is turned, cut up, or glued to
 * something else. A size to reach counts as what is over it now. mm.
 */
export function laterTrims(build: BuildDocument, output: string, size: Vec3): Trims {
  const off: Trims = { upper: 0, lower: 0, near: 0, far: 0, left: 0, right: 0 };
  const now = [...size] as [number, number, number];
  let step = userOf(build, output);
  for (let guard = 0; step && guard < build.steps.length; guard++) {
    const { flow, takesOff } = roomOf(step);
    if (flow.turns || flow.joins || flow.divides?.(step)) break;
    for (const take of takesOff?.(step) ?? []) {
      const [low, high, axis] = SIDES[take.dimension];
      const [min, max] = amounts(take, now[axis]);
      off[low] += min;
      off[high] += max;
      now[axis] -= min + max;
    }
    step = userOf(build, step.output);
  }
  return off;
}
