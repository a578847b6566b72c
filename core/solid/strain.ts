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

/** Share of the squared cosine to the radius, averaged over a section; the section’s area. */
function radialShare(polygon: readonly Point[], angle: number): { area: number; cos2: number } {
  const xs = polygon.map(({ x }) => x);
  const ys = polygon.map(({ y }) => y);
  const middle = { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
  const size = Math.hypot(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
  const { area, cos2 } = radialIntegrals(polygon, angle);
  if (Math.hypot(middle.x, middle.y) > FAR * size)
    return {
      area: Math.abs(area),
      cos2: Math.abs(area) * Math.cos(Math.atan2(middle.y, middle.x) - angle) ** 2,
    };
  return { area: Math.abs(area), cos2: Math.sign(area) * cos2 };
}

/** Gauss’s three places between 0 and 1, with their weights. */
const GAUSS = [
  [0.5 - Math.sqrt(0.15), 5 / 18],
  [0.5, 8 / 18],
  [0.5 + Math.sqrt(0.15), 5 / 18],
] as const;

/** Heights of a cell seen in its log, and the sections to take: one where it is a prism along the pith, else between its corners. */
function sectionsOf(inLog: Cell): { polygon: Point[]; weight: number }[] {
  const zs = [...new Set(inLog.vertices.map(([, , z]) => Math.round(z * 1e6) / 1e6))].toSorted(
    (a, b) => a - b,
  );
  if (zs.length === 2) return [{ polygon: outlineAt(inLog, (zs[0] + zs[1]) / 2), weight: zs[1] - zs[0] }];
  return zs.slice(1).flatMap((to, i) =>
    GAUSS.map(([at, weight]) => ({
      polygon: outlineAt(inLog, zs[i] + at * (to - zs[i])),
      weight: weight * (to - zs[i]),
    })),
  );
}

/**
 * How much of a direction lies across the rings, along them and along the grain, averaged over a cell’s wood as it stands within
 * its faces: so much of each free strain it shows. A strain taken at the middle alone can be out by a seventh where the pith is near.
 */
export function grainShares(cell: Cell, direction: Vec3): GrainShares {
  const u = turnDirection(cell.toLog, direction);
  const across = u[0] * u[0] + u[1] * u[1];
  const along = 1 - across;
  if (across < 1e-12) return { radial: 0, tangential: 0, along: 1 };
  const angle = Math.atan2(u[1], u[0]);
  const parts = sectionsOf(moveCell(cell, cell.toLog)).flatMap(({ polygon, weight }) => {
    if (polygon.length < 3) return [];
    const { area, cos2 } = radialShare(polygon, angle);
    return [{ area: area * weight, cos2: cos2 * weight }];
  });
  const area = parts.reduce((sum, part) => sum + part.area, 0);
  const centre = movePoint(cell.toLog, cellCentre(cell));
  const mean =
    area > 0
      ? parts.reduce((sum, part) => sum + part.cos2, 0) / area
      : Math.cos(Math.atan2(centre[1], centre[0]) - angle) ** 2;
  const radial = across * Math.min(1, Math.max(0, mean));
  return { radial, tangential: across - radial, along };
}

/** The way of a line along an axis through a cell: where it enters and leaves; undefined where it passes it by. */
function wayThrough({ vertices, faces }: Cell, axis: Axis, at: Vec3): readonly [number, number] | undefined {
  let [from, to] = [-Infinity, Infinity];
  for (const { loop, normal } of faces) {
    const p = vertices[loop[0]];
    const slope = normal[axis];
    // How far the line’s own point lies outside this face, at 0 on the axis.
    const out = [0, 1, 2].reduce((sum, k) => sum + normal[k] * ((k === axis ? 0 : at[k]) - p[k]), 0);
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

/**
 * How much a piece grows along an axis: every cell grows by its own strain over its way on a line, lines go through the middle of
 * every cell. Nothing for a piece without wood.
 */
export function growthAlong(cells: readonly Cell[], axis: Axis, strainOf: (cell: Cell) => number): Growth {
  const strains = cells.map(strainOf);
  const [b, c] = [0, 1, 2].filter((k) => k !== axis);
  const lines = new Map(
    cells.map((cell) => {
      const centre = cellCentre(cell);
      return [`${Math.round(centre[b] / ONE_LINE_MM)} ${Math.round(centre[c] / ONE_LINE_MM)}`, centre];
    }),
  );
  const sums = [...lines.values()].map((at) =>
    cells.reduce((sum, cell, i) => {
      const way = wayThrough(cell, axis, at);
      return way ? sum + strains[i] * (way[1] - way[0]) : sum;
    }, 0),
  );
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
