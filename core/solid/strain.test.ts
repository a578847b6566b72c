import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { strainsOf } from '../wood';
import { boxCell, type Cell } from './cell';
import { cutCell } from './cut';
import { moveCell } from './cell';
import { movementMismatch } from './crossgrain';
import { growthAlong, grainShares, strainAlong } from './strain';
import { movePoint, type Rigid, rotation } from './rigid';
import { unit, type Axis } from './vec';

const ORIGIN = { board: 'b', species: 'oak_white', seed: 1, shade: 1 };
/** A board: length along its log’s pith, which lies at (y, z) from the board’s lower near corner. */
const board = (width: number, thickness: number, pith: readonly [number, number], length = 100): Cell => {
  // Blank (x, y, z) to log (y - py, z - pz, x): the length runs along the pith.
  const toLog: Rigid = [0, 1, 0, -pith[0], 0, 0, 1, -pith[1], 1, 0, 0, 0];
  return boxCell([length, width, thickness], toLog, ORIGIN, 'b');
};
const oak = (pct: number) => strainsOf('oak_white', 8, 8 + pct);
/** Rings flat, upright, or leaning: the pith so far off that they are straight. */
const ringsAt = (degrees: number, width = 820): Cell => {
  const far = 1e7;
  const a = (degrees * Math.PI) / 180;
  return board(width, 30, [width / 2 + far * Math.sin(a), 15 - far * Math.cos(a)]);
};

describe('strain averaged over a section', () => {
  it('of a board 120 wide with its pith 55 under the middle is 0.003206, not the 0.003650 of its middle', () => {
    // shaping.md: white oak .0018 / .00365 (Wood Handbook, Table 13-5, from memory).
    expect(strainAlong(board(120, 0.01, [60, -54.995]), 1, oak(1))).toBeCloseTo(0.003206, 6);
    // 30 thick: at height z the radial share is 1 - z / (b - a) (atan(b / z) - atan(a / z)), here by Simpson’s rule.
    const at = (z: number) => 0.00365 - 0.00185 * (1 - (z / 120) * 2 * Math.atan(60 / z));
    const n = 200;
    const sum = Array.from(
      { length: n + 1 },
      (_, i) => at(40 + (30 * i) / n) * (i === 0 || i === n ? 1 : i % 2 ? 4 : 2),
    ).reduce((a, b) => a + b, 0);
    expect(strainAlong(board(120, 30, [60, -40]), 1, oak(1))).toBeCloseTo(sum / (3 * n), 10);
  });

  it.each([
    [0, 11.972],
    [90, 5.904],
    [45, 8.938],
    [30, 10.455],
  ])('white oak 820 wide over 4 %%, rings at %s degrees: %s', (degrees, mm) => {
    // Wood Handbook, equation 13-2, by hand: width x coefficient x change.
    expect(strainAlong(ringsAt(degrees), 1, oak(4)) * 820).toBeCloseTo(mm, 3);
  });

  it('in a direction at so many degrees to the rings’ radius the radial share is its squared cosine, either way round', () => {
    // Rings at 30 degrees: the radius leans by that much from upright, towards the far edge.
    const cell = ringsAt(30);
    for (const degrees of [0, 20, 60, 90, 120, 150, -45]) {
      const a = (degrees * Math.PI) / 180;
      const { radial, tangential, along } = grainShares(cell, [0, Math.sin(a), Math.cos(a)]);
      expect(radial, String(degrees)).toBeCloseTo(Math.cos(a + Math.PI / 6) ** 2, 4);
      expect(tangential + radial).toBeCloseTo(1, 9);
      expect(along).toBeCloseTo(0, 9);
    }
  });

  it('across a joint the greater of two differences counts: oak on a sheet moves by its tangential way', () => {
    const [oakWood, sheet] = [
      { radial: 0.0018, tangential: 0.00365, along: 0.00002 },
      { radial: 0.003, tangential: 0.00015, along: 0.00015 },
    ];
    // Along the grain 0.00013 apart, across it 0.0035 (coefficients from memory, as elsewhere).
    expect(movementMismatch(ringsAt(0), ringsAt(0), [0, 0, 1], { ma: oakWood, mb: sheet })).toBeCloseTo(
      0.0035,
      6,
    );
  });

  it('six boards 120 wide, each with its own pith, move 7.82 over 4 %; all flat-sawn 10.512', () => {
    const piths = [
      [60, -40],
      [60, -80],
      [-30, -20],
      [200, 15],
      [60, -150],
      [60, 15],
    ] as const;
    const cells = piths.map((pith, i) => {
      const own = board(120, 30, pith);
      return moveCell(own, [1, 0, 0, 0, 0, 1, 0, 120 * i, 0, 0, 1, 0]);
    });
    const strain = (cell: Cell) => strainAlong(cell, 1, oak(4));
    expect(growthAlong(cells, 1, strain).greatest).toBeCloseTo(7.82, 2);
    const flat = piths.map((_, i) => moveCell(ringsAt(0, 120), [1, 0, 0, 0, 0, 1, 0, 120 * i, 0, 0, 1, 0]));
    expect(growthAlong(flat, 1, strain).greatest).toBeCloseTo(10.512, 3);
  });

  it('agrees with sampling on boards cut anyhow out of their log, and shares sum to one', () => {
    const whole = (min: number, max: number) => fc.integer({ min, max });
    fc.assert(
      fc.property(
        fc.record({
          w: whole(20, 200),
          t: whole(10, 80),
          py: whole(-150, 250),
          pz: whole(-120, 120),
          lean: whole(0, 60),
          bevel: whole(-40, 40),
          axis: fc.constantFrom<Axis>(0, 1, 2),
        }),
        ({ w, t, py, pz, lean, bevel, axis }) => {
          const straight = board(w, t, [py, pz], 80);
          const turned = moveCell(straight, rotation(2, (lean * Math.PI) / 180));
          const a = (bevel * Math.PI) / 180;
          const centre = movePoint(rotation(2, (lean * Math.PI) / 180), [40, w / 2, t / 2]);
          const normal = [Math.sin(a), 0, Math.cos(a)] as const;
          const { negative: cell } = cutCell(turned, {
            normal,
            offset: normal[0] * centre[0] + normal[2] * centre[2],
          });
          if (!cell) return;
          const shares = grainShares(cell, unit(axis));
          expect(shares.radial + shares.tangential + shares.along).toBeCloseTo(1, 12);
          // An independent sum over a fine grid of points within the cell.
          const [sum, count] = sampled(cell, axis);
          if (count < 400) return;
          expect(Math.abs(shares.radial - sum / count)).toBeLessThan(0.02);
        },
      ),
      { numRuns: 60, seed: 17 },
    );
  });

  it('of a sheet whose rings are planes far away is that of its middle', () => {
    const cell = board(600, 18, [300, -1e12]);
    expect(grainShares(cell, unit(1))).toMatchObject({ along: 0 });
    expect(grainShares(cell, unit(1)).tangential).toBeCloseTo(1, 9);
    expect(grainShares(cell, unit(2)).radial).toBeCloseTo(1, 9);
  });

  it('takes each strain by its share of the direction: lengthwise the one along the grain alone', () => {
    const strains = { radial: 0.1, tangential: 0.2, along: 0.03 };
    const flat = ringsAt(0);
    expect(strainAlong(flat, 0, strains)).toBeCloseTo(0.03, 9);
    expect(strainAlong(flat, 1, strains)).toBeCloseTo(0.2, 6);
    expect(strainAlong(flat, 2, strains)).toBeCloseTo(0.1, 6);
    // Turned by 30 degrees about its thickness, three quarters of the length lie along the grain.
    const turned = moveCell(flat, rotation(2, Math.PI / 6));
    expect(strainAlong(turned, 0, strains)).toBeCloseTo(0.75 * 0.03 + 0.25 * 0.2, 6);
    expect(strainAlong(turned, 1, strains)).toBeCloseTo(0.25 * 0.03 + 0.75 * 0.2, 6);
  });
  it('tells the worst line of several, and nothing of no wood', () => {
    const oakCell = ringsAt(0, 100);
    const maple: Cell = { ...ringsAt(0, 100), origin: { ...ORIGIN, species: 'maple_sugar' } };
    const cells = [oakCell, moveCell(maple, [1, 0, 0, 100, 0, 1, 0, 0, 0, 0, 1, 0])];
    const strain = (cell: Cell) => strainAlong(cell, 1, strainsOf(cell.origin.species, 8, 12));
    const all = growthAlong(cells, 1, strain);
    expect(all.greatest).toBeCloseTo(100 * 0.00365 * 4, 6);
    expect(all.least).toBeCloseTo(100 * 0.00353 * 4, 6);
    expect(growthAlong([], 1, strain)).toEqual({ least: 0, greatest: 0 });
  });
});

/** Sum of the squared cosine to the radius over points of a grid inside a cell, and how many there are. */
function sampled(cell: Cell, axis: Axis): [number, number] {
  const [lo, hi] = [0, 1, 2].reduce<[number[], number[]]>(
    ([a, b], k) => {
      const at = cell.vertices.map((v) => v[k]);
      return [
        [...a, Math.min(...at)],
        [...b, Math.max(...at)],
      ];
    },
    [[], []],
  );
  const steps = 22;
  const at = (k: number, i: number) => lo[k] + ((i + 0.5) / steps) * (hi[k] - lo[k]);
  const m = cell.toLog;
  const u = unit(axis);
  const ux = m[0] * u[0] + m[1] * u[1] + m[2] * u[2];
  const uy = m[4] * u[0] + m[5] * u[1] + m[6] * u[2];
  let [sum, count] = [0, 0];
  for (let i = 0; i < steps; i++)
    for (let j = 0; j < steps; j++)
      for (let k = 0; k < steps; k++) {
        const p = [at(0, i), at(1, j), at(2, k)] as const;
        const inside = cell.faces.every(({ loop, normal }) => {
          const q = cell.vertices[loop[0]];
          return normal[0] * (p[0] - q[0]) + normal[1] * (p[1] - q[1]) + normal[2] * (p[2] - q[2]) <= 0;
        });
        if (!inside) continue;
        const [x, y] = movePoint(m, p);
        const r = Math.hypot(x, y) || 1;
        sum += ((x * ux + y * uy) / r) ** 2;
        count += 1;
      }
  return [sum, count];
}
