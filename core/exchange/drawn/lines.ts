import { areaOf, biarc, type Corner, type Loop, type Point, type Side, sidesOf } from '../../curve';

/** A line as a file draws it: from a point by pieces, closed or not yet. mm, y upwards. */
export interface DrawnLine {
  corners: Corner[];
  /** Where it ends; its begin where it is closed. */
  end: Point;
  closed: boolean;
}

/** Ends that are nearer than this meet, mm. */
const MEET = 0.02;
/** A curve is drawn in arcs that leave it by no more than this, mm. */
const NEAR = 0.02;
/** The most arcs of one curve. */
const MOST_PARTS = 32;

const apart = (p: Point, q: Point): number => Math.hypot(p.x - q.x, p.y - q.y);

/** A Bezier curve of the third degree as arcs that leave it by no more than 0.02 mm; its last point is not among them. */
export function cubicArcs(p: Point, c: Point, d: Point, q: Point): Corner[] {
  const at = (t: number): Point => {
    const s = 1 - t;
    const [a, b, e, f] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
    return { x: a * p.x + b * c.x + e * d.x + f * q.x, y: a * p.y + b * c.y + e * d.y + f * q.y };
  };
  const along = (t: number): Point => {
    // At an end whose handle lies on it the direction is that of a point a little further.
    const h = 1e-4;
    const [one, two] = [at(Math.max(0, t - h)), at(Math.min(1, t + h))];
    const long = apart(one, two) || 1;
    return { x: (two.x - one.x) / long, y: (two.y - one.y) / long };
  };
  const arcs = (parts: number): Corner[] =>
    Array.from({ length: parts }, (_, i) => [i / parts, (i + 1) / parts]).flatMap(([t, u]) =>
      biarc(at(t), along(t), at(u), along(u)),
    );
  /** How far the curve leaves its arcs: points of it against the circle, or the line, of either arc of its part. */
  const off = (corners: readonly Corner[], parts: number): number => {
    const sides = sidesOf([...corners, q]).slice(0, -1);
    const from = (p: Point, { a, b, arc }: Side): number =>
      arc
        ? Math.abs(Math.hypot(p.x - arc.cx, p.y - arc.cy) - arc.r)
        : Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / (apart(a, b) || 1);
    let most = 0;
    for (let part = 0; part < parts; part++)
      for (let k = 1; k < 8; k++) {
        const own = at((part + k / 8) / parts);
        most = Math.max(most, Math.min(from(own, sides[2 * part]), from(own, sides[2 * part + 1])));
      }
    return most;
  };
  for (let parts = 1; parts < MOST_PARTS; parts *= 2) {
    const corners = arcs(parts);
    if (off(corners, parts) <= NEAR) return corners;
  }
  return arcs(MOST_PARTS);
}

/** A line run the other way. */
const backwards = ({ corners, end }: DrawnLine): DrawnLine => {
  const points = [...corners, end];
  return {
    corners: corners.map((_, i): Corner => {
      const at = corners.length - i;
      const bulge = -(corners[at - 1].bulge ?? 0);
      return bulge === 0 ? { x: points[at].x, y: points[at].y } : { x: points[at].x, y: points[at].y, bulge };
    }),
    end: { x: corners[0].x, y: corners[0].y },
    closed: false,
  };
};

/** What lines enclose: those that are closed, and those whose ends meet, joined; and how many are left open. */
export function closedLoops(lines: readonly DrawnLine[]): { loops: Loop[]; open: number } {
  const loops: Loop[] = [];
  let open = 0;
  const rest: DrawnLine[] = [];
  for (const line of lines) {
    if (line.corners.length === 0) continue;
    if (line.closed || apart(line.corners[0], line.end) < MEET) {
      if (line.corners.length > 1) loops.push(line.corners);
    } else rest.push(line);
  }
  while (rest.length > 0) {
    let own = rest.pop() as DrawnLine;
    for (;;) {
      const [begin] = own.corners;
      if (apart(begin, own.end) < MEET && own.corners.length > 1) {
        loops.push(own.corners);
        break;
      }
      const i = rest.findIndex(
        (each) => apart(each.corners[0], own.end) < MEET || apart(each.end, own.end) < MEET,
      );
      if (i < 0) {
        open += 1;
        break;
      }
      const [next] = rest.splice(i, 1);
      const on = apart(next.corners[0], own.end) < MEET ? next : backwards(next);
      own = { corners: [...own.corners, ...on.corners], end: on.end, closed: false };
    }
  }
  return { loops: loops.filter((loop) => Math.abs(areaOf([loop])) > 1e-6), open };
}
