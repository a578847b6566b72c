import { movePoint, compose, inverse, turnDirection, type Rigid } from './rigid';
import { add, cross, dot, scale, subtract, type Vec3 } from './vec';

/** Where a piece of wood comes from: its board, and with it species and figure. */
export interface Origin {
  board: string;
  species: string;
  /** Seed of the log's figure: boards of one log share it. */
  seed: number;
  /** Seed of what is the board's own: its shade. */
  shade: number;
  /** How far the board's colour lies from its wood's usual one, OKLab; for its picture. */
  tone?: readonly [number, number, number];
  /** What was found on the board, for its picture; nothing here looks into it. */
  marks?: unknown;
}

/** One flat face: vertex indices counter-clockwise seen from outside; normal . x = offset on it. */
export interface Face {
  loop: readonly number[];
  normal: Vec3;
  offset: number;
  tag: number;
}

/** A convex piece of one wood in its blank's frame, with the motion back to the log it came from. */
export interface Cell {
  vertices: readonly Vec3[];
  faces: readonly Face[];
  /** Blank to log: z along the pith, origin on it. */
  toLog: Rigid;
  origin: Origin;
  /** Lineage: board / strip / slice. */
  id: string;
}

/** A plane: normal . x = offset, with a unit normal. */
export interface Plane {
  normal: Vec3;
  offset: number;
}

/** Marks of faces: as it came from the board, or fresh from a cut. */
export const TAG = { board: 0, cut: 1 } as const;

/** A box from the origin to `size`, as a cell. Throws a RangeError when a side is not a positive finite number. */
export function boxCell(size: Vec3, toLog: Rigid, origin: Origin, id: string): Cell {
  if (!size.every((side) => Number.isFinite(side) && side > 0))
    throw new RangeError(
      `boxCell: every side must be a positive number of millimetres, got ${size.join(' x ')}`,
    );
  const [l, w, t] = size;
  const vertices: Vec3[] = [
    [0, 0, 0],
    [l, 0, 0],
    [l, w, 0],
    [0, w, 0],
    [0, 0, t],
    [l, 0, t],
    [l, w, t],
    [0, w, t],
  ];
  const face = (loop: number[], normal: Vec3, offset: number): Face => ({
    loop,
    normal,
    offset,
    tag: TAG.board,
  });
  const faces = [
    face([0, 4, 7, 3], [-1, 0, 0], 0),
    face([1, 2, 6, 5], [1, 0, 0], l),
    face([0, 1, 5, 4], [0, -1, 0], 0),
    face([3, 7, 6, 2], [0, 1, 0], w),
    face([0, 3, 2, 1], [0, 0, -1], 0),
    face([4, 5, 6, 7], [0, 0, 1], t),
  ];
  return { vertices, faces, toLog, origin, id };
}

/** Moves a cell; its way back to the log goes with it. */
export function moveCell(cell: Cell, m: Rigid, back: Rigid = inverse(m)): Cell {
  const vertices: Vec3[] = [];
  for (const v of cell.vertices) vertices.push(movePoint(m, v));
  const faces: Face[] = [];
  for (const face of cell.faces) {
    const normal = turnDirection(m, face.normal);
    const offset = face.offset + normal[0] * m[3] + normal[1] * m[7] + normal[2] * m[11];
    faces.push({ loop: face.loop, normal, offset, tag: face.tag });
  }
  return { vertices, faces, toLog: compose(cell.toLog, back), origin: cell.origin, id: cell.id };
}

/** Volume in mm3 by divergence, relative to the cell's own first vertex so that far cells keep their precision. */
export function cellVolume(cell: Cell): number {
  const { vertices } = cell;
  const [x, y, z] = vertices[0];
  let sixfold = 0;
  for (const { loop } of cell.faces) {
    const a = vertices[loop[0]];
    const ax = a[0] - x;
    const ay = a[1] - y;
    const az = a[2] - z;
    for (let i = 1; i + 1 < loop.length; i++) {
      const b = vertices[loop[i]];
      const c = vertices[loop[i + 1]];
      const bx = b[0] - x;
      const by = b[1] - y;
      const bz = b[2] - z;
      const cx = c[0] - x;
      const cy = c[1] - y;
      const cz = c[2] - z;
      sixfold += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
    }
  }
  return sixfold / 6;
}

/** Area of a face in mm2. */
export function faceArea(cell: Cell, face: Face): number {
  const base = cell.vertices[face.loop[0]];
  let sum: Vec3 = [0, 0, 0];
  for (let i = 1; i + 1 < face.loop.length; i++) {
    const a = subtract(cell.vertices[face.loop[i]], base);
    const b = subtract(cell.vertices[face.loop[i + 1]], base);
    sum = add(sum, cross(a, b));
  }
  return dot(sum, face.normal) / 2;
}

/** Mean of the vertices, inside the cell since it is convex. */
export const cellCentre = (cell: Cell): Vec3 =>
  scale(
    cell.vertices.reduce<Vec3>((sum, v) => add(sum, v), [0, 0, 0]),
    1 / cell.vertices.length,
  );

/** Grain direction in the blank's frame: the log's pith direction seen from here. */
export const grainOf = (cell: Cell): Vec3 => [cell.toLog[8], cell.toLog[9], cell.toLog[10]];
