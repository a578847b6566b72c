import { falling, inTurn, rising, sumOf } from '../units';
import type { Length } from '../units';
import data from './clamps.data.json';

/** A kind of clamp with the forces it is known for, newtons. */
export interface ClampKind {
  id: string;
  name: string;
  /** As makers of such clamps state it, and what a hand reaches: least and most. */
  statedN: [number, number];
  handN: [number, number];
  /** A typical pad: along the joint and across it, mm. */
  padMm: [number, number];
  certainty: string;
  note?: string;
}

/** The kinds of clamps, from memory; forces are rough. */
export const CLAMP_KINDS = data.types as unknown as readonly ClampKind[];
export const CLAMP_SOURCE = data.source;

const byId = new Map(CLAMP_KINDS.map((kind) => [kind.id, kind]));
/** A kind by its id; the plain bar clamp for one Junta does not know. */
export const clampKind = (id: string): ClampKind => byId.get(id) ?? (byId.get('f_light') as ClampKind);

/** Clamps alike on the shop's rack. */
export interface ClampSet {
  id: string;
  name: string;
  kind: string;
  count: number;
  /** The most that fits between the jaws. */
  opening: Length;
  /** What this shop's hand gets out of one, newtons. */
  forceN: number;
  /** The pad along the joint, and across it. */
  padLength: Length;
  padWidth: Length;
}

/** Clamps for all glue-ups of some size at once: how many of which, the shortest that are long enough first. */
export interface ClampPick {
  set: ClampSet;
  count: number;
}

/** Picks clamps that open far enough, the shortest first, until there are enough; fewer where the rack has no more. */
export function pickClamps(
  sets: readonly ClampSet[],
  count: number,
  openingMm: number,
): { picks: ClampPick[]; missing: number; longEnough: number } {
  const fit = sets
    .filter(({ opening, count }) => opening.mm >= openingMm - 1e-6 && count > 0)
    .toSorted(
      inTurn(
        rising(({ opening }) => opening.mm),
        falling(({ forceN }) => forceN),
      ),
    );
  const picks: ClampPick[] = [];
  let left = count;
  for (const set of fit) {
    if (left <= 0) break;
    const take = Math.min(left, set.count);
    picks.push({ set, count: take });
    left -= take;
  }
  return { picks, missing: Math.max(0, left), longEnough: sumOf(fit, (set) => set.count) };
}
