import { asShare } from '../units';
/** A mark drawn on a photo, from a first point to a second, in shares of its width and height, 0 to 1. */
export interface Mark {
  kind: MarkKind;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

export const MARK_KINDS = ['arrow', 'circle', 'line'] as const;
export type MarkKind = (typeof MARK_KINDS)[number];
export const MOST_MARKS = 40;

/** Sides of the photo that a mark is drawn on, px. */
interface Sides {
  widthPx: number;
  heightPx: number;
}

/** The head of an arrow: its length as a share of the photo's longer side, and the half angle it opens by, rad. */
const HEAD = 0.035;
const HEAD_ANGLE = Math.PI / 7;
/** Shorter than this share of the longer side a stroke was a slip of the finger. */
const LEAST = 0.01;

const n = (value: number) => Number(value.toFixed(1));

/** How each kind is called and drawn: an SVG path in the photo's own pixels. */
export const MARKS: Record<MarkKind, { name: string; path: (mark: Mark, sides: Sides) => string }> = {
  arrow: {
    name: 'Arrow',
    path: (mark, sides) => {
      const { x1, y1, x2, y2 } = inPixels(mark, sides);
      const back = Math.atan2(y1 - y2, x1 - x2);
      const long = HEAD * Math.max(sides.widthPx, sides.heightPx);
      const barb = (turn: number) =>
        `${n(x2 + long * Math.cos(back + turn))} ${n(y2 + long * Math.sin(back + turn))}`;
      return `M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}M${barb(HEAD_ANGLE)}L${n(x2)} ${n(y2)}L${barb(-HEAD_ANGLE)}`;
    },
  },
  circle: {
    name: 'Circle',
    // From its middle to a point of its rim: a hand sets the point down on what it means, and pulls it open.
    path: (mark, sides) => {
      const { x1, y1, x2, y2 } = inPixels(mark, sides);
      const r = n(Math.hypot(x2 - x1, y2 - y1));
      return `M${n(x1 - r)} ${n(y1)}a${r} ${r} 0 1 0 ${n(2 * r)} 0a${r} ${r} 0 1 0 ${n(-2 * r)} 0`;
    },
  },
  line: {
    name: 'Line',
    path: (mark, sides) => {
      const { x1, y1, x2, y2 } = inPixels(mark, sides);
      return `M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}`;
    },
  },
};

const inPixels = ({ x1, y1, x2, y2 }: Mark, { widthPx, heightPx }: Sides) => ({
  x1: x1 * widthPx,
  y1: y1 * heightPx,
  x2: x2 * widthPx,
  y2: y2 * heightPx,
});

const share = (value: number) => asShare(Number(value.toFixed(4)));

/** A mark with all its points on the photo, each to a ten-thousandth of its side. */
export const heldIn = ({ kind, x1, y1, x2, y2 }: Mark): Mark => ({
  kind,
  x1: share(x1),
  y1: share(y1),
  x2: share(x2),
  y2: share(y2),
});

/** Whether a stroke is long enough to have been meant: a hundredth of the photo's longer side. */
export const isMeant = (mark: Mark, sides: Sides): boolean => {
  const { x1, y1, x2, y2 } = inPixels(mark, sides);
  return Math.hypot(x2 - x1, y2 - y1) >= LEAST * Math.max(sides.widthPx, sides.heightPx);
};

/** A mark moved by shares of the sides, whole or at its second point alone; it never leaves the photo, nor changes its shape there. */
export function moved(mark: Mark, dx: number, dy: number, end: boolean): Mark {
  if (end) return heldIn({ ...mark, x2: mark.x2 + dx, y2: mark.y2 + dy });
  const [left, right] = [Math.min(mark.x1, mark.x2), Math.max(mark.x1, mark.x2)];
  const [top, bottom] = [Math.min(mark.y1, mark.y2), Math.max(mark.y1, mark.y2)];
  const x = Math.min(1 - right, Math.max(-left, dx));
  const y = Math.min(1 - bottom, Math.max(-top, dy));
  return heldIn({ ...mark, x1: mark.x1 + x, y1: mark.y1 + y, x2: mark.x2 + x, y2: mark.y2 + y });
}
