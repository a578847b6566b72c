import { type ClampPick, gluingOf, type ShopSnapshot } from '../kit';
import { countNeeded } from '../units';

/** Glue-ups alike, shared out to what the shop can hold at once. */
export interface Sessions {
  /** Glue-ups alike that are wanted in all. */
  glueUps: number;
  /** How many of them are in clamps at once. */
  atOnce: number;
  /** How often the clamps go on: glue-ups over what is held at once, rounded up. */
  sessions: number;
  /** What holds no more: a set of clamps by its name, or the bench. */
  limit: { set: string } | { benches: number };
}

/**
 * Sessions of so many glue-ups alike: each wants the same clamps and a place on the bench from its start until it is
 * unclamped, so that the fewest of these decides how many stand at once. Always at least one at once: clamps that are
 * missing for a single one are a finding of its plan.
 */
export function sessionsOf(glueUps: number, picks: readonly ClampPick[], shop: ShopSnapshot): Sessions {
  const benches = Math.max(1, gluingOf(shop).benches);
  let atOnce = benches;
  let limit: Sessions['limit'] = { benches };
  for (const { set, count } of picks) {
    const held = Math.max(1, Math.floor(set.count / Math.max(1, count)));
    if (held >= atOnce) continue;
    atOnce = held;
    limit = { set: set.name };
  }
  return { glueUps, atOnce, sessions: countNeeded(glueUps / atOnce), limit };
}
