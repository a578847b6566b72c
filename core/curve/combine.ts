import { rising } from '../units';
import { areaOf } from './area';
import {
  alongArc,
  type Box2,
  boxOf,
  type Corner,
  type Loop,
  onCircle,
  type Point,
  type Region,
  roundBox,
  type Side,
  sideBoxes,
  sidesOf,
  touch,
} from './corner';
import { crossingsOf, midOf } from './crossing';
import { isInside } from './inside';

/** Ends nearer than this are one point, mm. */
const ONE = 1e-7;
/** Outlines smaller than this are crumbs of floating point, mm2. */
const CRUMB = 1e-5;
/** Shifts tried in turn where sides run on one another, mm: the last ones still far below what a saw or a rule can tell. */
const SHIFTS: readonly Point[] = [0, 1, 10, 100].flatMap((far) =>
  (far === 0
    ? [[0, 0]]
    : [
        [3.1, 1.7],
        [-1.9, 2.9],
        [2.3, -3.7],
        [-4.1, -1.3],
      ]
  ).map(([x, y]) => ({ x: x * far * 1e-7, y: y * far * 1e-7 })),
);

/** A piece of a side between two points. */
function piece(side: Side, from: { t: number; at: Point }, to: { t: number; at: Point }): Side {
  const { arc } = side;
  if (!arc) return { a: from.at, b: to.at, bulge: 0 };
  const sweep = arc.sweep * (to.t - from.t);
  return {
    a: from.at,
    b: to.at,
    bulge: Math.tan(sweep / 4),
    arc: { ...arc, from: arc.from + arc.sweep * from.t, sweep },
  };
}

/** How far along a side a point lies that is on it, 0 to 1; undefined for one beside it. */
function placeOn({ a, b, arc }: Side, p: Point): number | undefined {
  if (arc) {
    if (Math.abs(Math.hypot(p.x - arc.cx, p.y - arc.cy) - arc.r) > ONE) return undefined;
    const t = alongArc(arc, Math.atan2(p.y - arc.cy, p.x - arc.cx));
    return t < 1 ? t : undefined;
  }
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const long = Math.hypot(dx, dy);
  if (long < ONE || Math.abs(dx * (p.y - a.y) - dy * (p.x - a.x)) / long > ONE) return undefined;
  const t = ((p.x - a.x) * dx + (p.y - a.y) * dy) / (long * long);
  return t > 0 && t < 1 ? t : undefined;
}

const near = (p: Point, q: Point): boolean => Math.abs(p.x - q.x) < 3 * ONE && Math.abs(p.y - q.y) < 3 * ONE;

/** How a piece runs on one of others: the same way, or against it; undefined where on none. */
function runsOn(piece: Side, others: readonly Side[]): 'with' | 'against' | undefined {
  const middle = midOf(piece);
  for (const other of others) {
    if (!near(midOf(other), middle)) continue;
    if (near(piece.a, other.a) && near(piece.b, other.b)) return 'with';
    if (near(piece.a, other.b) && near(piece.b, other.a)) return 'against';
  }
  return undefined;
}

/** Sides cut where others cross them: both get the very same points. */
function cutAt(sides: readonly Side[], others: readonly Side[], own: boolean): [Side[][], Side[][]] {
  const marks = [sides, others].map((list) => list.map(() => [] as { t: number; at: Point }[]));
  const boxes = others.map(roundBox);
  sides.forEach((s, i) => {
    const box = roundBox(s);
    others.forEach((o, j) => {
      if ((own && j <= i) || !touch(box, boxes[j])) return;
      for (const { t, s: u, at } of crossingsOf(s, o)) {
        const end = [s.a, s.b, o.a, o.b].find((p) => Math.hypot(p.x - at.x, p.y - at.y) < ONE) ?? at;
        marks[0][i].push({ t, at: end });
        marks[own ? 0 : 1][j].push({ t: u, at: end });
      }
      // Sides that run on one another cross nowhere: each is cut where the other begins and ends on it.
      for (const p of [o.a, o.b]) {
        const t = placeOn(s, p);
        if (t !== undefined) marks[0][i].push({ t, at: p });
      }
      for (const p of [s.a, s.b]) {
        const t = placeOn(o, p);
        if (t !== undefined) marks[own ? 0 : 1][j].push({ t, at: p });
      }
    });
  });
  const cut = (list: readonly Side[], all: { t: number; at: Point }[][]) =>
    list.map((side, i) => {
      const inner = all[i]
        .filter(
          ({ at }) =>
            Math.hypot(at.x - side.a.x, at.y - side.a.y) >= ONE &&
            Math.hypot(at.x - side.b.x, at.y - side.b.y) >= ONE,
        )
        .sort(rising((a) => a.t));
      const stops = [{ t: 0, at: side.a }, ...inner, { t: 1, at: side.b }];
      return stops
        .slice(1)
        .map((to, k) => piece(side, stops[k], to))
        .filter(({ a, b, arc }) => arc || Math.hypot(a.x - b.x, a.y - b.y) >= ONE / 10);
    });
  return [cut(sides, marks[0]), own ? [] : cut(others, marks[1])];
}

/** Pieces joined end to begin into outlines; undefined where one does not close. */
export function chained(pieces: readonly Side[]): Loop[] | undefined {
  const left = [...pieces];
  const loops: Loop[] = [];
  while (left.length > 0) {
    const first = left.pop() as Side;
    const loop: Corner[] = [{ ...first.a, bulge: first.bulge }];
    let end = first.b;
    while (Math.hypot(end.x - first.a.x, end.y - first.a.y) > 10 * ONE) {
      let best = -1;
      let least = 10 * ONE;
      left.forEach(({ a }, i) => {
        const away = Math.hypot(a.x - end.x, a.y - end.y);
        if (away < least) [best, least] = [i, away];
      });
      if (best < 0) return undefined;
      const [next] = left.splice(best, 1);
      loop.push({ ...next.a, bulge: next.bulge });
      end = next.b;
    }
    if (Math.abs(areaOf([loop])) > CRUMB) loops.push(loop);
  }
  return loops;
}

const turned = ({ a, b, bulge, arc }: Side): Side => ({
  a: b,
  b: a,
  bulge: -bulge,
  ...(arc ? { arc: { ...arc, from: arc.from + arc.sweep, sweep: -arc.sweep } } : {}),
});

const boxesOf = new WeakMap<Region, Box2>();
/** The box around a region, known once told. */
function knownBox(region: Region): Box2 {
  let box = boxesOf.get(region);
  if (!box) {
    box = boxOf(region);
    boxesOf.set(region, box);
  }
  return box;
}

function combined(
  a: Region,
  b: Region,
  keep: { a: boolean; b: boolean; turnB: boolean },
): Region | undefined {
  for (const shift of SHIFTS) {
    const other = b.map((loop) => loop.map((c) => ({ ...c, x: c.x + shift.x, y: c.y + shift.y })));
    const [ownPieces, otherPieces] = cutAt(a.flatMap(sidesOf), other.flatMap(sidesOf), false);
    const [one, two] = [ownPieces.flat(), otherPieces.flat()];
    // Of two that run on one another one stays or none: both bound the same side of what is kept, or nothing does.
    const kept = [
      ...one.filter((s) => {
        const how = runsOn(s, two);
        return how ? (how === 'against') === keep.turnB : isInside(other, midOf(s)) === keep.a;
      }),
      ...two
        .filter((s) => !runsOn(s, one) && isInside(a, midOf(s)) === keep.b)
        .map((s) => (keep.turnB ? turned(s) : s)),
    ];
    const loops = chained(kept);
    if (loops && closes(a, other, loops, keep)) return loops;
  }
  return undefined;
}

/** What was kept must not be more than could be: sides that run on one another, told wrong, show here. */
function closes(
  a: Region,
  b: Region,
  out: Region,
  { b: inB, turnB }: { b: boolean; turnB: boolean },
): boolean {
  const area = areaOf(out);
  const [one, two] = [areaOf(a), areaOf(b)];
  const slack = 1e-6 * (1 + one + two);
  if (turnB) return area >= one - two - slack && area <= one + slack;
  if (inB) return area >= -slack && area <= Math.min(one, two) + slack;
  return area >= Math.max(one, two) - slack && area <= one + two + slack;
}

/** Whether neither region’s outlines come near the other’s, and neither holds a part of the other: they share nothing. */
function apart(a: Region, b: Region): boolean {
  const [whole, box] = [knownBox(a), knownBox(b)];
  if (!touch(whole, box)) return true;
  for (const loop of a)
    for (const near of sideBoxes(loop)) {
      if (!touch(near, box)) continue;
      for (const other of b) if (sideBoxes(other).some((own) => touch(own, near))) return false;
    }
  return !b.some(([p]) => isInside(a, p)) && !a.some(([p]) => isInside(b, p));
}

/** What of a region lies outside another; nothing where outlines run on one another in a way that no shift parts. */
export const subtracted = (a: Region, b: Region): Region =>
  apart(a, b) ? a : (combined(a, b, { a: false, b: true, turnB: true }) ?? []);

/** What two regions share. */
export const common = (a: Region, b: Region): Region =>
  apart(a, b) ? [] : (combined(a, b, { a: true, b: true, turnB: false }) ?? []);

/** Two regions as one. */
export const joined = (a: Region, b: Region): Region =>
  apart(a, b) ? [...a, ...b] : (combined(a, b, { a: false, b: false, turnB: false }) ?? a);

/** Sides of one list cut where they cross each other. */
export const cutEachOther = (sides: readonly Side[]): Side[] => cutAt(sides, sides, true)[0].flat();

/** The middle of a piece and two more points of it. */
export const pointsOn = ({ a, b, arc }: Side): Point[] =>
  [0.25, 0.5, 0.75].map((t) =>
    arc ? onCircle(arc, arc.from + t * arc.sweep) : { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) },
  );
