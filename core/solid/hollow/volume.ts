import { rising, sumOf } from '../../units';
import {
  areaInBox,
  areaOf,
  type Box2,
  boxOf,
  clipConvex,
  momentsOf,
  type Point,
  type Region,
} from '../../curve';
import { type Cell, faceOffset, moveCell } from '../cell';
import { cutCell } from '../cut';
import { compose, movePoint, turnDirection, type Rigid } from '../rigid';
import type { Vec3 } from '../vec';
import { type Form, formBox, formVolume, type Hollow } from './form';

/** Faces whose normals are this near to square to a form’s axis, or along it, count as such. */
const SQUARE = 1e-9;

/** The region within a convex polygon; itself where it lies wholly in it. */
function within(region: Region, polygon: readonly Point[]): Region {
  return clipConvex(region, polygon);
}

/** A cell seen from a form: where it begins and ends along the axis, and its outline across it. */
interface Upright {
  z0: number;
  z1: number;
  polygon: Point[];
}

/** The outline of a cell whose sides all run along the form’s axis or square to it; undefined for one that leans. */
export function uprightOf(cell: Cell, m: Rigid, points: readonly Vec3[]): Upright | undefined {
  let top: readonly number[] | undefined;
  let z0 = Infinity;
  let z1 = -Infinity;
  for (const p of points) {
    if (p[2] < z0) z0 = p[2];
    if (p[2] > z1) z1 = p[2];
  }
  for (const { normal, loop } of cell.faces) {
    const nz = turnDirection(m, normal)[2];
    if (isUpright(nz)) continue;
    if (Math.abs(nz) < 1 - SQUARE) return undefined;
    if (looksUp(nz)) top = loop;
  }
  return top && { z0, z1, polygon: top.map((i) => ({ x: points[i][0], y: points[i][1] })) };
}

/** Whether a face stands along the form’s axis, by what of its direction points along it; else which way it looks. */
const isUpright = (nz: number): boolean => Math.abs(nz) < SQUARE;
const looksUp = (nz: number): boolean => nz > 0;

/** Where the cell has nothing at the form’s heights, mm3. */
const NOTHING = 0;

/** Volume of a prism in a cell of any form: over each face, what stands between the region and it. mm3. */
function prismInLeaning(region: Region, z0: number, z1: number, seen: Cell): number {
  const above = cutCell(seen, { normal: [0, 0, 1], offset: z0 }).positive;
  const part = above && cutCell(above, { normal: [0, 0, 1], offset: z1 }).negative;
  if (!part) return NOTHING;
  return sumOf(
    part.faces.filter(({ normal }) => !isUpright(normal[2])),
    (face) => {
      const [nx, ny, nz] = face.normal;
      const corners = face.loop.map((i) => ({ x: part.vertices[i][0], y: part.vertices[i][1] }));
      const { area, x, y } = momentsOf(within(region, looksUp(nz) ? corners : corners.reverse()));
      return (faceOffset(part, face) * area - nx * x - ny * y) / Math.abs(nz);
    },
  );
}

/** The outline of a convex cell on the plane z = at, counter-clockwise; empty where the plane misses it. */
export function outlineAt(cell: Cell, at: number): Point[] {
  const points: Point[] = [];
  for (const { loop } of cell.faces)
    loop.forEach((i, k) => {
      const [p, q] = [cell.vertices[i], cell.vertices[loop[(k + 1) % loop.length]]];
      // Each edge once: it is walked both ways by its two faces.
      if (!(p[2] < at && q[2] >= at)) return;
      const t = (at - p[2]) / (q[2] - p[2]);
      points.push({ x: p[0] + t * (q[0] - p[0]), y: p[1] + t * (q[1] - p[1]) });
    });
  const cx = sumOf(points, ({ x }) => x) / points.length;
  const cy = sumOf(points, ({ y }) => y) / points.length;
  return points.sort(rising((a) => Math.atan2(a.y - cy, a.x - cx)));
}

/** The points of a cell in a form’s frame; undefined where the form misses them by its box. */
function seenFrom(form: Form, cell: Cell, m: Rigid): Vec3[] | undefined {
  const points = cell.vertices.map((v) => movePoint(m, v));
  const box = formBox(form);
  const low = (a: number) => points.reduce((least, p) => Math.min(least, p[a]), Infinity);
  const high = (a: number) => points.reduce((most, p) => Math.max(most, p[a]), -Infinity);
  return high(0) <= box.x0 ||
    low(0) >= box.x1 ||
    high(1) <= box.y0 ||
    low(1) >= box.y1 ||
    high(2) <= form.z0 ||
    low(2) >= form.z1
    ? undefined
    : points;
}

/** Edges this near to an axis run along it, mm. */
const ALONG = 1e-10;

/** The box that a polygon is, where its edges run along the axes. */
function boxedBy(polygon: readonly Point[]): Box2 | undefined {
  if (polygon.length !== 4) return undefined;
  for (let i = 0; i < 4; i++) {
    const [p, q] = [polygon[i], polygon[(i + 1) % 4]];
    if (Math.abs(p.x - q.x) > ALONG && Math.abs(p.y - q.y) > ALONG) return undefined;
  }
  return boxOf([polygon]);
}

const holds = (polygon: readonly Point[], { x0, y0, x1, y1 }: ReturnType<typeof formBox>): boolean =>
  polygon.every((p, i) => {
    const q = polygon[(i + 1) % polygon.length];
    const [dx, dy] = [q.x - p.x, q.y - p.y];
    return [x0, x1].every((x) => [y0, y1].every((y) => dx * (y - p.y) - dy * (x - p.x) >= 0));
  });

const reachesOver = ({ z0, z1 }: { z0: number; z1: number }, form: Form): boolean =>
  z0 <= form.z0 && z1 >= form.z1;

/** Volume of a form in a cell, mm3; `m` is the motion from the cell’s frame to the form’s. */
export function formInCell(form: Form, cell: Cell, m: Rigid): number {
  const points = seenFrom(form, cell, m);
  if (!points) return 0;
  const upright = uprightOf(cell, m, points);
  if (upright) {
    const { z0, z1, polygon } = upright;
    const whole = holds(polygon, formBox(form));
    const box = boxedBy(polygon);
    const area = (region: Region) =>
      whole ? areaOf(region) : box ? areaInBox(region, box) : areaOf(within(region, polygon));
    if (whole && reachesOver(upright, form)) return formVolume(form);
    if (form.kind === 'prism') return area(form.region) * (Math.min(z1, form.z1) - Math.max(z0, form.z0));
    return form.levels.reduce(
      (sum, { z, weight, region }) => (z >= z0 && z < z1 ? sum + weight * area(region) : sum),
      0,
    );
  }
  const seen = moveCell(cell, m);
  if (form.kind === 'prism') return prismInLeaning(form.region, form.z0, form.z1, seen);
  return form.levels.reduce((sum, { z, weight, region }) => {
    const polygon = outlineAt(seen, z);
    return polygon.length < 3 ? sum : sum + weight * areaOf(within(region, polygon));
  }, 0);
}

/** Volume of a hollow in a cell, mm3. */
export const hollowVolume = (hollow: Hollow, cell: Cell): number =>
  formInCell(hollow.form, cell, compose(hollow.fromLog, cell.toLog));
