import { countNeeded } from '../../units';

/** More clamps than any shop has on one glue-up: a plan that would need more is shown with so many. */
export const MOST_CLAMPS = 1000;

const bounded = (count: number): number => Math.min(MOST_CLAMPS, Math.max(1, count || 1));

/**
 * Clamps so that pressure reaches everywhere, when it fans out over `reach` times the way from the pad to the first
 * joint (with its caul) to both sides: ceil(L / (2 r w)). Rounds up; at least one. Any unit of length, the same for both.
 */
export const clampsBySpread = (length: number, way: number, reach = 1): number =>
  bounded(countNeeded(length / (2 * reach * way)));

/** Clamps so that one joint gets its pressure: ceil(P A / F). MPa, mm2 and newtons, or psi, in2 and lbf. Rounds up. */
export const clampsByForce = (pressure: number, area: number, force: number): number =>
  bounded(countNeeded((pressure * area) / force));

/** Clamps so that none stand farther apart than wanted, with half a spacing at both ends. */
export const clampsBySpacing = (length: number, spacing: number): number =>
  bounded(countNeeded(length / spacing));

/** Middles of n equal stretches. */
export const evenMiddles = (count: number, length: number): number[] =>
  Array.from({ length: count }, (_, i) => ((i + 0.5) * length) / count);

/**
 * Places under the measured school: evenly, the first one and a half ways from the end if there is room, as a clamp
 * nearer to a free end tips the board and reaches less far inward.
 */
export function reachPlaces(count: number, length: number, way: number): number[] {
  if (count === 1) return [length / 2];
  const half = length / (2 * count);
  const first = Math.max(half, Math.min(1.5 * way, 1.5 * half));
  return Array.from({ length: count }, (_, i) => first + (i * (length - 2 * first)) / (count - 1));
}

/** Places of the best even layout by the rule of thumb of the elastic school: spacing L/(n - 0.12), first 0.44 of it. */
export function elasticPlaces(count: number, length: number): number[] {
  if (count === 1) return [length / 2];
  const first = (0.44 * length) / (count - 0.12);
  return Array.from({ length: count }, (_, i) => first + (i * (length - 2 * first)) / (count - 1));
}
