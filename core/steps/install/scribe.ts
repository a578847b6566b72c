import { rising } from '../../units';
import type { Length } from '../../units';
import type { OutlineCorner } from '../shape/outline';

/** How far the wall behind stands away from a straight edge laid against it, at a place from the left. */
export interface WallReading {
  at: Length;
  gap: Length;
}

/** The walls around the place of a piece: measured corners, and how the wall behind runs. */
export interface Walls {
  /** Corner between the wall behind and the one at an end, degrees; square if missing. */
  leftDegrees?: number;
  rightDegrees?: number;
  wall?: readonly WallReading[];
}

/** What is cut off where for a piece to stand against its walls, mm. */
export interface Scribed {
  /** Off the back edge, by the place from the left end. */
  back: { x: number; off: number }[];
  /** Off each end, at the front and at the back. */
  left: { front: number; back: number };
  right: { front: number; back: number };
  /** The outline of what stays, from the front left corner round. */
  outline: OutlineCorner[];
}

/** The gap of a wall at a place: between two readings in a straight line, beyond them as at the last one. */
function gapAt(readings: readonly { x: number; gap: number }[], x: number): number {
  const next = readings.findIndex((each) => each.x >= x);
  if (next < 0) return readings[readings.length - 1].gap;
  if (next === 0) return readings[0].gap;
  const [a, b] = [readings[next - 1], readings[next]];
  return a.gap + ((b.gap - a.gap) * (x - a.x)) / (b.x - a.x);
}

/** What an end loses at its front and its back for a corner: more than a right angle opens to the front, so the back is cut. */
const endOff = (degrees: number, width: number) => {
  const lean = width * Math.tan(((degrees - 90) * Math.PI) / 180);
  return { front: Math.max(0, -lean), back: Math.max(0, lean) };
};

/**
 * What is cut off a piece so long and wide to stand against its walls. Where the wall stands nearest the piece loses as much as the
 * wall falls back where it stands farthest, and there nothing: pushed home, it touches everywhere. An end in a corner of more than
 * a right angle loses at the back, of less at the front: width times the tangent of the difference.
 */
export function scribed(
  { leftDegrees = 90, rightDegrees = 90, wall = [] }: Walls,
  [length, width]: readonly [number, number],
): Scribed {
  const readings = wall
    .map(({ at, gap }) => ({ x: at.mm, gap: gap.mm }))
    // A reading beyond the piece, or as deep as it is wide, is a slip: the review says so.
    .filter(({ x, gap }) => x >= 0 && x <= length && gap >= 0 && gap < width)
    .toSorted(rising((a) => a.x))
    .filter(({ x }, i, all) => i === 0 || x - all[i - 1].x > 1e-6);
  const deepest = Math.max(0, ...readings.map(({ gap }) => gap));
  const off = (x: number) => (readings.length === 0 ? 0 : deepest - gapAt(readings, x));
  const left = endOff(leftDegrees, width);
  const right = endOff(rightDegrees, width);
  const [x0, x1] = [left.back, length - right.back];
  const between = readings.map(({ x }) => x).filter((x) => x > x0 + 1e-6 && x < x1 - 1e-6);
  const back = [x0, ...between, x1].map((x) => ({ x, off: off(x) }));
  const corner = (x: number, y: number): OutlineCorner => ({ x: { mm: x }, y: { mm: y } });
  // The side of an end runs from its front to where its line would meet the uncut back: it ends where the back was cut.
  const along = (front: number, rear: number, y: number) => front + ((rear - front) * y) / width;
  const [yl, yr] = [width - back[0].off, width - back[back.length - 1].off];
  return {
    back,
    left,
    right,
    outline: [
      corner(left.front, 0),
      corner(length - right.front, 0),
      corner(along(length - right.front, length - right.back, yr), yr),
      ...back
        .slice(1, -1)
        .toReversed()
        .map(({ x, off: cut }) => corner(x, width - cut)),
      corner(along(left.front, left.back, yl), yl),
    ],
  };
}
