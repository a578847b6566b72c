import { boxCell, moveCell, type Cell, type Origin, type Plane } from './cell';
import { cutCell, sideOfBox, straight, THIN } from './cut';
import { inverse, isShift, movePoint, translation, TURNS, type Rigid, type Turn } from './rigid';
import { cellVolume } from './wood';
import { scale, unit, type Axis, type Vec3 } from './vec';

/** Anything of wood: one strip or a glued piece. The cells share one frame. */
export interface Blank {
  cells: readonly Cell[];
  /** Its bounding box, once it was measured: blanks never change. Not part of what a blank is. */
  box?: Bounds;
}

export const EMPTY: Blank = { cells: [] };

/** Least and greatest coordinate on each axis. Infinite and reversed for an empty blank. */
export interface Bounds {
  min: Vec3;
  max: Vec3;
}

/** A blank of one box-shaped piece. */
export const boxBlank = (size: Vec3, toLog: Rigid, origin: Origin, id: string): Blank => ({
  cells: [boxCell(size, toLog, origin, id)],
});

/** The bounding box in the blank's frame. Blanks never change, so each is measured once. */
export function bounds(blank: Blank): Bounds {
  if (blank.box) return blank.box;
  let x0 = Infinity;
  let y0 = Infinity;
  let z0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  let z1 = -Infinity;
  for (const cell of blank.cells)
    for (const v of cell.vertices) {
      if (v[0] < x0) x0 = v[0];
      if (v[0] > x1) x1 = v[0];
      if (v[1] < y0) y0 = v[1];
      if (v[1] > y1) y1 = v[1];
      if (v[2] < z0) z0 = v[2];
      if (v[2] > z1) z1 = v[2];
    }
  const box: Bounds = { min: [x0, y0, z0], max: [x1, y1, z1] };
  blank.box = box;
  return box;
}

/** Length, width and thickness in the blank's frame. */
export function extents(blank: Blank): Vec3 {
  const { min, max } = bounds(blank);
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
}

/** Sums with compensation (Neumaier), so that thousands of cells lose no digits. */
export function compensatedSum(values: Iterable<number>): number {
  let sum = 0;
  let carry = 0;
  for (const value of values) {
    const next = sum + value;
    carry += Math.abs(sum) >= Math.abs(value) ? sum - next + value : value - next + sum;
    sum = next;
  }
  return sum + carry;
}

/** Volume of the wood in mm3. */
export const blankVolume = (blank: Blank): number => compensatedSum(blank.cells.map(cellVolume));

/** Volume by species, mm3. */
export function blankVolumes(blank: Blank): Record<string, number> {
  const out: Record<string, number> = {};
  for (const cell of blank.cells)
    out[cell.origin.species] = (out[cell.origin.species] ?? 0) + cellVolume(cell);
  return out;
}

/** A box shifted as its vertices are, so that it is what measuring would give. */
const shifted = ({ min, max }: Bounds, m: Rigid): Bounds => ({
  min: [min[0] + m[3], min[1] + m[7], min[2] + m[11]],
  max: [max[0] + m[3], max[1] + m[7], max[2] + m[11]],
});

/** Moves a blank by a rigid motion. */
export function moveBlank(blank: Blank, m: Rigid): Blank {
  const back = inverse(m);
  const moved: Blank = { cells: blank.cells.map((cell) => moveCell(cell, m, back)) };
  if (blank.box && isShift(m)) moved.box = shifted(blank.box, m);
  return moved;
}

/** Shifts a blank so that its least corner lies at the origin. */
export function toOrigin(blank: Blank): Blank {
  if (blank.cells.length === 0) return blank;
  const { min } = bounds(blank);
  if (min[0] === 0 && min[1] === 0 && min[2] === 0) return blank;
  return moveBlank(blank, translation(scale(min, -1)));
}

/** A blank turned and brought back to the origin, in one motion. */
export function turnedToOrigin(blank: Blank, turn: Rigid): Blank {
  if (blank.cells.length === 0) return blank;
  // Corners of the box go where the vertices go, where a turn is by quarters; else the vertices themselves tell.
  const { min, max } = bounds(blank);
  const quarters = [0, 1, 2, 4, 5, 6, 8, 9, 10].every(
    (i) => turn[i] === 0 || turn[i] === 1 || turn[i] === -1,
  );
  if (!quarters) return toOrigin(moveBlank(blank, turn));
  const a = movePoint(turn, min);
  const b = movePoint(turn, max);
  const least: Vec3 = [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.min(a[2], b[2])];
  const m = [...turn];
  m[3] -= least[0];
  m[7] -= least[1];
  m[11] -= least[2];
  return moveBlank(blank, m);
}

/** A named turn, brought back to the origin. */
export const turnBlank = (blank: Blank, turn: Turn): Blank => turnedToOrigin(blank, TURNS[turn]);

/** On which side of a plane a whole blank lies, asked of its box where that is known: -1, 1, or 0 where it may cross. */
function sideOf({ box }: Blank, { normal, offset }: Plane): -1 | 0 | 1 {
  if (!box) return 0;
  let least = -offset;
  let most = -offset;
  for (let a = 0; a < 3; a++) {
    const n = normal[a];
    least += n * (n > 0 ? box.min[a] : box.max[a]);
    most += n * (n > 0 ? box.max[a] : box.min[a]);
  }
  if (most < THIN) return -1;
  return least > -THIN ? 1 : 0;
}

/** Cuts a blank by a plane without taking wood: the part where normal . x < offset, then the rest. */
export function splitBlank(blank: Blank, plane: Plane): [Blank, Blank] {
  const side = sideOf(blank, plane);
  if (side !== 0) return side < 0 ? [blank, EMPTY] : [EMPTY, blank];
  const negative: Cell[] = [];
  const positive: Cell[] = [];
  const across = straight(plane);
  for (const cell of blank.cells) {
    // Most cells are boxes that a cut passes by.
    const whole = across && cell.box !== undefined ? sideOfBox(cell, across) : 0;
    if (whole !== 0) {
      (whole < 0 ? negative : positive).push(cell);
      continue;
    }
    const halves = cutCell(cell, plane);
    if (halves.negative) negative.push(halves.negative);
    if (halves.positive) positive.push(halves.positive);
  }
  return [{ cells: negative }, { cells: positive }];
}

/** A saw cut: what lies before the blade, what the blade turned to dust, what lies behind it. */
export interface SawCut {
  before: Blank;
  kerf: Blank;
  after: Blank;
}

/** Saws with the blade's near side on the plane; the kerf, in mm, is taken from the positive side. */
export function sawCut(blank: Blank, plane: Plane, kerfMm: number): SawCut {
  const [before, rest] = splitBlank(blank, plane);
  if (kerfMm <= 0) return { before, kerf: EMPTY, after: rest };
  const [kerf, after] = splitBlank(rest, { normal: plane.normal, offset: plane.offset + kerfMm });
  return { before, kerf, after };
}

/** A plane across an axis at a coordinate in the blank's frame. */
export const across = (axis: Axis, at: number): Plane => ({ normal: unit(axis), offset: at });

/** Takes a layer off one side: the blank that stays and the layer, split on the plane. Depth in mm. */
export function planeSide(
  blank: Blank,
  axis: Axis,
  side: 'min' | 'max',
  depthMm: number,
): { kept: Blank; removed: Blank } {
  if (depthMm <= 0) return { kept: blank, removed: EMPTY };
  const { min, max } = bounds(blank);
  const at = side === 'max' ? max[axis] - depthMm : min[axis] + depthMm;
  const [below, above] = splitBlank(blank, across(axis, at));
  return side === 'max' ? { kept: below, removed: above } : { kept: above, removed: below };
}

/** A blank cut into slices, with what each cut took. */
export interface Sliced {
  slices: Blank[];
  kerf: Blank;
  head: Blank;
  tail: Blank;
}

/**
 * Slices along an axis: first the head is cut off, then one slice after another against a stop, n + 1 cuts in all.
 * Stops early when the blank gives no further whole slice; the caller compares the count. Sizes in mm.
 */
export function sliceBlank(
  blank: Blank,
  axis: Axis,
  { headMm, thicknesses, kerfMm }: { headMm: number; thicknesses: readonly number[]; kerfMm: number },
): Sliced {
  const { min, max } = bounds(blank);
  const kerfs: Cell[] = [];
  const slices: Blank[] = [];
  let at = min[axis] + headMm;
  let head = EMPTY;
  let rest = blank;
  const saw = (where: number): Blank => {
    const cut = sawCut(rest, across(axis, where), kerfMm);
    kerfs.push(...cut.kerf.cells);
    rest = cut.after;
    return cut.before;
  };
  if (headMm > 0) {
    head = saw(at);
    at += kerfMm;
  }
  for (const thickness of thicknesses) {
    if (at + thickness > max[axis] + 1e-6) break;
    slices.push(saw(at + thickness));
    at += thickness + kerfMm;
  }
  return { slices, kerf: { cells: kerfs }, head, tail: rest };
}

/** How parts are lined up across the axis they are butted along. */
export type Align = 'min' | 'centre' | 'keep';

const NO_SHIFT: Vec3 = [0, 0, 0];

/** Butts parts along an axis by their bounding faces and gives them one frame. Empty parts are left out. */
export function glueBlanks(
  parts: readonly Blank[],
  axis: Axis,
  align: Align = 'min',
  shifts: readonly Vec3[] = [],
): Blank {
  const present = parts
    .map((part, i) => ({ part, extra: shifts[i] ?? NO_SHIFT }))
    .filter(({ part }) => part.cells.length > 0);
  const whole = present.map(({ part }) => part);
  const boxes = whole.map(bounds);
  const widest = [0, 1, 2].map((a) => Math.max(...boxes.map((b) => b.max[a] - b.min[a])));
  let at = 0;
  const cells: Cell[] = [];
  whole.forEach((part, i) => {
    const { min, max } = boxes[i];
    const move = [0, 1, 2].map((a) => {
      if (a === axis) return at - min[a];
      if (align === 'keep') return 0;
      return align === 'min' ? -min[a] : (widest[a] - (max[a] - min[a])) / 2 - min[a];
    });
    const { extra } = present[i];
    const shift: Vec3 = [move[0] + extra[0], move[1] + extra[1], move[2] + extra[2]];
    cells.push(...moveBlank(part, translation(shift)).cells);
    at += max[axis] - min[axis];
  });
  return { cells };
}

/** Lays parts into one frame where their transforms put them, for ends that are not square. */
export const placeBlanks = (parts: readonly Blank[], transforms: readonly Rigid[]): Blank => ({
  cells: parts.flatMap((part, i) => moveBlank(part, transforms[i]).cells),
});
