import { cutBox, shared, TAG, type Cell, type Face, type Plane } from './cell';
import { hollowsAmong } from './hollow/form';
import type { Axis, Vec3 } from './vec';

/** A vertex nearer to the plane than this lies on it, mm. */
const EPS = 1e-9;

/** A side thinner than this is not cut off: the cell goes whole, mm. */
export const THIN = 1e-4;

/** Shifts tried in turn when a cap does not close, mm. */
const RETRIES = [0, 1e-5, -1e-5, 3e-5, -3e-5, 7e-5, -7e-5];

/** Both halves of a cut; a side that holds nothing is undefined. `shiftMm` tells how far a retry moved the plane. */
export interface CellHalves {
  negative?: Cell;
  positive?: Cell;
  shiftMm: number;
}

/**
 * Cuts a convex cell by a plane: negative half where normal . x < offset. Both halves share the very same cut
 * vertices, so no wood is lost or doubled. Where floating point leaves a cap open, the whole split is repeated with
 * the plane moved by up to 7e-5 mm; throws an Error when even that fails (never seen in the property tests).
 */
export function cutCell(cell: Cell, plane: Plane): CellHalves {
  const across = cell.box === undefined ? undefined : straight(plane);
  if (across) return cutAcross(cell, across);
  for (let i = 0; i < RETRIES.length; i++) {
    const halves = tryCut(cell, plane, RETRIES[i]);
    if (halves) return halves;
  }
  throw new Error(`cutCell: the cap of cell ${cell.id} does not close at offset ${plane.offset}`);
}

/** A plane across an axis: which one, where, and which way it looks. */
export interface Straight {
  axis: Axis;
  at: number;
  along: 1 | -1;
}

/** The axis that a plane lies exactly across; undefined for one that leans. */
export function straight({ normal: [x, y, z], offset }: Plane): Straight | undefined {
  const along = x + y + z;
  if ((along !== 1 && along !== -1) || x * x + y * y + z * z !== 1 || x * y + y * z + x * z !== 0)
    return undefined;
  return { axis: x !== 0 ? 0 : y !== 0 ? 1 : 2, at: along * offset, along };
}

/**
 * On which side of a plane across an axis a box lies whole, seen as the plane looks: -1 or 1; 0 where the plane goes through
 * it, and leaves more than a sliver on both sides.
 */
export function sideOfBox({ vertices }: Cell, { axis, at, along }: Straight): -1 | 0 | 1 {
  // The corners of a box in the order of boxCell: the first is its least, the seventh its greatest.
  const low = vertices[0][axis] - at;
  const high = vertices[6][axis] - at;
  if (along > 0) return high < THIN ? -1 : low > -THIN ? 1 : 0;
  return -low < THIN ? -1 : -high > -THIN ? 1 : 0;
}

/** A box cut across an axis, which most cuts are: no edges to look for. */
function cutAcross(cell: Cell, plane: Straight): CellHalves {
  const side = sideOfBox(cell, plane);
  if (side !== 0)
    return side < 0
      ? { negative: cell, positive: undefined, shiftMm: 0 }
      : { negative: undefined, positive: cell, shiftMm: 0 };
  const [below, above] = cutBox(cell, plane.axis, plane.at);
  return plane.along > 0
    ? { negative: below, positive: above, shiftMm: 0 }
    : { negative: above, positive: below, shiftMm: 0 };
}

/*
 * What follows runs some thousand times for every edit. What it needs in between lies in arrays that are made once and
 * used again, and what stays is made in its exact length: most of the time else goes into clearing up.
 */

/** Sides of the vertices, and distances from the plane: old vertices first, cut ones behind them. */
let distances = new Float64Array(64);
let sides = new Int8Array(64);
/** New number of each vertex in the half that is built, -1 for none yet; and the old numbers in the new order. */
let renumbered = new Int32Array(64);
let order = new Int32Array(64);
/** The vertices made on cut edges, and the edges: lower vertex, higher vertex. Few, so a list is searched fastest. */
const made: Vec3[] = [];
let cutLow = new Int32Array(64);
let cutHigh = new Int32Array(64);
let cuts = 0;
/** The loop of one face of the half, before it is kept. */
let loopOf = new Int32Array(64);
/** The faces of the half, before they are counted. */
const kept: Face[] = [];
/** Edges of the cap that is still open. */
let capFrom = new Int32Array(64);
let capTo = new Int32Array(64);
let open = 0;

/** Room for a cell's vertices and as many cut ones. */
function room(vertices: number): void {
  if (distances.length >= 2 * vertices) return;
  const size = 4 * vertices;
  distances = new Float64Array(size);
  sides = new Int8Array(size);
  renumbered = new Int32Array(size);
  order = new Int32Array(size);
  cutLow = new Int32Array(size);
  cutHigh = new Int32Array(size);
  loopOf = new Int32Array(size);
  capFrom = new Int32Array(size);
  capTo = new Int32Array(size);
}

function tryCut(cell: Cell, plane: Plane, shiftMm: number): CellHalves | undefined {
  const { vertices } = cell;
  const { normal } = plane;
  const offset = plane.offset + shiftMm;
  const nx = normal[0];
  const ny = normal[1];
  const nz = normal[2];
  const count = vertices.length;
  room(count);
  let least = Infinity;
  let most = -Infinity;
  for (let i = 0; i < count; i++) {
    const v = vertices[i];
    const raw = nx * v[0] + ny * v[1] + nz * v[2] - offset;
    const d = raw <= EPS && raw >= -EPS ? 0 : raw;
    distances[i] = d;
    if (d < least) least = d;
    if (d > most) most = d;
  }
  if (most < THIN) return { negative: cell, positive: undefined, shiftMm };
  if (least > -THIN) return { negative: undefined, positive: cell, shiftMm };
  for (let i = 0; i < count; i++) sides[i] = distances[i] > 0 ? 1 : distances[i] < 0 ? -1 : 0;
  cuts = 0;
  const negative = buildHalf(cell, normal, -1);
  const positive = negative && buildHalf(cell, normal, 1);
  return positive && { negative, positive, shiftMm };
}

/** The vertex where an edge crosses the plane: both halves and both faces beside the edge share it. */
function cutVertex(vertices: readonly Vec3[], a: number, b: number): number {
  const low = Math.min(a, b);
  const high = Math.max(a, b);
  const count = vertices.length;
  for (let i = 0; i < cuts; i++) if (cutLow[i] === low && cutHigh[i] === high) return count + i;
  const t = distances[low] / (distances[low] - distances[high]);
  const p = vertices[low];
  const q = vertices[high];
  made[cuts] = [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]), p[2] + t * (q[2] - p[2])];
  sides[count + cuts] = 0;
  cutLow[cuts] = low;
  cutHigh[cuts] = high;
  cuts += 1;
  return count + cuts - 1;
}

/** The half of a cell on one side, its cap closed; undefined where the cap does not close. */
function buildHalf(cell: Cell, normal: Vec3, side: 1 | -1): Cell | undefined {
  const { vertices, faces } = cell;
  const count = vertices.length;
  const sideOf = sides;
  const numbers = renumbered;
  const walk = loopOf;
  for (let i = 0; i < 2 * count; i++) numbers[i] = -1;
  open = 0;
  let used = 0;
  let faceCount = 0;
  for (let f = 0; f < faces.length; f++) {
    const { loop, normal: out, tag } = faces[f];
    let length = 0;
    let inside = 0;
    const corners = loop.length;
    let a = loop[0];
    let own = sideOf[a];
    for (let i = 1; i <= corners; i++) {
      if (own * side >= 0) {
        walk[length++] = a;
        if (own !== 0) inside++;
      }
      const b = loop[i === corners ? 0 : i];
      const next = sideOf[b];
      if (own * next < 0) walk[length++] = cutVertex(vertices, a, b);
      a = b;
      own = next;
    }
    if (length < 3 || inside === 0) continue;
    openEdges(length);
    const renewed = new Array<number>(length);
    for (let i = 0; i < length; i++) {
      const v = walk[i];
      if (numbers[v] < 0) {
        numbers[v] = used;
        order[used++] = v;
      }
      renewed[i] = numbers[v];
    }
    kept[faceCount++] = { loop: renewed, normal: out, tag };
  }
  const cap = capLoop();
  if (!cap) return undefined;
  // Every edge of the cap is one of a face that was kept: its vertices have their numbers.
  for (let i = 0; i < cap.length; i++) cap[i] = numbers[cap[i]];
  // Adding 0 turns -0 into 0, so that equal directions print and compare alike.
  kept[faceCount++] = {
    loop: cap,
    normal: shared([-side * normal[0] + 0, -side * normal[1] + 0, -side * normal[2] + 0]),
    tag: TAG.cut,
  };
  const own = new Array<Vec3>(used);
  for (let i = 0; i < used; i++) own[i] = order[i] < count ? vertices[order[i]] : made[order[i] - count];
  return {
    vertices: own,
    faces: kept.slice(0, faceCount),
    toLog: cell.toLog,
    origin: cell.origin,
    id: cell.id,
    box: undefined,
    hollows: cell.hollows && hollowsAmong(cell.hollows, cell.toLog, own),
    mm3: undefined,
  };
}

/** Enters the edges of the face just built that lie on the plane, reversed; an edge and its twin cancel. */
function openEdges(length: number): void {
  for (let i = 0; i < length; i++) {
    const a = loopOf[i];
    if (sides[a] !== 0) continue;
    const b = loopOf[i + 1 === length ? 0 : i + 1];
    if (sides[b] !== 0) continue;
    let twin = -1;
    for (let e = 0; e < open && twin < 0; e++) if (capFrom[e] === a && capTo[e] === b) twin = e;
    if (twin >= 0) {
      open -= 1;
      for (let e = twin; e < open; e++) {
        capFrom[e] = capFrom[e + 1];
        capTo[e] = capTo[e + 1];
      }
    } else {
      capFrom[open] = b;
      capTo[open++] = a;
    }
  }
}

const NO_EDGE = -1;

/** Where an open edge begins at a vertex, from a place on; NO_EDGE where none does. */
function edgeFrom(vertex: number, start: number): number {
  for (let e = start; e < open; e++) if (capFrom[e] === vertex) return e;
  return NO_EDGE;
}

/** The cap: the open edges chained into one loop; undefined when they do not close. */
function capLoop(): number[] | undefined {
  if (open < 3) return undefined;
  const loop = new Array<number>(open);
  loop[0] = capFrom[0];
  let n = 1;
  let at = capTo[0];
  while (at !== capFrom[0]) {
    const next = edgeFrom(at, 0);
    if (next < 0 || n >= open || edgeFrom(at, next + 1) >= 0) return undefined;
    loop[n++] = at;
    at = capTo[next];
  }
  return n === open ? loop : undefined;
}
