import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planeOf, type PlaneElastic } from '../../wood';
import {
  closingStiffness,
  evenLayout,
  forceToClose,
  gapOf,
  halfPlane,
  harmonicLines,
  press,
  pressQuickly,
  pressureToClose,
  readLine,
  roots,
  rowPressure,
  strokesTo,
  transfer,
  type LinePressure,
  type Pressed,
} from '.';

/*
 * Check values marked "design" come from an independent reference implementation of the same equations; elastic ratios
 * are the Wood Handbook's (Tables 5-1 to 5-3), from memory. The closed forms are Flamant's half-plane (Timoshenko and
 * Goodier, Theory of Elasticity), the strip's stress function and Timoshenko's beam.
 */
const cherry = planeOf('cherry_black');
const maple = planeOf('maple_sugar');
const ponderosa = planeOf('pine_ponderosa');
const isotropic: PlaneElastic = { Ex: 10_000, Ey: 10_000, G: 10_000 / 2.6, nu: 0.3 };
const like = (wood: PlaneElastic, widths: readonly number[]) => widths.map((width) => ({ width, wood }));
const clampsAt = (places: readonly number[], force = 1000, pad = 30) =>
  places.map((at) => ({ at, force, pad }));
const spread = ({ pressure }: LinePressure, mean: number) => [
  Math.min(...pressure) / mean,
  Math.max(...pressure) / mean,
];
const carried = ({ x, pressure }: LinePressure, thickness: number) => {
  const dx = x[1] - x[0];
  let [force, moment] = [0, 0];
  pressure.forEach((p, i) => {
    const f = p * thickness * (i === 0 || i === x.length - 1 ? dx / 2 : dx);
    force += f;
    moment += f * x[i];
  });
  return { force, centre: moment / force };
};

describe('closed forms', () => {
  it('have the roots of an orthotropic plane', () => {
    expect(roots(cherry)[0]).toBeCloseTo(2.828, 3);
    expect(roots(cherry)[1]).toBeCloseTo(1.206, 3);
  });
  it.each([
    ['cherry', cherry, [0.976, 0.7911, 0.3015, 0.0932, 0.028, 0.0025]],
    ['maple', maple, [0.9714, 0.785, 0.3292, 0.1173, 0.0409, 0.005]],
    ['ponderosa', ponderosa, [0.9743, 0.7697, 0.2522, 0.0641, 0.0155, 0.0009]],
    ['isotropic', isotropic, [0.9975, 0.9662, 0.7128, 0.3873, 0.1822, 0.0347]],
  ] as const)('pass on harmonics between two boards: %s (design)', (_name, wood, wanted) => {
    [0.5, 1, 2, 3, 4, 6].forEach((kappa, i) =>
      expect(Math.abs(transfer(kappa, roots(wood)) - wanted[i])).toBeLessThan(1e-4),
    );
  });
  it('meet Flamant on an isotropic half-plane, and carry the whole force', () => {
    const r = roots(isotropic);
    for (const [x, wanted] of [
      [0, 0.637],
      [1, 0.159],
      [2, 0.0255],
      [3, 0.0064],
    ]) {
      expect(Math.abs(halfPlane(x, { depth: 1, force: 1, thickness: 1, roots: r }) - wanted)).toBeLessThan(
        5e-4,
      );
      expect(halfPlane(x, { depth: 1, force: 1, thickness: 1, roots: r })).toBeCloseTo(
        2 / (Math.PI * (1 + x * x) ** 2),
        5,
      );
    }
    let sum = 0;
    for (let x = -400; x <= 400; x += 0.05)
      sum += 0.05 * halfPlane(x, { depth: 1, force: 1, thickness: 1, roots: roots(cherry) });
    expect(sum).toBeCloseTo(1, 4);
  });
  it.each([
    ['cherry', cherry, [1.0, 0.86, 0.51, 0.18], [1.01, 1.15, 1.57, 2.12]],
    ['maple', maple, [1.0, 0.82, 0.47, 0.18], [1.0, 1.2, 1.65, 2.21]],
    ['ponderosa', ponderosa, [1.0, 0.9, 0.59, 0.24], [1.0, 1.1, 1.45, 1.96]],
  ] as const)('give the interior row of clamps: %s (design)', (_name, wood, least, greatest) => {
    [1, 2, 3, 4].forEach((s, i) => {
      expect(
        Math.abs(rowPressure(s * 45, { spacing: s * 90, width: 90, pad: 30, r: roots(wood) }) - least[i]),
      ).toBeLessThan(0.011);
      expect(
        Math.abs(rowPressure(0, { spacing: s * 90, width: 90, pad: 30, r: roots(wood) }) - greatest[i]),
      ).toBeLessThan(0.011);
    });
    expect(rowPressure(90, { spacing: 180, width: 90, pad: 30, r: roots(cherry) })).toBeCloseTo(0.853, 2);
  });
  it('tell what a wave costs to close (design)', () => {
    const wanted = [0.802, 6.199, 15.79, 25.63, 51.75];
    [1000, 500, 300, 200, 100].forEach((wave, i) =>
      expect(closingStiffness(wave, 90, cherry) / wanted[i]).toBeCloseTo(1, 2.4),
    );
    // A wave of 0.2 mm over 200 mm (half peak to valley 0.1) needs about 1.3 MPa.
    const two = { width: 90, wood: cherry };
    expect(pressureToClose(0.1, 200, two, two)).toBeCloseTo(1.28, 1);
  });
  it('agree with each other: two boards are the least stack', () => {
    for (const kappa of [0.5, 1, 2, 3])
      expect(harmonicLines(kappa / 90, like(cherry, [90, 90]))[0]).toBeCloseTo(
        transfer(kappa, roots(cherry)),
        6,
      );
  });
});

describe('the solver', () => {
  it('has the line pressures of five cherry boards under two clamps (design)', () => {
    const found = press({
      length: 1000,
      thickness: 20,
      boards: like(cherry, [100, 100, 100, 100, 100]),
      clamps: [
        { at: 300, force: 3000, pad: 30 },
        { at: 800, force: 2000, pad: 30 },
      ],
    });
    const wanted = [0, 0.0851, 0.3374, 0.6098, 0.1358, 0.1067, 0.4044, 0.0572];
    [0, 100, 200, 300, 500, 600, 800, 1000].forEach((x, i) =>
      expect(Math.abs(found.lines[0].pressure[x / 10] - wanted[i])).toBeLessThan(5e-4),
    );
  });
  it('has the spread of five clamps and of one (design)', () => {
    const boards = like(cherry, [100, 100, 100, 100, 100]);
    const five = press({ length: 1000, thickness: 20, boards, clamps: clampsAt([100, 300, 500, 700, 900]) });
    const [l1, l2] = five.lines.map((line) => spread(line, 0.25));
    expect(Math.abs(l1[0] - 0.82)).toBeLessThan(0.01);
    expect(Math.abs(l1[1] - 1.095)).toBeLessThan(0.01);
    expect(Math.abs(l2[0] - 0.925)).toBeLessThan(0.01);
    expect(Math.abs(l2[1] - 1.023)).toBeLessThan(0.01);
    const one = press({ length: 1000, thickness: 20, boards, clamps: clampsAt([500]) });
    expect(Math.abs(spread(one.lines[0], 0.05)[1] - 4.2)).toBeLessThan(0.04);
    expect(Math.abs(spread(one.lines[1], 0.05)[1] - 3.12)).toBeLessThan(0.04);
  });
  it('has two boards under five clamps (design)', () => {
    const { lines } = press({
      length: 1000,
      thickness: 20,
      boards: like(cherry, [90, 90]),
      clamps: clampsAt([0, 1, 2, 3, 4].map((i) => 90 + 205 * i)),
    });
    const [least, greatest] = spread(lines[0], 0.25);
    expect(Math.abs(least - 0.752)).toBeLessThan(0.015);
    expect(Math.abs(greatest - 1.26)).toBeLessThan(0.015);
    expect(Math.abs(lines[0].pressure[0] / 0.25 - 0.824)).toBeLessThan(0.015);
  });
  it.each([
    ['isotropic', isotropic, 0.937, 0.87],
    ['cherry', cherry, 0.562, 1.57],
    ['maple', maple, 0.578, 1.65],
  ] as const)('has peak and lift-off of one clamp on two boards: %s (design)', (_name, wood, peak, lift) => {
    const { lines } = press({
      length: 1000,
      thickness: 20,
      cell: 5,
      boards: like(wood, [90, 90]),
      clamps: clampsAt([500]),
    });
    const p = lines[0].pressure;
    const unit = 1000 / (90 * 20);
    expect(Math.abs(Math.max(...p) / unit - peak)).toBeLessThan(0.01);
    const off = 500 - lines[0].x[p.findIndex((value) => value > 0)];
    expect(Math.abs(off / 90 - lift)).toBeLessThan(10 / 90 + 0.01);
  });
  it('reaches 10 % of the peak at 1.49 board widths in cherry (design)', () => {
    const { lines } = press({
      length: 1000,
      thickness: 20,
      boards: like(cherry, [90, 90]),
      clamps: clampsAt([500]),
    });
    const { pressure: p, x } = lines[0];
    const tenth = Math.max(...p) / 10;
    const i = p.findIndex((value) => value >= tenth);
    const at = x[i] - ((p[i] - tenth) / (p[i] - p[i - 1])) * 10;
    expect(Math.abs((500 - at) / 90 - 1.49)).toBeLessThan(0.03);
  });
  it('says wide boards outside (design)', () => {
    const worst = (widths: number[]) => {
      const given = { length: 1000, thickness: 20, boards: like(cherry, widths) };
      return evenLayout(given, 4, 30, [0, 1, 2]).leastOverMean;
    };
    // The best even layout of four clamps for each.
    expect(Math.abs(worst([50, 120, 120, 50]) - 0.3)).toBeLessThan(0.03);
    expect(Math.abs(worst([85, 85, 85, 85]) - 0.71)).toBeLessThan(0.03);
    expect(Math.abs(worst([120, 50, 50, 120]) - 0.86)).toBeLessThan(0.035);
  });
  it('tips a board where one clamp stands near its end (design)', () => {
    [0.25, 0.5, 1, 1.5, 2].forEach((e, i) => {
      const { lines } = press({
        length: 1000,
        thickness: 20,
        cell: 5,
        boards: like(cherry, [90, 90]),
        clamps: clampsAt([e * 90]),
      });
      const end = (lines[0].pressure[0] * 90 * 20) / 1000;
      expect(Math.abs(end - [2.72, 1.33, 0.48, 0.1, 0][i])).toBeLessThan(0.05);
    });
  });
  it('holds a hollow open just until the beam formula closes it', () => {
    // Long and slender, so that the beam holds: one clamp in the middle of two boards, hollow along the whole length.
    const [length, t, b, hollow] = [2000, 20, 60, 0.5];
    const force = forceToClose(hollow, length, t, [
      { width: b, wood: cherry },
      { width: b, wood: cherry },
    ]);
    const middleAt = (f: number) => {
      const { lines } = press({
        length,
        thickness: t,
        boards: like(cherry, [b, b]),
        clamps: clampsAt([length / 2], f),
        gaps: [gapOf({ shape: 'sprung', depthMm: hollow }, length)],
      });
      return lines[0].gap[lines[0].gap.length >> 1];
    };
    expect(middleAt(force * 0.85)).toBeGreaterThan(0.01);
    expect(middleAt(force * 1.1)).toBe(0);
  });
  it('closes a wave at the pressure of its closed form', () => {
    const wave = 200;
    const two = { width: 90, wood: cherry };
    const need = pressureToClose(0.1, wave, two, two);
    const open = (mean: number) => {
      const { lines } = press({
        length: 1000,
        thickness: 20,
        boards: like(cherry, [90, 90]),
        clamps: [{ at: 500, force: mean * 1000 * 20, pad: 1000 }],
        gaps: [gapOf({ shape: 'wavy', depthMm: 0.2, waveMm: wave }, 1000)],
      });
      return lines[0].gap.slice(20, 80).reduce((most, g) => Math.max(most, g), 0);
    };
    expect(open(need * 0.85)).toBeGreaterThan(0);
    expect(open(need * 1.1)).toBe(0);
  });
  it('keeps the laws of statics and contact on 500 random layouts', { timeout: 300_000 }, () => {
    const layout = fc.record({
      length: fc.integer({ min: 250, max: 900 }),
      thickness: fc.integer({ min: 12, max: 60 }),
      widths: fc.array(fc.integer({ min: 60, max: 160 }), { minLength: 2, maxLength: 4 }),
      wood: fc.constantFrom(cherry, maple, ponderosa, planeOf('oak_white', 'quarter')),
      clamps: fc.array(
        fc.record({
          at: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
          force: fc.integer({ min: 300, max: 5000 }),
        }),
        {
          minLength: 1,
          maxLength: 5,
        },
      ),
      hollow: fc.constantFrom(0, 0, 0.1, 0.3),
    });
    let runs = 0;
    fc.assert(
      fc.property(layout, ({ length, thickness, widths, wood, clamps, hollow }) => {
        runs += 1;
        const gap = gapOf({ shape: 'sprung', depthMm: hollow }, length);
        const given = {
          length,
          thickness,
          cell: 25,
          boards: like(wood, widths),
          clamps: clamps.map(({ at, force }) => ({ at: at * length, force, pad: 20 })),
          gaps: widths.slice(1).map(() => gap),
        };
        const found: Pressed = press(given);
        const force = given.clamps.reduce((sum, c) => sum + c.force, 0);
        expect(found.settled).toBe(true);
        // Pads may be clipped at an end: the load's own centre is what counts.
        const mirrored = press({
          ...given,
          clamps: given.clamps.map((c) => ({ ...c, at: length - c.at })),
        });
        found.lines.forEach((line, l) => {
          const { force: sum, centre } = carried(line, thickness);
          expect(sum / force).toBeCloseTo(1, 6);
          expect(Math.abs(centre - carried(found.lines[0], thickness).centre)).toBeLessThan(1e-4 * length);
          const n = line.x.length;
          const most = Math.max(...line.pressure);
          for (let i = 0; i < n; i++) {
            expect(line.pressure[i]).toBeGreaterThanOrEqual(0);
            expect(line.gap[i]).toBeGreaterThanOrEqual(0);
            expect(line.pressure[i] * line.gap[i]).toBe(0);
            expect(Math.abs(line.pressure[i] - mirrored.lines[l].pressure[n - 1 - i])).toBeLessThan(
              1e-5 * most,
            );
          }
        });
        if (hollow === 0) {
          const double = press({ ...given, clamps: given.clamps.map((c) => ({ ...c, force: 2 * c.force })) });
          double.lines.forEach((line, l) =>
            line.pressure.forEach((p, i) =>
              expect(Math.abs(p - 2 * found.lines[l].pressure[i])).toBeLessThan(
                1e-6 * Math.max(...line.pressure),
              ),
            ),
          );
        }
      }),
      { seed: 20264, numRuns: 500 },
    );
    expect(runs).toBe(500);
  });
  it('is not stopped by thin strips or by sixty joints, and says where it is coarse', () => {
    const thin = press({
      length: 300,
      thickness: 40,
      boards: like(planeOf('maple_sugar', 'flat', 'upright'), [3, 3, 3]),
      clamps: clampsAt([100, 200]),
    });
    expect(thin.lines).toHaveLength(2);
    expect(thin.settled).toBe(true);
    const many = press({
      length: 900,
      thickness: 20,
      boards: like(
        cherry,
        Array.from({ length: 61 }, () => 20),
      ),
      clamps: clampsAt([150, 450, 750]),
    });
    expect(many.lines).toHaveLength(60);
    expect(many.coarse).toBe(true);
    expect(carried(many.lines[30], 20).force).toBeCloseTo(3000, 3);
  });
});

describe('the quick picture while dragging', () => {
  it.each([
    [
      [100, 100, 100, 100, 100],
      [300, 800],
    ],
    [
      [100, 100],
      [100, 300, 500, 700, 900],
    ],
    [[90, 90], [500]],
    [
      [120, 60, 60, 120],
      [125, 375, 625, 875],
    ],
  ])('stays within 12 % of the peak: %j', (widths, places) => {
    const given = { length: 1000, thickness: 20, boards: like(cherry, widths), clamps: clampsAt(places) };
    const exact = press(given);
    const quick = pressQuickly(given);
    const peak = Math.max(...exact.lines.flatMap(({ pressure }) => [...pressure]));
    quick.forEach(({ x, pressure }, l) =>
      pressure.forEach((p, i) => {
        const at = (x[i] / 1000) * (exact.lines[l].x.length - 1);
        expect(Math.abs(p - exact.lines[l].pressure[Math.round(at)])).toBeLessThan(0.12 * peak);
      }),
    );
    expect(carried(quick[0], 20).force / (1000 * places.length)).toBeCloseTo(1, 3);
  });
});

describe('words for a line', () => {
  const line = (pressure: number[]): LinePressure => ({
    x: Float64Array.from(pressure, (_, i) => i * 10),
    pressure: Float64Array.from(pressure),
    gap: Float64Array.from(pressure, (p) => (p > 0 ? 0 : 0.1)),
  });
  it('say where it is open and how long', () => {
    const reading = readLine(line([0, 0, 0, 0.4, 0.8, 0.8, 0.8, 0.8, 0.8]), 0.7);
    expect(reading.words).toBe('open');
    expect(reading.stretches[0]).toEqual({ from: 0, to: 25, state: 'open' });
    expect(reading.openMm).toBeCloseTo(25, 6);
    expect(reading.belowPct).toBeCloseTo((100 * 3.5) / 8, 6);
  });
  it('say even where it is even', () => {
    expect(readLine(line([0.8, 0.9, 1, 0.9, 0.8]), 0.7)).toMatchObject({
      words: 'even',
      stretches: [],
      belowPct: 0,
    });
    expect(readLine(line([0.5, 0.9, 1, 0.9, 0.5]), 0.4).words).toBe('a little uneven');
  });
});

describe('strokes of the plane', () => {
  it('deepen a hollow in the middle and take it back over the whole length', () => {
    expect(strokesTo(0, 0.15, 0.05)).toEqual({ strokes: 3, where: 'middle' });
    expect(strokesTo(0.3, 0.15, 0.05)).toEqual({ strokes: 3, where: 'whole length' });
    expect(strokesTo(-0.1, 0.15, 0.05)).toEqual({ strokes: 5, where: 'middle' });
    expect(strokesTo(0.14, 0.15, 0.05)).toEqual({ strokes: 0, where: 'none' });
  });
});
