import { greatestSize } from './sizes';
import { type BuildDocument, type Step } from '../document';
import { roomOf } from './list';
import type { Rest, TakesOff } from './room';
import type { Timeline, WorkPiece } from './timeline';

/** What a size to reach leaves to be taken off, shared over the two sides: mm off the `min` side and off the `max` side. */
export function sharedOff(all: number, rest: Rest, set: { min: number; max: number }): [number, number] {
  if (rest === 'max') {
    const min = Math.min(Math.max(0, set.min), all);
    return [min, all - min];
  }
  if (rest === 'min') {
    const max = Math.min(Math.max(0, set.max), all);
    return [all - max, max];
  }
  return [all / 2, all / 2];
}

/**
 * A step with the amounts that bring what enters to the sizes it is to reach: for the largest piece, since that is where a
 * machine is set to begin. The same step where it has no size to reach, or nothing enters.
 */
export function settled<S extends Step>(step: S, entered: readonly WorkPiece[]): S {
  if (entered.length === 0) return step;
  const changes: Record<string, unknown> = {};
  for (const off of roomOf(step).takesOff?.(step) ?? []) {
    if (!off.to) continue;
    const all = Math.max(0, greatestSize(entered, off.dimension) - off.to.mm);
    const [min, max] = sharedOff(all, off.to.rest ?? 'both', off);
    changes[off.settings[0]] = { mm: min };
    changes[off.settings[1]] = { mm: max };
  }
  return Object.keys(changes).length === 0 ? step : { ...step, ...changes };
}

/** A build whose steps have the amounts that were played where they have a size to reach; the same build where none has. */
export function asPlayed(build: BuildDocument, timeline: Timeline): BuildDocument {
  const played = new Map(timeline.steps.flatMap(({ id, as }) => (as ? [[id, as] as const] : [])));
  return played.size === 0
    ? build
    : { ...build, steps: build.steps.map((step) => played.get(step.id) ?? step) };
}

/** A change of a step's amounts by hand takes the place of its size to reach, unless it sets that too. */
export function withoutReach(step: Step, change: Record<string, unknown>): Record<string, unknown> {
  const gone = (roomOf(step).takesOff?.(step) ?? []).flatMap(({ to, reach, settings }) =>
    to &&
    reach &&
    !(reach.to in change) &&
    !(reach.rest && reach.rest in change) &&
    settings.some((name) => name in change)
      ? [reach.to]
      : [],
  );
  return gone.length === 0
    ? change
    : { ...change, ...Object.fromEntries(gone.map((name) => [name, undefined])) };
}

/** What a step takes off the two sides of a dimension, by its settings: for a change of one that must leave the other as it was played. */
export const amountsOf = (step: Step, dimension: TakesOff['dimension']): Record<string, { mm: number }> =>
  Object.fromEntries(
    (roomOf(step).takesOff?.(step) ?? [])
      .filter((off) => off.dimension === dimension)
      .flatMap(({ settings, min, max }) => [
        [settings[0], { mm: min }],
        [settings[1], { mm: max }],
      ]),
  );
