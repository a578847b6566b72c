import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circle, ellipse, mirroredY, offset, rectangle, reversed, slot } from '../../curve';
import {
  across,
  balancePoint,
  type Blank,
  blankVolume,
  blankVolumes,
  boxBlank,
  cellVolume,
  compensatedSum,
  compose,
  contacts,
  type Form,
  formVolume,
  glueBlanks,
  IDENTITY,
  inverse,
  levelsForm,
  moveBlank,
  type Rigid,
  rotation,
  sliceBlank,
  solidVolume,
  splitBlank,
  takeOut,
  toOrigin,
  translation,
  turnBlank,
  type Vec3,
} from '..';

const origin = (species: string) => ({ board: species, species, seed: 1, shade: 1 });
const board = (l: number, w: number, t: number, species = 'maple_sugar', at = 0): Blank =>
  boxBlank([l, w, t], [0, 1, 0, at, 0, 0, 1, 40, 1, 0, 0, 0], origin(species), `${species}${at}`);
const panel = (n: number, l = 400, w = 40, t = 30): Blank =>
  glueBlanks(
    Array.from({ length: n }, (_, i) => board(l, w, t, i % 2 ? 'walnut_black' : 'maple_sugar', i * 50)),
    1,
  );
/** Into the upper face of a blank `t` thick: x along it, y to the far edge turned over, z down into the wood. */
const fromTop = (t: number): Rigid => [1, 0, 0, 0, 0, -1, 0, 0, 0, 0, -1, t];
/** The same region as one sees it from above. */
const seen = mirroredY;
const hole = (x: number, y: number, r: number, deep: number): Form => ({
  kind: 'prism',
  region: seen([circle({ x, y }, r)]),
  z0: 0,
  z1: deep,
});
const cut = (blank: Blank, form: Form, toForm = fromTop(30)) => takeOut(blank, 'f', { form, toForm });
const sum = (volumes: Record<string, number>) => compensatedSum(Object.values(volumes));

describe('hollows in cells', () => {
  it('a hole over a joint takes from both woods what geometry says, and opens the joint', () => {
    // Centre 3 off the joint, r 10, in 40: chord 2 sqrt(100 - 9) = 19.0788 by 40 = 763.151.
    const blank = panel(2, 400, 40, 40);
    const taken = cut(blank, hole(200, 43, 10, 40), fromTop(40));
    expect(sum(taken.lost)).toBeCloseTo(Math.PI * 100 * 40, 6);
    expect(blankVolume(taken.blank)).toBeCloseTo(400 * 80 * 40 - Math.PI * 4000, 5);
    const [joint] = contacts(taken.blank);
    expect(contacts(taken.blank)).toHaveLength(1);
    expect(400 * 40 - joint.areaMm2).toBeCloseTo(763.151, 3);
    expect(contacts(blank)[0].areaMm2).toBe(16_000);
  });
  it('two holes that overlap lose what both share once: the lens of two circles, whole (geometry)', () => {
    const blank = board(400, 80, 40);
    const two = cut(cut(blank, hole(200, 40, 10, 40), fromTop(40)).blank, hole(208, 40, 10, 40), fromTop(40));
    const lens = 2 * 100 * Math.acos(0.4) - 4 * Math.sqrt(400 - 64);
    const left = 400 * 80 * 40 - blankVolume(two.blank);
    expect(left).toBeCloseTo(40 * (2 * 100 * Math.PI - lens), 5);
    // Centres 14 apart: half of the lens is one segment.
    const far = cut(cut(blank, hole(200, 40, 10, 40), fromTop(40)).blank, hole(214, 40, 10, 40), fromTop(40));
    expect(40 * 200 * Math.PI - (400 * 80 * 40 - blankVolume(far.blank))).toBeCloseTo(
      40 * (200 * Math.acos(0.7) - 7 * Math.sqrt(400 - 196)),
      5,
    );
  });
  it('holes of different depth from one side, and from opposite sides, share only what both reach', () => {
    const blank = board(200, 80, 40);
    const one = cut(blank, hole(100, 40, 10, 25), fromTop(40)).blank;
    const below: Rigid = IDENTITY;
    const two = takeOut(one, 'g', {
      form: { kind: 'prism', region: [circle({ x: 100, y: 40 }, 6)], z0: 0, z1: 20 },
      toForm: below,
    });
    // 20 from below and 25 from above in 40: 5 of the thin one lie in the wide one.
    expect(sum(two.lost)).toBeCloseTo(Math.PI * 36 * 15, 6);
  });
  it('two bores of radius 5 that cross share 16 r3 / 3 = 666.667 (geometry)', () => {
    const blank = board(100, 100, 40);
    const one = cut(blank, hole(50, 50, 5, 40), fromTop(40)).blank;
    // Along y: x and z across.
    const along: Rigid = [0, 0, 1, -20, 1, 0, 0, -50, 0, 1, 0, 0];
    const two = takeOut(one, 'g', {
      form: { kind: 'prism', region: [circle({ x: 0, y: 0 }, 5)], z0: 0, z1: 100 },
      toForm: along,
    });
    expect(Math.PI * 25 * 100 - sum(two.lost)).toBeCloseTo((16 * 125) / 3, 1);
  });
  it('a cell of which nothing is left is gone, and touches nothing', () => {
    const blank = panel(3, 100, 20, 30);
    const taken = cut(blank, {
      kind: 'prism',
      region: seen([rectangle({ x: -5, y: 19 }, 110, 22)]),
      z0: -1,
      z1: 40,
    });
    expect(taken.blank.cells).toHaveLength(2);
    expect(contacts(taken.blank)).toHaveLength(0);
    expect(sum(taken.lost)).toBeCloseTo(100 * 22 * 30, 6);
  });
  it('a groove that runs off the end spares what is glued on later', () => {
    const grooved = cut(board(100, 40, 30), {
      kind: 'prism',
      region: seen([rectangle({ x: 50, y: 15 }, 100, 10)]),
      z0: 0,
      z1: 8,
    });
    const both = glueBlanks([grooved.blank, board(100, 40, 30, 'walnut_black', 9)], 0);
    expect(blankVolumes(both).walnut_black).toBeCloseTo(100 * 40 * 30, 6);
    expect(contacts(both)[0].areaMm2).toBeCloseTo(40 * 30 - 80, 6);
  });
  it('a lens-shaped plate: a turned, oblique cut through a hole is exact', () => {
    // A cylinder through a board cut by a plane at 30 degrees: volume by height at the axis (Cavalieri).
    const blank = cut(board(200, 100, 60), hole(100, 50, 12, 60), fromTop(60)).blank;
    const s = Math.sin(Math.PI / 6);
    const c = Math.cos(Math.PI / 6);
    const [low] = splitBlank(blank, { normal: [s, 0, c], offset: s * 100 + c * 25 });
    const solid = low.cells.reduce((total, cell) => total + solidVolume(cell), 0);
    expect(solid - blankVolume(low)).toBeCloseTo(Math.PI * 144 * 25, 5);
  });
});

describe('forms in levels', () => {
  const ring = (w: (z: number) => number, outer = rectangle({ x: 0, y: 0 }, 600, 400, 30), sign = 1): Form =>
    levelsForm(
      (z) => [
        ...(sign > 0 ? [outer] : offset(outer, w(z))),
        ...(sign > 0 ? offset(outer, -w(z)) : [outer]).map(reversed),
      ],
      [0, 8],
    );
  const round = (z: number) => 8 - Math.sqrt(64 - (8 - z) ** 2);
  it('a round-over of 8 round 600 x 400: corners of 30, as an opening, sharp; and a chamfer', () => {
    expect(formVolume(ring(round))).toBeCloseTo(26_607.439, 2);
    expect(formVolume(ring(round, undefined, -1))).toBeCloseTo(26_915.854, 2);
    const sharp = rectangle({ x: 0, y: 0 }, 600, 400);
    expect(formVolume(ring(round, sharp))).toBeCloseTo(27_272.693, 2);
    expect(formVolume(ring((z) => 8 - z, sharp))).toBeCloseTo(63_317.333, 2);
  });
  it('a level right where one board lies on another is counted once, in the deeper one', () => {
    const stacked = glueBlanks([board(200, 80, 25), board(200, 80, 5, 'walnut_black', 9)], 2);
    const region = seen([rectangle({ x: 100, y: 40 }, 60, 20)]);
    const taken = cut(stacked, { kind: 'levels', levels: [{ z: 5, weight: 10, region }], z0: 0, z1: 10 });
    expect(taken.lost.maple_sugar).toBeCloseTo(60 * 20 * 10, 6);
    expect(taken.lost.walnut_black ?? 0).toBeCloseTo(0, 6);
  });
  it('a ball-nosed groove along an ellipse has its length times half a circle (Pappus: the centre line is symmetric)', () => {
    const path = ellipse({ x: 0, y: 0 }, 300, 200, 32);
    const half = (z: number) => Math.sqrt(Math.max(0, 36 - z * z));
    const form = levelsForm(
      (z) => [...offset(path, half(z)), ...offset(path, -half(z)).map(reversed)],
      [0, 6],
    );
    const long = 793.27; // Ramanujan 1914, pi (a + b) (1 + h/4 + ...): 793.272
    expect(formVolume(form) / (Math.PI * 18)).toBeCloseTo(long, 0);
  });
});

describe('nothing is lost', () => {
  const kinds = ['hole', 'blind', 'slot', 'ball', 'side', 'leaning'] as const;
  const features = fc.array(
    fc.record({
      kind: fc.constantFrom(...kinds),
      x: fc.integer({ min: -40, max: 1640 }).map((n) => n / 4),
      y: fc.integer({ min: -20, max: 500 }).map((n) => n / 4),
      r: fc.integer({ min: 8, max: 100 }).map((n) => n / 4),
      deep: fc.integer({ min: 12, max: 140 }).map((n) => n / 4),
      turn: fc.integer({ min: 0, max: 12 }).map((n) => n / 4),
    }),
    { minLength: 1, maxLength: 7 },
  );
  type Drawn = typeof features extends fc.Arbitrary<(infer T)[]> ? T : never;
  const made = ({ kind, x, y, r, deep, turn }: Drawn): { form: Form; toForm: Rigid } => {
    const top = fromTop(30);
    const round = (z: number) => Math.sqrt(Math.max(0, r * r - z * z));
    const of: Record<(typeof kinds)[number], () => { form: Form; toForm: Rigid }> = {
      hole: () => ({ form: hole(x, y, r, 30), toForm: top }),
      blind: () => ({ form: hole(x, y, r, deep), toForm: top }),
      slot: () => ({
        form: { kind: 'prism', region: seen([slot({ x, y }, 3 * r, r, turn)]), z0: 0, z1: deep },
        toForm: top,
      }),
      ball: () => ({
        form: levelsForm(
          (z) => seen([slot({ x, y }, 60 + 2 * round(z), Math.max(1e-6, 2 * round(z)), turn)]),
          [0, r],
        ),
        toForm: top,
      }),
      side: () => ({
        form: { kind: 'prism', region: [circle({ x: 15, y: x }, Math.min(r, 12))], z0: 0, z1: 3 * deep },
        toForm: [0, 0, 1, 0, 1, 0, 0, 0, 0, 1, 0, 0],
      }),
      leaning: () => ({
        form: { kind: 'prism', region: [circle({ x: 0, y: 0 }, r)], z0: -40, z1: 40 },
        toForm: inverse([
          1,
          0,
          0,
          x,
          0,
          Math.cos(turn / 4),
          -Math.sin(turn / 4),
          y,
          0,
          Math.sin(turn / 4),
          Math.cos(turn / 4),
          20,
        ]),
      }),
    };
    return of[kind]();
  };
  it('random features, sliced, turned, glued again, cut askew: wood in is wood out and losses, to 1e-9', () => {
    fc.assert(
      fc.property(features, fc.integer({ min: 2, max: 5 }), (list, n) => {
        const whole = panel(3);
        const before = blankVolume(whole);
        let blank = whole;
        let lost = 0;
        for (const [i, each] of list.entries()) {
          const taken = takeOut(blank, `f${i}`, made(each));
          blank = taken.blank;
          lost += sum(taken.lost);
        }
        for (const cell of blank.cells) expect(cellVolume(cell)).toBeGreaterThan(0);
        const { slices, kerf, head, tail } = sliceBlank(blank, 0, {
          headMm: 5,
          thicknesses: Array<number>(n).fill(40),
          kerfMm: 3,
        });
        const turned = slices.map((slice) => turnBlank(toOrigin(slice), 'standOnEnd'));
        const again = glueBlanks(turned, 0);
        const oblique = moveBlank(again, rotation(2, 0.4));
        const [low, high] = splitBlank(oblique, across(0, 30));
        const out = [kerf, head, tail, low, high].reduce((total, part) => total + blankVolume(part), lost);
        expect(Math.abs(out - before) / before).toBeLessThan(1e-9);
        // What the wood of the turned slices is, is what it was before they were turned.
        expect(
          Math.abs(blankVolume(low) + blankVolume(high) - slices.reduce((t, s) => t + blankVolume(s), 0)) /
            before,
        ).toBeLessThan(1e-9);
      }),
      { numRuns: 40, seed: 1611 },
    );
  });
  it('no part is taken twice: in whatever order they are made, the same wood is left', () => {
    fc.assert(
      fc.property(features, (list) => {
        let blank = panel(3);
        const forms = list.map(made);
        for (const [i, each] of forms.entries()) blank = takeOut(blank, `f${i}`, each).blank;
        expect(blankVolume(blank)).toBeGreaterThan(0);
        // One after the other or the other way round: the same wood.
        let back = panel(3);
        for (const [i, each] of [...forms].reverse().entries()) back = takeOut(back, `f${i}`, each).blank;
        const size = 400 * 120 * 30;
        expect(Math.abs(blankVolume(blank) - blankVolume(back)) / size).toBeLessThan(5e-4);
      }),
      { numRuns: 25, seed: 1612 },
    );
  });
  it('200 holes in ten boards', () => {
    let blank = panel(10, 1000, 60, 30);
    const wood = blankVolume(blank);
    for (let i = 0; i < 200; i++)
      blank = cut(blank, hole(25 + (i % 20) * 50, 30 + Math.floor(i / 20) * 60, 10, 30)).blank;
    expect(wood - blankVolume(blank)).toBeCloseTo(200 * Math.PI * 100 * 30, 2);
  });
});

describe('a hollow that leans', () => {
  /** A square of 10 by 10 along an axis that leans 30 degrees from the width, its middle at the joint of the panel. */
  const leaning = (at: Vec3, half: number, species = panel(2)) => {
    const toForm = compose(rotation(0, Math.PI / 3), translation([-at[0], -at[1], -at[2]]));
    const form: Form = {
      kind: 'prism',
      region: [rectangle({ x: -5, y: -5 }, 10, 10)],
      z0: -half,
      z1: half,
    };
    return takeOut(species, 'f', { form, toForm });
  };
  it('opens a joint by its section there: ten by ten over the cosine of thirty', () => {
    // The section's plane leans so against the axis; within the panel's 30 mm of thickness.
    const [joint] = contacts(leaning([200, 40, 15], 30).blank);
    expect(400 * 30 - joint.areaMm2).toBeCloseTo(100 / Math.cos(Math.PI / 6), 6);
    // Aside of it, the section lies where the axis comes through: 5 mm on, 2.887 higher.
    const [aside] = contacts(leaning([200, 35, 15 - 5 * Math.tan(Math.PI / 6)], 30).blank);
    expect(400 * 30 - aside.areaMm2).toBeCloseTo(100 / Math.cos(Math.PI / 6), 6);
    // Where it ends before the joint, it opens none of it.
    expect(contacts(leaning([200, 20, 15], 8).blank)[0].areaMm2).toBeCloseTo(400 * 30, 6);
  });
  it('takes its volume, and its middle from the balance, wholly within one cell or over a joint', () => {
    for (const at of [
      [120, 20, 15],
      [250, 40, 15],
    ] as const) {
      const { blank, lost } = leaning(at, 6, panel(2));
      const whole = 400 * 80 * 30;
      expect(sum(lost)).toBeCloseTo(1200, 6);
      const balance = balancePoint(blank, () => 1);
      const own = [200, 40, 15].map((mm, axis) => (mm * whole - at[axis] * 1200) / (whole - 1200));
      expect(balance).toEqual(own.map((mm) => expect.closeTo(mm, 6)));
    }
  });
});

it('a form told for every height takes a corner that is cut off whole, though its sections are triangles', () => {
  const plank = board(100, 80, 30);
  const s = Math.sqrt(3);
  // What lies below x + y + z = 24: a corner of 24 by 24 by 24, a sixth of their product.
  const [corner] = splitBlank(plank, { normal: [1 / s, 1 / s, 1 / s], offset: 24 / s });
  if (!corner) throw new Error('nothing was cut off');
  expect(blankVolume(corner)).toBeCloseTo(24 ** 3 / 6, 6);
  const dish = levelsForm(() => [rectangle({ x: -10, y: -10 }, 60, 60)], [0, 12]);
  // From the lower face up to 12: all but the corner above, which is half as large.
  const { lost } = takeOut(corner, 'f', { form: dish, toForm: IDENTITY });
  expect(sum(lost)).toBeCloseTo((24 ** 3 - 12 ** 3) / 6, 4);
});
