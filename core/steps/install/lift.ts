/** How a piece is carried. */
export const CARRIED = [
  { value: 'flat', label: 'Flat, by hand', share: 1 },
  { value: 'onEdge', label: 'On edge, by hand', share: 1 },
  { value: 'trolley', label: 'On a trolley', share: 0.25 },
  { value: 'hoist', label: 'By a hoist or a crane', share: 0 },
] as const;
export type Carried = (typeof CARRIED)[number]['value'];

/** Stairs ask more of whoever goes below: so much of the load is theirs (common practice). */
export const BELOW_ON_STAIRS = 0.65;

/** The most that one pair of hands bears of a piece, kg: an even share, more of it below on stairs; little on a trolley. */
export function bears(massKg: number, people: number, carried: Carried, stairs: boolean): number {
  const [{ share }] = CARRIED.filter(({ value }) => value === carried);
  const even = (massKg * share) / Math.max(1, people);
  // A trolley stays below: what is carried up stairs is carried.
  const onStairs =
    share > 0 && stairs ? (people >= 2 ? (2 * massKg * BELOW_ON_STAIRS) / people : massKg) : even;
  return Math.max(even, onStairs);
}

/** The fewest people who bear a piece with so much each; undefined where more than `most` would be needed. */
export function peopleFor(
  massKg: number,
  eachKg: number,
  { carried, stairs, most }: { carried: Carried; stairs: boolean; most: number },
): number | undefined {
  for (let n = 1; n <= most; n++) if (bears(massKg, n, carried, stairs) <= eachKg + 1e-9) return n;
  return undefined;
}

/** Load on the end of a piece at which it tips over its outer support, N: taken about that support, g 9.81. Less than nothing where it tips by itself. */
export const tipsAt = (massKg: number, balanceMm: number, supportMm: number, endMm: number): number =>
  (massKg * 9.81 * (supportMm - balanceMm)) / (endMm - supportMm);
