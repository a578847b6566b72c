import { asShare, clamped, distinct, sumOf } from '../units';
import type { Point } from '../curve';
import type { Cell } from './cell';
import { cellCentre, moveCell } from './cell';
import { outlineAt } from './hollow/volume';
import { movePoint, turnDirection } from './rigid';
import { unit, type Axis, type Vec3 } from './vec';

/** How much of a direction, squared, lies across the rings, along them and along the grain; they sum to 1. */
export interface GrainShares {
  radial: number;
  tangential: number;
  along: number;
}

/** Farther from the pith than so many times its own size, rings are straight lines across a section. */
const FAR = 1000;

/**
 * Integrals over a section of 1 and of the squared cosine between the radius and a direction at `angle`, about the pith at
 * the origin. Exact: the section is a sum of triangles from the pith, and along an edge at distance d the radius reaches
 * d / cos(psi), so that each is d2/2 times the integral of cos2(psi + delta) / cos2(psi), a closed form.
 */
function radialIntegrals(polygon: readonly Point[], angle: number): { area: number; cos2: number } {
  let [area, cos2] = [0, 0];
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const long = Math.hypot(dx, dy);
    const twice = a.x * b.y - a.y * b.x;
    if (long < 1e-12 || Math.abs(twice) < 1e-12) return;
    area += twice / 2;
    // The foot of the pith on the edge’s line.
    const t = -(a.x * dx + a.y * dy) / (long * long);
    const [fx, fy] = [a.x + t * dx, a.y + t * dy];
    const d = Math.hypot(fx, fy);
    const [nx, ny] = [fx / d, fy / d];
    const psi = (p: Point) => Math.atan2(nx * p.y - ny * p.x, nx * p.x + ny * p.y);
    const delta = Math.atan2(ny, nx) - angle;
    const [c, s] = [Math.cos(delta), Math.sin(delta)];
    const at = (w: number) => c * c * w + 2 * s * c * Math.log(Math.cos(w)) + s * s * (Math.tan(w) - w);
    cos2 += ((d * d) / 2) * (at(psi(b)) - at(psi(a)));
  });
  return { area, cos2 };
}

/** Two of these say how rings lie in a section on the average: the squared cosine of the radius to x, and to the line halfway to y. */
interface Integrals {
  area: number;
  toX: number;
  toHalf: number;
}

/** Integrals over a section: exact near the pith; far from it as at the middle. */
function integralsOf(polygon: readonly Point[]): Integrals {
  const xs = polygon.map(({ x }) => x);
  const ys = polygon.map(({ y }) => y);
  const middle = { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
  const size = Math.hypot(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
  const { area, cos2: toX } = radialIntegrals(polygon, 0);
  if (Math.hypot(middle.x, middle.y) > FAR * size) {
    const angle = Math.atan2(middle.y, middle.x);
    const share = (from: number) => Math.abs(area) * Math.cos(angle - from) ** 2;
    return { area: Math.abs(area), toX: share(0), toHalf: share(Math.PI / 4) };
  }
  const sign = Math.sign(area);
  return { area: sign * area, toX: sign * toX, toHalf: sign * radialIntegrals(polygon, Math.PI / 4).cos2 };
}

/** Gauss’s three places between 0 and 1, with their weights. */
const GAUSS = [
  [0.5 - Math.sqrt(0.15), 5 / 18],
  [0.5, 8 / 18],
  [0.5 + Math.sqrt(0.15), 5 / 18],
] as const;

/** Heights of a cell seen in its log, and the sections to take: one where it is a prism along the pith, else between its corners. */
function sectionsOf(inLog: Cell): { polygon: Point[]; weight: number }[] {
  const zs = distinct(inLog.vertices.map(([, , z]) => z));
  if (zs.length === 2) return [{ polygon: outlineAt(inLog, (zs[0] + zs[1]) / 2), weight: zs[1] - zs[0] }];
  return zs.slice(1).flatMap((to, i) =>
    GAUSS.map(([at, weight]) => ({
      polygon: outlineAt(inLog, zs[i] + at * (to - zs[i])),
      weight: weight * (to - zs[i]),
    })),
  );
}

/** How the radius lies across a cell in its log on the average: means of its squared cosine to x, and of sine times cosine. */
export interface RadialMean {
  cc: number;
  cs: number;
}

/** Cells never change: each is summed once. */
const known = new WeakMap<Cell, RadialMean>();

/**
 * How the radius lies on the average over a cell’s wood, as it stands within its faces. Taken at the middle alone, a strain can be out
 * by a seventh where the pith is near.
 */
export function radialMean(cell: Cell): RadialMean {
  const before = known.get(cell);
  if (before) return before;
  const parts = sectionsOf(moveCell(cell, cell.toLog)).flatMap(({ polygon, weight }) =>
    polygon.length < 3 ? [] : [{ weight, ...integralsOf(polygon) }],
  );
  const sum = (of: (part: Integrals) => number) => sumOf(parts, (part) => part.weight * of(part));
  const area = sum((part) => part.area);
  let mean: RadialMean;
  if (area > 0)
    mean = {
      cc: asShare(sum((part) => part.toX) / area),
      cs: asShare(sum((part) => part.toHalf) / area) - 0.5,
    };
  else {
    // A sliver without a section: as at its middle.
    const [x, y] = movePoint(cell.toLog, cellCentre(cell));
    const long = Math.hypot(x, y) || 1;
    mean = { cc: (x / long) ** 2, cs: (x * y) / long ** 2 };
  }
  known.set(cell, mean);
  return mean;
}

/** How much of a direction lies across the rings, along them and along the grain, averaged over a cell: so much of each free strain it shows. */
export function grainShares(cell: Cell, direction: Vec3): GrainShares {
  const [x, y] = turnDirection(cell.toLog, direction);
  const { cc, cs } = radialMean(cell);
  const across = x * x + y * y;
  const radial = clamped(cc * x * x + (1 - cc) * y * y + 2 * cs * x * y, 0, across);
  return { radial, tangential: across - radial, along: 1 - across };
}

const AXES: readonly Axis[] = [0, 1, 2];

/** The way of a line along an axis through a cell: where it enters and leaves; undefined where it passes it by. */
function wayThrough({ vertices, faces }: Cell, axis: Axis, at: Vec3): readonly [number, number] | undefined {
  let [from, to] = [-Infinity, Infinity];
  const across = AXES.filter((k) => k !== axis);
  for (const { loop, normal } of faces) {
    const p = vertices[loop[0]];
    const slope = normal[axis];
    // How far the line’s own point lies outside this face, at 0 on the axis.
    const out = sumOf(across, (k) => normal[k] * (at[k] - p[k])) - slope * p[axis];
    if (Math.abs(slope) < 1e-12) {
      if (out > 1e-9) return undefined;
    } else if (slope > 0) to = Math.min(to, -out / slope);
    else from = Math.max(from, -out / slope);
  }
  return to - from > 1e-9 ? [from, to] : undefined;
}

/** Lines nearer to one another than this are one, mm. */
const ONE_LINE_MM = 0.5;

/** Growth along an axis, mm: on the line where it is least, and where it is greatest, each less than nothing where wood shrinks. */
export interface Growth {
  least: number;
  greatest: number;
}

/** Lines along an axis through the middle of every cell, each as the cells it meets and how far it runs in each, mm. */
type Lines = readonly (readonly { cell: number; mm: number }[])[];

/** Blanks never change: where lines run through one is looked for once, and asked for every month of a year. */
const linesOf = new WeakMap<readonly Cell[], Map<Axis, Lines>>();

function linesThrough(cells: readonly Cell[], axis: Axis): Lines {
  const own = linesOf.get(cells) ?? new Map<Axis, Lines>();
  linesOf.set(cells, own);
  const before = own.get(axis);
  if (before) return before;
  const [b, c] = AXES.filter((k) => k !== axis);
  const middles = new Map(
    cells.map((cell) => {
      const centre = cellCentre(cell);
      return [`${Math.round(centre[b] / ONE_LINE_MM)} ${Math.round(centre[c] / ONE_LINE_MM)}`, centre];
    }),
  );
  const lines = [...middles.values()].map((at) =>
    cells.flatMap((each, cell) => {
      const way = wayThrough(each, axis, at);
      return way ? [{ cell, mm: way[1] - way[0] }] : [];
    }),
  );
  own.set(axis, lines);
  return lines;
}

/**
 * How much a piece grows along an axis: every cell grows by its own strain over its way on a line, lines go through the middle of
 * every cell. Nothing for a piece without wood.
 */
export function growthAlong(cells: readonly Cell[], axis: Axis, strainOf: (cell: Cell) => number): Growth {
  const strains = cells.map(strainOf);
  const sums = linesThrough(cells, axis).map((line) => sumOf(line, ({ cell, mm }) => strains[cell] * mm));
  return sums.length > 0
    ? { least: Math.min(...sums), greatest: Math.max(...sums) }
    : { least: 0, greatest: 0 };
}

/** The strain of a cell along an axis, as a share of its size, from how its wood grows. */
export function strainAlong(
  cell: Cell,
  axis: Axis,
  { radial, tangential, along }: { radial: number; tangential: number; along: number },
): number {
  const shares = grainShares(cell, unit(axis));
  return shares.radial * radial + shares.tangential * tangential + shares.along * along;
}
