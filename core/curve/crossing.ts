import { alongArc, type Arc, type Loop, onCircle, type Point, type Side, sidesOf } from './corner';

/** Where a side crosses another: how far along each, from 0 to 1, and the point. */
export interface Crossing {
  t: number;
  s: number;
  at: Point;
}

const along = ({ a, b, arc }: Side, p: Point): number => {
  if (arc) {
    const t = alongArc(arc, Math.atan2(p.y - arc.cy, p.x - arc.cx));
    // An end that falls a hair before the begin is the begin.
    const turn = (2 * Math.PI) / Math.abs(arc.sweep);
    return t > 1 && turn - t < 1e-9 ? 0 : t;
  }
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  return ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy);
};

function lineLine(s: Side, t: Side): Point[] {
  const [ux, uy] = [s.b.x - s.a.x, s.b.y - s.a.y];
  const [vx, vy] = [t.b.x - t.a.x, t.b.y - t.a.y];
  const det = ux * vy - uy * vx;
  if (Math.abs(det) < 1e-12 * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return [];
  const k = ((t.a.x - s.a.x) * vy - (t.a.y - s.a.y) * vx) / det;
  return [{ x: s.a.x + k * ux, y: s.a.y + k * uy }];
}

/** Points of the line through a straight side that lie on a circle. */
function lineCircle({ a, b }: Side, { cx, cy, r }: Arc): Point[] {
  const long = Math.hypot(b.x - a.x, b.y - a.y);
  const [ux, uy] = [(b.x - a.x) / long, (b.y - a.y) / long];
  const foot = (cx - a.x) * ux + (cy - a.y) * uy;
  const off = (cx - a.x) * uy - (cy - a.y) * ux;
  if (Math.abs(off) > r) return [];
  const half = Math.sqrt(Math.max(0, r * r - off * off));
  return [foot - half, foot + half].map((k) => ({ x: a.x + k * ux, y: a.y + k * uy }));
}

function circleCircle(p: Arc, q: Arc): Point[] {
  const [dx, dy] = [q.cx - p.cx, q.cy - p.cy];
  const d = Math.hypot(dx, dy);
  if (d < 1e-12 || d > p.r + q.r || d < Math.abs(p.r - q.r)) return [];
  const k = (d * d + p.r * p.r - q.r * q.r) / (2 * d);
  const h = Math.sqrt(Math.max(0, p.r * p.r - k * k));
  const [mx, my] = [p.cx + (k * dx) / d, p.cy + (k * dy) / d];
  return [
    { x: mx - (h * dy) / d, y: my + (h * dx) / d },
    { x: mx + (h * dy) / d, y: my - (h * dx) / d },
  ];
}

/** Where two sides cross or touch, ends included; none where they run on one another. */
export function crossingsOf(s: Side, t: Side): Crossing[] {
  const points = s.arc
    ? t.arc
      ? circleCircle(s.arc, t.arc)
      : lineCircle(t, s.arc)
    : t.arc
      ? lineCircle(s, t.arc)
      : lineLine(s, t);
  return points
    .map((at) => ({ t: along(s, at), s: along(t, at), at }))
    .filter((c) => c.t >= -1e-12 && c.t <= 1 + 1e-12 && c.s >= -1e-12 && c.s <= 1 + 1e-12);
}

/** Whether two sides cross or touch. */
export const sidesCross = (s: Side, t: Side): boolean => crossingsOf(s, t).length > 0;

/** Where an outline crosses itself; undefined where it does not. Sides that only meet at their corner do not cross. */
export function selfCrossing(loop: Loop): Point | undefined {
  const sides = sidesOf(loop);
  for (let i = 0; i < sides.length; i++)
    for (let j = i + 1; j < sides.length; j++) {
      const next = j === i + 1 || (i === 0 && j === sides.length - 1);
      for (const { at, t, s } of crossingsOf(sides[i], sides[j])) {
        const atEnd = (k: number) => k < 1e-7 || k > 1 - 1e-7;
        if (next && atEnd(t) && atEnd(s)) continue;
        return at;
      }
    }
  return undefined;
}

/** A point in the middle of a side. */
export const midOf = ({ a, b, arc }: Side): Point =>
  arc ? onCircle(arc, arc.from + arc.sweep / 2) : { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
