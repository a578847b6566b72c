import { inTurn, rising } from '../../units';
import type { Costs, Order } from './terms';

/** A strip that stays where it is, as it lies. */
export interface Lock {
  place: number;
  strip: number;
  way: number;
}

/** Up to this many strips the best order is proven. */
export const MOST_EXACT = 13;

/** Whether a strip may take a place, lying one way. */
export function allowed(locks: readonly Lock[], place: number, strip: number, way: number): boolean {
  for (const lock of locks) {
    if (lock.place === place) return lock.strip === strip && lock.way === way;
    if (lock.strip === strip) return false;
  }
  return true;
}

const FAR = Number.POSITIVE_INFINITY;

/**
 * The best orders by dynamic programming over sets of strips (Held and Karp 1962, "A dynamic programming approach to
 * sequencing problems"), the state being what is laid and which strip lies last which way. Proven best; ties go to
 * the strip that stood first. Gives for every strip that can lie first the best order that begins with it, cheapest
 * first. Costs on mirror pairs are not for this; see pairedOrders.
 */
export function exactOrders(costs: Costs, locks: readonly Lock[]): Order[] {
  const { n, joint, strip } = costs;
  const states = 4 * n;
  const full = (1 << n) - 1;
  // rest[S][k, w]: the least that all strips outside S cost, when k lying w was laid last.
  const rest = new Float64Array((full + 1) * states).fill(FAR);
  const next = new Int16Array((full + 1) * states).fill(-1);
  rest.fill(0, full * states, (full + 1) * states);
  const place = new Uint8Array(full + 1);
  for (let set = 1; set <= full; set++) place[set] = place[set >> 1] + (set & 1);
  const free = new Uint8Array(n * states);
  for (let p = 0; p < n; p++)
    for (let s = 0; s < states; s++) free[p * states + s] = allowed(locks, p, s >> 2, s & 3) ? 1 : 0;
  for (let set = full - 1; set > 0; set--) {
    const p = place[set];
    for (let last = 0; last < states; last++) {
      if (!(set & (1 << (last >> 2)))) continue;
      let best = FAR;
      let chosen = -1;
      for (let state = 0; state < states; state++) {
        const bit = 1 << (state >> 2);
        if (set & bit || !free[p * states + state]) continue;
        const cost =
          joint[(last * n + (state >> 2)) * 4 + (state & 3)] +
          strip[state] +
          rest[(set | bit) * states + state];
        if (cost < best - 1e-12) [best, chosen] = [cost, state];
      }
      rest[set * states + last] = best;
      next[set * states + last] = chosen;
    }
  }
  const starts: { state: number; cost: number }[] = [];
  for (let k = 0; k < n; k++) {
    let best = { state: -1, cost: FAR };
    for (let way = 0; way < 4; way++) {
      const state = k * 4 + way;
      if (!free[state]) continue;
      const cost = strip[state] + rest[(1 << k) * states + state];
      if (cost < best.cost - 1e-12) best = { state, cost };
    }
    if (best.state >= 0 && Number.isFinite(best.cost)) starts.push(best);
  }
  return starts
    .toSorted(
      inTurn(
        rising(({ cost }) => cost),
        rising(({ state }) => state),
      ),
    )
    .map(({ state }) => {
      const order: Order = { strips: [state >> 2], ways: [state & 3] };
      let set = 1 << (state >> 2);
      let last = state;
      while (set !== full) {
        last = next[set * states + last];
        order.strips.push(last >> 2);
        order.ways.push(last & 3);
        set |= 1 << (last >> 2);
      }
      return order;
    });
}

/**
 * The best orders where only mirror pairs and single strips cost anything: pairs are chosen from the outside in, over
 * all sets. Proven best. Gives the best order for every first pair's far strip, cheapest first.
 */
export function pairedOrders(costs: Costs, locks: readonly Lock[]): Order[] {
  const { n, pair, strip } = costs;
  const full = (1 << n) - 1;
  const bestWay = (place: number, k: number): { way: number; cost: number } => {
    let best = { way: -1, cost: FAR };
    for (let way = 0; way < 4; way++)
      if (allowed(locks, place, k, way) && strip[k * 4 + way] < best.cost - 1e-12)
        best = { way, cost: strip[k * 4 + way] };
    return best;
  };
  const ways = Array.from({ length: n }, (_, p) => Array.from({ length: n }, (_, k) => bestWay(p, k)));
  const known = new Map<number, { cost: number; far: number; near: number }>();
  const solve = (set: number, ring: number): { cost: number; far: number; near: number } => {
    const seen = known.get(set);
    if (seen) return seen;
    let best = { cost: set === full ? 0 : FAR, far: -1, near: -1 };
    const [outer, inner] = [ring, n - 1 - ring];
    if (set !== full && outer === inner) {
      const k = Math.round(Math.log2(full & ~set));
      best = { cost: ways[outer][k].cost, far: k, near: k };
    } else if (set !== full)
      for (let a = 0; a < n; a++) {
        if (set & (1 << a) || ways[outer][a].way < 0) continue;
        for (let b = 0; b < n; b++) {
          if (a === b || set & (1 << b) || ways[inner][b].way < 0) continue;
          const cost =
            pair[a * n + b] +
            ways[outer][a].cost +
            ways[inner][b].cost +
            solve(set | (1 << a) | (1 << b), ring + 1).cost;
          if (cost < best.cost - 1e-12) best = { cost, far: a, near: b };
        }
      }
    known.set(set, best);
    return best;
  };
  const build = (first: { far: number; near: number } | undefined): Order => {
    const order: Order = { strips: Array(n).fill(-1), ways: Array(n).fill(0) };
    let set = 0;
    for (let ring = 0; ring <= n - 1 - ring; ring++) {
      const { far, near } = ring === 0 && first ? first : solve(set, ring);
      for (const [place, k] of [
        [ring, far],
        [n - 1 - ring, near],
      ]) {
        order.strips[place] = k;
        order.ways[place] = ways[place][k].way;
        set |= 1 << k;
      }
    }
    return order;
  };
  if (n === 1) return Number.isFinite(solve(0, 0).cost) ? [build(undefined)] : [];
  const starts: { far: number; near: number; cost: number }[] = [];
  for (let a = 0; a < n; a++) {
    let best = { far: a, near: -1, cost: FAR };
    for (let b = 0; b < n; b++) {
      if (a === b || ways[0][a].way < 0 || ways[n - 1][b].way < 0) continue;
      const cost =
        pair[a * n + b] + ways[0][a].cost + ways[n - 1][b].cost + solve((1 << a) | (1 << b), 1).cost;
      if (cost < best.cost - 1e-12) best = { far: a, near: b, cost };
    }
    if (best.near >= 0 && Number.isFinite(best.cost)) starts.push(best);
  }
  return starts
    .toSorted(
      inTurn(
        rising(({ cost }) => cost),
        rising(({ far }) => far),
      ),
    )
    .map(build);
}
