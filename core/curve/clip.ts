import { alongArc, type Corner, type Loop, onCircle, type Region, sidesOf, type Side } from './corner';

/** Where along a side, from 0 to 1, it crosses the line a x + b y = d; in order. */
function crossings({ a: p, b: q, arc }: Side, a: number, b: number, d: number): number[] {
  if (!arc) {
    const [u, v] = [a * p.x + b * p.y - d, a * q.x + b * q.y - d];
    return u * v < 0 ? [u / (u - v)] : [];
  }
  const away = (d - a * arc.cx - b * arc.cy) / arc.r;
  if (Math.abs(away) >= 1) return [];
  const axis = Math.atan2(b, a);
  const half = Math.acos(away);
  return [axis - half, axis + half]
    .map((angle) => alongArc(arc, angle))
    .filter((t) => t > 1e-12 && t < 1 - 1e-12)
    .sort((t, s) => t - s);
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

const ending = (side: Side, to: number): Corner =>
  to === 1 ? { x: side.b.x, y: side.b.y } : { ...middleOf(side, to) };

const middleOf = ({ a, b, arc }: Side, t: number) =>
  arc ? onCircle(arc, arc.from + t * arc.sweep) : { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) };

function clipLoop(loop: Loop, a: number, b: number, d: number): Loop {
  const parts = sidesOf(loop).flatMap((side) => {
    const cuts = [0, ...crossings(side, a, b, d), 1];
    return cuts.slice(1).map((to, i) => {
      const mid = middleOf(side, (cuts[i] + to) / 2);
      return { side, from: cuts[i], to, kept: a * mid.x + b * mid.y <= d };
    });
  });
  if (parts.every(({ kept }) => kept)) return loop;
  return parts.flatMap(({ side, from, to, kept }, i) => {
    if (!kept) return [];
    const own = part(side, from, to);
    // Where it leaves, a straight side leads to where it comes in again.
    return parts[(i + 1) % parts.length].kept ? [own] : [own, ending(side, to)];
  });
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

/** What of a region lies in a convex polygon, its corners counter-clockwise. */
export function clipConvex(region: Region, polygon: readonly { x: number; y: number }[]): Region {
  let out = region;
  for (let i = 0; i < polygon.length && out.length > 0; i++) {
    const p = polygon[i];
    const q = polygon[i + 1 === polygon.length ? 0 : i + 1];
    const long = Math.hypot(q.x - p.x, q.y - p.y);
    if (long < 1e-12) continue;
    const [a, b] = [(q.y - p.y) / long, (p.x - q.x) / long];
    out = clipHalf(out, a, b, a * p.x + b * p.y);
  }
  return out;
}
