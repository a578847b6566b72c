import { type Blank, blankVolume, bounds, type Cell, cutCell, faceOffset } from '../../solid';

/** Two parts that share room, and how much of it. */
export interface Overlap {
  a: number;
  b: number;
  volumeMm3: number;
}

/** Less than this is the crumb of a rotated coordinate, mm3. */
const CRUMB = 1;

/** The two parts that overlap most; undefined where none do. */
export function overlapOf(parts: readonly Blank[]): Overlap | undefined {
  const boxes = parts.map(bounds);
  let worst: Overlap | undefined;
  for (let a = 0; a < parts.length; a++)
    for (let b = a + 1; b < parts.length; b++) {
      const apart = [0, 1, 2].some(
        (k) => boxes[a].max[k] <= boxes[b].min[k] + 1e-6 || boxes[b].max[k] <= boxes[a].min[k] + 1e-6,
      );
      if (apart) continue;
      let volumeMm3 = 0;
      for (const cell of parts[a].cells) for (const other of parts[b].cells) volumeMm3 += shared(cell, other);
      if (volumeMm3 > CRUMB && volumeMm3 > (worst?.volumeMm3 ?? 0)) worst = { a, b, volumeMm3 };
    }
  return worst;
}

/** Volume that two convex cells share: one cut by every face of the other. mm3. */
function shared(cell: Cell, other: Cell): number {
  let rest: Cell | undefined = cell;
  for (const face of other.faces) {
    rest = cutCell(rest, { normal: face.normal, offset: faceOffset(other, face) }).negative;
    if (!rest) return 0;
  }
  return blankVolume({ cells: [rest] });
}
