import { boxOf, type Loop } from '../../curve';
import type { Length } from '../../units';
import { drawnOutline, type OutlineCorner, type OutlineDrawn, outlineLoop } from './outline';

/** The blank that an outline needs as it lies, its sides along the blank’s: its box, and what is left for the cutter all round. mm. */
export interface BlankNeeded {
  length: number;
  width: number;
}

/** The least blank that an outline can be sawn from as it is drawn, mm; undefined where it is none. */
export function blankFor(drawn: OutlineDrawn, cleanUpMm = 0): BlankNeeded | undefined {
  const loop = drawnOutline(drawn);
  if (!loop) return undefined;
  const { x0, y0, x1, y1 } = boxOf([loop]);
  return { length: x1 - x0 + 2 * cleanUpMm, width: y1 - y0 + 2 * cleanUpMm };
}

const grownBy = (length: Length | undefined, k: number): Length | undefined =>
  length && { mm: length.mm * k };

/** Corners turned about the origin, scaled and moved: every size with them. */
function moved(
  corners: readonly OutlineCorner[],
  { scale, turn, x, y }: { scale: number; turn: number; x: number; y: number },
): OutlineCorner[] {
  const [c, s] = [scale * Math.cos(turn), scale * Math.sin(turn)];
  const place = ({ x: px, y: py }: { x: Length; y: Length }) => ({
    x: { mm: c * px.mm - s * py.mm + x },
    y: { mm: s * px.mm + c * py.mm + y },
  });
  return corners.map(({ rise, arc, through, radius, clip, ...corner }): OutlineCorner => {
    const sizes = {
      rise: grownBy(rise, scale),
      arc: grownBy(arc, scale),
      radius: grownBy(radius, scale),
      clip: grownBy(clip, scale),
    };
    return {
      ...corner,
      ...place(corner),
      ...(through ? { through: place(through) } : {}),
      ...Object.fromEntries(Object.entries(sizes).filter(([, size]) => size !== undefined)),
    };
  });
}

/** The box of a loop turned by an angle. */
const boxTurned = (loop: Loop, turn: number) => {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return boxOf([loop.map((p) => ({ ...p, x: c * p.x - s * p.y, y: s * p.x + c * p.y }))]);
};

/** How finely angles are looked at, and how often nearer about the best. */
const ANGLES = 90;
const ROUNDS = 5;

/** The largest outline of a form that a piece gives. */
export interface LargestOutline {
  corners: OutlineCorner[];
  /** How many times as large as it was drawn. */
  scale: number;
  /** How far it is turned, degrees, counter-clockwise; 0 where turning is not asked for. */
  degrees: number;
}

/**
 * The largest outline of the form that is drawn which a piece gives, with what is left for the cutter all round; turned if that is asked
 * for. The piece is taken as a rectangle without defects. Undefined where the outline is none, or the piece has no room. mm.
 */
export function largestOutline(
  corners: readonly OutlineCorner[],
  {
    length,
    width,
    cleanUpMm = 0,
    turned,
  }: { length: number; width: number; cleanUpMm?: number; turned: boolean },
): LargestOutline | undefined {
  const loop = outlineLoop(corners);
  const [l, w] = [length - 2 * cleanUpMm, width - 2 * cleanUpMm];
  if (!loop || !(l > 0) || !(w > 0)) return undefined;
  const scaleAt = (turn: number) => {
    const { x0, y0, x1, y1 } = boxTurned(loop, turn);
    return Math.min(l / (x1 - x0), w / (y1 - y0));
  };
  let best = { turn: 0, scale: scaleAt(0) };
  if (turned) {
    let step = Math.PI / ANGLES;
    const look = (turn: number) => {
      const scale = scaleAt(turn);
      if (scale > best.scale * (1 + 1e-9)) best = { turn, scale };
    };
    for (let i = 1; i < ANGLES; i++) look(i * step);
    for (let round = 0; round < ROUNDS; round++) {
      const about = best.turn;
      step /= 10;
      for (let i = -10; i <= 10; i++) look(about + i * step);
    }
  }
  const { turn, scale } = best;
  const { x0, y0, x1, y1 } = boxTurned(loop, turn);
  return {
    corners: moved(corners, {
      scale,
      turn,
      x: (length - scale * (x1 - x0)) / 2 - scale * x0,
      y: (width - scale * (y1 - y0)) / 2 - scale * y0,
    }),
    scale,
    degrees: ((turn * 180) / Math.PI + 360) % 360,
  };
}
