import type { Cell } from './cell';
import { radialMean } from './strain';
import { cross, normalized, type Vec3 } from './vec';

/** Dimensional change coefficients of a wood: strain per 1 % moisture, radial, tangential, and along the grain (none if missing). */
export interface MovementCoefficients {
  radial: number;
  tangential: number;
  along?: number;
}

type Symmetric = [number, number, number, number, number, number]; // xx yy zz xy xz yz

/** Free strain per 1 % moisture averaged over a cell, in the blank's frame: eR r r' + eT t t' + eL l l'. */
function strain(cell: Cell, { radial, tangential, along = 0 }: MovementCoefficients): Symmetric {
  const { cc, cs } = radialMean(cell);
  const m = cell.toLog;
  // In the log: what the rings do in its section, and the grain along it.
  const more = radial - tangential;
  const [xx, yy, xy] = [tangential + more * cc, tangential + more * (1 - cc), more * cs];
  const entry = (i: number, j: number) =>
    xx * m[i] * m[j] +
    yy * m[4 + i] * m[4 + j] +
    xy * (m[i] * m[4 + j] + m[4 + i] * m[j]) +
    along * m[8 + i] * m[8 + j];
  return [entry(0, 0), entry(1, 1), entry(2, 2), entry(0, 1), entry(0, 2), entry(1, 2)];
}

/**
 * The difference of the free strain of two cells across a joint, per 1 % of moisture, as a quadratic form on the
 * joint's plane: uu, vv and uv in the plane's own axes, which are given with it.
 */
export interface StrainDifference {
  u: Vec3;
  v: Vec3;
  uu: number;
  vv: number;
  uv: number;
}

/** How much more `a` wants to move than `b` in the plane of a joint, per mm and 1 % of moisture. */
export function strainDifference(
  a: Cell,
  b: Cell,
  normal: Vec3,
  { ma, mb }: { ma: MovementCoefficients; mb: MovementCoefficients },
): StrainDifference {
  const sa = strain(a, ma);
  const sb = strain(b, mb);
  const d = sa.map((value, i) => value - sb[i]);
  const u = normalized(cross(normal, Math.abs(normal[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]));
  const v = cross(normal, u);
  const form = (p: Vec3, q: Vec3) =>
    d[0] * p[0] * q[0] +
    d[1] * p[1] * q[1] +
    d[2] * p[2] * q[2] +
    d[3] * (p[0] * q[1] + p[1] * q[0]) +
    d[4] * (p[0] * q[2] + p[2] * q[0]) +
    d[5] * (p[1] * q[2] + p[2] * q[1]);
  return { u, v, uu: form(u, u), vv: form(v, v), uv: form(u, v) };
}

/** The directions in which a strain difference is greatest and least, each with its strain (eigenvectors of the form). */
export function principalStrains({ u, v, uu, vv, uv }: StrainDifference): { along: Vec3; strain: number }[] {
  const mean = (uu + vv) / 2;
  const radius = Math.hypot((uu - vv) / 2, uv);
  const turn = Math.atan2(2 * uv, uu - vv) / 2;
  const at = (angle: number): Vec3 =>
    [0, 1, 2].map((k) => Math.cos(angle) * u[k] + Math.sin(angle) * v[k]) as unknown as Vec3;
  return [
    { along: at(turn), strain: mean + radius },
    { along: at(turn + Math.PI / 2), strain: mean - radius },
  ];
}

/**
 * How much more one side of a joint wants to move than the other, per mm of joint and 1 % of moisture: the greatest
 * eigenvalue, by size, of the strain difference projected on the joint plane. Zero when both sides move alike.
 */
export const movementMismatch = (
  a: Cell,
  b: Cell,
  normal: Vec3,
  { ma, mb }: { ma: MovementCoefficients; mb: MovementCoefficients },
): number =>
  Math.max(
    ...principalStrains(strainDifference(a, b, normal, { ma, mb })).map(({ strain: each }) => Math.abs(each)),
  );
