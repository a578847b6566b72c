import type { Region } from '../curve';
import type { Vec3 } from '../solid';
import { AXES_OF, type Cut, type LaidFeature, type PieceSide } from '../steps';

/** A layer of a body: its outline on a plane along two axes of the piece, and from where to where it reaches along the third. mm. */
export interface Layer {
  /** Axes of the outline, and of its depth. */
  u: 0 | 1 | 2;
  v: 0 | 1 | 2;
  n: 0 | 1 | 2;
  region: Region;
  low: number;
  high: number;
}

/** What is hollow in a piece, in its own frame: one layer, or where its section changes with depth a rule for any depth. */
export interface Body extends Layer {
  /** The outline so far below its side, mm; the same all through if missing. */
  at?: (depth: number) => Region;
  /** Where a depth lies along its axis. */
  along: (depth: number) => number;
  from: number;
  to: number;
}

/** A depth below a side as a coordinate of the piece. */
const alongOf = (side: PieceSide, size: Vec3): ((depth: number) => number) => {
  const [, , n] = AXES_OF[side];
  const high = side === 'upper' || side === 'far' || side === 'right';
  return high ? (depth) => size[n] - depth : (depth) => depth;
};

/** One cut of a feature as a body in the frame of a piece of a size. */
export function bodyOf(side: PieceSide, cut: Cut, size: Vec3): Body {
  const [u, v, n] = AXES_OF[side];
  const along = alongOf(side, size);
  const [a, b] = [along(cut.from), along(cut.to)];
  return {
    u,
    v,
    n,
    region: cut.region,
    low: Math.min(a, b),
    high: Math.max(a, b),
    along,
    from: cut.from,
    to: cut.to,
    ...(cut.at ? { at: cut.at } : {}),
  };
}

/** All bodies of a feature, place by place. */
export const bodiesOf = ({ feature, cuts }: LaidFeature, size: Vec3): Body[][] =>
  cuts.map((atSpot) => atSpot.map((cut) => bodyOf(feature.side, cut, size)));
