/** A corner of an outline, mm, and how the side to the next one bends: bulge = tan(sweep / 4), + counter-clockwise. */
export interface Corner {
  readonly x: number;
  readonly y: number;
  readonly bulge?: number;
}

/** A closed outline of lines and arcs: the last corner leads back to the first. */
export type Loop = readonly Corner[];

/** What outlines enclose: outer ones counter-clockwise, islands clockwise. */
export type Region = readonly Loop[];

/** A point in the plane, mm. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** The circle that a bent side lies on: its middle, radius, the angle it begins at and how far it turns, radians. */
export interface Arc {
  cx: number;
  cy: number;
  r: number;
  from: number;
  sweep: number;
}

/** One side of an outline; straight where it has no arc. */
export interface Side {
  a: Point;
  b: Point;
  bulge: number;
  arc?: Arc;
}

/** Bends flatter than this are straight: over a metre they rise by less than a thousandth of a micrometre. */
export const STRAIGHT = 1e-12;

/** The circle of a side that bends. Centre: from the middle of the chord, to its left, by half the chord times cot(sweep / 2). */
export function arcOf(a: Point, b: Point, bulge: number): Arc {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const k = (1 - bulge * bulge) / (4 * bulge);
  const cx = (a.x + b.x) / 2 - dy * k;
  const cy = (a.y + b.y) / 2 + dx * k;
  const r = (Math.hypot(dx, dy) * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
  return { cx, cy, r, from: Math.atan2(a.y - cy, a.x - cx), sweep: 4 * Math.atan(bulge) };
}

/** The sides of an outline, in order. */
export function sidesOf(loop: Loop): Side[] {
  return loop.map((a, i) => {
    const b = loop[i + 1 === loop.length ? 0 : i + 1];
    const bulge = a.bulge ?? 0;
    return Math.abs(bulge) > STRAIGHT ? { a, b, bulge, arc: arcOf(a, b, bulge) } : { a, b, bulge: 0 };
  });
}

/** A point of a circle at an angle. */
export const onCircle = ({ cx, cy, r }: Arc, angle: number): Point => ({
  x: cx + r * Math.cos(angle),
  y: cy + r * Math.sin(angle),
});

/** How far along an arc an angle lies, 0 at its begin to 1 at its end; above 1 where it is not on it. */
export function alongArc({ from, sweep }: Arc, angle: number): number {
  const turn = 2 * Math.PI;
  const past = sweep > 0 ? angle - from : from - angle;
  return (((past % turn) + turn) % turn) / Math.abs(sweep);
}

/** Least and greatest coordinates of an outline, mm. */
export interface Box2 {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** The box around a region; reversed and infinite for an empty one. */
export function boxOf(region: Region): Box2 {
  const box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  const take = ({ x, y }: Point) => {
    box.x0 = Math.min(box.x0, x);
    box.x1 = Math.max(box.x1, x);
    box.y0 = Math.min(box.y0, y);
    box.y1 = Math.max(box.y1, y);
  };
  for (const loop of region)
    for (const { a, arc } of sidesOf(loop)) {
      take(a);
      if (!arc) continue;
      for (let quarter = 0; quarter < 4; quarter++) {
        const angle = (quarter * Math.PI) / 2;
        if (alongArc(arc, angle) < 1) take(onCircle(arc, angle));
      }
    }
  return box;
}

/** An outline moved, and turned by an angle in radians before. */
export function placed(region: Region, by: Point, turn = 0): Region {
  const [c, s] = turn === 0 ? [1, 0] : [Math.cos(turn), Math.sin(turn)];
  return region.map((loop) =>
    loop.map(({ x, y, ...bend }) => ({ x: by.x + c * x - s * y, y: by.y + s * x + c * y, ...bend })),
  );
}

/** The same outline walked the other way round. */
export const reversed = (loop: Loop): Loop =>
  loop.map((_, i) => {
    const { x, y } = loop[(loop.length - i) % loop.length];
    const bulge = loop[loop.length - 1 - i].bulge ?? 0;
    return bulge === 0 ? { x, y } : { x, y, bulge: -bulge };
  });

/** A region seen in a mirror that stands on the line x = 0; walked so that outer outlines stay counter-clockwise. */
export const mirroredX = (region: Region): Region =>
  region.map((loop) => reversed(loop.map(({ x, y, bulge }) => ({ x: -x, y, bulge: -(bulge ?? 0) }))));
/** The same for a mirror on y = 0. */
export const mirroredY = (region: Region): Region =>
  region.map((loop) => reversed(loop.map(({ x, y, bulge }) => ({ x, y: -y, bulge: -(bulge ?? 0) }))));

/** An outline as straight sides: each arc in so many chords as keep within a deviation, mm. */
export function asPolygon(loop: Loop, withinMm = 0.02): Point[] {
  return sidesOf(loop).flatMap(({ a, arc }) => {
    if (!arc) return [{ x: a.x, y: a.y }];
    const step = 2 * Math.acos(Math.max(0, 1 - withinMm / arc.r));
    const n = Math.max(2, Math.ceil(Math.abs(arc.sweep) / Math.max(step, 1e-4)));
    return Array.from({ length: n }, (_, i) => onCircle(arc, arc.from + (arc.sweep * i) / n));
  });
}

/** A box around a side: of an arc, around what its chord and rise span. */
export function roundBox({ a, b, bulge }: Side): Box2 {
  // An arc never leaves its chord by more than its rise; beyond a half circle it bulges sideways by as much.
  const rise = (Math.abs(bulge) * Math.hypot(b.x - a.x, b.y - a.y)) / 2 + 1e-7;
  const more = Math.abs(bulge) > 1 ? 2 * rise : rise;
  return {
    x0: Math.min(a.x, b.x) - more,
    x1: Math.max(a.x, b.x) + more,
    y0: Math.min(a.y, b.y) - more,
    y1: Math.max(a.y, b.y) + more,
  };
}

/** Whether two boxes touch. */
export const touch = (p: Box2, q: Box2): boolean =>
  p.x0 <= q.x1 && q.x0 <= p.x1 && p.y0 <= q.y1 && q.y0 <= p.y1;

const boxesOf = new WeakMap<Loop, Box2[]>();
/** The boxes around a loop’s sides, known once told. */
export function sideBoxes(loop: Loop): Box2[] {
  let boxes = boxesOf.get(loop);
  if (!boxes) {
    boxes = sidesOf(loop).map(roundBox);
    boxesOf.set(loop, boxes);
  }
  return boxes;
}
