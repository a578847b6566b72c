import { upwards } from '../units';
import {
  alongArc,
  type Arc,
  arcOf,
  type Box2,
  boxOf,
  type Corner,
  type Loop,
  onCircle,
  type Point,
  type Region,
  type Side,
  sideBoxes,
  sidesOf,
  STRAIGHT,
  touch,
} from './corner';
import { windingOf } from './inside';

/** Where along a bent side, from 0 to 1, it crosses the line a x + b y = d; in order. */
function crossings({ arc }: Side, a: number, b: number, d: number): number[] {
  if (!arc) return [];
  const away = (d - a * arc.cx - b * arc.cy) / arc.r;
  if (Math.abs(away) >= 1) return [];
  const axis = Math.atan2(b, a);
  const half = Math.acos(away);
  return [axis - half, axis + half]
    .map((angle) => alongArc(arc, angle))
    .filter((t) => t > 1e-12 && t < 1 - 1e-12)
    .sort(upwards);
}

/** The part of a side from one place to another, as the corner it begins with. */
function part(side: Side, from: number, to: number): Corner {
  const { a, b, arc, bulge } = side;
  if (!arc)
    return from === 0 ? { x: a.x, y: a.y } : { x: a.x + from * (b.x - a.x), y: a.y + from * (b.y - a.y) };
  const at = from === 0 ? a : onCircle(arc, arc.from + from * arc.sweep);
  return {
    x: at.x,
    y: at.y,
    bulge: from === 0 && to === 1 ? bulge : Math.tan(((to - from) * arc.sweep) / 4),
  };
}

const middleOf = ({ a, b, arc }: Side, t: number) =>
  arc ? onCircle(arc, arc.from + t * arc.sweep) : { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) };

/** A piece of a side that lies on one side of a line: the corner it begins with, where it ends, and whether it stays. */
interface Piece {
  begin: Corner;
  end: Point;
  kept: boolean;
}

/** The pieces of a bent side. */
function bentPieces(side: Side, a: number, b: number, d: number): Piece[] {
  const cuts = [0, ...crossings(side, a, b, d), 1];
  return cuts.slice(1).map((to, i) => {
    const mid = middleOf(side, (cuts[i] + to) / 2);
    return {
      begin: part(side, cuts[i], to),
      end: to === 1 ? side.b : middleOf(side, to),
      kept: a * mid.x + b * mid.y <= d,
    };
  });
}

function clipLoop(loop: Loop, a: number, b: number, d: number): Loop {
  const pieces: Piece[] = [];
  let [whole, none] = [true, true];
  const put = (begin: Corner, end: Point, kept: boolean) => {
    pieces.push({ begin, end, kept });
    if (kept) none = false;
    else whole = false;
  };
  for (let i = 0; i < loop.length; i++) {
    const p = loop[i];
    const q = loop[i + 1 === loop.length ? 0 : i + 1];
    // How far outside the line both ends lie, and how far a bent side may reach past them.
    const [u, v] = [a * p.x + b * p.y - d, a * q.x + b * q.y - d];
    const bulge = Math.abs(p.bulge ?? 0);
    if (bulge > 1e-12) {
      const rise = bulge > 1 ? Infinity : (bulge * Math.hypot(q.x - p.x, q.y - p.y)) / 2;
      if (Math.max(u, v) + rise <= 0) put(p, q, true);
      else if (Math.min(u, v) - rise >= 0) put(p, q, false);
      else {
        const [side] = sidesOf([p, q]);
        for (const { begin, end, kept } of bentPieces(side, a, b, d)) put(begin, end, kept);
      }
    } else if (u * v < 0) {
      const t = u / (u - v);
      const at = { x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y) };
      put(p, at, u < 0);
      put(at, q, v < 0);
    } else put(p, q, u + v <= 0);
  }
  if (whole) return loop;
  if (none) return [];
  const out: Corner[] = [];
  pieces.forEach(({ begin, end, kept }, i) => {
    if (!kept) return;
    out.push(begin);
    // Where it leaves, a straight side leads to where it comes in again.
    if (!pieces[i + 1 === pieces.length ? 0 : i + 1].kept) out.push({ x: end.x, y: end.y });
  });
  return out;
}

/**
 * What of a region lies where a x + b y <= d; (a, b) of length one. Parts that come apart stay joined along the line by sides
 * that cancel out: areas and moments are right, and cutting it again is.
 */
export function clipHalf(region: Region, a: number, b: number, d: number): Region {
  const out: Loop[] = [];
  for (const loop of region) {
    const kept = clipLoop(loop, a, b, d);
    if (kept.length >= 2) out.push(kept);
  }
  return out;
}

/** Sides that rise or run less than this do not, mm. */
const LEVEL = 1e-12;

/** What lies under a straight stretch so wide, between two heights: its own go from `a` to `b`. */
function between(wide: number, a: number, b: number, { y0, y1 }: Box2): number {
  const low = Math.min(a, b);
  const high = Math.max(a, b);
  if (high <= y0) return 0;
  if (low >= y1) return wide * (y1 - y0);
  const rise = high - low;
  if (rise < LEVEL) return wide * Math.max(0, low - y0);
  const [from, to] = [Math.max(low, y0), Math.min(high, y1)];
  return (wide / rise) * ((to - from) * ((from + to) / 2 - y0) + (high - to) * (y1 - y0));
}

/** What lies under an arc within a box, above its foot, as its path runs to the left: in stretches between the lines of the box (exact). */
function underArc(arc: Arc, { x0, x1, y0, y1 }: Box2): number {
  const { cx, cy, r, from, sweep } = arc;
  const stops = [0, 1];
  const put = (angle: number) => {
    const t = alongArc(arc, angle);
    if (t > 0 && t < 1) stops.push(t);
  };
  for (const y of [y0, y1]) {
    const s = (y - cy) / r;
    if (Math.abs(s) >= 1) continue;
    const angle = Math.asin(s);
    put(angle);
    put(Math.PI - angle);
  }
  for (const x of [x0, x1]) {
    const c = (x - cx) / r;
    if (Math.abs(c) >= 1) continue;
    const angle = Math.acos(c);
    put(angle);
    put(-angle);
  }
  stops.sort(upwards);
  let area = 0;
  for (let i = 0; i + 1 < stops.length; i++) {
    const [a, b] = [from + stops[i] * sweep, from + stops[i + 1] * sweep];
    // Off its middle: an arc that touches a line of the box does so there.
    const on = a + 0.382 * (b - a);
    const x = cx + r * Math.cos(on);
    const y = cy + r * Math.sin(on);
    if (x <= x0 || x >= x1 || y <= y0) continue;
    const wide = r * (Math.cos(b) - Math.cos(a));
    // The integral of y dx along it: cy dx - r2 (t / 2 - sin 2t / 4).
    area -=
      y >= y1
        ? (y1 - y0) * wide
        : (cy - y0) * wide - r * r * ((b - a) / 2 - (Math.sin(2 * b) - Math.sin(2 * a)) / 4);
  }
  return area;
}

/** Area of a region within a box, exact for lines and arcs: what lies under each side above the box’s foot, cut to it. mm2. */
export function areaInBox(region: Region, box: Box2): number {
  let area = 0;
  for (const loop of region) {
    const boxes = sideBoxes(loop);
    for (let i = 0; i < loop.length; i++) {
      const p = loop[i];
      const q = loop[i + 1 === loop.length ? 0 : i + 1];
      // An arc that does not come near the box counts as its chord, which does not either.
      if (Math.abs(p.bulge ?? 0) > STRAIGHT && touch(boxes[i], box)) {
        area += underArc(arcOf(p, q, p.bulge ?? 0), box);
        continue;
      }
      const low = Math.max(Math.min(p.x, q.x), box.x0);
      const high = Math.min(Math.max(p.x, q.x), box.x1);
      if (high - low < LEVEL) continue;
      const slope = (q.y - p.y) / (q.x - p.x);
      const own = between(high - low, p.y + slope * (low - p.x), p.y + slope * (high - p.x), box);
      // Counter-clockwise the upper side runs backwards.
      area += q.x < p.x ? own : -own;
    }
  }
  return area;
}

/** The half-plane a x + b y <= d. */
interface Half {
  a: number;
  b: number;
  d: number;
}

/** The half-planes of a convex polygon. */
function halves(polygon: readonly Point[]): Half[] {
  const out: Half[] = [];
  for (let i = 0; i < polygon.length; i++) {
    const p = polygon[i];
    const q = polygon[i + 1 === polygon.length ? 0 : i + 1];
    const long = Math.hypot(q.x - p.x, q.y - p.y);
    if (long < 1e-12) continue;
    const [a, b] = [(q.y - p.y) / long, (p.x - q.x) / long];
    out.push({ a, b, d: a * p.x + b * p.y });
  }
  return out;
}

/**
 * A loop with fewer sides that the half-planes cut to the same: sides in a row that all lie outside one of them become one straight
 * side, which lies outside it too.
 */
function shortened(loop: Loop, boxes: readonly Box2[], planes: readonly Half[]): Loop {
  const outside = boxes.map(({ x0, y0, x1, y1 }) =>
    planes.reduce(
      (bits, { a, b, d }, k) => (a * (a > 0 ? x0 : x1) + b * (b > 0 ? y0 : y1) >= d ? bits | (1 << k) : bits),
      0,
    ),
  );
  const out: Corner[] = [];
  for (let i = 0; i < loop.length; ) {
    let bits = outside[i];
    if (bits === 0) {
      out.push(loop[i]);
      i += 1;
      continue;
    }
    out.push({ x: loop[i].x, y: loop[i].y });
    for (i += 1; i < loop.length && (bits & outside[i]) !== 0; i++) bits &= outside[i];
  }
  return out;
}

/** What of a region lies in a convex polygon, its corners counter-clockwise and no more than thirty. */
export function clipConvex(region: Region, polygon: readonly Point[]): Region {
  const box = boxOf([polygon]);
  const planes = halves(polygon);
  const out: Loop[] = [];
  for (const loop of region) {
    const boxes = sideBoxes(loop);
    if (!boxes.some((each) => touch(each, box))) {
      // The outline passes it by: it holds all of the polygon, or nothing.
      const turns = windingOf(sidesOf(loop), polygon[0]);
      if (turns !== 0) out.push(turns > 0 ? polygon : polygon.toReversed());
      continue;
    }
    let left: Region = [planes.length <= 30 ? shortened(loop, boxes, planes) : loop];
    for (const { a, b, d } of planes) {
      left = clipHalf(left, a, b, d);
      if (left.length === 0) break;
    }
    out.push(...left);
  }
  return out;
}
