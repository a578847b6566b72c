import type { PlaneElastic } from '../../wood';
import { addTo, bandOf, factorBand, solveBand } from './band';

/** Layers of elements through a board's width. Even: odd ones break its mirror symmetry. */
export const LAYERS = 10;

/** How a board's edges give: displacements into the board for unit forces into its upper edge, thickness 1 mm. */
export interface BoardGive {
  /** Nodes along the length. */
  nodes: number;
  /** Row after row: how far the same edge gives at a node for a force at another. */
  same: Float64Array;
  /** How far the far edge moves the same way. */
  far: Float64Array;
}

/** Stiffness of a plane-stress rectangle with four nodes, 2 x 2 Gauss points; nodes counter-clockwise from the least corner. */
export function quadStiffness(dx: number, dy: number, { Ex, Ey, G, nu }: PlaneElastic): Float64Array {
  const back = (nu * Ey) / Ex;
  const scale = 1 / (1 - nu * back);
  const [d11, d22, d12, d33] = [Ex * scale, Ey * scale, nu * Ey * scale, G];
  const K = new Float64Array(64);
  const at = 1 / Math.sqrt(3);
  const corners = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ] as const;
  for (const gx of [-at, at])
    for (const gy of [-at, at]) {
      const bx = corners.map(([cx, cy]) => (cx * (1 + gy * cy) * 0.5) / dx);
      const by = corners.map(([cx, cy]) => (cy * (1 + gx * cx) * 0.5) / dy);
      const area = (dx * dy) / 4;
      for (let i = 0; i < 4; i++)
        for (let j = 0; j < 4; j++) {
          K[2 * i * 8 + 2 * j] += area * (bx[i] * d11 * bx[j] + by[i] * d33 * by[j]);
          K[2 * i * 8 + 2 * j + 1] += area * (bx[i] * d12 * by[j] + by[i] * d33 * bx[j]);
          K[(2 * i + 1) * 8 + 2 * j] += area * (by[i] * d12 * bx[j] + bx[i] * d33 * by[j]);
          K[(2 * i + 1) * 8 + 2 * j + 1] += area * (by[i] * d22 * by[j] + bx[i] * d33 * bx[j]);
        }
    }
  return K;
}

/**
 * How a board gives, by finite elements: plane stress, four-node rectangles, `LAYERS` through the width, held where
 * it cannot strain (along x at its centre, across at both ends of its middle line). Left half computed, right mirrored.
 */
export function boardGive(length: number, width: number, cells: number, wood: PlaneElastic): BoardGive {
  const [dx, dy] = [length / cells, width / LAYERS];
  const rows = LAYERS + 1;
  const nodes = cells + 1;
  const size = 2 * nodes * rows;
  const K = bandOf(size, 2 * (rows + 2) - 1);
  const quad = quadStiffness(dx, dy, wood);
  const node = (c: number, r: number) => c * rows + r;
  for (let c = 0; c < cells; c++)
    for (let r = 0; r < LAYERS; r++) {
      const of = [node(c, r), node(c + 1, r), node(c + 1, r + 1), node(c, r + 1)];
      for (let i = 0; i < 8; i++)
        for (let j = 0; j <= i; j++) {
          const row = 2 * of[i >> 1] + (i & 1);
          const column = 2 * of[j >> 1] + (j & 1);
          addTo(K, row, column, quad[i * 8 + j]);
        }
    }
  const hold = 1e7 * Math.max(wood.Ex, wood.Ey);
  const middle = LAYERS / 2;
  addTo(K, 2 * node(cells >> 1, middle), 2 * node(cells >> 1, middle), hold);
  for (const c of [0, cells]) addTo(K, 2 * node(c, middle) + 1, 2 * node(c, middle) + 1, hold);
  factorBand(K);
  const same = new Float64Array(nodes * nodes);
  const far = new Float64Array(nodes * nodes);
  const u = new Float64Array(size);
  for (let load = 0; load <= cells >> 1; load++) {
    u.fill(0);
    const loaded = 2 * node(load, LAYERS) + 1;
    u[loaded] = -1;
    solveBand(K, u, loaded);
    for (let c = 0; c < nodes; c++) {
      const here = -u[2 * node(c, LAYERS) + 1];
      const there = -u[2 * node(c, 0) + 1];
      same[c * nodes + load] = here;
      far[c * nodes + load] = there;
      const [mc, ml] = [cells - c, cells - load];
      same[mc * nodes + ml] = here;
      far[mc * nodes + ml] = there;
    }
  }
  return { nodes, same, far };
}

const known = new Map<string, BoardGive>();
/** Forgets all boards, for measuring from cold. */
export const forgetGive = (): void => known.clear();
const MOST_KNOWN = 60;

/** The same, kept: boards of one width and wood share it, and dragging a clamp changes none. */
export function knownGive(length: number, width: number, cells: number, wood: PlaneElastic): BoardGive {
  const key = [length, width, cells, wood.Ex, wood.Ey, wood.G, wood.nu].join();
  const found = known.get(key) ?? boardGive(length, width, cells, wood);
  known.delete(key);
  known.set(key, found);
  if (known.size > MOST_KNOWN) known.delete(known.keys().next().value as string);
  return found;
}
