import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blankVolume,
  boxBlank,
  bounds,
  compensatedSum,
  compose,
  contacts,
  cutCell,
  determinant,
  emptyLedger,
  book,
  extents,
  glueBlanks,
  grainAngle,
  IDENTITY,
  inverse,
  lostTo,
  mergeLedgers,
  moveBlank,
  movePoint,
  placeBlanks,
  quarterTurn,
  rotation,
  sliceBlank,
  splitBlank,
  translation,
  TURNS,
  turnBlank,
  type Blank,
  type Rigid,
  type Vec3,
} from '.';
import { faceArea } from './areas.fixture';

const origin = (species: string) => ({ board: species, species, seed: 1, shade: 1 });
const inLog: Rigid = [0, 1, 0, -20, 0, 0, 1, 70, 1, 0, 0, 0];
const box = (l: number, w: number, t: number, id = 'b', species = 'maple_sugar') =>
  boxBlank([l, w, t], inLog, origin(species), id);
const outer = (blank: Blank) =>
  compensatedSum(blank.cells.flatMap((cell) => cell.faces.map((face) => faceArea(cell, face)))) -
  2 * compensatedSum(contacts(blank).map(({ areaMm2 }) => areaMm2));
const surface = ([l, w, t]: Vec3) => 2 * (l * w + l * t + w * t);
const whole = fc.integer({ min: 5, max: 120 });

describe('rigid motions', () => {
  const motion = fc
    .tuple(
      fc.constantFrom(0 as const, 1 as const, 2 as const),
      fc.double({ min: -7, max: 7, noNaN: true }),
      fc.tuple(whole, whole, whole),
    )
    .map(([axis, angle, shift]) => compose(translation(shift), rotation(axis, angle)));
  it('are undone by their inverse, in any order of composing, and never mirror', () => {
    fc.assert(
      fc.property(motion, motion, motion, fc.tuple(whole, whole, whole), (a, b, c, p) => {
        const all = compose(a, compose(b, c));
        const same = compose(compose(a, b), c);
        all.forEach((v, i) => expect(v).toBeCloseTo(same[i], 8));
        movePoint(inverse(all), movePoint(all, p)).forEach((v, i) => expect(v).toBeCloseTo(p[i], 7));
        expect(determinant(all)).toBeCloseTo(1, 9);
      }),
      { seed: 20271 },
    );
  });
  it('quarter turns have exact entries and come round after four', () => {
    for (const axis of [0, 1, 2] as const) {
      for (const value of quarterTurn(axis, 3)) expect([-1, 0, 1]).toContain(value + 0);
      const four = [1, 1, 1, 1].reduce<Rigid>((m) => compose(quarterTurn(axis, 1), m), IDENTITY);
      expect(four.map((v) => v + 0)).toEqual([...IDENTITY]);
    }
  });
});

describe('contacts and closure', () => {
  it('any stack of boxes cut, turned and glued again closes: faces - 2 x glue = its own surface', () => {
    fc.assert(
      fc.property(
        fc.array(whole, { minLength: 1, maxLength: 5 }),
        whole,
        whole,
        fc.integer({ min: 1, max: 4 }),
        fc.constantFrom('endForEnd' as const, 'rollOver' as const),
        fc.double({ min: 0, max: 6.2, noNaN: true }),
        (widths, l, t, n, turn, angle) => {
          const panel = glueBlanks(
            widths.map((w, i) => box(l * 4, w, t, `s${i}`)),
            1,
          );
          const { slices } = sliceBlank(panel, 0, { headMm: 0, thicknesses: Array(n).fill(l), kerfMm: 0 });
          const block = glueBlanks(
            slices.map((slice, i) => (i % 2 ? turnBlank(slice, turn) : slice)),
            0,
          );
          const anywhere = moveBlank(moveBlank(block, rotation(2, angle)), rotation(0, angle / 2));
          expect(blankVolume(block) / extents(block).reduce((a, b) => a * b)).toBeCloseTo(1, 9);
          for (const blank of [block, anywhere])
            expect(outer(blank) / surface(extents(block))).toBeCloseTo(1, 6);
        },
      ),
      { numRuns: 80, seed: 11 },
    );
  });
  it('measures the area shared by faces of different outline', () => {
    const small = moveBlank(box(30, 20, 10), translation([35, 10, 25]));
    const on = { cells: [...box(100, 40, 25).cells, ...small.cells] };
    expect(contacts(on)).toMatchObject([
      {
        areaMm2: expect.closeTo(600, 9),
        normal: [0, 0, 1],
        at: [50, 20, 25].map((v) => expect.closeTo(v, 9)),
      },
    ]);
  });
  it('a hair of a gap is still a joint, a visible one is not, an edge alone is none', () => {
    const beside = (gap: number) =>
      contacts({
        cells: [...box(50, 20, 10).cells, ...moveBlank(box(50, 20, 10), translation([0, 20 + gap, 0])).cells],
      }).length;
    expect([beside(0), beside(1e-4), beside(0.01)]).toEqual([1, 1, 0]);
    expect(
      contacts({
        cells: [...box(50, 20, 10).cells, ...moveBlank(box(50, 20, 10), translation([0, 20, 10])).cells],
      }),
    ).toEqual([]);
  });
  it('tells the grain of each side, also of a sloped joint', () => {
    const [below] = splitBlank(box(100, 40, 25), { normal: [Math.SQRT1_2, Math.SQRT1_2, 0], offset: 60 });
    expect(grainAngle(below.cells[0], [0, 1, 0])).toBeCloseTo(0, 9);
    expect(grainAngle(below.cells[0], [1, 0, 0])).toBeCloseTo(90, 6);
    expect(grainAngle(below.cells[0], [Math.SQRT1_2, Math.SQRT1_2, 0])).toBeCloseTo(45, 9);
  });
});

describe('cutting', () => {
  it('puts every point of the cell into one half, on its own side', () => {
    fc.assert(
      fc.property(
        fc.tuple(
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.double({ min: 0.1, max: 1, noNaN: true }),
        ),
        fc.double({ min: -40, max: 140, noNaN: true }),
        (direction, offset) => {
          const length = Math.hypot(...direction);
          const normal: Vec3 = [direction[0] / length, direction[1] / length, direction[2] / length];
          const [cell] = box(100, 40, 25).cells;
          const { negative, positive, shiftMm } = cutCell(cell, { normal, offset });
          const side = (half: typeof negative, sign: number) =>
            half?.vertices.forEach((v) =>
              expect(
                sign * (v[0] * normal[0] + v[1] * normal[1] + v[2] * normal[2] - offset - shiftMm),
              ).toBeGreaterThan(-2e-4),
            );
          side(negative, -1);
          side(positive, 1);
          expect(negative ?? positive).toBeDefined();
        },
      ),
      { seed: 20272 },
    );
  });
  it('leaves a side thinner than a ten-thousandth on the cell', () => {
    const [cell] = box(100, 40, 25).cells;
    expect(cutCell(cell, { normal: [1, 0, 0], offset: 100 - 5e-5 }).positive).toBeUndefined();
    expect(cutCell(cell, { normal: [1, 0, 0], offset: 5e-5 }).negative).toBeUndefined();
    expect(cutCell(cell, { normal: [1, 0, 0], offset: 99.9 }).positive).toBeDefined();
  });
  it('marks cut faces and leaves the board’s own', () => {
    const [half] = splitBlank(box(100, 40, 25), { normal: [1, 0, 0], offset: 50 })[0].cells;
    expect(half.faces.filter(({ tag }) => tag === 1)).toHaveLength(1);
    expect(half.faces.filter(({ tag }) => tag === 0)).toHaveLength(5);
  });
});

describe('gluing, aligning and the ledger', () => {
  const [wide, narrow] = [box(100, 40, 25, 'w'), box(60, 20, 15, 'n')];
  it('aligns at the least side, at the centre, or not at all', () => {
    const at = (align: 'min' | 'centre' | 'keep') =>
      bounds({
        cells: glueBlanks([wide, moveBlank(narrow, translation([7, 0, 3]))], 1, align).cells.slice(1),
      }).min;
    expect(at('min')).toEqual([0, 40, 0]);
    expect(at('centre')).toEqual([20, 40, 5]);
    expect(at('keep')).toEqual([7, 40, 3]);
  });
  it('shifts parts along the joint where asked and leaves out empty ones', () => {
    const glued = glueBlanks([wide, { cells: [] }, narrow], 1, 'min', [
      [0, 0, 0],
      [0, 0, 0],
      [12, 0, 0],
    ]);
    expect(glued.cells).toHaveLength(2);
    expect(bounds({ cells: glued.cells.slice(1) }).min).toEqual([12, 40, 0]);
  });
  it('places parts by transforms, each with its own way back to the log', () => {
    const placed = placeBlanks([narrow, narrow], [IDENTITY, TURNS.endForEnd]);
    // The same corners of the log, in whatever order.
    const back = placed.cells.map(({ toLog, vertices }) =>
      vertices.map((v) => movePoint(toLog, v).map((mm) => Math.round(mm * 1e6) / 1e6 + 0)).toSorted(),
    );
    expect(back[0]).toEqual(back[1]);
  });
  it('books by cause and by wood, without touching the ledger it was given', () => {
    const start = emptyLedger();
    const one = book(book(start, 'kerf', wide), 'kerf', box(10, 10, 10, 'x', 'walnut_black'));
    expect(one.kerf).toEqual({ maple_sugar: 100000, walnut_black: 1000 });
    expect(start.kerf).toEqual({});
    expect(lostTo(mergeLedgers(one, book(start, 'dust', wide)), 'kerf')).toBe(101000);
    expect(lostTo(mergeLedgers(one, one), 'kerf')).toBe(202000);
    expect(book(one, 'dust', { cells: [] })).toBe(one);
  });
  it('sums thousands of small volumes without losing digits', () => {
    expect(compensatedSum([1e16, ...Array(1000).fill(1), -1e16])).toBe(1000);
  });
});
