import { asShare } from '../units';
import type { Look } from './looks';

/** What is grown into or left on a place of a board and seen wherever a piece of it shows. */
export type MarkKind = 'knot' | 'sapwood' | 'stain' | 'split' | 'check';

/** A mark on a board, in the board's own frame: mm from the marked end, from the near edge and from the under face. */
export interface WoodMark {
  kind: MarkKind;
  x: number;
  y: number;
  length: number;
  width: number;
  /** The face it lies on, and how thick the board is: a mark on one face thins out towards the other. */
  face: 'up' | 'down' | 'both';
  thickness: number;
}

/** The marks of a board with the motion from its log to its own frame (12 numbers, row-major 3x4). */
export interface BoardMarks {
  toBoard: readonly number[];
  marks: readonly WoodMark[];
}

/** How much of a mark is left at a height in the board: all on its own face, nothing a quarter before the other. */
function reach(mark: WoodMark, z: number): number {
  if (mark.face === 'both') return 1;
  const deep = mark.face === 'up' ? 1 - z / mark.thickness : z / mark.thickness;
  return asShare((0.75 - deep) / 0.75);
}

const blend = (out: Float64Array, lab: readonly number[], share: number): void => {
  for (let k = 0; k < 3; k++) out[k] += share * (lab[k] - out[k]);
};

const KNOT_DARK = [0.36, 0.035, 0.05];
const STAIN = [0.5, -0.005, -0.012];
const CRACK = [0.2, 0.01, 0.02];

/** Dark heart, brown collar with its own rings, and a dark rim that fades into the wood. */
function knot(mark: WoodMark, dx: number, dy: number, left: number, out: Float64Array): void {
  const d = Math.hypot(dx / (mark.length / 2), dy / (mark.width / 2)) / Math.max(0.05, left);
  if (d >= 1.25) return;
  if (d < 1) {
    const ring = 0.5 + 0.5 * Math.sin(d * 22);
    blend(out, KNOT_DARK, 0.62 + 0.25 * (1 - d) + 0.08 * ring);
  } else blend(out, KNOT_DARK, 0.5 * (1 - (d - 1) / 0.25));
}

/** A dark line along the fibres that wanders across its place. */
function crack(mark: WoodMark, dx: number, dy: number, px: number, out: Float64Array): void {
  if (Math.abs(dx) > mark.length / 2) return;
  const wander =
    0.3 * mark.width * Math.sin((dx / mark.length) * 9) + 0.12 * mark.width * Math.sin(dx * 0.31);
  const half = (mark.kind === 'split' ? 0.9 : 0.35) * (1 - Math.abs(dx) / mark.length) + px * 0.4;
  const off = Math.abs(dy - wander);
  if (off < half) blend(out, CRACK, Math.min(1, (half - off) / (px * 0.5 + 0.1)));
}

/**
 * Lays the marks of a board over the colour of its wood at a point of its log. `out` holds OKLab and is changed; `px`
 * is the size of a pixel in mm.
 */
export function markWood(
  board: BoardMarks,
  x: number,
  y: number,
  z: number,
  look: Look,
  px: number,
  out: Float64Array,
): void {
  const m = board.toBoard;
  const bx = m[0] * x + m[1] * y + m[2] * z + m[3];
  const by = m[4] * x + m[5] * y + m[6] * z + m[7];
  const bz = m[8] * x + m[9] * y + m[10] * z + m[11];
  for (const mark of board.marks) {
    const dx = bx - mark.x - mark.length / 2;
    const dy = by - mark.y - mark.width / 2;
    if (Math.abs(dx) > mark.length * 0.65 || Math.abs(dy) > mark.width * 0.65) continue;
    const left = reach(mark, bz);
    if (left <= 0) continue;
    if (mark.kind === 'knot') knot(mark, dx, dy, left, out);
    else if (mark.kind === 'split' || mark.kind === 'check') crack(mark, dx, dy, px, out);
    else {
      const edge = Math.min(mark.length / 2 - Math.abs(dx), mark.width / 2 - Math.abs(dy));
      const soft = asShare(edge / 2 + 0.5);
      if (mark.kind === 'sapwood') blend(out, look.sap, 0.8 * soft * left);
      else {
        const d = Math.hypot((2 * dx) / mark.length, (2 * dy) / mark.width);
        if (d < 1) blend(out, STAIN, 0.45 * (1 - d * d) * left);
      }
    }
  }
}
