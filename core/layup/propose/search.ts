import { falling, upwards } from '../../units';
import { chance } from '../../wood';
import { allowed, type Lock } from './exact';
import { costOf, type Costs, type Order } from './terms';

/** A first order: each place takes what costs least after the one before. Locked strips are where they must be. */
export function greedyOrder(costs: Costs, locks: readonly Lock[], turn = 0): Order {
  const { n, joint, strip, pair } = costs;
  const order: Order = { strips: [], ways: [] };
  const used = new Set<number>();
  for (let p = 0; p < n; p++) {
    let best = { k: -1, way: 0, cost: Number.POSITIVE_INFINITY };
    for (let k = 0; k < n; k++) {
      if (used.has(k)) continue;
      for (let way = 0; way < 4; way++) {
        if (!allowed(locks, p, k, way)) continue;
        let cost = strip[k * 4 + way];
        if (p > 0) cost += joint[((order.strips[p - 1] * 4 + order.ways[p - 1]) * n + k) * 4 + way];
        const mirror = n - 1 - p;
        if (costs.hasPairs && mirror < p) cost += pair[order.strips[mirror] * n + k];
        // Later tries begin elsewhere.
        if (p === 0 && turn > 0) cost += 1e3 * ((k + turn) % n);
        if (cost < best.cost - 1e-12) best = { k, way, cost };
      }
    }
    order.strips.push(best.k);
    order.ways.push(best.way);
    used.add(best.k);
  }
  return order;
}

/**
 * Betters an order: a local search, then again and again from a shaken copy of the best. The same turn gives the same
 * answer. `shakes` is how often.
 */
export function better(
  costs: Costs,
  locks: readonly Lock[],
  start: Order,
  { turn, shakes }: { turn: number; shakes: number },
): Order {
  const fixed = new Uint8Array(costs.n);
  for (const { place } of locks) fixed[place] = 1;
  let best = settle(costs, fixed, statesOf(start));
  let bestCost = costOf(costs, orderOf(best));
  let draws = turn * 1_000_003;
  const draw = (below: number) => Math.floor(chance(draws++, turn) * below);
  for (let i = 0; i < shakes; i++) {
    const next = settle(costs, fixed, shaken(best, fixed, draw));
    const cost = costOf(costs, orderOf(next));
    if (cost < bestCost - 1e-12) [best, bestCost] = [next, cost];
  }
  return orderOf(best);
}

/** A strip and its way as one number, so that end for end is the last bit. */
const statesOf = ({ strips, ways }: Order): Int32Array =>
  Int32Array.from(strips, (strip, p) => strip * 4 + ways[p]);

const orderOf = (states: Int32Array): Order => ({
  strips: Array.from(states, (state) => state >> 2),
  ways: Array.from(states, (state) => state & 3),
});

/** A copy with a stretch laid elsewhere, or, between locked strips, a few strips exchanged at random. */
function shaken(states: Int32Array, fixed: Uint8Array, draw: (below: number) => number): Int32Array {
  const n = states.length;
  const next = Int32Array.from(states);
  if (n >= 6 && !fixed.includes(1)) {
    const cuts = [draw(n - 1) + 1, draw(n - 1) + 1, draw(n - 1) + 1].sort(upwards);
    next.set(states.subarray(cuts[1], cuts[2]), cuts[0]);
    next.set(states.subarray(cuts[0], cuts[1]), cuts[0] + cuts[2] - cuts[1]);
  }
  const free = Array.from(fixed.keys()).filter((p) => !fixed[p]);
  for (let k = 0; k < 2; k++) {
    const [a, b] = [free[draw(free.length)], free[draw(free.length)]];
    [next[a], next[b]] = [next[b] ^ draw(4), next[a]];
  }
  return next;
}

/** Takes every improving exchange, turn, move, or turning about of a stretch until there is none. */
function settle(costs: Costs, fixed: Uint8Array, start: Int32Array): Int32Array {
  const { n, joint, strip, pair, hasPairs } = costs;
  const q = start;
  /** Sums up to a place: joints as laid, joints if turned about, what the strips gain by that, and locked places. */
  const [ahead, about, turned, locked] = [0, 1, 2, 3].map(() => new Float64Array(n + 1));
  const J = (a: number, b: number) => (a < 0 || b < 0 ? 0 : joint[(a * n + (b >> 2)) * 4 + (b & 3)]);
  const at = (p: number) => (p < 0 || p >= n ? -1 : q[p]);
  const sum = () => {
    for (let p = 0; p < n; p++) {
      ahead[p + 1] = ahead[p] + J(at(p - 1), q[p]);
      about[p + 1] = about[p] + (p > 0 ? J(q[p] ^ 1, q[p - 1] ^ 1) : 0);
      turned[p + 1] = turned[p] + strip[q[p] ^ 1] - strip[q[p]];
      locked[p + 1] = locked[p] + fixed[p];
    }
  };
  const pairsOf = (a: number, b: number): number => {
    if (!hasPairs) return 0;
    const of = (p: number) => (p === n - 1 - p ? 0 : pair[(q[p] >> 2) * n + (q[n - 1 - p] >> 2)]);
    return of(a) + (b === n - 1 - a ? 0 : of(b));
  };
  /** What two places cost with the joints beside them. */
  const beside = (a: number, b: number): number =>
    J(at(a - 1), q[a]) +
    J(q[a], at(a + 1)) +
    (b > a + 1 ? J(at(b - 1), q[b]) : 0) +
    J(q[b], at(b + 1)) +
    pairsOf(a, b);
  const bestTurn = (p: number): boolean => {
    const cost = (state: number) => strip[state] + J(at(p - 1), state) + J(state, at(p + 1));
    const was = q[p];
    let best = cost(was) - 1e-9;
    for (let turn = 1; turn < 4; turn++)
      if (cost(was ^ turn) < best) [best, q[p]] = [cost(was ^ turn), was ^ turn];
    return q[p] !== was;
  };
  const bestExchange = (a: number, b: number): boolean => {
    const before = beside(a, b);
    [q[a], q[b]] = [q[b], q[a]];
    if (beside(a, b) < before - 1e-9) return true;
    [q[a], q[b]] = [q[b], q[a]];
    return false;
  };
  const turnAbout = (from: number, to: number): boolean => {
    const before = ahead[to + 1] - ahead[from] + J(q[to], at(to + 1));
    const inner = about[to + 1] - about[from + 1];
    const ends = J(at(from - 1), q[to] ^ 1) + J(q[from] ^ 1, at(to + 1));
    if (inner + ends + turned[to + 1] - turned[from] >= before - 1e-9) return false;
    for (let i = from, k = to; i <= k; i++, k--) [q[i], q[k]] = [q[k] ^ 1, q[i] ^ 1];
    return true;
  };
  /** Takes a strip out and lays it in elsewhere, whichever way is best there. */
  const move = (from: number, to: number): boolean => {
    const was = q[from];
    const [left, right] = from < to ? [q[to], at(to + 1)] : [at(to - 1), q[to]];
    const gone = J(at(from - 1), was) + J(was, at(from + 1)) - J(at(from - 1), at(from + 1)) + strip[was];
    let best = gone - 1e-9;
    let chosen = -1;
    for (let way = 0; way < 4; way++) {
      const state = (was & ~3) | way;
      const cost = J(left, state) + J(state, right) - J(left, right) + strip[state];
      if (cost < best) [best, chosen] = [cost, state];
    }
    if (chosen < 0) return false;
    if (from < to) q.copyWithin(from, from + 1, to + 1);
    else q.copyWithin(to + 1, to, from);
    q[to] = chosen;
    return true;
  };
  sum();
  for (let improved = true; improved; ) {
    improved = false;
    const done = (changed: boolean) => {
      if (!changed) return;
      improved = true;
      sum();
    };
    for (let a = 0; a < n; a++) {
      if (fixed[a]) continue;
      done(bestTurn(a));
      for (let b = a + 1; b < n; b++) {
        if (fixed[b]) continue;
        done(bestExchange(a, b));
        if (hasPairs || locked[b + 1] > locked[a]) continue;
        done(turnAbout(a, b));
        done(move(a, b));
        done(move(b, a));
      }
    }
  }
  return q;
}

/**
 * What no order can go below. Twice the joints of an order are, strip by strip, its joints on both sides: at least its
 * two cheapest, and one for the two strips at the edges. Single strips and mirror pairs count with their least.
 */
export function boundOf(costs: Costs): number {
  const { n, joint, strip, pair } = costs;
  let twice = 0;
  const seconds: number[] = [];
  let singles = 0;
  let pairs = 0;
  let dearest = 0;
  for (let i = 0; i < n; i++) {
    singles += Math.min(strip[i * 4], strip[i * 4 + 1], strip[i * 4 + 2], strip[i * 4 + 3]);
    const least: number[] = [];
    let mirror = Number.POSITIVE_INFINITY;
    for (let j = 0; j < n; j++) {
      if (i === j) continue;
      let lowest = Number.POSITIVE_INFINITY;
      for (let a = 0; a < 4; a++)
        for (let b = 0; b < 4; b++)
          lowest = Math.min(
            lowest,
            joint[((i * 4 + a) * n + j) * 4 + b],
            joint[((j * 4 + b) * n + i) * 4 + a],
          );
      least.push(lowest);
      mirror = Math.min(mirror, pair[i * n + j]);
    }
    least.sort(upwards);
    twice += (least[0] ?? 0) + (least[1] ?? 0);
    seconds.push(least[1] ?? 0);
    if (costs.hasPairs && Number.isFinite(mirror)) {
      pairs += mirror / 2;
      dearest = Math.max(dearest, mirror / 2);
    }
  }
  seconds.sort(falling((x) => x));
  return (
    Math.max(0, (twice - (seconds[0] ?? 0) - (seconds[1] ?? 0)) / 2) +
    singles +
    Math.max(0, pairs - (n % 2 ? dearest : 0))
  );
}
