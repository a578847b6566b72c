import { sumOf } from '../units';
import { type Loop, type Region, sidesOf, STRAIGHT } from './corner';

/** Area, and first moments about the axes: the integrals of 1, x and y. mm2 and mm3. */
export interface Moments {
  area: number;
  x: number;
  y: number;
}

/**
 * Area and first moments of a region, exact for lines and arcs. By Green's theorem over the corners; each arc adds the segment
 * between it and its chord: r2/2 (s - sin s), whose moment about the centre is 2/3 r3 sin3(s/2) along its axis (geometry).
 */
export function momentsOf(region: Region): Moments {
  let [area, mx, my] = [0, 0, 0];
  for (const loop of region) {
    const { x: ox, y: oy } = loop[0] ?? { x: 0, y: 0 };
    let [own, ownX, ownY] = [0, 0, 0];
    for (const { a, b, arc } of sidesOf(loop)) {
      const [ax, ay, bx, by] = [a.x - ox, a.y - oy, b.x - ox, b.y - oy];
      const twice = ax * by - bx * ay;
      own += twice / 2;
      ownX += ((ax + bx) * twice) / 6;
      ownY += ((ay + by) * twice) / 6;
      if (!arc) continue;
      const { r, sweep } = arc;
      const segment = (r * r * (sweep - Math.sin(sweep))) / 2;
      const half = Math.sin(Math.abs(sweep) / 2);
      const moment = (2 / 3) * r * r * r * half * half * half * Math.sign(sweep);
      const middle = arc.from + sweep / 2;
      own += segment;
      ownX += segment * (arc.cx - ox) + moment * Math.cos(middle);
      ownY += segment * (arc.cy - oy) + moment * Math.sin(middle);
    }
    area += own;
    mx += ownX + own * ox;
    my += ownY + own * oy;
  }
  return { area, x: mx, y: my };
}

/** Area of a region, mm2: as above, without the moments. */
export function areaOf(region: Region): number {
  let area = 0;
  for (const loop of region) {
    const n = loop.length;
    if (n === 0) continue;
    const { x: ox, y: oy } = loop[0];
    let own = 0;
    for (let i = 0; i < n; i++) {
      const a = loop[i];
      const b = loop[i + 1 === n ? 0 : i + 1];
      own += ((a.x - ox) * (b.y - oy) - (b.x - ox) * (a.y - oy)) / 2;
      const bulge = a.bulge ?? 0;
      if (Math.abs(bulge) <= STRAIGHT) continue;
      const sweep = 4 * Math.atan(bulge);
      const r = (Math.hypot(b.x - a.x, b.y - a.y) * (1 + bulge * bulge)) / (4 * bulge);
      own += (r * r * (sweep - Math.sin(sweep))) / 2;
    }
    area += own;
  }
  return area;
}

/** Length of an outline, mm. */
export const lengthOf = (loop: Loop): number =>
  sumOf(sidesOf(loop), ({ a, b, arc }) =>
    arc ? arc.r * Math.abs(arc.sweep) : Math.hypot(b.x - a.x, b.y - a.y),
  );
