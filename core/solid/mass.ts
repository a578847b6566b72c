import { upwards } from '../units';
import { clipConvex, momentsOf, type Region } from '../curve';
import type { Blank } from './blank';
import { type Cell, moveCell } from './cell';
import { type Form, type Hollow, levelsBetween } from './hollow/form';
import { outlineAt, uprightOf } from './hollow/volume';
import { compose, inverse, movePoint, type Rigid } from './rigid';
import type { Vec3 } from './vec';

/** Volume, and first moments about the origin: the integrals of 1, x, y and z. mm3 and mm4. */
export interface SolidMoments {
  mm3: number;
  x: number;
  y: number;
  z: number;
}

const NONE: SolidMoments = { mm3: 0, x: 0, y: 0, z: 0 };
const added = (a: SolidMoments, b: SolidMoments, sign = 1): SolidMoments => ({
  mm3: a.mm3 + sign * b.mm3,
  x: a.x + sign * b.x,
  y: a.y + sign * b.y,
  z: a.z + sign * b.z,
});

/** Moments of the solid within a cell’s faces: tetrahedra from its first corner, each with its middle (exact). */
function solidMoments({ vertices, faces }: Cell): SolidMoments {
  const [o] = vertices;
  let sum = NONE;
  for (const { loop } of faces)
    for (let i = 1; i + 1 < loop.length; i++) {
      const [a, b, c] = [vertices[loop[0]], vertices[loop[i]], vertices[loop[i + 1]]];
      const [ax, ay, az] = [a[0] - o[0], a[1] - o[1], a[2] - o[2]];
      const [bx, by, bz] = [b[0] - o[0], b[1] - o[1], b[2] - o[2]];
      const [cx, cy, cz] = [c[0] - o[0], c[1] - o[1], c[2] - o[2]];
      const mm3 = (ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx)) / 6;
      sum = added(sum, {
        mm3,
        x: mm3 * (o[0] + (ax + bx + cx) / 4),
        y: mm3 * (o[1] + (ay + by + cy) / 4),
        z: mm3 * (o[2] + (az + bz + cz) / 4),
      });
    }
  return sum;
}

/** What a slab so thick at a height adds. */
const slab = (region: Region, z: number, thick: number): SolidMoments => {
  const { area, x, y } = momentsOf(region);
  return { mm3: area * thick, x: x * thick, y: y * thick, z: area * thick * z };
};

/** Moments of a form in a cell, in the form’s frame: exact where the cell stands upright to it, else by sections at Gauss’s nodes between its corners. */
function formMoments(form: Form, cell: Cell, m: Rigid): SolidMoments {
  const points = cell.vertices.map((v) => movePoint(m, v));
  const upright = uprightOf(cell, m, points);
  const slabs: { z: number; thick: number; region: Region }[] = [];
  if (upright) {
    const z0 = Math.max(upright.z0, form.z0);
    const z1 = Math.min(upright.z1, form.z1);
    const inside = (region: Region) => clipConvex(region, upright.polygon);
    if (form.kind === 'prism') {
      if (z1 > z0) slabs.push({ z: (z0 + z1) / 2, thick: z1 - z0, region: inside(form.region) });
    } else
      for (const { z, weight, region } of form.levels)
        if (z >= upright.z0 && z < upright.z1) slabs.push({ z, thick: weight, region: inside(region) });
  } else {
    const seen = moveCell(cell, m);
    const put = (z: number, thick: number, region: Region) => {
      const polygon = outlineAt(seen, z);
      if (polygon.length >= 3) slabs.push({ z, thick, region: clipConvex(region, polygon) });
    };
    if (form.kind === 'levels') for (const { z, weight, region } of form.levels) put(z, weight, region);
    else {
      const stops = [form.z0, form.z1, ...points.map((p) => p[2])]
        .filter((z) => z >= form.z0 - 1e-12 && z <= form.z1 + 1e-12)
        .toSorted(upwards);
      stops.slice(1).forEach((to, i) => {
        if (to - stops[i] < 1e-9) return;
        for (const { z, weight } of levelsBetween(stops[i], to)) put(z, weight, form.region);
      });
    }
  }
  return slabs.reduce((sum, { z, thick, region }) => added(sum, slab(region, z, thick)), NONE);
}

/** The same moments about another frame’s origin. */
function turned({ mm3, x, y, z }: SolidMoments, m: Rigid): SolidMoments {
  if (Math.abs(mm3) < 1e-12) return NONE;
  const [px, py, pz] = movePoint(m, [x / mm3, y / mm3, z / mm3]);
  return { mm3, x: mm3 * px, y: mm3 * py, z: mm3 * pz };
}

const hollowMoments = ({ form, fromLog }: Hollow, cell: Cell): SolidMoments => {
  const m = compose(fromLog, cell.toLog);
  return turned(formMoments(form, cell, m), inverse(m));
};

/** Volume and first moments of a cell’s wood: what is within its faces, less what is hollow there. */
export const cellMoments = (cell: Cell): SolidMoments =>
  (cell.hollows ?? []).reduce(
    (sum, hollow) => added(sum, hollowMoments(hollow, cell), -1),
    solidMoments(cell),
  );

/** Where a blank’s wood balances, mm in its frame, each cell as heavy as `weightOf` says per mm3. Undefined for no wood. */
export function balancePoint(blank: Blank, weightOf: (cell: Cell) => number): Vec3 | undefined {
  const sum = blank.cells.reduce((all, cell) => {
    const own = cellMoments(cell);
    const w = weightOf(cell);
    return added(all, { mm3: w * own.mm3, x: w * own.x, y: w * own.y, z: w * own.z });
  }, NONE);
  return sum.mm3 > 0 ? [sum.x / sum.mm3, sum.y / sum.mm3, sum.z / sum.mm3] : undefined;
}
