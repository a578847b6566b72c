import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Fault, mustAvoid, overlap } from '../document';
import { INCH } from '../units';
import { board, dice, oneStage, problem, strip, twoStage } from './cases.fixture';
import { type BoardLayout, layAnswer, totalsOf } from './layout';
import { independently } from './milp.fixture';
import type { Problem } from './problem';
import { EFFORT, solve, solveNow } from './solve';

const woodOf = (p: Problem, effort?: number) => {
  const answer = solveNow(p, effort);
  const { used, reusable, boards } = totalsOf(layAnswer(p, answer));
  return { answer, wood: (used - reusable) / 25, boards };
};
const inch = (...sizes: number[]) => sizes.map((size) => size * INCH);

describe('against an independent mixed-integer model (HiGHS)', () => {
  // Reference: Lodi, Martello, Vigo, "Models and bounds for two-dimensional level packing problems" (2004), from memory.
  const cases = [
    ...[1, 2, 4, 9].map((seed) => ['lengths', seed, oneStage(seed, 16)] as const),
    ...[1, 3, 4, 5, 8, 10].map((seed) => ['rectangles', seed, twoStage(seed, 12)] as const),
  ];
  it('is never better than the proven optimum, on the mean within 1 % of it, and at most one board over', async () => {
    const gaps: number[] = [];
    const over: number[] = [];
    for (const [, , p] of cases) {
      const mine = woodOf(p);
      expect(mine.answer.missing).toEqual([]);
      const optimum = await independently(p, 'wood');
      if (optimum.proven) {
        expect(mine.wood).toBeGreaterThan(optimum.objective * (1 - 1e-6));
        gaps.push(mine.wood / optimum.objective - 1);
      }
      const fewest = woodOf({ ...p, goal: 'fewestBoards' }, EFFORT.quick * 2);
      const least = await independently(p, 'boards');
      if (least.proven) over.push(fewest.boards - Math.round(least.objective));
    }
    expect(gaps.length).toBeGreaterThan(6);
    expect(gaps.reduce((a, b) => a + b, 0) / gaps.length).toBeLessThan(0.01);
    expect(Math.min(...over)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...over)).toBeLessThanOrEqual(1);
    expect(over.filter((n) => n === 0).length).toBeGreaterThanOrEqual(0.9 * over.length);
  }, 600_000);
  it('says “proven” only of what the independent model cannot beat', async () => {
    let proven = 0;
    for (let seed = 1; seed <= 12; seed++) {
      const p = twoStage(seed, 7);
      const mine = woodOf(p);
      if (!mine.answer.proven) continue;
      proven += 1;
      expect(mine.wood).toBeLessThan((await independently(p, 'wood')).objective * (1 + 1e-4));
    }
    expect(proven).toBeGreaterThan(4);
  }, 300_000);
});

describe('counts of the trade, exactly (common practice)', () => {
  const kerf = INCH / 8;
  const strips = (n: number, width: number, length = 600) =>
    Array.from({ length: n }, (_, i) => strip(`s${i}`, length, width));
  const placed = (width: number, wide: number, n: number, remnant = 0) =>
    n -
    solveNow(
      problem(strips(n, wide), [board('a', 600, width)], { ripKerf: kerf, crosscutKerf: kerf, remnant }),
      2000,
    ).missing.length;
  it.each([
    [7, 0, 19],
    [7, 1, 16],
    [6, 0, 16],
    [6, 1, 13],
  ])('%d in gives, with %d in kept in hand, %d strips of 1/4', (w, remnant, n) => {
    expect(placed(w * INCH, INCH / 4, 24, remnant * INCH)).toBe(n);
  });
  it('two strips of 1 9/16 need 3 1/4; a 3 in board gives two of 1 7/16 and no more', () => {
    const [two, three, strip9, strip7] = inch(3.25, 3, 1 + 9 / 16, 1 + 7 / 16);
    expect(placed(two, strip9, 2)).toBe(2);
    expect(placed(two - 0.01, strip9, 2)).toBe(1);
    expect(placed(three, strip7, 2)).toBe(2);
    expect(placed(three, strip7 + 0.01, 2)).toBe(1);
  });
  it('a 2x12 ripped once gives two of 5 9/16 before its corners come off', () => {
    expect(placed(11.25 * INCH, 5.5625 * INCH, 2)).toBe(2);
    expect(placed(11.25 * INCH, 5.5626 * INCH, 2)).toBe(1);
  });
  it('15/16 resawn gives two leaves of 13/32', () => {
    const leaf = (13 / 32) * INCH;
    const thick = board('a', 600, 100, (15 / 16) * INCH, { sold: 'offcut' });
    const leaves = (t: number) =>
      solveNow(
        problem([strip('u', 600, 100, t), strip('v', 600, 100, t)], [thick], {
          resaw: true,
          resawKerf: kerf,
        }),
        500,
      );
    expect(leaves(leaf).places.map((p) => [p.leaf, p.leaves])).toEqual([
      [0, 2],
      [1, 2],
    ]);
    expect(leaves(leaf + 0.01).missing).toHaveLength(1);
  });
  it.each([
    [96, 1],
    [144, 2],
    [192, 2],
    [192.25, 3],
  ])('64 in comes out of %d in %d times with a kerf of 1/8', (length, n) => {
    const p = problem(strips(4, 100, 64 * INCH), [board('a', length * INCH, 100)], { crosscutKerf: kerf });
    expect(4 - solveNow(p, 2000).missing.length).toBe(n);
  });
});

/** A random rack with faults, and strips of two grades. */
function faulty(seed: number): Problem {
  const roll = dice(seed + 900);
  const boards = Array.from({ length: roll(2, 4) }, (_, b) => {
    const [l, w] = [roll(20, 40) * 50, roll(12, 24) * 10];
    const faults = Array.from({ length: roll(0, 4) }, (_, i): Fault => {
      const [length, width] = [roll(1, 20) * 10, roll(1, 8) * 8];
      const kind = (['knot', 'split', 'check', 'stain', 'sapwood'] as const)[roll(0, 4)];
      const face = (['up', 'down', 'both'] as const)[roll(0, 2)];
      return {
        id: `f${i}`,
        kind,
        face,
        x: roll(0, 100) * 0.01 * (l - length),
        y: roll(0, 100) * 0.01 * Math.max(0, w - width),
        length,
        width: Math.min(width, w),
      };
    });
    return board(`b${b}`, l, w, 25, { faults });
  });
  const strips = Array.from({ length: roll(4, 14) }, (_, i) =>
    strip(`s${i}`, roll(8, 30) * 25, roll(3, 10) * 8, 25, {
      grades: roll(0, 2) ? { up: 'show', down: 'hidden' } : { up: 'clear', down: 'show' },
      ...(i < 3 && roll(0, 1) ? { set: 'mates' } : {}),
    }),
  );
  return problem(strips, boards, {
    endTrim: roll(0, 1) * 12,
    edgeTrim: roll(0, 1) * 3,
    remnant: roll(0, 1) * 20,
  });
}

const area = ({ length, width }: { length: number; width: number }) => length * width;
const pieces = (layout: BoardLayout) => layout.sections.flatMap(({ lanes }) => lanes.map(([first]) => first));

describe('what holds for every answer', () => {
  it('pieces, kerf and offcuts cover each board exactly, overlap nowhere, and keep clear of forbidden faults', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const p = faulty(seed);
        const answer = solveNow(p, 1500);
        expect(answer.places.length + answer.missing.length).toBe(p.strips.length);
        for (const layout of layAnswer(p, answer)) {
          const all = [...pieces(layout), ...layout.kerfs, ...layout.offcuts];
          const whole = layout.board.length.mm * layout.board.width.mm;
          expect(Math.abs(all.reduce((sum, a) => sum + area(a), 0) / whole - 1)).toBeLessThan(1e-9);
          for (const [i, a] of all.entries())
            for (const b of all.slice(i + 1)) expect(overlap(a, b)).toBe(false);
          for (const laid of pieces(layout))
            for (const fault of layout.board.faults ?? [])
              expect(overlap(laid, fault) && mustAvoid(fault, laid.strip.grades, laid.place.faceDown)).toBe(
                false,
              );
        }
        const mates = answer.places.filter(({ strip: id }) => p.strips.find((s) => s.id === id)?.set);
        expect(new Set(mates.map((place) => place.board)).size).toBeLessThanOrEqual(1);
      }),
      { numRuns: 60, seed: 4 },
    );
  });
  it('a locked strip stays, and the rest is solved around it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const p = faulty(seed);
        const first = solveNow(p, 800);
        fc.pre(first.places.length > 1);
        const held = first.places[first.places.length >> 1];
        const { strip: id, ...at } = held;
        const strips = p.strips.map((s) => (s.id === id ? { ...s, set: undefined, locked: at } : s));
        const again = solveNow({ ...p, strips }, 800);
        expect(again.places.find((place) => place.strip === id)).toEqual(held);
        for (const layout of layAnswer({ ...p, strips }, again))
          expect(pieces(layout).length).toBeGreaterThan(0);
      }),
      { numRuns: 30, seed: 5 },
    );
  });
  it('another board and the last answer to start from never make it worse; the same question has the same answer', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const p = faulty(seed);
        const first = solveNow(p, 400);
        expect(solveNow(p, 400)).toEqual(first);
        const more = { ...p, boards: [...p.boards, board('new', 1200, 150)] };
        const next = solveNow(more, 400, first);
        expect(next.missing.length).toBeLessThanOrEqual(first.missing.length);
        const wood = (q: Problem, a: typeof first) => {
          const { used, reusable } = totalsOf(layAnswer(q, a));
          return used - reusable;
        };
        if (next.missing.length === first.missing.length)
          expect(wood(more, next)).toBeLessThanOrEqual(wood(p, first) * (1 + 1e-3));
      }),
      { numRuns: 45, seed: 6 },
    );
  });
  it('strips that are locked lie there in whatever order they come, and the rest is solved between them', () => {
    const at = (x: number) => ({
      locked: { board: 'b', x, y: 0, leaf: 0, leaves: 1, faceDown: false },
    });
    const [near, far, free] = [
      { ...strip('near', 400, 100), ...at(0) },
      { ...strip('far', 400, 100), ...at(1200) },
      strip('free', 400, 100),
    ];
    const answers = [
      [near, far, free],
      [far, free, near],
    ].map((strips) => solveNow(problem(strips, [board('b', 2000, 100)]), 500));
    for (const { missing, places } of answers) {
      expect(missing).toEqual([]);
      const [a, b, c] = ['near', 'free', 'far'].map(
        (id) => places.find((place) => place.strip === id)?.x ?? Number.NaN,
      );
      expect([a, c]).toEqual([0, 1200]);
      expect((b > a && b < c) || b > c).toBe(true);
    }
    expect(answers[1].score).toBeCloseTo(answers[0].score, 6);
  });
  it('an answer to start from is taken in whatever order its places come', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const p = twoStage(seed, 10);
      const first = solveNow(p, 2000);
      const start = { ...first, places: first.places.toReversed() };
      expect(solveNow(p, 1, start).score, `seed ${seed}`).toBeLessThanOrEqual(first.score * (1 + 1e-9));
    }
  });
  it('a thinner kerf, started from the answer with a thicker one, never uses more wood', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const p = twoStage(seed, 10);
      const thick = solveNow(p, 2000);
      const thin = { ...p, rules: { ...p.rules, ripKerf: 1.5, crosscutKerf: 1.5 } };
      const after = solveNow(thin, 2000, thick);
      expect(after.score, `seed ${seed}`).toBeLessThanOrEqual(thick.score * (1 + 1e-9));
    }
  });
  it('the first answer comes at once and the best so far never gets worse', () => {
    const seen: number[] = [];
    const search = solve(twoStage(7, 25), 20_000);
    for (let step = search.next(); !step.done; step = search.next()) seen.push(step.value.best.score);
    expect(seen.length).toBeGreaterThan(2);
    expect(seen).toEqual(seen.toSorted((a, b) => b - a));
  });
});

describe('goals', () => {
  const two = [strip('a', 500, 50), strip('b', 500, 50)].map((s) => ({ ...s, milledThickness: 22 }));
  const from = (p: Problem) => new Set(solveNow(p, 3000).places.map((place) => place.board));
  it('cheapest takes the cheap board, offcuts first the offcut, keep wide the narrow one', () => {
    const price = (minor: number) => ({ price: { minor, currency: 'EUR', per: 'board' as const } });
    const dear = board('dear', 520, 104, 25, price(9000));
    const cheap = board('cheap', 900, 120, 25, price(1000));
    const offcut = board('offcut', 1000, 110, 25, { ...price(9000), sold: 'offcut' });
    const wide = board('wide', 510, 300, 25, price(9000));
    expect(from(problem(two, [dear, cheap, offcut], {}, 'cheapest'))).toEqual(new Set(['cheap']));
    expect(from(problem(two, [dear, cheap, offcut], {}, 'offcutsFirst'))).toEqual(new Set(['offcut']));
    expect(from(problem(two, [wide, dear], {}, 'keepWide'))).toEqual(new Set(['dear']));
    expect(from(problem(two, [dear, cheap], {}, 'leastWaste'))).toEqual(new Set(['dear']));
  });
  it('best colour match keeps strips to boards of one colour', () => {
    const boards = ['#c8a37c', '#7a5230', '#c7a27d'].map((colour, i) =>
      board(`b${i}`, 505, 52, 25, { colour }),
    );
    expect(from(problem(two, boards, {}, 'colour'))).toEqual(new Set(['b0', 'b2']));
  });
});
