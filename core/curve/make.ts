import { type Corner, type Loop, type Point, type Side, sidesOf } from './corner';

/** A quarter turn as a bulge. */
const QUARTER = Math.tan(Math.PI / 8);

/** A rectangle with its low corner at a point, its corners rounded; a radius over half a side is taken as half. mm. */
export function rectangle(at: Point, width: number, height: number, radius = 0): Loop {
  const r = Math.max(0, Math.min(radius, width / 2, height / 2));
  const [x0, y0, x1, y1] = [at.x, at.y, at.x + width, at.y + height];
  if (r === 0)
    return [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ];
  const corners: Corner[] = [
    { x: x0 + r, y: y0 },
    { x: x1 - r, y: y0, bulge: QUARTER },
    { x: x1, y: y0 + r },
    { x: x1, y: y1 - r, bulge: QUARTER },
    { x: x1 - r, y: y1 },
    { x: x0 + r, y: y1, bulge: QUARTER },
    { x: x0, y: y1 - r },
    { x: x0, y: y0 + r, bulge: QUARTER },
  ];
  // A side that its two corners use up is none.
  return corners.filter(({ x, y, bulge }, i) => {
    const next = corners[(i + 1) % corners.length];
    return bulge !== undefined || Math.hypot(next.x - x, next.y - y) > 1e-12;
  });
}

/** A circle. mm. */
export const circle = ({ x, y }: Point, r: number): Loop => [
  { x: x - r, y, bulge: 1 },
  { x: x + r, y, bulge: 1 },
];

/** A slot with round ends: middle, whole length and width, turned by an angle in radians. mm. */
export function slot(at: Point, long: number, width: number, turn = 0): Loop {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const half = Math.max(0, long - width) / 2;
  const r = width / 2;
  const to = (x: number, y: number) => ({ x: at.x + c * x - s * y, y: at.y + s * x + c * y });
  if (half === 0) return circle(at, r);
  return [to(-half, -r), { ...to(half, -r), bulge: 1 }, to(half, r), { ...to(-half, r), bulge: 1 }];
}

/** The radius of an arc by its chord and rise: R = c2 / (8 h) + h / 2 (geometry). mm. */
export const radiusOf = (chord: number, rise: number): number => (chord * chord) / (8 * rise) + rise / 2;

/** The bulge of a side by its length and how far it rises over it: 2 h / c. */
export const bulgeOf = (chord: number, rise: number): number => (2 * rise) / chord;

/** The bulge of an arc from a to c through b; 0 where they lie on a line. */
export function bulgeThrough(a: Point, b: Point, c: Point): number {
  const one = Math.atan2(b.y - a.y, b.x - a.x);
  const two = Math.atan2(c.y - b.y, c.x - b.x);
  let turn = two - one;
  if (turn > Math.PI) turn -= 2 * Math.PI;
  if (turn < -Math.PI) turn += 2 * Math.PI;
  // The angle between the chords is half the sweep: seen from the rim, half of that at the centre.
  return Math.tan(turn / 2);
}

/** How a corner is made: round by a radius, or cut off by so much along both its sides. mm. */
export interface CornerCut {
  radius?: number;
  clip?: number;
}

/** How much of each of its straight sides a corner takes, mm; undefined where a side bends, or the corner is none. */
export function cornerTakes(loop: Loop, i: number, { radius = 0, clip = 0 }: CornerCut): number | undefined {
  const sides = sidesOf(loop);
  const before = sides[(i + sides.length - 1) % sides.length];
  const after = sides[i];
  if (before.arc || after.arc) return undefined;
  if (clip > 0) return clip;
  const turn = turnAt(before, after);
  return Math.abs(turn) < 1e-9 ? undefined : radius * Math.tan(Math.abs(turn) / 2);
}

const unit = ({ a, b }: Side): Point => {
  const long = Math.hypot(b.x - a.x, b.y - a.y);
  return { x: (b.x - a.x) / long, y: (b.y - a.y) / long };
};
const turnAt = (before: Side, after: Side): number => {
  const [u, v] = [unit(before), unit(after)];
  return Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y);
};

/** Makes the corners of an outline between straight sides round, or cuts them off; one too large for its sides is left sharp. */
export function cornered(loop: Loop, cuts: readonly CornerCut[]): Loop {
  const sides = sidesOf(loop);
  return loop.flatMap((corner, i): Corner[] => {
    const cut = cuts[i] ?? {};
    const back = cut.radius || cut.clip ? cornerTakes(loop, i, cut) : undefined;
    if (back === undefined) return [corner];
    const before = sides[(i + sides.length - 1) % sides.length];
    const after = sides[i];
    const long = ({ a, b }: Side) => Math.hypot(b.x - a.x, b.y - a.y);
    if (back > long(before) + 1e-9 || back > long(after) + 1e-9) return [corner];
    const [u, v] = [unit(before), unit(after)];
    const begin = { x: corner.x - back * u.x, y: corner.y - back * u.y };
    return [
      cut.clip ? begin : { ...begin, bulge: Math.tan(turnAt(before, after) / 4) },
      { x: corner.x + back * v.x, y: corner.y + back * v.y },
    ];
  });
}

/** Rounds the corners of an outline between straight sides by radii, mm; one too large for its sides is left sharp. */
export const rounded = (loop: Loop, radii: readonly number[]): Loop =>
  cornered(
    loop,
    radii.map((radius) => ({ radius })),
  );

/** Two arcs from p along u to q along v (unit directions), meeting smoothly: a biarc with equal arms. */
export function biarc(p: Point, u: Point, q: Point, v: Point): Corner[] {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const both = 2 * (1 - (u.x * v.x + u.y * v.y));
  const chord = dx * dx + dy * dy;
  const lean = dx * (u.x + v.x) + dy * (u.y + v.y);
  const arm =
    Math.abs(both) < 1e-12
      ? chord / (4 * Math.max(dx * v.x + dy * v.y, 1e-12))
      : (-lean + Math.sqrt(Math.max(0, lean * lean + both * chord))) / both;
  const a = { x: p.x + arm * u.x, y: p.y + arm * u.y };
  const b = { x: q.x - arm * v.x, y: q.y - arm * v.y };
  const mid = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const bend = (from: Point, along: Point, to: Point) => {
    const [cx, cy] = [to.x - from.x, to.y - from.y];
    // The chord leaves the direction by half the sweep.
    return Math.tan(Math.atan2(along.x * cy - along.y * cx, along.x * cx + along.y * cy) / 2);
  };
  const w = { x: b.x - a.x, y: b.y - a.y };
  const long = Math.hypot(w.x, w.y);
  const ahead = long > 1e-12 ? { x: w.x / long, y: w.y / long } : u;
  return [
    { ...p, bulge: bend(p, u, mid) },
    { ...mid, bulge: bend(mid, ahead, q) },
  ];
}

/** An ellipse by its two whole axes, drawn in so many arcs (an even number); 600 x 400 in 64 is off by 0.009. mm. */
export function ellipse(at: Point, long: number, wide: number, arcs = 64): Loop {
  const n = Math.max(4, Math.round(arcs / 2));
  const [a, b] = [long / 2, wide / 2];
  const point = (t: number) => ({ x: at.x + a * Math.cos(t), y: at.y + b * Math.sin(t) });
  const along = (t: number) => {
    const [x, y] = [-a * Math.sin(t), b * Math.cos(t)];
    const k = Math.hypot(x, y);
    return { x: x / k, y: y / k };
  };
  return Array.from({ length: n }, (_, i) => {
    const [t, u] = [(2 * Math.PI * i) / n, (2 * Math.PI * (i + 1)) / n];
    return biarc(point(t), along(t), point(u), along(u));
  }).flat();
}

/** A smooth closed curve through points, in arcs: at each point it runs as the chord between its neighbours. */
export function smooth(points: readonly Point[]): Loop {
  const n = points.length;
  const at = (i: number) => points[((i % n) + n) % n];
  const along = (i: number) => {
    const [x, y] = [at(i + 1).x - at(i - 1).x, at(i + 1).y - at(i - 1).y];
    const k = Math.hypot(x, y) || 1;
    return { x: x / k, y: y / k };
  };
  return points.flatMap((p, i) => biarc(p, along(i), at(i + 1), along(i + 1)));
}
