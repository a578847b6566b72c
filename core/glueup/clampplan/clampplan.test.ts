import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { elasticOf, planeOf } from '../../wood';
import { press } from '../pressure';
import {
  caulCamber,
  clampsByElastic,
  clampsByForce,
  clampsBySpread,
  elasticPlaces,
  evenMiddles,
  reachPlaces,
  tighteningOrder,
} from '.';

/* Check values marked "design" are the trade's own worked sizes, exact. */
describe('clamps by spread', () => {
  it('at 45 degrees: 36 long wants 3 at 6 wide and 6 at 3 wide (design)', () => {
    expect(clampsBySpread(36, 6)).toBe(3);
    expect(clampsBySpread(36, 3)).toBe(6);
  });
  it('900 mm at 90 mm: exactly 5 at 45 degrees, 3 at reach 2 and 4 at reach 1.4 (design)', () => {
    expect(clampsBySpread(900, 90)).toBe(5);
    expect(clampsBySpread(900, 90, 2)).toBe(3);
    expect(reachPlaces(3, 900, 90)).toEqual([150, 450, 750]);
    expect(clampsBySpread(900, 90, 1.4)).toBe(4);
  });
  it('a 14 in seam with a 13/16 outer strip: 9 bare, 3 with 2 in cauls (design)', () => {
    expect(clampsBySpread(14, 13 / 16)).toBe(9);
    expect(clampsBySpread(14, 13 / 16 + 2)).toBe(3);
  });
  it('44 long with an outer 1 3/8: exactly 16 bare, 5 with 3 1/2 cauls (design)', () => {
    expect(clampsBySpread(44, 1.375)).toBe(16);
    expect(clampsBySpread(44, 1.375 + 3.5)).toBe(5);
  });
  it('counts alike in inches and millimetres, also where it lands on a whole number', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 64 }), fc.integer({ min: 1, max: 60 }), (sixteenths, n) => {
        const way = sixteenths / 16;
        const length = 2 * way * n;
        expect(clampsBySpread(length, way)).toBe(n);
        expect(clampsBySpread(length * 25.4, way * 25.4)).toBe(n);
        expect(clampsBySpread(length + 0.01, way)).toBe(n + 1);
      }),
      { seed: 20262 },
    );
  });
});

describe('clamps by force', () => {
  it('900 x 20 mm with 4.5 kN: 5 at 1.2 MPa, 3 at 0.7 (design)', () => {
    expect(clampsByForce(1.2, 900 * 20, 4500)).toBe(5);
    expect(clampsByForce(0.7, 900 * 20, 4500)).toBe(3);
  });
  it('64 x 1 1/2 at 100 psi and 1,000 lbf: spread 5 behind 6 3/4, force 10 (design)', () => {
    expect(clampsBySpread(64, 6.75)).toBe(5);
    expect(clampsByForce(100, 64 * 1.5, 1000)).toBe(10);
  });
  it('a 3/4 x 24 in joint at 150 psi needs 2,700 lbf (trade arithmetic)', () => {
    expect(clampsByForce(150, 0.75 * 24, 2700)).toBe(1);
    expect(clampsByForce(150, 0.75 * 24, 2699)).toBe(2);
  });
});

describe('places', () => {
  it('lie symmetric and inside, whatever the school', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 100, max: 3000 }),
        fc.integer({ min: 10, max: 400 }),
        (count, length, way) => {
          for (const places of [
            evenMiddles(count, length),
            reachPlaces(count, length, way),
            elasticPlaces(count, length),
          ]) {
            expect(places).toHaveLength(count);
            places.forEach((at, i) => {
              expect(at).toBeGreaterThan(0);
              expect(at + places[count - 1 - i]).toBeCloseTo(length, 6);
            });
            expect(places.toSorted((a, b) => a - b)).toEqual(places);
          }
        },
      ),
      { seed: 20263 },
    );
  });
  it('by the elastic rule: spacing L/(n - 0.12), the first 0.44 of it from the end', () => {
    const places = elasticPlaces(5, 1000);
    const spacing = 1000 / 4.88;
    expect(places[0]).toBeCloseTo(0.44 * spacing, 6);
    expect(places[1] - places[0]).toBeCloseTo(spacing, 6);
  });
});

describe('the order of tightening', () => {
  it('goes outwards from the middle by turns, or along', () => {
    expect(tighteningOrder([100, 300, 500, 700, 900], 1000, 'middle')).toEqual([4, 2, 1, 3, 5]);
    expect(tighteningOrder([900, 100, 500], 1000, 'ends')).toEqual([3, 1, 2]);
  });
});

describe('cauls', () => {
  it('are cambered by the deflection of an even load, 5 W L^3/(384 E I) (statics handbooks)', () => {
    // 40 x 40 mm at 10 GPa over 600 mm under 1,000 N: I = 213,333 mm4, 1.318 mm.
    expect(
      caulCamber({ spanMm: 600, loadN: 1000, heightMm: 40, widthMm: 40, modulusMPa: 10_000 }),
    ).toBeCloseTo(1.318, 3);
  });
  it('want eight times the camber at half the height', () => {
    const given = { spanMm: 600, loadN: 800, widthMm: 25, modulusMPa: elasticOf('maple_sugar').EL };
    expect(caulCamber({ ...given, heightMm: 20 }) / caulCamber({ ...given, heightMm: 40 })).toBeCloseTo(8, 9);
  });
});

describe('the elastic count', () => {
  const cherry = planeOf('cherry_black');
  const stack = (widths: number[]) => ({
    length: 1000,
    thickness: 20,
    pad: 30,
    boards: widths.map((width) => ({ width, wood: cherry })),
    lines: widths.slice(1).map((_, i) => i),
  });
  it.each([
    [[90, 90]],
    [[100, 100, 100, 100, 100]],
    [[60, 120, 120, 60]],
  ])('is even to the solver too, and one clamp less is clearly worse: %j', (widths) => {
    const given = stack(widths);
    const count = clampsByElastic(given);
    const worst = (n: number) =>
      Math.min(
        ...press({
          length: 1000,
          thickness: 20,
          boards: given.boards,
          clamps: elasticPlaces(n, 1000).map((at) => ({ at, force: 1000, pad: 30 })),
        }).lines.map(({ pressure }) => Math.min(...pressure) / ((n * 1000) / (1000 * 20))),
      );
    // The quick model's peaks are within 12 % of the solver's.
    expect(worst(count)).toBeGreaterThan(0.75 - 0.12);
    expect(worst(count - 1)).toBeLessThan(0.75 + 0.12);
  });
  it('wants more clamps for narrow outer boards, and fewer behind cauls', () => {
    const bare = clampsByElastic(stack([30, 100, 100, 30]));
    const caul = { width: 60, wood: planeOf('maple_sugar') };
    const cauled = clampsByElastic({
      ...stack([30, 100, 100, 30]),
      boards: [caul, ...stack([30, 100, 100, 30]).boards, caul],
      lines: [1, 2, 3],
    });
    expect(bare).toBeGreaterThan(clampsByElastic(stack([100, 60, 60, 100])));
    expect(cauled).toBeLessThan(bare);
  });
});
