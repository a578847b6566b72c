import { sumOf } from '../units';
import { type Point, type Region, type Side, sidesOf } from './corner';

/** How often sides of closed outlines go round a point; what lies within 1e-12 of them may count either way. */
export function windingOf(sides: readonly Side[], p: Point): number {
  let turns = 0;
  for (const { a, b, arc } of sides) {
    // The chord first, then the piece between chord and arc.
    if (a.y <= p.y !== b.y <= p.y) {
      const left = (b.x - a.x) * (p.y - a.y) - (p.x - a.x) * (b.y - a.y);
      if (b.y > a.y ? left > 0 : left < 0) turns += b.y > a.y ? 1 : -1;
    }
    if (!arc || Math.hypot(p.x - arc.cx, p.y - arc.cy) >= arc.r) continue;
    const side = (b.x - a.x) * (p.y - a.y) - (p.x - a.x) * (b.y - a.y);
    // A segment lies right of its chord where the arc turns counter-clockwise. On the chord itself it counts where the chord did not.
    const open = b.y > a.y || (b.y === a.y && b.x < a.x);
    if (arc.sweep > 0 ? side < 0 || (side === 0 && open) : side > 0 || (side === 0 && !open))
      turns += Math.sign(arc.sweep);
  }
  return turns;
}

/** Whether a point lies in a region. */
export const isInside = (region: Region, p: Point): boolean =>
  sumOf(region, (loop) => windingOf(sidesOf(loop), p)) > 0;
