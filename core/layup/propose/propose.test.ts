import fc from 'fast-check';
import highs from 'highs';
import { describe, expect, it } from 'vitest';
import { chance } from '../../wood';
import type { FaceLook, StripLook } from '../faces';
import { exactOrders, type Lock, pairedOrders } from './exact';
import { better, boundOf, greedyOrder } from './search';
import { costOf, type Costs, costsOf, type Order, type Purpose, PURPOSES, TERMS } from './terms';

/** Random strips, as eyes and rulers would find them. */
function strips(n: number, seed: number): StripLook[] {
  const draw = (i: number, k: number) => chance(seed, i, k);
  const face = (i: number, k: number): FaceLook => ({
    far: {
      lab: [0.4 + 0.4 * draw(i, k), 0.02, 0.05],
      figureDegrees: 60 * draw(i, k + 1) - 30,
      sap: draw(i, k + 2) < 0.3,
    },
    near: {
      lab: [0.4 + 0.4 * draw(i, k + 3), 0.02, 0.05],
      figureDegrees: 60 * draw(i, k + 4) - 30,
      sap: draw(i, k + 5) < 0.3,
    },
    lab: [0.4 + 0.4 * draw(i, k + 6), 0.03 * draw(i, k + 7), 0.06],
    rings: ([-1, 0, 1] as const)[Math.floor(3 * draw(i, k + 8))],
    planing: draw(i, 40) < 0.5 ? 1 : -1,
  });
  return Array.from({ length: n }, (_, i) => ({
    piece: `s${i}`,
    species: draw(i, 30) < 0.5 ? 'maple_sugar' : 'walnut_black',
    board: `b${Math.floor(3 * draw(i, 31))}`,
    width: 30 + Math.round(20 * draw(i, 32)),
    thickness: 20,
    up: face(i, 0),
    down: face(i, 10),
    goodFace: draw(i, 33) < 0.5 ? ('up' as const) : ('down' as const),
  }));
}

const permutations = (n: number): number[][] =>
  n === 0
    ? [[]]
    : permutations(n - 1).flatMap((rest) =>
        Array.from({ length: n }, (_, at) => rest.toSpliced(at, 0, n - 1)),
      );

/** The least of all orders and all ways, one by one. */
function bruteForce(costs: Costs, locks: readonly Lock[]): number {
  let best = Number.POSITIVE_INFINITY;
  for (const order of permutations(costs.n)) {
    if (locks.some(({ place, strip }) => order[place] !== strip)) continue;
    for (let code = 0; code < 4 ** costs.n; code++) {
      const ways = order.map((_, p) => Math.floor(code / 4 ** p) % 4);
      if (locks.some(({ place, way }) => ways[place] !== way)) continue;
      best = Math.min(best, costOf(costs, { strips: order, ways }));
    }
  }
  return best;
}

const isWhole = ({ strips: order, ways }: Order, n: number) => {
  expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: n }, (_, i) => i));
  expect(ways.every((way) => way >= 0 && way < 4)).toBe(true);
};

const best = (costs: Costs, locks: readonly Lock[] = []) =>
  (costs.hasPairs ? pairedOrders : exactOrders)(costs, locks);

describe('the best order', () => {
  it.each(
    PURPOSES,
  )('for “%s” is the least of all orders, flips and rolls of up to five strips', (purpose) => {
    for (const n of [2, 3, 4, 5])
      for (const seed of [1, 2]) {
        const costs = costsOf(purpose, strips(n, seed));
        const [order] = best(costs);
        isWhole(order, n);
        expect(costOf(costs, order)).toBeCloseTo(bruteForce(costs, []), 9);
      }
  });
  it('of six strips is the least of all 2,949,120 orders', () => {
    const costs = costsOf('vanish', strips(6, 5));
    expect(costOf(costs, best(costs)[0])).toBeCloseTo(bruteForce(costs, []), 9);
  });
  it.each(
    PURPOSES,
  )('for “%s” keeps locked strips where they are, and is the least of what is left', (purpose) => {
    const locks: Lock[] = [
      { place: 1, strip: 3, way: 2 },
      { place: 4, strip: 0, way: 1 },
    ];
    const costs = costsOf(purpose, strips(5, 9));
    const [order] = best(costs, locks);
    expect([order.strips[1], order.ways[1], order.strips[4], order.ways[4]]).toEqual([3, 2, 0, 1]);
    expect(costOf(costs, order)).toBeCloseTo(bruteForce(costs, locks), 9);
  });

  /** An independent exact method: a path through all strips as a mixed-integer program (Miller, Tucker and Zemlin 1960). */
  async function milp(costs: Costs): Promise<number> {
    const { n } = costs;
    // Rolls and flips are states of their own: one state of each strip is entered and left.
    const states = 4 * n;
    const edge = (a: number, b: number) => costs.joint[(a * n + (b >> 2)) * 4 + (b & 3)];
    const terms: string[] = [];
    const outOf = Array.from({ length: states }, () => [] as string[]);
    const into = Array.from({ length: states }, () => [] as string[]);
    const binaries: string[] = [];
    const between = Array.from({ length: n }, () => Array.from({ length: n }, () => [] as string[]));
    for (let a = 0; a < states; a++) {
      terms.push(`${costs.strip[a]} y${a}`);
      binaries.push(`y${a}`, `f${a}`, `l${a}`);
      into[a].push(`f${a}`);
      outOf[a].push(`l${a}`);
      for (let b = 0; b < states; b++) {
        if (a >> 2 === b >> 2) continue;
        const name = `x${a}_${b}`;
        binaries.push(name);
        terms.push(`${edge(a, b)} ${name}`);
        outOf[a].push(name);
        into[b].push(name);
        between[a >> 2][b >> 2].push(name);
      }
    }
    const lines = Array.from({ length: states }, (_, a) => [
      `i${a}: ${into[a].join(' + ')} - y${a} = 0`,
      `o${a}: ${outOf[a].join(' + ')} - y${a} = 0`,
    ]).flat();
    for (let k = 0; k < n; k++)
      lines.push(`s${k}: ${[0, 1, 2, 3].map((w) => `y${4 * k + w}`).join(' + ')} = 1`);
    lines.push(`first: ${Array.from({ length: states }, (_, a) => `f${a}`).join(' + ')} = 1`);
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++)
        if (i !== j)
          lines.push(
            `u${i}_${j}: u${i} - u${j} + ${between[i][j].map((x) => `${n} ${x}`).join(' + ')} <= ${n - 1}`,
          );
    const text = `Minimize\n obj: ${terms.join(' + ')}\nSubject To\n ${lines.join('\n ')}\nBounds\n ${Array.from({ length: n }, (_, i) => `0 <= u${i} <= ${n - 1}`).join('\n ')}\nBinary\n ${binaries.join(' ')}\nEnd`;
    const solver = await highs();
    const answer = solver.solve(text, { time_limit: 60, mip_rel_gap: 1e-9 });
    expect(answer.Status).toBe('Optimal');
    return answer.ObjectiveValue;
  }
  it.each([
    ['vanish', 7, 3],
    ['contrast', 8, 4],
    ['even', 8, 6],
  ] as const)(
    'for “%s” of %d strips equals a mixed-integer program',
    async (purpose, n, seed) => {
      const costs = costsOf(purpose, strips(n, seed));
      expect(costOf(costs, best(costs)[0])).toBeCloseTo(await milp(costs), 5);
    },
    200_000,
  );

  /** An independent exact method for twelve: Dijkstra's way over sets, forwards, with the cost of every joint summed anew. */
  function forwards(costs: Costs): number {
    const { n } = costs;
    let layer = new Map<string, number>();
    for (let s = 0; s < 4 * n; s++) layer.set(`${1 << (s >> 2)} ${s}`, costs.strip[s]);
    for (let p = 1; p < n; p++) {
      const next = new Map<string, number>();
      for (const [key, cost] of layer) {
        const [set, last] = key.split(' ').map(Number);
        for (let s = 0; s < 4 * n; s++) {
          if (set & (1 << (s >> 2))) continue;
          const after = cost + costs.strip[s] + costs.joint[(last * n + (s >> 2)) * 4 + (s & 3)];
          const to = `${set | (1 << (s >> 2))} ${s}`;
          if (after < (next.get(to) ?? Number.POSITIVE_INFINITY)) next.set(to, after);
        }
      }
      layer = next;
    }
    return Math.min(...layer.values());
  }
  it.each([
    ['vanish', 10],
    ['apart', 11],
    ['rings', 12],
  ] as const)(
    'for “%s” of %d strips equals dynamic programming the other way round',
    (purpose, n) => {
      const costs = costsOf(purpose, strips(n, 17));
      expect(costOf(costs, best(costs)[0])).toBeCloseTo(forwards(costs), 9);
    },
    60_000,
  );

  it('gives other answers that begin otherwise, none better, each whole', () => {
    const costs = costsOf('vanish', strips(8, 2));
    const orders = best(costs);
    expect(orders).toHaveLength(8);
    const sums = orders.map((order) => costOf(costs, order));
    for (const [i, sum] of sums.entries()) expect(sum).toBeGreaterThanOrEqual((sums[i - 1] ?? 0) - 1e-9);
    for (const order of orders) isWhole(order, 8);
    expect(new Set(orders.map(({ strips: [first] }) => first)).size).toBe(8);
  });
});

describe('many strips', () => {
  it('never below the bound, never worse than the first answer, locks kept, the same every time', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PURPOSES),
        fc.integer({ min: 14, max: 24 }),
        fc.integer({ min: 1, max: 99 }),
        (purpose: Purpose, n, seed) => {
          const costs = costsOf(purpose, strips(n, seed));
          const locks: Lock[] = [{ place: 2, strip: 5, way: 3 }];
          const start = greedyOrder(costs, locks);
          const found = better(costs, locks, start, { turn: 1, shakes: 40 });
          isWhole(found, n);
          expect([found.strips[2], found.ways[2]]).toEqual([5, 3]);
          expect(costOf(costs, found)).toBeLessThanOrEqual(costOf(costs, start) + 1e-9);
          expect(costOf(costs, found)).toBeGreaterThanOrEqual(boundOf(costs) - 1e-9);
          expect(better(costs, locks, start, { turn: 1, shakes: 40 })).toEqual(found);
        },
      ),
      { seed: 20266, numRuns: 12 },
    );
  });
  it('comes within 3 % of the proven best where both can be had', () => {
    for (const purpose of PURPOSES) {
      const costs = costsOf(purpose, strips(12, 7));
      const proven = costOf(costs, best(costs)[0]);
      const found = Math.min(
        ...[1, 2, 3].map((turn) =>
          costOf(costs, better(costs, [], greedyOrder(costs, [], turn - 1), { turn, shakes: 100 })),
        ),
      );
      expect(found).toBeGreaterThanOrEqual(proven - 1e-9);
      expect(found, purpose).toBeLessThanOrEqual(proven * 1.03 + 1e-6);
      expect(boundOf(costs)).toBeLessThanOrEqual(proven + 1e-9);
    }
  });
  it('every purpose is made of terms, each named once', () => {
    for (const purpose of PURPOSES) {
      const names = Object.values(TERMS[purpose])
        .flat()
        .map(({ name }) => name);
      expect(names.length).toBeGreaterThan(1);
      expect(new Set(names).size).toBe(names.length);
    }
  });
});
