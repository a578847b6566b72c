import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  across,
  type Blank,
  blankVolume,
  bounds,
  boxBlank,
  boxCell,
  type Cell,
  cellVolume,
  compensatedSum,
  compose,
  contacts,
  cutCell,
  determinant,
  extents,
  glueBlanks,
  grainAngle,
  grainSide,
  IDENTITY,
  moveBlank,
  movementMismatch,
  normalized,
  placeBlanks,
  planeSide,
  quarterTurn,
  rotation,
  sawCut,
  sliceBlank,
  splitBlank,
  toOrigin,
  translation,
  turnBlank,
  TURNS,
  type Vec3,
} from '.';
import { faceArea } from './areas.fixture';
import { faceOffset } from './cell';

const origin = { board: 'b', species: 'maple_sugar', seed: 1, shade: 1 };
/** A flat-sawn board: length along the pith, the pith 80 mm below the middle of its width. */
const inBoard = (w: number) => [0, 1, 0, -w / 2, 0, 0, 1, 80, 1, 0, 0, 0];
const strip = (l: number, w: number, t: number, id = 's') => boxBlank([l, w, t], inBoard(w), origin, id);

/** Closed, planar, convex, right way out, and never mirrored. */
function checkCell(cell: Cell) {
  const edges = new Set<string>();
  for (const { loop } of cell.faces)
    loop.forEach((a, i) => {
      const key = `${a}>${loop[(i + 1) % loop.length]}`;
      expect(edges.has(key)).toBe(false);
      edges.add(key);
    });
  for (const edge of edges) expect(edges.has(edge.split('>').reverse().join('>'))).toBe(true);
  expect(cell.vertices.length - edges.size / 2 + cell.faces.length).toBe(2);
  for (const face of cell.faces) {
    for (const v of cell.vertices) {
      const d =
        v[0] * face.normal[0] + v[1] * face.normal[1] + v[2] * face.normal[2] - faceOffset(cell, face);
      expect(d).toBeLessThan(1e-6);
    }
    for (const i of face.loop) {
      const v = cell.vertices[i];
      expect(
        Math.abs(
          v[0] * face.normal[0] + v[1] * face.normal[1] + v[2] * face.normal[2] - faceOffset(cell, face),
        ),
      ).toBeLessThan(1e-6);
    }
  }
  expect(determinant(cell.toLog)).toBeCloseTo(1, 9);
}

/** All faces minus twice the glued area; for a box-shaped blank it must be the box's own surface. */
const outerArea = (blank: Blank) =>
  compensatedSum(blank.cells.flatMap((cell) => cell.faces.map((face) => faceArea(cell, face)))) -
  2 * compensatedSum(contacts(blank).map((c) => c.areaMm2));
const boxArea = ([l, w, t]: Vec3) => 2 * (l * w + l * t + w * t);

type Operation =
  | { kind: 'cut'; normal: [number, number, number]; at: number; kerf: number }
  | { kind: 'slice'; axis: 0 | 1 | 2; parts: number; kerf: number }
  | { kind: 'turn'; turn: keyof typeof TURNS }
  | { kind: 'plane'; axis: 0 | 1 | 2; share: number }
  | { kind: 'spin'; axis: 0 | 1 | 2; angle: number };

const operation: fc.Arbitrary<Operation> = fc.oneof(
  fc.record({
    kind: fc.constant('cut' as const),
    normal: fc
      .tuple(
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
      )
      .filter((n) => Math.hypot(...n) > 0.1),
    at: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
    kerf: fc.double({ min: 0, max: 4, noNaN: true }),
  }),
  fc.record({
    kind: fc.constant('slice' as const),
    axis: fc.constantFrom(0 as const, 1 as const, 2 as const),
    parts: fc.integer({ min: 2, max: 5 }),
    kerf: fc.double({ min: 0, max: 3, noNaN: true }),
  }),
  fc.record({
    kind: fc.constant('turn' as const),
    turn: fc.constantFrom(...(Object.keys(TURNS) as (keyof typeof TURNS)[])),
  }),
  fc.record({
    kind: fc.constant('plane' as const),
    axis: fc.constantFrom(0 as const, 1 as const, 2 as const),
    share: fc.double({ min: 0, max: 0.2, noNaN: true }),
  }),
  fc.record({
    kind: fc.constant('spin' as const),
    axis: fc.constantFrom(0 as const, 1 as const, 2 as const),
    angle: fc.double({ min: 0, max: 6.28, noNaN: true }),
  }),
);

/** Carries out one operation; gives the piece that goes on and the wood that left it. */
function carryOut(blank: Blank, op: Operation): { blank: Blank; lost: number } {
  const { min, max } = bounds(blank);
  if (op.kind === 'turn') return { blank: turnBlank(blank, op.turn), lost: 0 };
  if (op.kind === 'spin') return { blank: moveBlank(blank, rotation(op.axis, op.angle)), lost: 0 };
  if (op.kind === 'plane') {
    const { kept, removed } = planeSide(blank, op.axis, 'max', (max[op.axis] - min[op.axis]) * op.share);
    return { blank: kept, lost: blankVolume(removed) };
  }
  if (op.kind === 'cut') {
    const normal = normalized(op.normal as Vec3);
    const reach = blank.cells.flatMap((c) =>
      c.vertices.map((v) => v[0] * normal[0] + v[1] * normal[1] + v[2] * normal[2]),
    );
    const low = Math.min(...reach);
    const high = Math.max(...reach);
    const cut = sawCut(blank, { normal, offset: low + (high - low) * op.at }, op.kerf);
    const joined = { cells: [...cut.before.cells, ...moveBlank(cut.after, translation([0, 500, 0])).cells] };
    return { blank: joined, lost: blankVolume(cut.kerf) };
  }
  const size = max[op.axis] - min[op.axis];
  const sliced = sliceBlank(blank, op.axis, {
    headMm: 0,
    thicknesses: Array(op.parts).fill(size / op.parts / 1.3),
    kerfMm: op.kerf,
  });
  const parts = sliced.slices.map((slice, i) => (i % 2 ? turnBlank(slice, 'endForEnd') : slice));
  const glued = glueBlanks(parts, op.axis);
  return {
    blank: glued,
    lost: blankVolume(sliced.kerf) + blankVolume(sliced.head) + blankVolume(sliced.tail),
  };
}

describe('nothing is lost', () => {
  it('wood in = wood out + losses in 1,000 random recipes of 2 to 6 steps, straight and oblique', () => {
    let repeated = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.array(operation, { minLength: 2, maxLength: 6 }),
        (strips, recipe) => {
          let blank = glueBlanks(
            Array.from({ length: strips }, (_, i) => strip(400, 30 + 7 * i, 25, `s${i}`)),
            1,
          );
          const woodIn = blankVolume(blank);
          let lost = 0;
          for (const op of recipe) {
            if (blank.cells.length > 300 || blank.cells.length === 0) break;
            const next = carryOut(blank, op);
            lost += next.lost;
            blank = next.blank;
          }
          expect(Math.abs(woodIn - blankVolume(blank) - lost) / woodIn).toBeLessThan(1e-9);
          blank.cells.slice(0, 12).forEach(checkCell);
          repeated += blank.cells.length;
        },
      ),
      { numRuns: 1000, seed: 20 },
    );
    expect(repeated).toBeGreaterThan(1000);
  });

  it('survives planes through vertices, along faces and a hair beside them', () => {
    const cell = boxCell([100, 40, 20], IDENTITY, origin, 'c');
    for (const hair of [0, 1e-10, 1e-9, 5e-9, 1e-7, 9e-5, 2e-4])
      for (const normal of [
        [1, 0, 0],
        [100, 40, 0],
        [-40, 100, 0],
        [1, 1, 1],
        [0, 20, -40],
      ] as Vec3[]) {
        const n = normalized(normal);
        for (const v of cell.vertices) {
          const halves = cutCell(cell, { normal: n, offset: v[0] * n[0] + v[1] * n[1] + v[2] * n[2] + hair });
          const parts = [halves.negative, halves.positive].filter((c) => c !== undefined);
          parts.forEach(checkCell);
          expect(compensatedSum(parts.map(cellVolume))).toBeCloseTo(80000, 4);
        }
      }
  });

  it('refuses a box without thickness and says which sizes it got', () => {
    expect(() => boxCell([10, 0, 5], IDENTITY, origin, 'x')).toThrow('10 x 0 x 5');
    expect(() => boxCell([10, Number.NaN, 5], IDENTITY, origin, 'x')).toThrow(RangeError);
  });
});

describe('a glued block', () => {
  const panel = glueBlanks(
    Array.from({ length: 8 }, (_, i) => strip(500, 38.1, 38.1, `s${i}`)),
    1,
  );
  const { slices } = sliceBlank(panel, 0, { headMm: 10, thicknesses: Array(12).fill(30), kerfMm: 3.175 });
  const block = glueBlanks(
    slices.map((s, i) =>
      i % 2 ? turnBlank(turnBlank(s, 'standOnEnd'), 'endForEnd') : turnBlank(s, 'standOnEnd'),
    ),
    0,
  );

  it('has every cell, fills its box and closes: faces - 2 x glue = outer surface', () => {
    expect(block.cells).toHaveLength(96);
    const size = extents(block);
    expect(size[0]).toBeCloseTo(12 * 38.1, 9);
    expect(size[1]).toBeCloseTo(8 * 38.1, 9);
    expect(size[2]).toBeCloseTo(30, 9);
    expect(blankVolume(block) / (size[0] * size[1] * size[2])).toBeCloseTo(1, 12);
    expect(contacts(block)).toHaveLength(7 * 12 + 8 * 11);
    expect(outerArea(block) / boxArea(size)).toBeCloseTo(1, 9);
  });

  it('shows a gap at once: one slice shifted by 0.1 mm leaves surface open', () => {
    const open = {
      cells: block.cells.map((c, i) =>
        i < 8 ? moveBlank({ cells: [c] }, translation([-0.1, 0, 0])).cells[0] : c,
      ),
    };
    expect(outerArea(open)).toBeGreaterThan(boxArea(extents(block)) * 1.01);
  });

  it('stands its grain up', () => {
    for (const cell of block.cells) expect(grainSide(grainAngle(cell, [0, 0, 1]))).toBe('end grain');
    expect(grainSide(grainAngle(panel.cells[0], [0, 0, 1]))).toBe('long grain');
    expect(grainSide(45)).toBe('sloped');
  });

  it('gives as many slices as fit and no sliver', () => {
    const short = sliceBlank(panel, 0, { headMm: 10, thicknesses: Array(40).fill(30), kerfMm: 3.175 });
    expect(short.slices).toHaveLength(14);
    expect(blankVolume(short.tail)).toBeGreaterThan(0);
  });
});

describe('turns and places', () => {
  it('parts of different sizes are centred on one another, wherever they lay before', () => {
    const parts = [strip(100, 20, 10), strip(60, 30, 16)];
    for (const off of [
      [0, 0, 0],
      [-40, 7, 300],
    ] as Vec3[]) {
      const laid = parts.map((part) => moveBlank(part, translation(off)));
      const { cells } = glueBlanks(laid, 1, 'centre');
      const boxes = cells.map((cell) => bounds({ cells: [cell] }));
      expect([...boxes[0].min, ...boxes[0].max]).toEqual(
        [0, 0, 3, 100, 20, 13].map((mm) => expect.closeTo(mm, 9)),
      );
      expect([...boxes[1].min, ...boxes[1].max]).toEqual(
        [20, 20, 0, 80, 50, 16].map((mm) => expect.closeTo(mm, 9)),
      );
    }
  });
  it('named turns keep handedness and come back after their order', () => {
    const blank = glueBlanks([strip(100, 20, 10), strip(100, 30, 10)], 1);
    for (const turn of ['endForEnd', 'rollOver'] as const) {
      const twice = turnBlank(turnBlank(blank, turn), turn);
      twice.cells.forEach((cell, i) =>
        cell.toLog.forEach((v, k) => expect(v).toBeCloseTo(blank.cells[i].toLog[k], 9)),
      );
    }
    for (const m of Object.values(TURNS)) expect(determinant(m)).toBe(1);
    expect(extents(turnBlank(blank, 'standOnEnd'))).toEqual([10, 50, 100]);
    expect(extents(turnBlank(blank, 'tipOnEdge'))).toEqual([100, 10, 50]);
  });

  it('places mitred ends so that they touch all along the mitre', () => {
    const leg = splitBlank(strip(200, 40, 20), {
      normal: normalized([1, 1, 0]),
      offset: 200 / Math.SQRT2,
    })[0];
    const mitred = leg;
    const reflected = compose(translation([200, 0, 0]), compose(quarterTurn(2, 1), translation([0, 0, 0])));
    const other = moveBlank(
      splitBlank(strip(200, 40, 20), { normal: normalized([-1, 1, 0]), offset: 0 })[0],
      reflected,
    );
    const both = placeBlanks([mitred, other], [IDENTITY, IDENTITY]);
    const [joint] = contacts(both);
    expect(joint.areaMm2).toBeCloseTo(40 * Math.SQRT2 * 20, 6);
    expect(grainSide(grainAngle(both.cells[0], joint.normal))).toBe('sloped');
  });

  it('does not lose digits far from the origin', () => {
    const far = moveBlank(strip(100, 20, 10), translation([1e7, 1e7, 1e7]));
    expect(blankVolume(far) / 20000).toBeCloseTo(1, 6);
    expect(bounds(toOrigin(far)).min).toEqual([0, 0, 0]);
  });
});

describe('movement across a joint', () => {
  const maple = { radial: 0.00165, tangential: 0.00353 }; // Wood Handbook Table 13-5, from memory
  it('is the whole tangential coefficient where wood is laid crosswise, and nothing side by side', () => {
    const flat = boxCell([100, 20, 10], [0, 1, 0, -10, 0, 0, 1, 1e5, 1, 0, 0, 0], origin, 'a');
    const crossed = moveBlank(moveBlank({ cells: [flat] }, quarterTurn(2, 1)), translation([20, 0, 10]))
      .cells[0];
    expect(movementMismatch(flat, crossed, [0, 0, 1], { ma: maple, mb: maple })).toBeCloseTo(0.00353, 5);
    expect(movementMismatch(flat, flat, [0, 1, 0], { ma: maple, mb: maple })).toBe(0);
  });
  it('takes a layer off one side only', () => {
    const { kept, removed } = planeSide(strip(100, 20, 10), 2, 'max', 2);
    expect(extents(kept)[2]).toBeCloseTo(8, 12);
    expect(blankVolume(removed)).toBeCloseTo(4000, 6);
    expect(splitBlank(kept, across(2, 99))[1].cells).toHaveLength(0);
  });
});
