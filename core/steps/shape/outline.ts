import {
  areaOf,
  bulgeOf,
  type Corner,
  ellipse,
  type Loop,
  reversed,
  rounded,
  selfCrossing,
} from '../../curve';
import type { Length } from '../../units';

/** A corner of an outline, from the left end and the near edge: the side to the next one may bend, and the corner be round. */
export interface OutlineCorner {
  x: Length;
  y: Length;
  /** How far the side to the next corner rises over its chord: outwards, inwards with a minus; straight if missing. */
  rise?: Length;
  /** Radius of the corner, between straight sides. */
  radius?: Length;
}

/** An outline's lines and arcs, counter-clockwise; undefined where it has no area, or crosses itself. */
export function outlineLoop(corners: readonly OutlineCorner[]): Loop | undefined {
  const points = corners.map(({ x, y }) => ({ x: x.mm, y: y.mm }));
  const turned = areaOf([points]) < 0;
  // Outwards is right of the way round where it is walked counter-clockwise.
  const sign = turned ? -1 : 1;
  const bent = corners.map((corner, i): Corner => {
    const p = points[i];
    const q = points[(i + 1) % points.length];
    const chord = Math.hypot(q.x - p.x, q.y - p.y);
    const rise = corner.rise?.mm ?? 0;
    return rise === 0 || chord < 1e-9 ? p : { ...p, bulge: sign * bulgeOf(chord, rise) };
  });
  const loop = rounded(
    bent,
    corners.map(({ radius }) => radius?.mm ?? 0),
  );
  const round = areaOf([loop]) < 0 ? reversed(loop) : loop;
  return loop.length >= 2 && areaOf([round]) > 1e-6 && selfCrossing(round) === undefined ? round : undefined;
}

/** A side that rises over more than half its chord: more than half a circle, which no rise can say. Its number, from 1. */
export const overBent = (
  corners: readonly OutlineCorner[],
): { side: number; rise: number; chord: number } | undefined => {
  for (const [i, { x, y, rise }] of corners.entries()) {
    const next = corners[(i + 1) % corners.length];
    const chord = Math.hypot(next.x.mm - x.mm, next.y.mm - y.mm);
    if (rise && Math.abs(rise.mm) > chord / 2 + 1e-9) return { side: i + 1, rise: Math.abs(rise.mm), chord };
  }
  return undefined;
};

/** An ellipse that fills a piece, as corners whose sides rise: within 0.05 of its true line for a metre. mm. */
export const ellipseCorners = (length: number, width: number): OutlineCorner[] => {
  const loop = ellipse({ x: length / 2, y: width / 2 }, length, width, 32);
  return loop.map(({ x, y, bulge }, i) => {
    const next = loop[(i + 1) % loop.length];
    return {
      x: { mm: x },
      y: { mm: y },
      rise: { mm: ((bulge ?? 0) * Math.hypot(next.x - x, next.y - y)) / 2 },
    };
  });
};
