import { areaOf } from './area';
import { chained, cutEachOther, pointsOn } from './combine';
import { type Corner, type Loop, type Point, type Region, type Side, sidesOf } from './corner';
import { fromBoundary } from './distance';

/** The direction a side runs in at its begin and its end. */
function directions({ a, b, arc }: Side): [Point, Point] {
  if (!arc) {
    const long = Math.hypot(b.x - a.x, b.y - a.y);
    const u = { x: (b.x - a.x) / long, y: (b.y - a.y) / long };
    return [u, u];
  }
  const k = Math.sign(arc.sweep);
  return [arc.from, arc.from + arc.sweep].map((angle) => ({
    x: -k * Math.sin(angle),
    y: k * Math.cos(angle),
  })) as [Point, Point];
}

/** A side shifted to its right; undefined where its radius is used up. */
function shifted(side: Side, d: number): Side | undefined {
  const [u, v] = directions(side);
  const a = { x: side.a.x + d * u.y, y: side.a.y - d * u.x };
  const b = { x: side.b.x + d * v.y, y: side.b.y - d * v.x };
  const { arc, bulge } = side;
  if (!arc) return { a, b, bulge: 0 };
  const r = arc.r + d * Math.sign(arc.sweep);
  return r > 1e-9 ? { a, b, bulge, arc: { ...arc, r } } : undefined;
}

/** The turn about a corner that the cutter makes where a shifted outline opens. */
function about({ x, y }: Point, from: Point, to: Point, d: number): Side | undefined {
  const r = Math.abs(d);
  const start = Math.atan2(from.y - y, from.x - x);
  let sweep = Math.atan2(to.y - y, to.x - x) - start;
  if (d > 0 && sweep < 0) sweep += 2 * Math.PI;
  if (d < 0 && sweep > 0) sweep -= 2 * Math.PI;
  if (Math.abs(sweep) < 1e-9) return undefined;
  return { a: from, b: to, bulge: Math.tan(sweep / 4), arc: { cx: x, cy: y, r, from: start, sweep } };
}

/**
 * The offset of a convex outline, where no side is used up: sides shifted, straight ones cut off where they meet, or joined by the turn
 * about their corner. Undefined where the general way must look.
 */
function convexOffset(sides: readonly Side[], by: number): Corner[] | undefined {
  const out: Corner[] = [];
  const moved = sides.map((side) => (side.bulge < 0 ? undefined : shifted(side, by)));
  for (const [i, own] of moved.entries()) {
    const next = moved[(i + 1) % moved.length];
    if (!own || !next) return undefined;
    const [side, after] = [sides[i], sides[(i + 1) % sides.length]];
    const [, u] = directions(side);
    const [v] = directions(after);
    const cross = u.x * v.y - u.y * v.x;
    if (cross < -1e-9 || u.x * v.x + u.y * v.y < -1 + 1e-9) return undefined;
    if (Math.hypot(own.b.x - next.a.x, own.b.y - next.a.y) < 1e-9) continue;
    if (by > 0) continue;
    // Inwards at a corner: only straight sides are cut off here.
    if (own.arc || next.arc || cross < 1e-9) return undefined;
    const t = ((next.a.x - own.a.x) * v.y - (next.a.y - own.a.y) * v.x) / cross;
    const at = { x: own.a.x + t * u.x, y: own.a.y + t * u.y };
    own.b = at;
    next.a = at;
  }
  for (const [i, own] of moved.entries()) {
    const next = moved[(i + 1) % moved.length];
    if (!own || !next) return undefined;
    const [u] = directions(sides[i]);
    // A straight side that runs backwards now is used up.
    if (!own.arc && (own.b.x - own.a.x) * u.x + (own.b.y - own.a.y) * u.y <= 1e-9) return undefined;
    out.push({ ...own.a, bulge: own.bulge });
    if (by > 0 && Math.hypot(own.b.x - next.a.x, own.b.y - next.a.y) >= 1e-9) {
      const turn = about(sides[i].b, own.b, next.a, by);
      if (turn) out.push({ ...own.b, bulge: turn.bulge });
    }
  }
  return out;
}

/**
 * An outline shifted outwards by d mm (inwards where d < 0): where it opens at a corner it is rounded, as a cutter that
 * follows it leaves it; where it closes, sides meet. Parts that are used up fall away, so that it may come apart in several
 * outlines, or in none.
 */
export function offset(loop: Loop, d: number): Loop[] {
  if (Math.abs(d) < 1e-12) return [loop];
  const sides = sidesOf(loop).filter(({ a, b, arc }) => arc || Math.hypot(a.x - b.x, a.y - b.y) > 1e-12);
  const sign = areaOf([loop]) < 0 ? -1 : 1;
  const by = d * sign;
  const quick = sign > 0 ? convexOffset(sides, by) : undefined;
  if (quick) return [tidy(quick)];
  const raw: Side[] = [];
  sides.forEach((side, i) => {
    const own = shifted(side, by);
    if (own) raw.push(own);
    const next = sides[(i + 1) % sides.length];
    const [, u] = directions(side);
    const [v] = directions(next);
    const cross = u.x * v.y - u.y * v.x;
    const from = { x: side.b.x + by * u.y, y: side.b.y - by * u.x };
    const to = { x: next.a.x + by * v.y, y: next.a.y - by * v.x };
    if (Math.hypot(from.x - to.x, from.y - to.y) < 1e-9) return;
    const opens = cross * by > 0;
    const turn = opens || Math.abs(cross) < 1e-12 ? about(side.b, from, to, by) : undefined;
    if (turn) raw.push(turn);
    // Where it closes, a side through the old corner keeps what lies between connected; it is used up and falls away.
    else raw.push({ a: from, b: side.b, bulge: 0 }, { a: side.b, b: to, bulge: 0 });
  });
  const whole: Region = [loop];
  const away = Math.abs(d) - 1e-6;
  const kept = cutEachOther(raw).filter((part) =>
    pointsOn(part).every((p) => fromBoundary(p, whole) >= away),
  );
  const loops = chained(withoutDoubles(kept)) ?? [];
  return loops.filter((each) => areaOf([each]) * sign > 1e-9).map(tidy);
}

/** Of pieces that run on one another only one. */
function withoutDoubles(pieces: readonly Side[]): Side[] {
  const near = (p: Point, q: Point) => Math.hypot(p.x - q.x, p.y - q.y) < 1e-7;
  return pieces.filter(
    (one, i) =>
      !pieces
        .slice(0, i)
        .some(
          (other) => near(one.a, other.a) && near(one.b, other.b) && Math.abs(one.bulge - other.bulge) < 1e-7,
        ),
  );
}

const tidy = (loop: Loop): Loop =>
  loop.map(({ x, y, bulge }): Corner => (Math.abs(bulge ?? 0) > 1e-12 ? { x, y, bulge } : { x, y }));
