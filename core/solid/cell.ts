import { type Hollow, hollowsAmong } from './hollow/form';
import { movePoint, compose, inverse, isShift, turnDirection, type Rigid } from './rigid';
import { add, type Axis, scale, type Vec3 } from './vec';

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

/**
 * One flat face: vertex indices counter-clockwise seen from outside, and its direction. Where it lies follows from its
 * vertices (`faceOffset`), so that a cell which is shifted keeps its faces.
 */
export interface Face {
  loop: readonly number[];
  normal: Vec3;
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
  /**
   * That it is a box along the axes, its corners in the order of `boxCell`: a bit for each of its six sides that is fresh
   * from a cut. Most cells are, and a cut through one needs no search for edges.
   */
  box?: number | undefined;
  /** What is hollow in it, none over another: wood that is gone, of holes, grooves and rounded edges. */
  hollows?: readonly Hollow[] | undefined;
  /** Volume of its wood, once it was measured: moving changes none. Not part of what a cell is. */
  mm3?: number | undefined;
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
  return { vertices, faces: boxFaces(0), toLog, origin, id, box: 0, hollows: undefined, mm3: undefined };
}

/** The six directions along the axes, least side first: cells of boxes share them. */
const ALONG: readonly Vec3[] = [
  [-1, 0, 0],
  [1, 0, 0],
  [0, -1, 0],
  [0, 1, 0],
  [0, 0, -1],
  [0, 0, 1],
];
/** The corners of each side of a box, counter-clockwise seen from outside, in the same order. */
const SIDES: readonly (readonly number[])[] = [
  [0, 4, 7, 3],
  [1, 2, 6, 5],
  [0, 1, 5, 4],
  [3, 7, 6, 2],
  [0, 3, 2, 1],
  [4, 5, 6, 7],
];
/** The corner at the least, and at the greatest coordinate on every axis. */
const LEAST = 0;
const GREATEST = 6;

/** Faces of boxes by which of their sides are fresh from a cut: made once, shared by all cells. */
const knownFaces = new Map<number, readonly Face[]>();
function boxFaces(cut: number): readonly Face[] {
  let faces = knownFaces.get(cut);
  if (!faces) {
    faces = SIDES.map((loop, i) => ({ loop, normal: ALONG[i], tag: cut & (1 << i) ? TAG.cut : TAG.board }));
    knownFaces.set(cut, faces);
  }
  return faces;
}

/** Corners of a box on its less and its greater side of an axis, pair by pair. */
const PAIRS: readonly (readonly (readonly [number, number])[])[] = [
  [
    [0, 1],
    [3, 2],
    [4, 5],
    [7, 6],
  ],
  [
    [0, 3],
    [1, 2],
    [4, 7],
    [5, 6],
  ],
  [
    [0, 4],
    [1, 5],
    [2, 6],
    [3, 7],
  ],
];

/** A box cut across an axis at a coordinate within it: the lesser half, then the greater; they share the cut's corners. */
export function cutBox(cell: Cell, axis: Axis, at: number): [Cell, Cell] {
  const below = cell.vertices.slice();
  const above = cell.vertices.slice();
  for (const [low, high] of PAIRS[axis]) {
    const [x, y, z] = cell.vertices[low];
    const corner: Vec3 = axis === 0 ? [at, y, z] : axis === 1 ? [x, at, z] : [x, y, at];
    below[high] = corner;
    above[low] = corner;
  }
  const cut = cell.box as number;
  return [half(cell, below, cut | (2 << (2 * axis))), half(cell, above, cut | (1 << (2 * axis)))];
}

const half = ({ toLog, origin, id, hollows }: Cell, vertices: readonly Vec3[], box: number): Cell => ({
  vertices,
  faces: boxFaces(box),
  toLog,
  origin,
  id,
  box,
  hollows: hollows && hollowsAmong(hollows, toLog, vertices),
  mm3: undefined,
});

/** Moves a cell; its way back to the log goes with it. What only shifts keeps its faces. */
export function moveCell(cell: Cell, m: Rigid, back: Rigid = inverse(m)): Cell {
  const own = cell.vertices;
  const count = own.length;
  const x = m[3];
  const y = m[7];
  const z = m[11];
  let { faces, box } = cell;
  let vertices = new Array<Vec3>(count);
  if (isShift(m))
    for (let i = 0; i < count; i++) {
      const v = own[i];
      vertices[i] = [v[0] + x, v[1] + y, v[2] + z];
    }
  else {
    for (let i = 0; i < count; i++) vertices[i] = movePoint(m, own[i]);
    box = box === undefined ? undefined : turnedSides(box, m);
    if (box === undefined)
      faces = faces.map(({ loop, normal, tag }) => ({ loop, normal: shared(turnDirection(m, normal)), tag }));
    else {
      faces = boxFaces(box);
      vertices = inOrder(vertices);
    }
  }
  return {
    vertices,
    faces,
    toLog: compose(cell.toLog, back),
    origin: cell.origin,
    id: cell.id,
    box,
    hollows: cell.hollows,
    mm3: cell.mm3,
  };
}

/** Which sides of a box are fresh from a cut after a turn; undefined where it no longer lies along the axes. */
function turnedSides(box: number, m: Rigid): number | undefined {
  let out = 0;
  for (let i = 0; i < 6; i++) {
    const to = ALONG.indexOf(shared(turnDirection(m, ALONG[i])));
    if (to < 0) return undefined;
    if (box & (1 << i)) out |= 1 << to;
  }
  return out;
}

/** The corners of a box in the order of `boxCell`. */
function inOrder(corners: readonly Vec3[]): Vec3[] {
  // Opposite corners stay opposite, however the box was turned.
  const [a, b] = [corners[LEAST], corners[GREATEST]];
  const [x0, x1] = a[0] < b[0] ? [a[0], b[0]] : [b[0], a[0]];
  const [y0, y1] = a[1] < b[1] ? [a[1], b[1]] : [b[1], a[1]];
  const [z0, z1] = a[2] < b[2] ? [a[2], b[2]] : [b[2], a[2]];
  return [
    [x0, y0, z0],
    [x1, y0, z0],
    [x1, y1, z0],
    [x0, y1, z0],
    [x0, y0, z1],
    [x1, y0, z1],
    [x1, y1, z1],
    [x0, y1, z1],
  ];
}

/** The direction itself, or the one kept for all where it runs exactly along an axis. */
export function shared(n: Vec3): Vec3 {
  const [x, y, z] = n;
  if (y === 0 && z === 0) return x === 1 ? ALONG[1] : x === -1 ? ALONG[0] : n;
  if (x === 0 && z === 0) return y === 1 ? ALONG[3] : y === -1 ? ALONG[2] : n;
  if (x === 0 && y === 0) return z === 1 ? ALONG[5] : z === -1 ? ALONG[4] : n;
  return n;
}

/** Where a face lies along its own direction, mm: normal . x = offset on it. */
export function faceOffset({ vertices }: Cell, { loop, normal }: Face): number {
  const v = vertices[loop[0]];
  return normal[0] * v[0] + normal[1] * v[1] + normal[2] * v[2];
}

/**
 * Volume within a cell's faces, whatever is hollow in it, mm3: by divergence, relative to the cell's own first vertex so that far
 * cells keep their precision.
 */
export function solidVolume(cell: Cell): number {
  if (cell.box !== undefined) {
    const [a, b] = [cell.vertices[LEAST], cell.vertices[GREATEST]];
    return (b[0] - a[0]) * (b[1] - a[1]) * (b[2] - a[2]);
  }
  const { vertices } = cell;
  const [x, y, z] = vertices[0];
  let sixfold = 0;
  for (const { loop } of cell.faces) {
    const a = vertices[loop[0]];
    const ax = a[0] - x;
    const ay = a[1] - y;
    const az = a[2] - z;
    for (let i = 2; i < loop.length; i++) {
      const b = vertices[loop[i - 1]];
      const c = vertices[loop[i]];
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

/** Mean of the vertices, inside the cell since it is convex. */
export const cellCentre = (cell: Cell): Vec3 =>
  scale(
    cell.vertices.reduce<Vec3>((sum, v) => add(sum, v), [0, 0, 0]),
    1 / cell.vertices.length,
  );

/** Grain direction in the blank's frame: the log's pith direction seen from here. */
export const grainOf = (cell: Cell): Vec3 => [cell.toLog[8], cell.toLog[9], cell.toLog[10]];
