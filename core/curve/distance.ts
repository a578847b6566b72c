import { asShare } from '../units';
import { alongArc, type Arc, onCircle, type Point, type Region, type Side, sidesOf } from './corner';
import { sidesCross } from './crossing';
import { isInside } from './inside';

const isOn = (arc: Arc, angle: number): boolean => alongArc(arc, angle) <= 1;
const apart = (p: Point, q: Point): number => Math.hypot(p.x - q.x, p.y - q.y);

/** From a point to the nearest one of a side, mm. */
export function fromSide(p: Point, { a, b, arc }: Side): number {
  if (!arc) {
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const long = dx * dx + dy * dy;
    const t = long > 0 ? asShare(((p.x - a.x) * dx + (p.y - a.y) * dy) / long) : 0;
    return apart(p, { x: a.x + t * dx, y: a.y + t * dy });
  }
  const ends = Math.min(apart(p, a), apart(p, b));
  const away = Math.hypot(p.x - arc.cx, p.y - arc.cy);
  if (away < 1e-12) return arc.r;
  return isOn(arc, Math.atan2(p.y - arc.cy, p.x - arc.cx)) ? Math.min(ends, Math.abs(away - arc.r)) : ends;
}

/** From a point to the boundary of a region, mm. */
export const fromBoundary = (p: Point, region: Region): number =>
  Math.min(...region.flatMap((loop) => sidesOf(loop).map((side) => fromSide(p, side))));

/** The angles of a circle that look to and from a point. */
const facing = ({ cx, cy }: Arc, p: Point): number[] => {
  const to = Math.atan2(p.y - cy, p.x - cx);
  return [to, to + Math.PI];
};

/** Points of an arc that may be nearest to a side, or farthest from it: on the line of centres, or square to a straight one. */
function candidates(arc: Arc, other: Side): Point[] {
  const angles = other.arc
    ? facing(arc, { x: other.arc.cx, y: other.arc.cy })
    : [1, -1].map((k) => Math.atan2(k * (other.b.x - other.a.x), -k * (other.b.y - other.a.y)));
  return angles.filter((angle) => isOn(arc, angle)).map((angle) => onCircle(arc, angle));
}

/**
 * The least distance of two sides, mm: 0 where they cross; else it lies at an end, at a centre’s foot, or on the line of
 * centres (geometry).
 */
export function sidesApart(s: Side, t: Side): number {
  if (sidesCross(s, t)) return 0;
  const points: [Point, Side][] = [
    [s.a, t],
    [s.b, t],
    [t.a, s],
    [t.b, s],
    ...(s.arc ? candidates(s.arc, t).map((p): [Point, Side] => [p, t]) : []),
    ...(t.arc ? candidates(t.arc, s).map((p): [Point, Side] => [p, s]) : []),
  ];
  return Math.min(...points.map(([p, side]) => fromSide(p, side)));
}

const allSides = (region: Region): Side[] => region.flatMap(sidesOf);

/** The least distance of the boundaries of two regions, mm; 0 where they cross. */
export function boundariesApart(a: Region, b: Region): number {
  const others = allSides(b);
  let least = Infinity;
  for (const s of allSides(a))
    for (const t of others) {
      const own = sidesApart(s, t);
      if (own < least) least = own;
      if (least === 0) return 0;
    }
  return least;
}

/** How deep the boundary of one region reaches into another, or out of it, mm; 0 where it does not. */
function reachInto(a: Region, b: Region, inside: boolean): number {
  const others = allSides(b);
  const points = allSides(a).flatMap((side) => [
    side.a,
    ...(side.arc ? others.flatMap((other) => candidates(side.arc as Arc, other)) : []),
    ...(side.arc && !inside
      ? others.flatMap((other) =>
          facing(side.arc as Arc, other.a)
            .filter((angle) => isOn(side.arc as Arc, angle))
            .map((angle) => onCircle(side.arc as Arc, angle)),
        )
      : []),
  ]);
  return points
    .filter((p) => isInside(b, p) === inside)
    .reduce((most, p) => Math.max(most, fromBoundary(p, b)), 0);
}

/**
 * How far two regions are apart, mm; where they overlap, how deep one reaches into the other, with a minus: for circles and
 * straight sides the least way that would part them.
 */
export function clearance(a: Region, b: Region): number {
  const free = boundariesApart(a, b);
  const within = (p: Region, q: Region) => p.length > 0 && isInside(q, p[0][0]);
  if (free > 0 && !within(a, b) && !within(b, a)) return free;
  const deep = Math.max(reachInto(a, b, true), reachInto(b, a, true));
  return deep > 0 ? -deep : 0;
}

/** The wall that is left between a region and the outline around it, mm; with a minus, how far it breaks out. */
export function wallTo(region: Region, outline: Region): number {
  const out = reachInto(region, outline, false);
  return out > 1e-9 ? -out : boundariesApart(region, outline);
}
