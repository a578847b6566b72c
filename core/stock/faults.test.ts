import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Fault, isThrough, mustAvoid, overlap, parcel } from '../document';
import { board, dice, problem, strip } from './cases.fixture';
import { type Area, clearAreas, clearShare, clipFault, coveredArea, faultProblem } from './faults';
import { type LaidStrip, layAnswer, layBoard, totalsOf } from './layout';
import type { Problem, WantedStrip } from './problem';
import { solveNow } from './solve';

const fault = (x: number, y: number, length: number, width: number, more: Partial<Fault> = {}): Fault => ({
  id: `f${x}-${y}`,
  kind: 'knot',
  face: 'up',
  x,
  y,
  length,
  width,
  ...more,
});

/**
 * Every arrangement on one board: each subset and order of strips, each division into sections, each strip lying up
 * or down, each start next to what came before or behind a fault. The least wood for the most strips.
 */
function exhaustive(p: Problem): { missing: number; wood: number } {
  const [only] = p.boards;
  const { rules } = p;
  const faults = only.faults ?? [];
  const [l, w] = [only.length.mm, only.width.mm];
  let best = { missing: p.strips.length, wood: p.strips.length ? l * w : 0 };
  const weigh = (laid: LaidStrip[]) => {
    const missing = p.strips.length - laid.length;
    if (missing > best.missing || laid.length === 0) return;
    const { used, reusable } = totalsOf([layBoard(only, laid, rules)]);
    const wood = (used - reusable) / only.thickness.mm;
    if (missing < best.missing || wood < best.wood - 1e-6) best = { missing, wood };
  };
  const starts = (from: number, ends: number[]) => [from, ...ends.filter((end) => end > from)];
  const section = (laid: LaidStrip[], left: WantedStrip[], from: number): void => {
    weigh(laid);
    for (const first of left)
      for (const x of starts(
        from,
        faults.map((f) => f.x + f.length),
      ))
        if (x + first.length <= l) lanes(laid, left, x, first.length, 0);
  };
  const lanes = (laid: LaidStrip[], left: WantedStrip[], x: number, length: number, from: number): void => {
    for (const s of left.filter((one) => one.length <= length))
      for (const y of starts(
        from,
        faults.map((f) => f.y + f.width),
      )) {
        if (y + s.width > w) continue;
        for (const at of new Set([
          x,
          x + length - s.length,
          ...faults.map((f) => f.x + f.length).filter((e) => e > x && e + s.length < x + length),
        ]))
          for (const faceDown of [false, true]) {
            const area: Area = { x: at, y, length: s.length, width: s.width };
            if (faults.some((f) => overlap(f, area) && mustAvoid(f, s.grades, faceDown))) continue;
            const place = { strip: s.id, board: only.id, x: at, y, leaf: 0, leaves: 1, faceDown };
            const now = [...laid, { ...area, strip: s, place }];
            const rest = left.filter((other) => other !== s);
            lanes(now, rest, x, length, y + s.width + rules.ripKerf);
            // The section ends here; it is as long as its longest strip.
            if (now.some((piece) => piece.x >= x && piece.length === length))
              section(now, rest, x + length + rules.crosscutKerf);
          }
      }
  };
  section([], [...p.strips], 0);
  return best;
}

describe('with faults, against every arrangement', () => {
  it('finds what an exhaustive search finds, on up to two faults and five strips', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const roll = dice(seed * 31);
      const [l, w] = [roll(16, 26) * 50, roll(9, 16) * 10];
      const faults = Array.from({ length: roll(1, 2) }, (_, i) =>
        fault(roll(0, 9) * 0.1 * (l - 200), roll(0, 9) * 0.1 * (w - 60), roll(3, 20) * 10, roll(2, 6) * 10, {
          id: `f${i}`,
          kind: roll(0, 1) ? 'knot' : 'split',
        }),
      );
      const strips = Array.from({ length: roll(2, 4) }, (_, i) =>
        strip(`s${i}`, roll(6, 16) * 50, roll(3, 7) * 10),
      );
      const p = problem(strips, [board('b', l, w, 25, { faults })]);
      const answer = solveNow(p, 6000);
      const least = exhaustive(p);
      expect(answer.missing.length, `seed ${seed}`).toBe(least.missing);
      const { used, reusable } = totalsOf(layAnswer(p, answer));
      if (answer.places.length > 0) expect((used - reusable) / 25, `seed ${seed}`).toBeCloseTo(least.wood, 3);
    }
  }, 120_000);
});

describe('grades', () => {
  it('a show face refuses a knot, a hidden one carries it; a split goes through', () => {
    const knot = fault(0, 0, 10, 10);
    expect(mustAvoid(knot, { up: 'show', down: 'hidden' }, false)).toBe(true);
    expect(mustAvoid(knot, { up: 'show', down: 'hidden' }, true)).toBe(false);
    const split = fault(0, 0, 10, 10, { kind: 'split', face: 'down' });
    expect(isThrough(split)).toBe(true);
    expect(mustAvoid(split, { up: 'show', down: 'hidden' }, false)).toBe(true);
    expect(mustAvoid(fault(0, 0, 1, 1, { kind: 'sapwood' }), { up: 'show', down: 'hidden' }, false)).toBe(
      false,
    );
    expect(mustAvoid(fault(0, 0, 1, 1, { kind: 'sapwood' }), { up: 'clear', down: 'hidden' }, false)).toBe(
      true,
    );
  });
  it('a strip is turned face down where that hides the knot', () => {
    const p = problem(
      [strip('s', 500, 90)],
      [board('b', 500, 100, 25, { faults: [fault(200, 20, 30, 30)] })],
    );
    expect(solveNow(p, 100).places[0].faceDown).toBe(true);
  });
});

describe('clear areas', () => {
  const size = { length: { mm: 1000 }, width: { mm: 200 } };
  it('of a clean board is all of it; a knot in the middle leaves four', () => {
    expect(clearAreas(size, [])).toEqual([{ x: 0, y: 0, length: 1000, width: 200 }]);
    expect(clearAreas(size, [fault(400, 90, 100, 40)])).toEqual([
      { x: 500, y: 0, length: 500, width: 200 },
      { x: 0, y: 0, length: 1000, width: 90 },
      { x: 0, y: 0, length: 400, width: 200 },
      { x: 0, y: 130, length: 1000, width: 70 },
    ]);
    // Of areas as large the first along the board comes first, in whatever order the faults were noted.
    const across = [fault(650, 0, 50, 200), fault(300, 0, 50, 200)];
    expect(clearAreas(size, across).map(({ x }) => x)).toEqual([0, 350, 700]);
  });
  it('hold no fault, and every point outside the faults lies in one', () => {
    const some = fc.array(
      fc.record({
        x: fc.integer({ min: 0, max: 90 }),
        y: fc.integer({ min: 0, max: 15 }),
        length: fc.integer({ min: 1, max: 30 }),
        width: fc.integer({ min: 1, max: 8 }),
      }),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(some, fc.integer({ min: 0, max: 99 }), fc.integer({ min: 0, max: 19 }), (raw, px, py) => {
        const box = { length: { mm: 100 }, width: { mm: 20 } };
        const faults = raw.flatMap((f) => clipFault(fault(f.x, f.y, f.length, f.width), box) ?? []);
        const areas = clearAreas(box, faults, { length: 0.5, width: 0.5 });
        for (const a of areas) for (const f of faults) expect(overlap(a, f)).toBe(false);
        const sizes = areas.map(({ length, width }) => length * width);
        expect(sizes).toEqual(sizes.toSorted((a, b) => b - a));
        const holds = (a: Area) =>
          px + 0.5 > a.x && px + 0.5 < a.x + a.length && py + 0.5 > a.y && py + 0.5 < a.y + a.width;
        expect(areas.some(holds)).toBe(!faults.some(holds));
      }),
      { seed: 20275, numRuns: 300 },
    );
  });
  it('and the clear share count overlapping faults once, on the better side', () => {
    expect(coveredArea([fault(0, 0, 10, 10), fault(5, 5, 10, 10)])).toBe(175);
    // One within another, and one beside it with a gap between.
    expect(coveredArea([fault(0, 0, 10, 10), fault(2, 2, 3, 3), fault(20, 0, 5, 4)])).toBe(120);
    expect(coveredArea([])).toBe(0);
    expect(clearShare(board('b', 100, 100, 25, { faults: [fault(0, 0, 50, 100)] }))).toBe(1);
    expect(clearShare(board('b', 100, 100, 25, { faults: [fault(0, 0, 50, 100, { face: 'both' })] }))).toBe(
      0.5,
    );
  });
  it('a fault larger than its board is named with both numbers', () => {
    expect(faultProblem(fault(900, 0, 200, 20), size)).toContain(
      '900 to 1100 mm, but the board is 1000 mm long',
    );
    expect(faultProblem(fault(0, 150, 20, 90), size)).toContain('200 mm wide');
    expect(faultProblem(fault(0, 0, 0, 5), size)).toContain('no size');
    expect(faultProblem(fault(0, 0, 1000, 200), size)).toBeUndefined();
  });
});

describe('parcel', () => {
  it('covers the whole length, whatever is cut from it', () => {
    const cuts = fc.array(
      fc.tuple(fc.double({ min: 0, max: 60, noNaN: true }), fc.double({ min: 1, max: 90, noNaN: true })),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(cuts, fc.double({ min: 0, max: 5, noNaN: true }), (raw, kerf) => {
        let at = 0;
        const ranges = raw.map(([gap, length], i) => {
          const from = at + (i === 0 ? 0 : kerf) + gap;
          at = from + length;
          return { from, to: at };
        });
        const result = parcel(at + 40, ranges, kerf);
        if (!result.ok) throw new Error('refused');
        let end = 0;
        for (const { from, to } of result.stretches) {
          expect(from).toBeCloseTo(end, 5);
          end = to;
        }
        expect(end).toBeCloseTo(at + 40, 5);
        expect(result.stretches.filter(({ kind }) => kind === 'part')).toHaveLength(ranges.length);
        for (const s of result.stretches)
          if (s.kind === 'kerf') expect(s.to - s.from).toBeLessThanOrEqual(kerf + 1e-9);
      }),
      { seed: 20276 },
    );
  });
  it('refuses ranges closer than a kerf or beyond the end, by their number', () => {
    expect(
      parcel(
        100,
        [
          { from: 0, to: 40 },
          { from: 42, to: 60 },
        ],
        3,
      ),
    ).toEqual({ ok: false, index: 1 });
    expect(parcel(100, [{ from: 80, to: 101 }], 3)).toEqual({ ok: false, index: 0 });
  });
});
