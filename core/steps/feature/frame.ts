import { mirroredY, type Region } from '../../curve';
import { type Form, levelsForm, type Rigid, type Vec3 } from '../../solid';
import type { PieceSide } from './model';
import type { Cut, SideSize } from './kind';

/** What later trims take off each side of a piece, mm. */
export type Trims = Record<PieceSide, number>;

/** A side of a piece in its blank's frame: the motion into the side's own, u along, v across, z out of the wood. */
export interface SideFrame {
  toForm: Rigid;
  /** Seen from outside, v runs the other way: regions are turned over. */
  over: boolean;
}

const FRAMES: Record<PieceSide, (size: Vec3) => SideFrame> = {
  upper: ([, , t]) => ({ toForm: [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, -t], over: false }),
  lower: () => ({ toForm: [1, 0, 0, 0, 0, -1, 0, 0, 0, 0, -1, 0], over: true }),
  near: () => ({ toForm: [1, 0, 0, 0, 0, 0, 1, 0, 0, -1, 0, 0], over: false }),
  far: ([, w]) => ({ toForm: [1, 0, 0, 0, 0, 0, -1, 0, 0, 1, 0, -w], over: true }),
  left: () => ({ toForm: [0, 1, 0, 0, 0, 0, -1, 0, -1, 0, 0, 0], over: true }),
  right: ([l]) => ({ toForm: [0, 1, 0, 0, 0, 0, 1, 0, 1, 0, 0, -l], over: false }),
};

/** The frame of a side of a piece of a size, its low corner at the origin. */
export const frameOf = (side: PieceSide, size: Vec3): SideFrame => FRAMES[side](size);

/** Which axes of the piece run along a side, across it, and into it. */
export const AXES_OF: Record<PieceSide, readonly [u: 0 | 1, v: 1 | 2, n: 0 | 1 | 2]> = {
  upper: [0, 1, 2],
  lower: [0, 1, 2],
  near: [0, 2, 1],
  far: [0, 2, 1],
  left: [1, 2, 0],
  right: [1, 2, 0],
};
const LOW_HIGH: Record<0 | 1 | 2, readonly [PieceSide, PieceSide]> = {
  0: ['left', 'right'],
  1: ['near', 'far'],
  2: ['lower', 'upper'],
};

/** A side of a piece of a size, with what later trims take of it. */
export function sideOf(side: PieceSide, size: Vec3, trims: Trims, outline?: Region): SideSize {
  const [u, v, n] = AXES_OF[side];
  const off = (axis: 0 | 1 | 2): readonly [number, number] => [
    trims[LOW_HIGH[axis][0]],
    trims[LOW_HIGH[axis][1]],
  ];
  return {
    side,
    long: size[u],
    wide: size[v],
    deep: size[n],
    trims: { u: off(u), v: off(v), n: trims[side] },
    ...(outline && n === 2 ? { outline } : {}),
  };
}

/** A cut as the form it makes in its side's frame. */
export function formOf({ region, from, to, at }: Cut, { over }: SideFrame): Form {
  const seen = (each: Region) => (over ? mirroredY(each) : each);
  return at
    ? levelsForm((z) => seen(at(-z)), [-to, -from])
    : { kind: 'prism', region: seen(region), z0: -to, z1: -from };
}

/** What of a cut falls out whole, as a form. */
export const plugOf = ({ plug, from, to }: Cut, { over }: SideFrame): Form | undefined =>
  plug && plug.length > 0
    ? { kind: 'prism', region: over ? mirroredY(plug) : plug, z0: -to, z1: -from }
    : undefined;
