import type { PlaneElastic } from '../../wood';
import { knownGive, type BoardGive } from './board';

/** A board in a glue-up, or a caul: how wide across the line, and its wood in that plane. */
export interface PressedBoard {
  width: number;
  wood: PlaneElastic;
}

/** A clamp: where along the line (mm from the left end), its force in newtons, and how long its pad is. */
export interface ClampForce {
  at: number;
  force: number;
  pad: number;
}

/** A stack of boards under clamps. */
export interface PressCase {
  length: number;
  thickness: number;
  /** From one outer edge to the other, cauls among them. */
  boards: readonly PressedBoard[];
  clamps: readonly ClampForce[];
  /** The gap of each line before clamping, mm at x; closed where missing. */
  gaps?: readonly (((x: number) => number) | undefined)[];
  /** Largest cell along the line, mm; a coarser one is used where lines are many. */
  cell?: number;
}

/** Pressure along one line. */
export interface LinePressure {
  /** Positions, mm from the left end. */
  x: Float64Array;
  /** Megapascals at each; never below zero. */
  pressure: Float64Array;
  /** What stays open, mm; zero where there is pressure. */
  gap: Float64Array;
}

/** What the solver found. `coarse` tells that cells are longer than wanted; `settled` is false if it gave up. */
export interface Pressed {
  lines: LinePressure[];
  passes: number;
  settled: boolean;
  coarse: boolean;
}

const MOST_PASSES = 200;
/** From this pass on each line changes only where it is most wrong: changing all at once can go round in a circle. */
const CAREFUL = 20;
/** Farther from a pad than this many times the wood between, a line is taken as open until it closes: saves passes. */
const FAR = 5;
/** Work that a worker can do in a second or two, multiplications. */
const MOST_WORK = 6e8;

/** Cells along a line: 10 mm, an eighth of a narrow board, an even number, and no more than the work allows. */
export function cellsFor({ length, boards, cell }: PressCase): { cells: number; coarse: boolean } {
  const least = Math.min(...boards.map(({ width }) => width));
  const wanted = cell ?? (least < 60 ? Math.max(least / 8, 0.5) : 10);
  const most = Math.cbrt(MOST_WORK / (2.4 * Math.max(1, boards.length - 1)));
  const fine = Math.max(8, 2 * Math.round(length / wanted / 2));
  const cells = Math.min(fine, 2 * Math.floor(most / 2));
  return { cells, coarse: cells < fine };
}

/** Forces on the nodes of an outer edge: pads are uniform pressures with consistent loads, clipped at the ends. */
export function padLoads(clamps: readonly ClampForce[], length: number, cells: number): Float64Array {
  const dx = length / cells;
  const load = new Float64Array(cells + 1);
  for (const { at, force, pad } of clamps) {
    const from = Math.max(0, Math.min(length - 1e-6, at - Math.max(pad, 1e-3) / 2));
    const to = Math.min(length, Math.max(from + 1e-6, at + Math.max(pad, 1e-3) / 2));
    const per = force / (to - from);
    for (let c = Math.floor(from / dx); c < cells && c * dx < to; c++) {
      const a = Math.max(from, c * dx);
      const b = Math.min(to, (c + 1) * dx);
      if (b <= a) continue;
      const share = (a + b) / 2 / dx - c;
      load[c] += per * (b - a) * (1 - share);
      load[c + 1] += per * (b - a) * share;
    }
  }
  return load;
}

/**
 * Pressure on every glue line of boards under clamps: linear elastic boards that touch or lift off, without friction.
 * Unknowns are the nodal forces of each line (never below zero) and the lift and tilt of every board but the first.
 * Nodes that pull are let go and nodes that overlap are taken up until nothing changes. `start` is a former answer's
 * set of touching nodes. Denting, creep, squeeze-out and bow out of the plane are not modelled.
 */
export function press(given: PressCase, start?: Pressed): Pressed {
  const { length, thickness, boards, clamps } = given;
  const lines = boards.length - 1;
  if (lines < 1) return { lines: [], passes: 0, settled: true, coarse: false };
  const { cells, coarse } = cellsFor(given);
  const n = cells + 1;
  const dx = length / cells;
  const give = boards.map(({ width, wood }) => knownGive(length, width, cells, wood));
  const load = padLoads(clamps, length, cells);
  for (let i = 0; i < n; i++) load[i] /= thickness;
  const total = load.reduce((sum, f) => sum + f, 0);
  const x = Float64Array.from({ length: n }, (_, i) => i * dx);
  const moment = load.reduce((sum, f, i) => sum + f * (x[i] / length - 0.5), 0);
  const gaps = Array.from({ length: lines }, (_, l) => {
    const gap = given.gaps?.[l];
    return gap ? Float64Array.from(x, gap) : new Float64Array(n);
  });
  const farLoad = [times(give[0].far, load, n), times(give[boards.length - 1].far, load, n)];
  const active = Array.from({ length: lines }, (_, l) => {
    const before = start?.lines[l];
    const reach = FAR * Math.max(widthUpTo(boards, l + 1), 2 * dx);
    return Array.from({ length: n }, (_, i) =>
      before && before.x.length === n
        ? before.pressure[i] > 0
        : clamps.some(({ at, pad }) => Math.abs(x[i] - at) <= pad / 2 + reach),
    );
  });
  let force = gaps.map(() => new Float64Array(n));
  let open = gaps.map(() => new Float64Array(n));
  let passes = 0;
  let settled = total <= 0;
  while (!settled && passes < MOST_PASSES) {
    passes += 1;
    const found = solveActive({ active, give, gaps, farLoad, x, length, total, moment });
    force = found.force;
    open = found.open;
    settled = true;
    const small = 1e-9 * (total / n);
    for (let l = 0; l < lines; l++) {
      const wrong = wrongNodes(active[l], force[l], open[l], small);
      if (wrong.length > 0) settled = false;
      for (const i of passes < CAREFUL ? wrong : wrong.slice(0, 1)) active[l][i] = !active[l][i];
    }
    for (const line of active) if (line.filter(Boolean).length < 2) rescue(line, total, moment);
  }
  return {
    passes,
    settled,
    coarse,
    lines: force.map((forces, l) => ({
      x,
      pressure: forces.map((f, i) => Math.max(0, f) / (i === 0 || i === n - 1 ? dx / 2 : dx)),
      gap: open[l].map((g, i) => (active[l][i] ? 0 : Math.max(0, g))),
    })),
  };
}

/** Nodes that pull, or overlap: the worst first, those that pull before the others. */
function wrongNodes(active: boolean[], force: Float64Array, open: Float64Array, small: number): number[] {
  const pull: number[] = [];
  const overlap: number[] = [];
  for (let i = 0; i < active.length; i++) {
    if (active[i] && force[i] < -small) pull.push(i);
    else if (!active[i] && open[i] < -1e-10) overlap.push(i);
  }
  pull.sort((a, b) => force[a] - force[b]);
  overlap.sort((a, b) => open[a] - open[b]);
  return [...pull, ...overlap];
}

/** Wood between a line and the nearer outer edge, mm. */
const widthUpTo = (boards: readonly PressedBoard[], line: number): number => {
  const sum = (part: readonly PressedBoard[]) => part.reduce((all, { width }) => all + width, 0);
  return Math.min(sum(boards.slice(0, line)), sum(boards.slice(line)));
};

/** A line that let go of all its nodes holds on at least under the load's centre. */
function rescue(line: boolean[], total: number, moment: number): void {
  const centre = Math.round((moment / (total || 1) + 0.5) * (line.length - 1));
  for (const i of [centre - 1, centre, centre + 1]) if (i >= 0 && i < line.length) line[i] = true;
}

function times(matrix: Float64Array, vector: Float64Array, n: number): Float64Array {
  const out = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let sum = 0;
    for (let j = 0; j < n; j++) sum += matrix[i * n + j] * vector[j];
    out[i] = sum;
  }
  return out;
}

interface ActiveCase {
  active: boolean[][];
  give: BoardGive[];
  gaps: Float64Array[];
  farLoad: Float64Array[];
  x: Float64Array;
  length: number;
  total: number;
  moment: number;
}

/**
 * Nodal forces where lines touch, and gaps where they do not. A block-tridiagonal system, decomposed block by block;
 * lift and tilt of each line come from a small system that makes every line carry the whole force about its centre.
 */
function solveActive({ active, give, gaps, farLoad, x, length, total, moment }: ActiveCase) {
  const lines = active.length;
  const n = x.length;
  const on = active.map((line) => line.flatMap((is, i) => (is ? [i] : [])));
  const lever = (i: number) => x[i] / length - 0.5;
  const right = on.map((nodes, l) =>
    Float64Array.from(
      nodes,
      (i) => -gaps[l][i] + (l === 0 ? farLoad[0][i] : 0) + (l === lines - 1 ? farLoad[1][i] : 0),
    ),
  );
  // Columns solved together: the right side, then lift and tilt of every line.
  const columns = 1 + 2 * lines;
  const sides = on.map((nodes, l) => {
    const block = new Float64Array(nodes.length * columns);
    nodes.forEach((i, k) => {
      block[k * columns] = right[l][k];
      block[k * columns + 1 + 2 * l] = 1;
      block[k * columns + 2 + 2 * l] = lever(i);
    });
    return block;
  });
  solveBlocks(on, give, n, sides, columns);
  // What each column adds to every line's force and moment.
  const size = 2 * lines;
  const S = Array.from({ length: size }, () => new Float64Array(size + 1));
  on.forEach((nodes, l) => {
    nodes.forEach((i, k) => {
      for (let c = 0; c < columns; c++) {
        const value = sides[l][k * columns + c];
        const column = c === 0 ? size : c - 1;
        S[2 * l][column] += value;
        S[2 * l + 1][column] += value * lever(i);
      }
    });
  });
  for (let l = 0; l < lines; l++) {
    S[2 * l][size] -= total;
    S[2 * l + 1][size] -= moment;
  }
  const rigid = eliminate(S);
  const force = on.map((nodes, l) => {
    const out = new Float64Array(n);
    nodes.forEach((i, k) => {
      let sum = sides[l][k * columns];
      for (let c = 0; c < size; c++) sum -= sides[l][k * columns + 1 + c] * rigid[c];
      out[i] = sum;
    });
    return out;
  });
  const open = force.map((_, l) => {
    const out = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      if (active[l][i]) continue;
      let sum = gaps[l][i] + rigid[2 * l] + rigid[2 * l + 1] * lever(i);
      if (l === 0) sum -= farLoad[0][i];
      if (l === lines - 1) sum -= farLoad[1][i];
      for (const j of on[l]) sum += (give[l].same[i * n + j] + give[l + 1].same[i * n + j]) * force[l][j];
      if (l > 0) for (const j of on[l - 1]) sum -= give[l].far[i * n + j] * force[l - 1][j];
      if (l + 1 < lines) for (const j of on[l + 1]) sum -= give[l + 1].far[i * n + j] * force[l + 1][j];
      out[i] = sum;
    }
    return out;
  });
  return { force, open };
}

/** Solves the block-tridiagonal system of all lines for many right sides, in place, by Cholesky block by block. */
function solveBlocks(on: number[][], give: BoardGive[], n: number, sides: Float64Array[], columns: number): void {
  const factors: Float64Array[] = [];
  const links: Float64Array[] = [];
  for (let l = 0; l < on.length; l++) {
    const nodes = Int32Array.from(on[l]);
    const m = nodes.length;
    const D = blockOf(give[l].same, give[l + 1].same, nodes, n);
    if (l > 0) {
      const W = linkOf(give[l].far, nodes, Int32Array.from(on[l - 1]), n, factors[l - 1]);
      takeSquare(D, W, m, on[l - 1].length);
      links.push(W);
    }
    factorDense(D, m);
    factors.push(D);
  }
  for (let l = 0; l < on.length; l++) {
    if (l > 0) takeProduct(links[l - 1], on[l].length, on[l - 1].length, sides[l - 1], sides[l], columns, false);
    forward(factors[l], on[l].length, sides[l], columns);
  }
  for (let l = on.length - 1; l >= 0; l--) {
    backward(factors[l], on[l].length, sides[l], columns);
    if (l > 0) takeProduct(links[l - 1], on[l].length, on[l - 1].length, sides[l], sides[l - 1], columns, true);
  }
}

/** Sum of products of two stretches: where nearly all the time goes, so four sums run side by side. */
function dotOf(A: Float64Array, a: number, B: Float64Array, b: number, count: number): number {
  let [s0, s1, s2, s3] = [0, 0, 0, 0];
  let k = 0;
  for (; k + 3 < count; k += 4) {
    s0 += A[a + k] * B[b + k];
    s1 += A[a + k + 1] * B[b + k + 1];
    s2 += A[a + k + 2] * B[b + k + 2];
    s3 += A[a + k + 3] * B[b + k + 3];
  }
  for (; k < count; k++) s0 += A[a + k] * B[b + k];
  return s0 + s1 + (s2 + s3);
}

/** What the edges on both sides of a line give, at the nodes that touch. */
function blockOf(a: Float64Array, b: Float64Array, nodes: Int32Array, n: number): Float64Array {
  const m = nodes.length;
  const D = new Float64Array(m * m);
  for (let r = 0; r < m; r++)
    for (let c = 0; c <= r; c++) {
      const at = nodes[r] * n + nodes[c];
      D[r * m + c] = a[at] + b[at];
    }
  return D;
}

/** The link to the line before, solved with that line's factor: row by row of this line. */
function linkOf(
  far: Float64Array,
  nodes: Int32Array,
  before: Int32Array,
  n: number,
  L: Float64Array,
): Float64Array {
  const [m, p] = [nodes.length, before.length];
  const W = new Float64Array(m * p);
  for (let a = 0; a < m; a++) {
    const row = a * p;
    for (let b = 0; b < p; b++)
      W[row + b] = (-far[nodes[a] * n + before[b]] - dotOf(L, b * p, W, row, b)) / L[b * p + b];
  }
  return W;
}

function takeSquare(D: Float64Array, W: Float64Array, m: number, p: number): void {
  for (let a = 0; a < m; a++) for (let b = 0; b <= a; b++) D[a * m + b] -= dotOf(W, a * p, W, b * p, p);
}

/** Takes the link times one line's columns from the other's; transposed on the way back. */
function takeProduct(
  W: Float64Array,
  m: number,
  p: number,
  from: Float64Array,
  to: Float64Array,
  columns: number,
  back: boolean,
): void {
  for (let a = 0; a < m; a++)
    for (let k = 0; k < p; k++) {
      const w = W[a * p + k];
      const [source, target] = back ? [a, k] : [k, a];
      for (let c = 0; c < columns; c++) to[target * columns + c] -= w * from[source * columns + c];
    }
}

function factorDense(D: Float64Array, m: number): void {
  for (let i = 0; i < m; i++)
    for (let j = 0; j <= i; j++) {
      const sum = D[i * m + j] - dotOf(D, i * m, D, j * m, j);
      if (i === j) D[i * m + i] = Math.sqrt(Math.max(sum, 1e-18));
      else D[i * m + j] = sum / D[j * m + j];
    }
}

function forward(L: Float64Array, m: number, side: Float64Array, columns: number): void {
  for (let i = 0; i < m; i++) {
    for (let k = 0; k < i; k++) {
      const f = L[i * m + k];
      for (let c = 0; c < columns; c++) side[i * columns + c] -= f * side[k * columns + c];
    }
    for (let c = 0; c < columns; c++) side[i * columns + c] /= L[i * m + i];
  }
}

function backward(L: Float64Array, m: number, side: Float64Array, columns: number): void {
  for (let i = m - 1; i >= 0; i--) {
    for (let c = 0; c < columns; c++) side[i * columns + c] /= L[i * m + i];
    for (let k = 0; k < i; k++) {
      const f = L[i * m + k];
      for (let c = 0; c < columns; c++) side[k * columns + c] -= f * side[i * columns + c];
    }
  }
}

/** Gauss with row exchange on a small system; the last column is the right side. */
function eliminate(rows: Float64Array[]): Float64Array {
  const size = rows.length;
  for (let c = 0; c < size; c++) {
    let best = c;
    for (let r = c + 1; r < size; r++) if (Math.abs(rows[r][c]) > Math.abs(rows[best][c])) best = r;
    [rows[c], rows[best]] = [rows[best], rows[c]];
    const pivot = rows[c][c] || 1e-30;
    for (let r = 0; r < size; r++) {
      if (r === c) continue;
      const f = rows[r][c] / pivot;
      if (f !== 0) for (let k = c; k <= size; k++) rows[r][k] -= f * rows[c][k];
    }
  }
  return Float64Array.from(rows, (row, i) => row[size] / (row[i] || 1e-30));
}
