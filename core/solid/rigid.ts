import type { Axis, Vec3 } from './vec';

/** A rigid motion: 12 numbers, row-major 3x4, determinant always +1, since wood cannot be mirrored. */
export type Rigid = readonly number[];

export const IDENTITY: Rigid = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0];

/** Moves a point. */
export const movePoint = (m: Rigid, v: Vec3): Vec3 => [
  m[0] * v[0] + m[1] * v[1] + m[2] * v[2] + m[3],
  m[4] * v[0] + m[5] * v[1] + m[6] * v[2] + m[7],
  m[8] * v[0] + m[9] * v[1] + m[10] * v[2] + m[11],
];

/** Turns a direction, without the shift. */
export const turnDirection = (m: Rigid, v: Vec3): Vec3 => [
  m[0] * v[0] + m[1] * v[1] + m[2] * v[2],
  m[4] * v[0] + m[5] * v[1] + m[6] * v[2],
  m[8] * v[0] + m[9] * v[1] + m[10] * v[2],
];

/** The motion b followed by a. */
export const compose = (a: Rigid, b: Rigid): Rigid => [
  a[0] * b[0] + a[1] * b[4] + a[2] * b[8],
  a[0] * b[1] + a[1] * b[5] + a[2] * b[9],
  a[0] * b[2] + a[1] * b[6] + a[2] * b[10],
  a[0] * b[3] + a[1] * b[7] + a[2] * b[11] + a[3],
  a[4] * b[0] + a[5] * b[4] + a[6] * b[8],
  a[4] * b[1] + a[5] * b[5] + a[6] * b[9],
  a[4] * b[2] + a[5] * b[6] + a[6] * b[10],
  a[4] * b[3] + a[5] * b[7] + a[6] * b[11] + a[7],
  a[8] * b[0] + a[9] * b[4] + a[10] * b[8],
  a[8] * b[1] + a[9] * b[5] + a[10] * b[9],
  a[8] * b[2] + a[9] * b[6] + a[10] * b[10],
  a[8] * b[3] + a[9] * b[7] + a[10] * b[11] + a[11],
];

/** Whether a motion shifts and does not turn. */
export const isShift = (m: Rigid): boolean =>
  m[0] === 1 &&
  m[5] === 1 &&
  m[10] === 1 &&
  m[1] === 0 &&
  m[2] === 0 &&
  m[4] === 0 &&
  m[6] === 0 &&
  m[8] === 0 &&
  m[9] === 0;

/** The motion that undoes m. */
export function inverse(m: Rigid): Rigid {
  const t: Vec3 = [m[3], m[7], m[11]];
  const column = (i: number) => -(m[i] * t[0] + m[4 + i] * t[1] + m[8 + i] * t[2]);
  return [m[0], m[4], m[8], column(0), m[1], m[5], m[9], column(1), m[2], m[6], m[10], column(2)];
}

/** A shift without a turn. */
export const translation = (v: Vec3): Rigid => [1, 0, 0, v[0], 0, 1, 0, v[1], 0, 0, 1, v[2]];

/** A turn about an axis through the origin by an angle in radians, right-handed. */
export function rotation(axis: Axis, angle: number): Rigid {
  return rotationOf(axis, Math.cos(angle), Math.sin(angle));
}

/** A turn about an axis by quarters: entries are exactly 0 and +-1, so that sizes stay exact. */
export function quarterTurn(axis: Axis, quarters: number): Rigid {
  const q = ((quarters % 4) + 4) % 4;
  return rotationOf(axis, [1, 0, -1, 0][q], [0, 1, 0, -1][q]);
}

function rotationOf(axis: Axis, c: number, s: number): Rigid {
  if (axis === 0) return [1, 0, 0, 0, 0, c, -s, 0, 0, s, c, 0];
  if (axis === 1) return [c, 0, s, 0, 0, 1, 0, 0, -s, 0, c, 0];
  return [c, -s, 0, 0, s, c, 0, 0, 0, 0, 1, 0];
}

/** Determinant of the turn; +1 for every motion that wood can make. */
export const determinant = (m: Rigid): number =>
  m[0] * (m[5] * m[10] - m[6] * m[9]) -
  m[1] * (m[4] * m[10] - m[6] * m[8]) +
  m[2] * (m[4] * m[9] - m[5] * m[8]);

/** The named turns of the bench, as motions about the frame's own axes. */
export const TURNS = {
  standOnEnd: quarterTurn(1, -1),
  tipOnEdge: quarterTurn(0, 1),
  endForEnd: quarterTurn(2, 2),
  rollOver: quarterTurn(0, 2),
} as const;

/** A named turn. */
export type Turn = keyof typeof TURNS;
