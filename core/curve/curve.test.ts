import Flatten from '@flatten-js/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  areaInBox,
  areaOf,
  asPolygon,
  boundariesApart,
  boxOf,
  bulgeOf,
  bulgeThrough,
  circle,
  clearance,
  clipConvex,
  common,
  ellipse,
  isInside,
  joined,
  lengthOf,
  type Loop,
  mirroredX,
  momentsOf,
  offset,
  placed,
  pointsOn,
  radiusOf,
  rectangle,
  type Region,
  reversed,
  rounded,
  selfCrossing,
  sidesOf,
  slot,
  smooth,
  subtracted,
  wallTo,
} from '.';

/** The same region in a general geometry library of the registry, which knows lines and arcs. */
function judged(region: Region): Flatten.Polygon {
  const polygon = new Flatten.Polygon();
  for (const loop of region)
    polygon.addFace(
      sidesOf(loop).map(({ a, b, arc }) =>
        arc
          ? new Flatten.Arc(
              new Flatten.Point(arc.cx, arc.cy),
              arc.r,
              arc.from,
              arc.from + arc.sweep,
              arc.sweep > 0,
            )
          : new Flatten.Segment(new Flatten.Point(a.x, a.y), new Flatten.Point(b.x, b.y)),
      ),
    );
  return polygon;
}

const at = { x: 0, y: 0 };
/** Outlines of every kind that can be made. */
const shapes = fc
  .record({
    kind: fc.constantFrom('rectangle', 'rounded', 'circle', 'slot', 'ellipse', 'smooth', 'cut'),
    long: fc.double({ min: 20, max: 200, noNaN: true }),
    wide: fc.double({ min: 15, max: 120, noNaN: true }),
    r: fc.double({ min: 0.5, max: 30, noNaN: true }),
    x: fc.double({ min: -90, max: 90, noNaN: true }),
    y: fc.double({ min: -90, max: 90, noNaN: true }),
    turn: fc.double({ min: 0, max: 6.28, noNaN: true }),
  })
  .map(({ kind, long, wide, r, x, y, turn }): Region => {
    const loops: Record<string, () => Loop> = {
      rectangle: () => rectangle(at, long, wide),
      rounded: () => rectangle(at, long, wide, r),
      circle: () => circle(at, r + 5),
      slot: () => slot(at, long + wide, wide / 2),
      ellipse: () => ellipse(at, long, wide, 16),
      smooth: () =>
        smooth([
          { x: 0, y: 0 },
          { x: long, y: r },
          { x: long * 0.8, y: wide },
          { x: long * 0.2, y: wide + r },
        ]),
      cut: () =>
        rounded(
          [
            { x: 0, y: 0 },
            { x: long, y: 0, bulge: 0.3 },
            { x: long, y: wide },
            { x: 0, y: wide, bulge: -0.2 },
          ],
          [0, 0, 0, 0],
        ),
    };
    return placed([loops[kind]()], { x, y }, turn);
  })
  .filter(([loop]) => selfCrossing(loop) === undefined);

describe('outlines of lines and arcs', () => {
  it('an arc by chord and rise: 600 and 40 give R 1145', () => {
    expect(radiusOf(600, 40)).toBe(1145);
    const loop: Loop = [
      { x: 0, y: 0, bulge: bulgeOf(600, 40) },
      { x: 600, y: 0 },
    ];
    expect(bulgeOf(600, 40)).toBeCloseTo(0.13333, 5);
    expect(areaOf([loop])).toBeCloseTo(16_056.745, 3);
    expect(lengthOf(loop) - 600).toBeCloseTo(607.086, 3);
    expect(sidesOf(loop)[0].arc?.r).toBeCloseTo(1145, 9);
  });
  it('an arc through three points has the circle of all three', () => {
    const [a, b, c] = [0.3, 1.9, 4.2].map((t) => ({ x: 7 + 20 * Math.cos(t), y: 3 + 20 * Math.sin(t) }));
    const [{ arc }] = sidesOf([{ ...a, bulge: bulgeThrough(a, b, c) }, c]);
    expect([arc?.cx, arc?.cy, arc?.r].map((v) => Number(v?.toFixed(9)))).toEqual([7, 3, 20]);
    expect(bulgeThrough(at, { x: 1, y: 0 }, { x: 2, y: 0 })).toBe(0);
  });
  it('an ellipse of 600 x 400 lies within 0.084 in 32 arcs, within 0.009 in 64 (common formula pi a b)', () => {
    const off = (arcs: number) =>
      Math.max(
        ...sidesOf(ellipse(at, 600, 400, arcs)).flatMap((side) =>
          pointsOn(side).map(({ x, y }) => {
            // Along the ray, to first order the distance from the ellipse.
            const f = (x / 300) ** 2 + (y / 200) ** 2 - 1;
            return Math.abs(f) / Math.hypot((2 * x) / 90_000, (2 * y) / 40_000);
          }),
        ),
      );
    expect(off(32)).toBeLessThan(0.09);
    expect(off(64)).toBeLessThan(0.01);
    expect(areaOf([ellipse(at, 600, 400)])).toBeCloseTo(Math.PI * 300 * 200, -1);
  });
  it('a rounded rectangle, a circle and a slot have the areas of geometry', () => {
    expect(areaOf([rectangle(at, 480, 360, 25)])).toBeCloseTo(480 * 360 - (4 - Math.PI) * 625, 6);
    expect(areaOf([circle(at, 10)])).toBeCloseTo(100 * Math.PI, 9);
    expect(areaOf([slot(at, 60, 12, 0.5)])).toBeCloseTo(48 * 12 + 36 * Math.PI, 9);
    // A radius over half a side is taken as half.
    expect(areaOf([rectangle(at, 40, 40, 100)])).toBeCloseTo(400 * Math.PI, 9);
  });
  it('areas, moments and boxes agree with a general library on 300 outlines', () => {
    fc.assert(
      fc.property(shapes, (region) => {
        const { area, x, y } = momentsOf(region);
        const judge = judged(region);
        expect(area).toBeCloseTo(judge.area(), 6);
        const box = boxOf(region);
        expect(box.x0).toBeCloseTo(judge.box.xmin, 6);
        expect(box.y1).toBeCloseTo(judge.box.ymax, 6);
        // The centre of area against a fine polygon’s.
        const fine = momentsOf([asPolygon(region[0], 1e-4)]);
        expect(x / area).toBeCloseTo(fine.x / fine.area, 3);
        expect(y / area).toBeCloseTo(fine.y / fine.area, 3);
        expect(areaOf([reversed(region[0])])).toBeCloseTo(-area, 8);
        expect(areaOf(mirroredX(region))).toBeCloseTo(area, 8);
      }),
      { numRuns: 300, seed: 1601 },
    );
  });
  it('what is shared, left over and joined add up; a clip by a polygon is what it shares with it', () => {
    fc.assert(
      fc.property(shapes, shapes, (region, other) => {
        const polygon = [-60, 0, 70].map((x, i) => ({ x, y: [-70, -90, 80][i] }));
        const kept = areaOf(clipConvex(region, polygon));
        expect(kept).toBeLessThanOrEqual(areaOf(region) + 1e-7);
        const both = areaOf(common(region, other));
        expect(areaOf(subtracted(region, other)) + both).toBeCloseTo(areaOf(region), 3);
        expect(areaOf(joined(region, other)) + both).toBeCloseTo(areaOf(region) + areaOf(other), 3);
        const fine = (r: Region) => [asPolygon(r[0], 0.003)] as Region;
        const triangle: Region = [polygon];
        expect(kept).toBeCloseTo(areaOf(common(fine(region), triangle)), 0);
      }),
      { numRuns: 200, seed: 1602 },
    );
  });
  it('common parts agree with the library', () => {
    fc.assert(
      fc.property(shapes, shapes, (region, other) => {
        let judge: number;
        try {
          judge = Flatten.BooleanOperations.intersect(judged(region), judged(other)).area();
        } catch {
          return; // the library refuses some
        }
        expect(Math.abs(areaOf(common(region, other)) - judge)).toBeLessThan(1e-3);
      }),
      { numRuns: 120, seed: 1603 },
    );
  });
  it('the area within a box is that of the clip, arcs and all', () => {
    const corner = fc.integer({ min: -120, max: 320 });
    fc.assert(
      fc.property(shapes, corner, corner, fc.integer({ min: 1, max: 80 }), (region, x, y, w) => {
        const box = { x0: x / 2, y0: y / 2, x1: x / 2 + w, y1: y / 2 + w / 3 };
        const polygon = asPolygon(rectangle({ x: box.x0, y: box.y0 }, w, w / 3));
        expect(areaInBox(region, box)).toBeCloseTo(areaOf(clipConvex(region, polygon)), 6);
      }),
      { seed: 20261129, numRuns: 400 },
    );
  });
  it('an arc that just touches the lines of a box is told on the right side of them', () => {
    const handle: Region = [
      [
        { x: 20, y: 20 },
        { x: 420, y: 20 },
        { x: 420, y: 100, bulge: bulgeOf(400, 30) },
        { x: 20, y: 100 },
      ],
    ];
    const boxes = [
      [20, 90, 420, 130],
      [20, 130, 420, 150],
      [0, 90, 20, 130],
      [220, 100, 420, 130],
    ] as const;
    for (const [x0, y0, x1, y1] of boxes)
      for (const region of [handle, handle.map(reversed), [circle({ x: 220, y: 110 }, 20)]])
        expect(areaInBox(region, { x0, y0, x1, y1 })).toBeCloseTo(
          areaOf(clipConvex(region, asPolygon(rectangle({ x: x0, y: y0 }, x1 - x0, y1 - y0)))),
          6,
        );
  });
  it('a clip that no side comes near holds all, or what an island leaves of it: nothing', () => {
    const ring: Region = [rectangle(at, 200, 100, 20), reversed(rectangle({ x: 20, y: 20 }, 160, 60, 10))];
    const square = (x: number, y: number, w: number) => asPolygon(rectangle({ x, y }, w, w));
    expect(areaOf(clipConvex(ring, square(80, 40, 15)))).toBe(0);
    expect(areaOf(clipConvex(ring, square(80, 2, 15)))).toBeCloseTo(225, 9);
    expect(areaOf(clipConvex(ring, square(80, 10, 20)))).toBeCloseTo(200, 9);
    expect(areaOf(clipConvex(ring, square(-50, -50, 400)))).toBeCloseTo(areaOf(ring), 9);
    expect(areaOf(clipConvex(ring, square(300, 0, 9)))).toBe(0);
  });
  it('sides that run on one another, in part or whole, with it or against it, are counted once', () => {
    const own = rectangle(at, 100, 50, 10);
    const whole: [Region, Region, number][] = [
      // The same outline twice; begun elsewhere; a part of it; two side by side; a circle cut in halves.
      [[own], [own], areaOf([own])],
      [[own], [[...own.slice(3), ...own.slice(0, 3)]], areaOf([own])],
      [[rectangle(at, 100, 50)], [rectangle(at, 60, 50)], 60 * 50],
      [[rectangle(at, 100, 50)], [rectangle({ x: 20, y: 0 }, 30, 20)], 600],
      [[rectangle(at, 100, 50)], [rectangle({ x: 100, y: -10 }, 30, 90)], 0],
      [[circle(at, 20)], [circle(at, 20)], Math.PI * 400],
      [
        [circle(at, 20)],
        [
          [
            { x: -20, y: 0, bulge: 1 },
            { x: 20, y: 0 },
          ],
        ],
        Math.PI * 200,
      ],
      [[slot(at, 90, 20)], [rectangle({ x: -35, y: -10 }, 70, 20)], 70 * 20],
    ];
    for (const [a, b, both] of whole)
      for (const [one, two] of [
        [a, b],
        [b, a],
      ]) {
        expect(areaOf(common(one, two))).toBeCloseTo(both, 6);
        expect(areaOf(subtracted(one, two))).toBeCloseTo(areaOf(one) - both, 6);
        expect(areaOf(joined(one, two))).toBeCloseTo(areaOf(one) + areaOf(two) - both, 6);
      }
  });
  it('outlines that share a side are told apart all the same', () => {
    const [a, b] = [rectangle(at, 100, 50), rectangle({ x: 100, y: 0 }, 40, 50)];
    expect(areaOf(joined([a], [b]))).toBeCloseTo(7000, 3);
    expect(areaOf(common([a], [b]))).toBeCloseTo(0, 3);
    expect(areaOf(subtracted([a], [rectangle(at, 100, 20)]))).toBeCloseTo(3000, 3);
    expect(areaOf(subtracted([a], [a]))).toBeCloseTo(0, 3);
  });
  it('knows an outline that crosses itself', () => {
    const bow = [0, 100, 0, 100].map((x, i) => ({ x, y: [0, 100, 100, 0][i] }));
    expect(selfCrossing(bow)).toEqual({ x: 50, y: 50 });
    expect(selfCrossing(rectangle(at, 60, 40, 8))).toBeUndefined();
    expect(selfCrossing(ellipse(at, 60, 40))).toBeUndefined();
  });
});

describe('offsets', () => {
  it('a rectangle shifted out is rounded, shifted in stays sharp; a radius that is used up makes a sharp corner', () => {
    const r = rectangle(at, 200, 100);
    expect(areaOf(offset(r, 10))).toBeCloseTo(200 * 100 + 600 * 10 + 100 * Math.PI, 6);
    expect(areaOf(offset(r, -15))).toBeCloseTo(170 * 70, 6);
    expect(areaOf(offset(rectangle(at, 200, 100, 10), -15))).toBeCloseTo(170 * 70, 6);
    expect(areaOf(offset(rectangle(at, 200, 100, 30), -15))).toBeCloseTo(170 * 70 - (4 - Math.PI) * 225, 6);
    expect(offset(r, -50)).toEqual([]);
    expect(offset(r, -60)).toEqual([]);
  });
  it('one with a waist comes apart in two', () => {
    const waist: Loop = [
      { x: 0, y: 0 },
      { x: 40, y: 0 },
      { x: 50, y: 15 },
      { x: 60, y: 0 },
      { x: 100, y: 0 },
      { x: 100, y: 40 },
      { x: 60, y: 40 },
      { x: 50, y: 25 },
      { x: 40, y: 40 },
      { x: 0, y: 40 },
    ];
    expect(offset(waist, -4)).toHaveLength(1);
    expect(offset(waist, -6)).toHaveLength(2);
  });
  it('every point of an offset lies at its distance, and none nearer (200 drawn outlines)', () => {
    fc.assert(
      fc.property(shapes, fc.double({ min: -20, max: 20, noNaN: true }), (region, d) => {
        fc.pre(Math.abs(d) > 0.01);
        const [loop] = region;
        for (const each of offset(loop, d))
          for (const side of sidesOf(each))
            for (const p of pointsOn(side)) {
              const away = Math.min(
                ...sidesOf(loop).flatMap(({ a, arc, b }) =>
                  arc
                    ? asPolygon(
                        [
                          { ...a, bulge: Math.tan(arc.sweep / 4) },
                          { x: b.x, y: b.y },
                        ],
                        1e-3,
                      )
                        .slice(0, -1)
                        .map((q) => Math.hypot(p.x - q.x, p.y - q.y))
                    : [0, 0.25, 0.5, 0.75, 1].map((t) =>
                        Math.hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y)),
                      ),
                ),
              );
              expect(away).toBeGreaterThan(Math.abs(d) - 1e-4);
              expect(isInside(region, p)).toBe(d < 0);
            }
        // A small step changes the area by length times step.
        const step = areaOf(offset(loop, 0.01)) - areaOf(region);
        expect(step / 0.01 / lengthOf(loop)).toBeCloseTo(1, 2);
      }),
      { numRuns: 200, seed: 1604 },
    );
  });
});

describe('how far apart', () => {
  const joint: Region = [
    [
      { x: -500, y: 60 },
      { x: 500, y: 60 },
    ],
  ];
  it('the check values of a hole beside a joint, an opening and a corner', () => {
    expect(boundariesApart([circle({ x: 0, y: 73 }, 10)], joint)).toBeCloseTo(3, 9);
    expect(boundariesApart([circle({ x: 0, y: 65 }, 10)], joint)).toBe(0);
    const opening = [rectangle({ x: 260, y: 100 }, 480, 360, 25)];
    expect(clearance(opening, [circle({ x: 800, y: 600 }, 10)])).toBeCloseTo(150.6071, 4);
    const outline = [rectangle(at, 600, 400, 60)];
    expect(wallTo([circle({ x: 20, y: 20 }, 6)], outline)).toBeCloseTo(-2.5685, 4);
    const line: Region = [
      [
        { x: -500, y: 0 },
        { x: 500, y: 0 },
      ],
    ];
    // Centre 25 off the joint: half of 48 along 30 degrees is 12 nearer, less its radius of 6.
    expect(boundariesApart([slot({ x: 0, y: 25 }, 60, 12, Math.PI / 6)], line)).toBeCloseTo(7, 9);
  });
  it('is never below nor much above what sampled points give, for 500 pairs', () => {
    fc.assert(
      fc.property(shapes, shapes, (a, b) => {
        const samples = (region: Region) =>
          region.flatMap((loop) =>
            sidesOf(loop).flatMap((side) =>
              Array.from({ length: 24 }, (_, i) =>
                side.arc
                  ? {
                      x: side.arc.cx + side.arc.r * Math.cos(side.arc.from + (side.arc.sweep * i) / 23),
                      y: side.arc.cy + side.arc.r * Math.sin(side.arc.from + (side.arc.sweep * i) / 23),
                    }
                  : {
                      x: side.a.x + ((side.b.x - side.a.x) * i) / 23,
                      y: side.a.y + ((side.b.y - side.a.y) * i) / 23,
                    },
              ),
            ),
          );
        const [p, q] = [samples(a), samples(b)];
        const brute = Math.min(...p.map((u) => Math.min(...q.map((v) => Math.hypot(u.x - v.x, u.y - v.y)))));
        const own = boundariesApart(a, b);
        expect(own).toBeLessThanOrEqual(brute + 1e-9);
        // Samples stand at most 14 apart: what they miss is bounded by that.
        expect(own).toBeGreaterThan(brute - 14);
      }),
      { numRuns: 500, seed: 1605 },
    );
  });
});
