import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxCell, type Rigid, type Vec3 } from '../../solid';
import { strainsOf } from '../../wood';
import { movesOf, swingOf } from '../swing';
import type { WorkPiece } from '../timeline';
import { fit as room, type FitStep } from './fit';
import { beginFitting, coreLength, FITTING_LIST, mitreOpening } from '.';
import { between, mm, oak, placed, report } from './fit.fixture';

describe('core with end members', () => {
  it('1800 with members of 110 on tenons of 45 has a core of 1670; 120, 6 and 1 15/16 of 111 7/8', () => {
    // L - 2 b + 2 t (common practice).
    expect(coreLength(1800, 110, 45)).toBe(1670);
    expect(coreLength(120, 6, 1.9375)).toBe(111.875);
    const { facts } = report(
      {
        ...beginFitting('breadboard', 'f', oak([1670, 820, 30]), placed(between(6, 12, 8))),
        width: mm(110),
        tenon: mm(45),
      },
      oak([1670, 820, 30]),
      between(6, 12, 8),
    );
    expect(facts[0].says).toContainEqual({ mm: 1800 });
  });
});

describe('white oak 820 wide, fitted at 8 % in a room of 6 to 12 %', () => {
  const piece = oak([1670, 820, 30]);
  const place = between(6, 12, 8);
  it('goes 11.97 out and 5.99 in; 5.99 a side when it is held in the middle', () => {
    // Wood Handbook, equation 13-2: 820 x 0.00365 x 4, x 2.
    const moves = movesOf(piece.blank, 1, swingOf(placed(place)));
    expect(moves.out).toBeCloseTo(11.972, 2);
    expect(moves.in).toBeCloseTo(5.986, 2);
  });
  it('a relief of 5 a side is short by 0.99, and one press mends it', () => {
    const own = { ...beginFitting('breadboard', 'f', piece, placed(place)), relief: mm(5) };
    const short = report(own, piece, place).problems.find(({ code }) => code === 'relief-short');
    expect(short?.numbers.short).toBeCloseTo(0.986, 2);
    const [fix] = short?.fixes ?? [];
    expect(report({ ...own, ...fix?.change }, piece, place).problems).toEqual([]);
  });
  it('fitted rigid, it leaves a gap of 5.986 when dry and squeezes by 11.972 when damp', () => {
    const { facts } = report({ kind: 'gap', to: 'carcase', held: 'near', gap: mm(0) }, piece, place);
    expect((facts[0].says[1] as { mm: number }).mm).toBeCloseTo(11.972, 2);
    expect((facts[1].says[0] as { mm: number }).mm).toBeCloseTo(5.986, 2);
  });
  it('a slot for a bolt of 6, 350 from the pin, over 4 %, with 1 to spare, is 12.11', () => {
    const over = between(8, 12, 8);
    const { problems } = report(
      {
        kind: 'fixing',
        to: 'apron',
        by: 'slots',
        held: 'middle',
        farthest: mm(350),
        bolt: mm(6),
        slot: mm(8),
        spare: mm(1),
      },
      piece,
      over,
    );
    expect(problems[0].numbers.needed).toBeCloseTo(12.11, 2);
  });
  it('fitted nearer to dry, the bolt does not stand in the middle of its slot', () => {
    const { facts } = report(
      {
        kind: 'fixing',
        to: 'apron',
        by: 'slots',
        held: 'middle',
        farthest: mm(350),
        bolt: mm(6),
        slot: mm(20),
        spare: mm(1),
      },
      piece,
      place,
    );
    const [, towards, , away] = facts.find(({ name }) => name === 'Bolt in its slot')?.says as {
      mm: number;
    }[];
    expect(away.mm - towards.mm).toBeCloseTo(350 * 0.00365 * 2, 2);
  });
});

it('a rigid inlay across 600 of the moving width is a finding with its number, along the grain none', () => {
  const piece = oak([1200, 820, 30]);
  const place = between(6, 12, 8);
  const across = report({ kind: 'rigid', runs: 'across', length: mm(600), from: mm(100) }, piece, place);
  expect(across.problems[0].code).toBe('held-across-grain');
  expect(across.problems[0].numbers.out).toBeCloseTo(600 * 0.00365 * 4, 2);
  expect(
    report({ kind: 'rigid', runs: 'along', length: mm(600), from: mm(100) }, piece, place).problems,
  ).toEqual([]);
});

it('maple 600 wide between 30 and 65 % at 21 degrees moves 12.26', () => {
  // Equilibrium by Hailwood and Horrobin (Wood Handbook, equation 4-5), coefficient 0.00353, both from memory.
  const piece = oak([800, 600, 30]);
  piece.blank.cells[0].origin.species = 'maple_sugar';
  const place = {
    dry: { temperatureC: 21, humidityPct: 30 },
    damp: { temperatureC: 21, humidityPct: 65 },
    fittedPct: 6.1695,
  };
  const { dry, damp } = swingOf(placed(place));
  expect(dry).toBeCloseTo(6.17, 2);
  expect(damp).toBeCloseTo(11.96, 2);
  expect(movesOf(piece.blank, 1, swingOf(placed(place))).out).toBeCloseTo(12.26, 1);
});

it('a mitre of members 90 wide in maple over 4 % opens by 0.803 degrees and 1.78', () => {
  // Geometry: 2 atan(1 + e) - 90, over 90 times the root of 2; e = 4 x 0.00353 (Wood Handbook, from memory).
  const { degrees, gapMm } = mitreOpening(4 * 0.00353, 90);
  expect(degrees).toBeCloseTo(0.803, 3);
  expect(gapMm).toBeCloseTo(1.78, 2);
  expect(mitreOpening(0, 90)).toEqual({ degrees: 0, gapMm: 0 });
});

it('shoulders moved back make the whole twice as much shorter, unless the ends have it to spare', () => {
  const piece = oak([800, 600, 30]);
  const place = between(6, 12, 8);
  const short = report({ kind: 'shoulders', ends: 'both', back: mm(2), toSpare: mm(0.5) }, piece, place);
  expect(short.problems[0].numbers.short).toBeCloseTo(3, 9);
  expect(
    report({ kind: 'shoulders', ends: 'both', back: mm(2), toSpare: mm(2) }, piece, place).problems,
  ).toEqual([]);
});

describe('every kind of fitting', () => {
  const whole = (min: number, max: number) => fc.integer({ min, max });
  const pieces = fc.record({
    w: whole(60, 1200),
    t: whole(12, 60),
    boards: whole(1, 6),
    pith: fc.array(fc.tuple(whole(-300, 300), whole(-200, 200)), { minLength: 6, maxLength: 6 }),
    species: fc.array(fc.constantFrom('oak_white', 'maple_sugar', 'walnut_black', 'beech_european'), {
      minLength: 6,
      maxLength: 6,
    }),
    dry: whole(4, 9),
    more: whole(1, 8),
    fitted: whole(4, 14),
  });
  type Case = typeof pieces extends fc.Arbitrary<infer T> ? T : never;
  const made = ({ w, t, boards, pith, species }: Case): WorkPiece => {
    const each = w / boards;
    const cells = Array.from({ length: boards }, (_, i) => {
      const [py, pz] = pith[i];
      const toLog: Rigid = [0, 1, 0, -each * i - py, 0, 0, 1, -pz, 1, 0, 0, 0];
      const cell = boxCell(
        [700, each, t],
        toLog,
        { board: `b${i}`, species: species[i], seed: i, shade: i },
        `b${i}`,
      );
      const up: Vec3 = [0, each * i, 0];
      return {
        ...cell,
        box: undefined,
        vertices: cell.vertices.map((v): Vec3 => [v[0] + up[0], v[1] + up[1], v[2] + up[2]]),
        toLog: [0, 1, 0, -each * i - py, 0, 0, 1, -pz, 1, 0, 0, 0],
      };
    });
    return { id: 'p', blank: { cells }, errors: [{}, {}, {}] } as unknown as WorkPiece;
  };
  /** The movement simulated board by board: every board cut into small squares, each by its own rings. */
  function simulated(
    { w, t, boards, pith, species }: Case,
    from: number,
    to: number,
    within: readonly [number, number],
  ): number {
    const each = w / boards;
    const [nu, nv] = [240, 24];
    let sum = 0;
    for (let b = 0; b < boards; b++) {
      const { radial, tangential } = strainsOf(species[b], from, to);
      const [py, pz] = pith[b];
      for (let i = 0; i < nu; i++)
        for (let j = 0; j < nv; j++) {
          const y = ((i + 0.5) / nu) * each;
          const [lo, hi] = [each * b + y - each / nu / 2, each * b + y + each / nu / 2];
          const share = (Math.max(0, Math.min(hi, within[1]) - Math.max(lo, within[0])) * nu) / each;
          if (share === 0) continue;
          const [dy, dz] = [y - py, ((j + 0.5) / nv) * t - pz];
          const c2 = (dy * dy) / (dy * dy + dz * dz || 1);
          sum += (share * (radial * c2 + tangential * (1 - c2)) * each) / nu / nv;
        }
    }
    return sum;
  }

  it('begins large enough for the year, and never smaller than the movement simulated board by board', () => {
    fc.assert(
      fc.property(pieces, (own) => {
        const piece = made(own);
        const place = between(own.dry, own.dry + own.more, own.fitted);
        const build = placed(place);
        const { dry, damp } = swingOf(build);
        const w = own.w;
        for (const { kind } of FITTING_LIST) {
          const begun = beginFitting(kind, 'f', piece, build);
          const broken = report(begun, piece, place).problems.filter(({ code }) => code !== 'edges-waited');
          expect(broken.map(({ code }) => code)).toEqual([]);
        }
        const board = beginFitting('breadboard', 'f', piece, build);
        if (board.kind !== 'breadboard') return;
        for (const half of [
          [0, w / 2],
          [w / 2, w],
        ] as const)
          for (const pct of [dry, damp]) {
            // The simulation’s own grid is off by a hair of a board.
            expect(board.relief.mm + 0.02).toBeGreaterThanOrEqual(
              simulated(own, own.fitted, pct, half) - 1e-6,
            );
          }
        const [a, b] = [w / 2, w / 2 + board.outermost.mm];
        const out = Math.max(0, ...[dry, damp].map((pct) => simulated(own, own.fitted, pct, [a, b])));
        const inwards = Math.max(0, ...[dry, damp].map((pct) => -simulated(own, own.fitted, pct, [a, b])));
        expect(board.slot.mm + 0.02).toBeGreaterThanOrEqual(
          board.pin.mm + out + inwards + board.spare.mm - 1e-6,
        );
        const wall = beginFitting('gap', 'f', piece, build);
        if (wall.kind === 'gap')
          expect(wall.gap.mm + 0.02).toBeGreaterThanOrEqual(
            Math.max(...[dry, damp].map((pct) => simulated(own, own.fitted, pct, [0, w]))),
          );
      }),
      { numRuns: 40, seed: 17 },
    );
  });
});

it('each fitting takes half an hour, besides ten minutes to set up', () => {
  const { setUp, each, more } = room.labour;
  const step = { fittings: [{}, {}] } as unknown as FitStep;
  expect([setUp, each, more?.(step)]).toEqual([10, 0, 60]);
});
