import { describe, expect, it } from 'vitest';
import { run } from '../../run';
import { blankVolume, lostTo } from '../../solid';
import { build, closes, GLUE, last, size, three } from '../steps.fixture';
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
  it('without an outline or a saw it is held: sizes pass through', () => {
    const { saw: _saw, ...bare } = cut(corners([0, 0], [500, 0], [0, 150]));
    for (const step of [cut(undefined), bare])
      expect(size(last(build(three, [GLUE, step])))).toEqual([500, 150, 25].map((v) => expect.closeTo(v, 9)));
  });
});
