import { rising, sumOf } from '../../units';
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
/**
 * What share of the wrong nodes changes in a pass, the worst first. Changing all at once can go round in a circle, so
 * the share falls after some passes, to one node a line at last.
 */
const boldness = (pass: number): number => (pass < 12 ? 1 : pass < 24 ? 0.5 : pass < 60 ? 0.2 : 0);
/** Farther from a pad than this many times the wood between, a line is taken as open until it closes: saves passes. */
const FAR = 5;
/** Work that a worker can do in a second, multiplications; on a machine that is busy, in two. */
const MOST_WORK = 4e7;

/** Cells along a line: 10 mm, an eighth of a narrow board, an even number, and no more than the work allows. */
export function cellsFor({ length, boards, cell }: PressCase): { cells: number; coarse: boolean } {
  const least = Math.min(...boards.map(({ width }) => width));
  const wanted = cell ?? (least < 60 ? Math.max(least / 8, 0.5) : 10);
  const most = Math.cbrt(MOST_WORK / (1.2 * Math.max(1, boards.length - 1)));
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
  const total = sumOf(load);
  const x = Float64Array.from({ length: n }, (_, i) => i * dx);
  const moment = sumOf(load, (f, i) => f * (x[i] / length - 0.5));
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
      for (const i of wrong.slice(0, Math.max(1, Math.ceil(wrong.length * boldness(passes)))))
        active[l][i] = !active[l][i];
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
  pull.sort(rising((a) => force[a]));
  overlap.sort(rising((a) => open[a]));
  return [...pull, ...overlap];
}

/** Wood between a line and the nearer outer edge, mm. */
const widthUpTo = (boards: readonly PressedBoard[], line: number): number => {
  const sum = (part: readonly PressedBoard[]) => sumOf(part, ({ width }) => width);
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
 * Nodal forces where lines touch, and gaps where they do not. Block after block (Cholesky), each line together with its
 * own lift and tilt: these make it carry the whole force about its centre, and cost a correction of rank two.
 */
function solveActive({ active, give, gaps, farLoad, x, length, total, moment }: ActiveCase) {
  const lines = active.length;
  const n = x.length;
  const on = active.map((line) => Int32Array.from(line.flatMap((is, i) => (is ? [i] : []))));
  const lever = (i: number) => x[i] / length - 0.5;
  const blocks: Block[] = [];
  for (let l = 0; l < lines; l++) {
    const nodes = on[l];
    const D = blockOf(give[l].same, give[l + 1].same, nodes, n);
    const r = Float64Array.from(
      nodes,
      (i) => -gaps[l][i] + (l === 0 ? farLoad[0][i] : 0) + (l === lines - 1 ? farLoad[1][i] : 0),
    );
    let W = new Float64Array(0);
    if (l > 0) {
      const before = blocks[l - 1];
      W = linkOf(give[l].far, nodes, on[l - 1], n, before.L);
      takeSquare(D, W, before, nodes.length);
      const z = held(before, before.y, total, moment);
      for (let a = 0; a < nodes.length; a++) r[a] -= dotOf(W, a * z.length, z, 0, z.length);
    }
    blocks.push(decompose(D, W, r, Float64Array.from(nodes, lever)));
  }
  const force = active.map(() => new Float64Array(n));
  const rigid = active.map(() => [0, 0]);
  let next: Float64Array = new Float64Array(0);
  for (let l = lines - 1; l >= 0; l--) {
    const block = blocks[l];
    const m = on[l].length;
    const y = block.y.slice();
    if (l + 1 < lines) {
      const W = blocks[l + 1].W;
      for (let a = 0; a < next.length; a++) for (let k = 0; k < m; k++) y[k] -= W[a * m + k] * next[a];
    }
    rigid[l] = rigidOf(block, y, total, moment);
    next = held(block, y, total, moment);
    backward(block.L, m, next);
    for (let k = 0; k < m; k++) force[l][on[l][k]] = next[k];
  }
  const open = active.map((line, l) => {
    const out = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      if (line[i]) continue;
      let sum = gaps[l][i] + rigid[l][0] + rigid[l][1] * lever(i);
      if (l === 0) sum -= farLoad[0][i];
      if (l === lines - 1) sum -= farLoad[1][i];
      sum += dotOf(give[l].same, i * n, force[l], 0, n) + dotOf(give[l + 1].same, i * n, force[l], 0, n);
      if (l > 0) sum -= dotOf(give[l].far, i * n, force[l - 1], 0, n);
      if (l + 1 < lines) sum -= dotOf(give[l + 1].far, i * n, force[l + 1], 0, n);
      out[i] = sum;
    }
    return out;
  });
  return { force, open };
}

/** One line, decomposed. */
interface Block {
  L: Float64Array;
  /** The link to the line before, solved with that line's factor. */
  W: Float64Array;
  /** The right side, solved with the factor. */
  y: Float64Array;
  /** Lift and tilt solved with the factor and made orthonormal: two columns, and what makes them so. */
  q: [Float64Array, Float64Array];
  R: [number, number, number];
}

function decompose(D: Float64Array, W: Float64Array, r: Float64Array, levers: Float64Array): Block {
  const m = r.length;
  factorDense(D, m);
  forward(D, m, r);
  const q0 = new Float64Array(m).fill(1);
  forward(D, m, q0);
  forward(D, m, levers);
  const r00 = Math.sqrt(dotOf(q0, 0, q0, 0, m));
  for (let k = 0; k < m; k++) q0[k] /= r00;
  const r01 = dotOf(q0, 0, levers, 0, m);
  for (let k = 0; k < m; k++) levers[k] -= r01 * q0[k];
  const r11 = Math.sqrt(dotOf(levers, 0, levers, 0, m)) || 1e-30;
  for (let k = 0; k < m; k++) levers[k] /= r11;
  return { L: D, W, y: r, q: [q0, levers], R: [r00, r01, r11] };
}

/** How much of a right side lift and tilt take, so that force and moment come out as wanted. */
function taken({ q, R }: Block, y: Float64Array, total: number, moment: number): [number, number] {
  const c0 = total / R[0];
  const c1 = (moment - R[1] * c0) / R[2];
  return [dotOf(q[0], 0, y, 0, y.length) - c0, dotOf(q[1], 0, y, 0, y.length) - c1];
}

function held(block: Block, y: Float64Array, total: number, moment: number): Float64Array {
  const [a, b] = taken(block, y, total, moment);
  return y.map((value, k) => value - a * block.q[0][k] - b * block.q[1][k]);
}

function rigidOf(block: Block, y: Float64Array, total: number, moment: number): [number, number] {
  const [a, b] = taken(block, y, total, moment);
  const tilt = b / block.R[2];
  return [(a - block.R[1] * tilt) / block.R[0], tilt];
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
): Float64Array<ArrayBuffer> {
  const [m, p] = [nodes.length, before.length];
  const W = new Float64Array(m * p);
  for (let a = 0; a < m; a++) {
    const row = a * p;
    for (let b = 0; b < p; b++)
      W[row + b] = (-far[nodes[a] * n + before[b]] - dotOf(L, b * p, W, row, b)) / L[b * p + b];
  }
  return W;
}

/** Takes from a line's block what the line before gives by, its lift and tilt left out. */
function takeSquare(D: Float64Array, W: Float64Array, { q }: Block, m: number): void {
  const p = q[0].length;
  const along = q.map((column) => Float64Array.from({ length: m }, (_, a) => dotOf(W, a * p, column, 0, p)));
  for (let a = 0; a < m; a++)
    for (let b = 0; b <= a; b++)
      D[a * m + b] -= dotOf(W, a * p, W, b * p, p) - along[0][a] * along[0][b] - along[1][a] * along[1][b];
}

function factorDense(D: Float64Array, m: number): void {
  for (let i = 0; i < m; i++)
    for (let j = 0; j <= i; j++) {
      const sum = D[i * m + j] - dotOf(D, i * m, D, j * m, j);
      if (i === j) D[i * m + i] = Math.sqrt(Math.max(sum, 1e-18));
      else D[i * m + j] = sum / D[j * m + j];
    }
}

function forward(L: Float64Array, m: number, side: Float64Array): void {
  for (let i = 0; i < m; i++) side[i] = (side[i] - dotOf(L, i * m, side, 0, i)) / L[i * m + i];
}

function backward(L: Float64Array, m: number, side: Float64Array): void {
  for (let i = m - 1; i >= 0; i--) {
    const value = side[i] / L[i * m + i];
    side[i] = value;
    for (let k = 0; k < i; k++) side[k] -= L[i * m + k] * value;
  }
}
