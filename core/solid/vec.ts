/** A point or direction in millimetres. */
export type Vec3 = readonly [number, number, number];

/** The three axes of an assembly's frame: length x, width y, thickness z. */
export type Axis = 0 | 1 | 2;

/** a + b. */
export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/** a - b. */
export const subtract = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
/** a, s times as long. */
export const scale = (a: Vec3, s: number): Vec3 => [a[0] * s, a[1] * s, a[2] * s];
/** The scalar product. */
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** The vector product, right-handed. */
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
/** Length. */
export const norm = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);
/** The same direction, of length 1; not a number for a vector of no length. */
export const normalized = (a: Vec3): Vec3 => scale(a, 1 / norm(a));

/** The unit vector along an axis. */
export const unit = (axis: Axis): Vec3 => (axis === 0 ? [1, 0, 0] : axis === 1 ? [0, 1, 0] : [0, 0, 1]);
