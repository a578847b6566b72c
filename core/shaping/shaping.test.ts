import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circle, isInside, rectangle, type Region, slot } from '../curve';
import type { Vec3 } from '../solid';
import type { Cut, PieceSide } from '../steps';
import { type Body, bodyOf, bridge } from '.';

const SIZE: Vec3 = [600, 400, 40];
const body = (side: PieceSide, region: Region, to: number, more: Partial<Cut> = {}): Body =>
  bodyOf(side, { region, from: 0, to, ...more }, SIZE);
const bore = (side: PieceSide, x: number, y: number, diameter: number, to: number) =>
  body(side, [circle({ x, y }, diameter / 2)], to);

describe('wood between hollows: check values', () => {
  it('holes from opposite faces in 40: side by side, under one another, past each other', () => {
    const one = bore('upper', 100, 100, 20, 25);
    expect(bridge(one, bore('lower', 124, 100, 12, 18))).toBeCloseTo(8, 9);
    expect(bridge(one, bore('lower', 124, 100, 12, 12))).toBeCloseTo(8.544, 4);
    expect(bridge(one, bore('lower', 100, 100, 12, 12))).toBeCloseTo(3, 9);
    // 18 deep on the same axis: 3 into each other.
    expect(bridge(one, bore('lower', 100, 100, 12, 18))).toBeCloseTo(-3, 9);
  });
  it('bores of 10 and 12 that cross, axes 14 apart: 3; a bore of 10 at height 20 under a floor at 28: 3', () => {
    const wide: Vec3 = [600, 400, 100];
    const a = bodyOf('near', { region: [circle({ x: 100, y: 30 }, 5)], from: 0, to: 400 }, wide);
    const b = bodyOf('left', { region: [circle({ x: 100, y: 44 }, 6)], from: 0, to: 600 }, wide);
    expect(bridge(a, b)).toBeCloseTo(3, 3);
    const floor = bodyOf('upper', { region: [rectangle({ x: 50, y: 50 }, 100, 60)], from: 0, to: 12 }, SIZE);
    expect(bridge(floor, bore('near', 100, 20, 10, 300))).toBeCloseTo(3, 3);
  });
  it('a ball groove of radius 6 and a dowel of 8 beside and below it: 2.0416, and -0.5 in 19', () => {
    const round = (size: Vec3, y: number): Body =>
      bodyOf(
        'upper',
        {
          region: [rectangle({ x: -10, y: y - 6 }, 700, 12)],
          from: 0,
          to: 6,
          at: (z) => {
            const half = Math.sqrt(Math.max(1e-9, 36 - z * z));
            return [rectangle({ x: -10, y: y - half }, 700, 2 * half)];
          },
        },
        size,
      );
    // Nine aside and eight under the groove's centre on the face: sqrt(145) - 6 - 4.
    const dowel = bodyOf('left', { region: [circle({ x: 109, y: 32 }, 4)], from: 0, to: 600 }, SIZE);
    expect(bridge(round(SIZE, 100), dowel)).toBeCloseTo(2.0416, 2);
    const thin: Vec3 = [600, 400, 19];
    const middle = bodyOf('left', { region: [circle({ x: 100, y: 9.5 }, 4)], from: 0, to: 600 }, thin);
    expect(bridge(round(thin, 100), middle)).toBeCloseTo(-0.5, 1);
  });
  it('a hand hold 12 deep leaves 3 to a groove 15 in, 14 leaves 1, 16 breaks through by 1', () => {
    const groove = body(
      'upper',
      [rectangle({ x: 15, y: 15 }, 570, 370), [...rectangle({ x: 25, y: 25 }, 550, 350)].reverse()],
      30,
    );
    const hold = (deep: number) => body('near', [slot({ x: 300, y: 20 }, 110, 18)], deep);
    expect(bridge(groove, hold(12))).toBeCloseTo(3, 3);
    expect(bridge(groove, hold(14))).toBeCloseTo(1, 3);
    expect(bridge(groove, hold(16))).toBeCloseTo(-1, 3);
  });
  it('mortises 9 deep from both sides of 16 reach 2 into each other', () => {
    const thin: Vec3 = [600, 16, 40];
    const from = (side: PieceSide) =>
      bodyOf(side, { region: [slot({ x: 300, y: 20 }, 40, 8)], from: 0, to: 9 }, thin);
    expect(bridge(from('near'), from('far'))).toBeCloseTo(-2, 6);
  });
});

describe('against brute force', () => {
  const drawn = fc.record({
    side: fc.constantFrom<PieceSide>('upper', 'lower', 'near', 'far', 'left', 'right'),
    kind: fc.constantFrom('circle', 'slot', 'rectangle'),
    u: fc.integer({ min: 20, max: 80 }),
    v: fc.integer({ min: 12, max: 28 }),
    r: fc.integer({ min: 2, max: 9 }),
    deep: fc.integer({ min: 2, max: 36 }),
  });
  type Drawn = typeof drawn extends fc.Arbitrary<infer T> ? T : never;
  const size: Vec3 = [100, 100, 40];
  const regionOf = ({ kind, u, v, r }: Drawn): Region =>
    kind === 'circle'
      ? [circle({ x: u, y: v }, r)]
      : kind === 'slot'
        ? [slot({ x: u, y: v }, 3 * r, r, 0.5)]
        : [rectangle({ x: u - r, y: v - r / 2 }, 2 * r, r)];
  /** Points of a body, about 1 mm apart or finer. */
  const cloud = (each: Body): Vec3[] => {
    const out: Vec3[] = [];
    const box = each.region.flat();
    const [x0, x1] = [Math.min(...box.map(({ x }) => x)) - 9, Math.max(...box.map(({ x }) => x)) + 9];
    const [y0, y1] = [Math.min(...box.map(({ y }) => y)) - 9, Math.max(...box.map(({ y }) => y)) + 9];
    for (let x = x0; x <= x1; x += 1.5)
      for (let y = y0; y <= y1; y += 1.5)
        if (isInside(each.region, { x, y }))
          for (const k of [0, 0.2, 0.4, 0.6, 0.8, 1]) {
            const p: [number, number, number] = [0, 0, 0];
            p[each.u] = x;
            p[each.v] = y;
            p[each.n] = each.low + k * (each.high - each.low);
            out.push(p);
          }
    return out;
  };
  it('what is found is never more than what sampled points show, for 500 layouts', () => {
    fc.assert(
      fc.property(drawn, drawn, (a, b) => {
        const [one, two] = [a, b].map((each) =>
          bodyOf(each.side, { region: regionOf(each), from: 0, to: each.deep }, size),
        );
        const found = bridge(one, two);
        expect(bridge(two, one)).toBeCloseTo(found, 2);
        const [p, q] = [cloud(one), cloud(two)];
        if (p.length * q.length > 150_000) return;
        let least = Infinity;
        for (const [px, py, pz] of p)
          for (const [qx, qy, qz] of q)
            least = Math.min(least, (px - qx) ** 2 + (py - qy) ** 2 + (pz - qz) ** 2);
        const brute = Math.sqrt(least);
        if (found > 0) {
          expect(found).toBeLessThanOrEqual(brute + 2e-2);
          // Samples stand 1.5 apart in plan, and a fifth of the depth: no more than that lies between.
          expect(brute - found).toBeLessThan(4 + (a.deep + b.deep) / 5);
        } else expect(brute).toBeLessThan(4 + (a.deep + b.deep) / 5);
      }),
      { numRuns: 500, seed: 1630 },
    );
  });
});
