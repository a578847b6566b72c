import { describe, expect, it } from 'vitest';
import { areaOf, boxOf, sidesOf } from '../../curve';
import { mustEdit } from '../../edit';
import { run } from '../../run';
import { blankVolume, lostTo } from '../../solid';
import { build, closes, GLUE, last, size, three } from '../steps.fixture';
import { blankFor, largestOutline } from './fit';
import { bentWrong, cornersOf, leftSharp, type OutlineCorner, outlineLoop } from './outline';
import { outlinePlanes, type ShapeStep } from './shape';

const corners = (...xy: [number, number][]) => xy.map(([x, y]) => ({ x: { mm: x }, y: { mm: y } }));
const cut = (outline: ShapeStep['outline'], change: Partial<ShapeStep> = {}): ShapeStep => ({
  id: 'shape',
  kind: 'shape',
  inputs: ['panel'],
  output: 'shaped',
  saw: 'table-full',
  ...(outline ? { outline } : {}),
  ...change,
});
/* The panel is 500 by 150 by 25. */

describe('shape', () => {
  it('a triangle is half of the rectangle around it, whichever way its corners go round', () => {
    const triangle = corners([0, 0], [500, 0], [0, 150]);
    for (const outline of [triangle, triangle.toReversed()]) {
      const step = last(build(three, [GLUE, cut(outline)]));
      expect(blankVolume(step.pieces[0].blank)).toBeCloseTo((500 * 150 * 25) / 2, 3);
      // One cut: the kerf lies outside the line, as wide as the blade along the hypotenuse.
      expect(lostTo(step.lost, 'kerf')).toBeGreaterThan(0);
      const all = lostTo(step.lost, 'kerf') + lostTo(step.lost, 'offcut');
      expect(all).toBeCloseTo((500 * 150 * 25) / 2, 3);
    }
  });
  it('a rectangle inside leaves its own size; seen from the edge it takes off the thickness', () => {
    const inside = last(build(three, [GLUE, cut(corners([50, 20], [450, 20], [450, 130], [50, 130]))]));
    expect(size(inside)).toEqual([400, 110, 25].map((v) => expect.closeTo(v, 9)));
    const taper = cut(corners([0, 0], [500, 0], [500, 10], [0, 25]), { seen: 'edge' });
    const leg = last(build(three, [GLUE, taper]));
    expect(blankVolume(leg.pieces[0].blank)).toBeCloseTo(500 * 150 * 17.5, 3);
    expect(size(leg)[2]).toBeCloseTo(25, 9);
    closes(build(three, [GLUE, cut(corners([50, 20], [450, 20], [450, 130], [50, 130]))]));
  });
  it('an outline around the piece takes nothing', () => {
    const step = last(build(three, [GLUE, cut(corners([-1, -1], [501, -1], [501, 151], [-1, 151]))]));
    expect(size(step)).toEqual([500, 150, 25].map((v) => expect.closeTo(v, 9)));
    expect(lostTo(step.lost, 'kerf')).toBe(0);
  });
  it('a hollow is sawn as it is: its own area by the thickness stays', () => {
    const hollow = corners([0, 0], [400, 0], [200, 50], [400, 150], [0, 150]);
    const step = last(build(three, [GLUE, cut(hollow)]));
    const shoelace = hollow.reduce((sum, p, i) => {
      const q = hollow[(i + 1) % hollow.length];
      return sum + (p.x.mm * q.y.mm - q.x.mm * p.y.mm) / 2;
    }, 0);
    expect(blankVolume(step.pieces[0].blank)).toBeCloseTo(shoelace * 25, 2);
    expect(size(step)).toEqual([400, 150, 25].map((v) => expect.closeTo(v, 6)));
    closes(build(three, [GLUE, cut(hollow)]));
  });
  it('a handle and a blade with arcs: areas of segments, the round in the ledger, the line cleaned up by a cutter', () => {
    // A side of 400 that rises by 30 has R = 400 x 400 / 240 + 15.
    const arcs: ShapeStep['outline'] = [
      { x: { mm: 20 }, y: { mm: 20 } },
      { x: { mm: 420 }, y: { mm: 20 }, radius: { mm: 10 } },
      { x: { mm: 420 }, y: { mm: 100 }, rise: { mm: 30 } },
      { x: { mm: 20 }, y: { mm: 100 } },
    ];
    const r = 400 ** 2 / 240 + 15;
    const half = Math.asin(200 / r);
    const segment = r * r * half - 200 * (r - 30);
    for (const cleanUp of [0, 2]) {
      const step = last(build(three, [GLUE, cut(arcs, { cleanUp: { mm: cleanUp } })]));
      expect(size(step)).toEqual([400, 110, 25].map((v) => expect.closeTo(v, 6)));
      // The corner between straight sides is round.
      const wood = 400 * 80 + segment - (1 - Math.PI / 4) * 100;
      expect(blankVolume(step.pieces[0].blank) / 25).toBeCloseTo(wood, 3);
      expect(lostTo(step.lost, 'chips') > 0).toBe(cleanUp > 0);
      closes(build(three, [GLUE, cut(arcs, { cleanUp: { mm: cleanUp } })]));
    }
  });
  it('a line, one that crosses itself, one bent over more than half a circle and a place beside the piece are refused', () => {
    const bow = corners([0, 0], [400, 150], [0, 150], [400, 0]);
    expect(run(build(three, [GLUE, cut(bow)])).problems).toMatchObject([
      { code: 'outline-not-round', severity: 'stop', numbers: { corners: 4 } },
    ]);
    const [first, ...others] = corners([0, 0], [400, 0], [400, 100]);
    expect(
      run(build(three, [GLUE, cut([{ ...first, rise: { mm: 201 } }, ...others])])).problems,
    ).toMatchObject([{ code: 'outline-not-round', numbers: { rise: 201, chord: 400 } }]);
    expect(
      outlinePlanes(
        [
          { x: 0, y: 0 },
          { x: 9, y: 9 },
          { x: 18, y: 18 },
        ],
        'face',
      ),
    ).toBeUndefined();
    expect(run(build(three, [GLUE, cut(corners([900, 0], [990, 0], [900, 90]))])).problems).toMatchObject([
      { code: 'nothing-left', numbers: { corners: 3 } },
    ]);
  });
  it('an arc by its rise, its radius and a third point is one arc; chord 600 and rise 40 make a radius of 1145', () => {
    const own = (side: Partial<OutlineCorner>) => {
      const all = corners([0, 0], [600, 0], [600, 200], [0, 200]);
      return outlineLoop(all.map((corner, i) => (i === 2 ? { ...corner, ...side } : corner)));
    };
    const mm = (value: number) => ({ mm: value });
    for (const side of [{ rise: mm(40) }, { arc: mm(1145) }, { through: { x: mm(300), y: mm(240) } }]) {
      const loop = own(side);
      expect(areaOf([loop ?? []])).toBeCloseTo(600 * 200 + 16_056.745, 2);
      expect(sidesOf(loop ?? []).find(({ arc }) => arc)?.arc?.r).toBeCloseTo(1145, 6);
    }
    // A radius of half the chord is half a circle.
    expect(areaOf([own({ arc: mm(300) }) ?? []])).toBeCloseTo(600 * 200 + (Math.PI * 300 ** 2) / 2, 6);
    // Inwards, and a point past half a circle.
    expect(areaOf([own({ arc: mm(-1145) }) ?? []])).toBeCloseTo(600 * 200 - 16_056.745, 2);
    const round = own({ through: { x: mm(300), y: mm(800) } }) ?? [];
    expect(boxOf([round]).x0).toBeLessThan(-1);
    expect(
      bentWrong([{ ...corners([0, 0])[0], arc: mm(250) }, ...corners([600, 0], [0, 90])])?.numbers,
    ).toEqual({
      radius: 250,
      chord: 600,
    });
    expect(
      bentWrong([{ ...corners([0, 0])[0], through: { x: mm(900), y: mm(0) } }, ...corners([600, 0], [0, 90])])
        ?.numbers,
    ).toEqual({ side: 1, chord: 600 });
  });
  it('a smooth curve runs through its corners and on from straight sides without a corner', () => {
    const all: OutlineCorner[] = corners([0, 0], [300, 0], [400, 60], [300, 120], [0, 120]).map(
      (corner, i) => (i === 1 || i === 2 ? { ...corner, curve: true } : corner),
    );
    const loop = outlineLoop(all) ?? [];
    for (const { x, y } of all)
      expect(Math.min(...loop.map((p) => Math.hypot(p.x - x.mm, p.y - y.mm)))).toBeLessThan(1e-9);
    const sides = sidesOf(loop);
    const heading = (i: number, end: 0 | 1) => {
      const { a, b, arc } = sides[i];
      return Math.atan2(b.y - a.y, b.x - a.x) + (arc ? ((end ? 1 : -1) * arc.sweep) / 2 : 0);
    };
    // From the straight near side through the whole head to the straight far side: no corner at any point.
    for (let i = 0; i < 5; i++) expect(Math.cos(heading(i, 1) - heading(i + 1, 0))).toBeCloseTo(1, 9);
    expect(sides.filter(({ arc }) => arc)).toHaveLength(4);
  });
  it('a corner is cut off by so much along both sides; one that its sides are too short for stays sharp and says so', () => {
    const square = corners([0, 0], [400, 0], [400, 100], [0, 100]);
    const with2 = (change: Partial<OutlineCorner>) =>
      square.map((corner, i) => (i === 2 ? { ...corner, ...change } : corner));
    expect(areaOf([outlineLoop(with2({ clip: { mm: 30 } })) ?? []])).toBeCloseTo(400 * 100 - 450, 9);
    expect(leftSharp(with2({ clip: { mm: 100 }, radius: { mm: 5 } }))).toEqual([]);
    expect(leftSharp(with2({ radius: { mm: 120 } }))).toEqual([
      { corner: 3, side: expect.closeTo(100, 9), takes: expect.closeTo(120, 9) },
    ]);
    const one = build(three, [GLUE, cut(with2({ radius: { mm: 120 } }))]);
    const [note] = run(one).problems;
    expect(note).toMatchObject({
      code: 'corner-left-sharp',
      numbers: { corner: 3, side: 100, takes: expect.closeTo(120, 9) as number },
    });
    expect(run(mustEdit(one, note.fixes[0].edit)).problems).toEqual([]);
  });
  it('an outline larger all round is sawn larger, rounded at its corners; smaller it may be used up', () => {
    const own = cut(corners([100, 40], [400, 40], [400, 110], [100, 110]));
    const area = (larger: number) =>
      blankVolume(last(build(three, [GLUE, { ...own, larger: { mm: larger } }])).pieces[0].blank) / 25;
    expect(area(10)).toBeCloseTo(300 * 70 + 2 * 10 * 370 + Math.PI * 100, 3);
    expect(area(-10)).toBeCloseTo(280 * 50, 6);
    expect(run(build(three, [GLUE, { ...own, larger: { mm: -35 } }])).problems).toMatchObject([
      { code: 'outline-not-round', numbers: { corners: 4, larger: -35 } },
    ]);
  });
  it('the blank an outline needs, and the largest of its form that a piece gives, lying or turned', () => {
    const bar = corners([0, 0], [400, 0], [400, 40], [0, 40]);
    expect(blankFor({ outline: bar, larger: { mm: 5 } }, 3)).toEqual({ length: 416, width: 56 });
    const lying = largestOutline(bar, { length: 300, width: 300, cleanUpMm: 0, turned: false });
    expect(lying).toMatchObject({ scale: 0.75, degrees: 0 });
    // On the diagonal of a square: k (400 + 40) / sqrt 2 = 300.
    const turned = largestOutline(bar, { length: 300, width: 300, turned: true });
    expect(turned?.scale).toBeCloseTo((300 * Math.SQRT2) / 440, 4);
    expect(Math.abs((turned?.degrees ?? 0) % 90)).toBeCloseTo(45, 1);
    for (const largest of [lying, turned]) {
      const { x0, y0, x1, y1 } = boxOf([outlineLoop(largest?.corners ?? []) ?? []]);
      expect(Math.min(x0, y0)).toBeGreaterThan(-1e-6);
      expect(Math.max(x1, y1)).toBeLessThan(300 + 1e-6);
    }
    // Every size grows with it.
    const round = bar.map((corner, i) =>
      i === 0 ? { ...corner, radius: { mm: 8 }, rise: { mm: 4 } } : corner,
    );
    expect(
      largestOutline(round, { length: 800, width: 800, turned: false })?.corners[0].radius?.mm,
    ).toBeCloseTo(16, 6);
    expect(largestOutline(bar, { length: 4, width: 30, cleanUpMm: 2, turned: true })).toBeUndefined();
  });
  it('an outline comes back from its lines and arcs, more than half a circle in two sides', () => {
    const loop = [
      { x: 0, y: 0 },
      { x: 100, y: 0, bulge: 1.8 },
      { x: 100, y: 60, bulge: -0.2 },
      { x: 0, y: 60 },
    ];
    const again = outlineLoop(cornersOf(loop)) ?? [];
    expect(cornersOf(loop)).toHaveLength(5);
    expect(areaOf([again])).toBeCloseTo(areaOf([loop]), 6);
  });
  it('without an outline or a saw it is held: sizes pass through', () => {
    const { saw: _saw, ...bare } = cut(corners([0, 0], [500, 0], [0, 150]));
    for (const step of [cut(undefined), bare])
      expect(size(last(build(three, [GLUE, step])))).toEqual([500, 150, 25].map((v) => expect.closeTo(v, 9)));
  });
});
