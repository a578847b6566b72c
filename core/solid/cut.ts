import { TAG, type Cell, type Face, type Plane } from './cell';
import type { Vec3 } from './vec';

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
  for (let i = 0; i < RETRIES.length; i++) {
    const halves = tryCut(cell, plane, RETRIES[i]);
    if (halves) return halves;
  }
  throw new Error(`cutCell: the cap of cell ${cell.id} does not close at offset ${plane.offset}`);
}

/*
 * What follows runs some hundred times for every edit, so it is written with plain loops and index arrays rather than
 * with maps and closures: that makes a replay about five times faster.
 */

function tryCut(cell: Cell, asked: Plane, shiftMm: number): CellHalves | undefined {
  const plane = shiftMm === 0 ? asked : { normal: asked.normal, offset: asked.offset + shiftMm };
  const { vertices } = cell;
  const [nx, ny, nz] = plane.normal;
  const distances = new Float64Array(vertices.length);
  let least = Infinity;
  let most = -Infinity;
  for (let i = 0; i < vertices.length; i++) {
    const v = vertices[i];
    const raw = nx * v[0] + ny * v[1] + nz * v[2] - plane.offset;
    const d = raw <= EPS && raw >= -EPS ? 0 : raw;
    distances[i] = d;
    if (d < least) least = d;
    if (d > most) most = d;
  }
  if (most < THIN) return { negative: cell, positive: undefined, shiftMm };
  if (least > -THIN) return { negative: undefined, positive: cell, shiftMm };
  const split = splitEdges(cell, distances);
  const negative = buildHalf(cell, plane, split, -1);
  const positive = negative && buildHalf(cell, plane, split, 1);
  return positive && { negative, positive, shiftMm };
}

/** Vertices with the cut ones appended, their side of the plane, and each face's loop with the cut vertices set in. */
interface SplitCell {
  vertices: Vec3[];
  sides: number[];
  loops: number[][];
}

function splitEdges(cell: Cell, distances: Float64Array): SplitCell {
  const vertices = cell.vertices.slice();
  const sides: number[] = [];
  for (let i = 0; i < distances.length; i++) sides.push(Math.sign(distances[i]));
  /** Cut edges so far: lower vertex, higher vertex, and the vertex made on it. Few, so a list is searched fastest. */
  const cut: number[] = [];
  const cutVertex = (a: number, b: number): number => {
    const low = a < b ? a : b;
    const high = a < b ? b : a;
    for (let i = 0; i < cut.length; i += 3) if (cut[i] === low && cut[i + 1] === high) return cut[i + 2];
    const t = distances[low] / (distances[low] - distances[high]);
    const p = cell.vertices[low];
    const q = cell.vertices[high];
    const made = vertices.length;
    vertices.push([p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]), p[2] + t * (q[2] - p[2])]);
    sides.push(0);
    cut.push(low, high, made);
    return made;
  };
  const loops: number[][] = [];
  for (const { loop } of cell.faces) {
    const out: number[] = [];
    for (let i = 0; i < loop.length; i++) {
      const a = loop[i];
      const b = loop[i + 1 === loop.length ? 0 : i + 1];
      out.push(a);
      if (sides[a] * sides[b] < 0) out.push(cutVertex(a, b));
    }
    loops.push(out);
  }
  return { vertices, sides, loops };
}

function buildHalf(cell: Cell, plane: Plane, split: SplitCell, side: 1 | -1): Cell | undefined {
  const { sides } = split;
  const faces: Face[] = [];
  for (let f = 0; f < cell.faces.length; f++) {
    const loop: number[] = [];
    let inside = 0;
    for (const v of split.loops[f]) {
      if (sides[v] * side < 0) continue;
      loop.push(v);
      if (sides[v] !== 0) inside++;
    }
    if (loop.length < 3 || inside === 0) continue;
    const { normal, offset, tag } = cell.faces[f];
    faces.push({ loop, normal, offset, tag });
  }
  const cap = capLoop(faces, sides);
  if (!cap) return undefined;
  const [nx, ny, nz] = plane.normal;
  // Adding 0 turns -0 into 0, so that equal directions print and compare alike.
  faces.push({
    loop: cap,
    normal: [-side * nx + 0, -side * ny + 0, -side * nz + 0],
    offset: -side * plane.offset + 0,
    tag: TAG.cut,
  });
  return compact(cell, faces, split.vertices);
}

/** The cap: edges on the plane reversed, twins cancelled, chained into one loop; undefined when they do not close. */
function capLoop(faces: readonly Face[], sides: readonly number[]): number[] | undefined {
  const from: number[] = [];
  const to: number[] = [];
  for (const { loop } of faces) {
    for (let i = 0; i < loop.length; i++) {
      const a = loop[i];
      const b = loop[i + 1 === loop.length ? 0 : i + 1];
      if (sides[a] !== 0 || sides[b] !== 0) continue;
      let twin = -1;
      for (let e = 0; e < from.length && twin < 0; e++) if (from[e] === a && to[e] === b) twin = e;
      if (twin >= 0) {
        from.splice(twin, 1);
        to.splice(twin, 1);
      } else {
        from.push(b);
        to.push(a);
      }
    }
  }
  if (from.length < 3) return undefined;
  const loop = [from[0]];
  let at = to[0];
  while (at !== from[0]) {
    const next = from.indexOf(at);
    if (next < 0 || loop.length > from.length || from.indexOf(at, next + 1) >= 0) return undefined;
    loop.push(at);
    at = to[next];
  }
  return loop.length === from.length ? loop : undefined;
}

/** The cell of these faces, without the vertices that no face uses. Renumbers the loops in place: they are its own. */
function compact(cell: Cell, faces: Face[], all: readonly Vec3[]): Cell {
  const index = new Int32Array(all.length).fill(-1);
  const vertices: Vec3[] = [];
  for (const face of faces) {
    const loop = face.loop as number[];
    for (let i = 0; i < loop.length; i++) {
      const v = loop[i];
      if (index[v] < 0) {
        index[v] = vertices.length;
        vertices.push(all[v]);
      }
      loop[i] = index[v];
    }
  }
  return { vertices, faces, toLog: cell.toLog, origin: cell.origin, id: cell.id };
}
