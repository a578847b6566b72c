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
export function compose(a: Rigid, b: Rigid): Rigid {
  const out: number[] = [];
  for (let row = 0; row < 3; row++) {
    const [p, q, r, t] = [a[row * 4], a[row * 4 + 1], a[row * 4 + 2], a[row * 4 + 3]];
    for (let col = 0; col < 4; col++)
      out.push(p * b[col] + q * b[4 + col] + r * b[8 + col] + (col === 3 ? t : 0));
  }
  return out;
}

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
