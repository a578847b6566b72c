import { upwards } from '../../units';
import type { Loop, Region } from '../../curve';
import { type Blank, bounds, contacts, extents, type Vec3 } from '../../solid';
import type { Feature } from './model';
import { AXES_OF, frameOf, sideOf, type SideFrame, type Trims } from './frame';
import type { Cut, Refused, SideSize } from './kind';
import { kindOf } from './kinds';
import { type Spot, spotsOf } from './place';

/** A feature as it lies on a piece: its places and what is cut at each; or why it cannot be cut. */
export interface LaidFeature {
  feature: Feature;
  side: SideSize;
  frame: SideFrame;
  spots: Spot[];
  /** What is cut at each place. */
  cuts: Cut[][];
  refused?: Refused;
}

/** What a piece gives the features that are laid on it. */
export interface Ground {
  size: Vec3;
  trims: Trims;
  outline?: Region;
  /** Where joints cross the length, the width and the thickness, mm. */
  joints: () => readonly [number[], number[], number[]];
}

const distinct = (list: readonly number[]): number[] =>
  [...list].sort(upwards).filter((at, i, all) => i === 0 || at - all[i - 1] > 1e-3);

/** Where joints lie square to the three axes of a blank, from its low corner, mm. */
export function jointLines(blank: Blank): readonly [number[], number[], number[]] {
  const { min } = bounds(blank);
  const found: [number[], number[], number[]] = [[], [], []];
  for (const { normal, at } of contacts(blank))
    for (const axis of [0, 1, 2] as const)
      if (Math.abs(normal[axis]) > 1 - 1e-6) found[axis].push(at[axis] - min[axis]);
  return [distinct(found[0]), distinct(found[1]), distinct(found[2])];
}

/** The ground a blank is, its joints counted when they are first asked for. */
export function groundOf(blank: Blank, trims: Trims, outline?: Region): Ground {
  let known: readonly [number[], number[], number[]] | undefined;
  return {
    size: extents(blank),
    trims,
    ...(outline ? { outline } : {}),
    joints: () => (known ??= jointLines(blank)),
  };
}

const needsJoints = ({ u, v }: Feature): boolean => u.from === 'joint' || v.from === 'joint';

/** Lays features on a piece, in the order they are written: later ones may be measured from earlier ones. */
export function layFeatures(features: readonly Feature[], ground: Ground): LaidFeature[] {
  const placed = new Map<string, Spot>();
  const openings: Loop[] = [];
  return features.map((feature) => {
    const kind = kindOf(feature);
    const own = sideOf(feature.side, ground.size, ground.trims, ground.outline);
    // Openings go right through: seen on either face they lie alike.
    const side = own.side === 'upper' || own.side === 'lower' ? { ...own, openings: [...openings] } : own;
    const frame = frameOf(feature.side, ground.size);
    const none = (refused: Refused): LaidFeature => ({ feature, side, frame, spots: [], cuts: [], refused });
    if (kind.sides && !kind.sides.includes(feature.side))
      return none({
        words: [`${kind.name} is not cut into this side: ${kind.sides.join(', ')}.`],
        numbers: { sides: kind.sides.length },
      });
    const refused = kind.refuses?.(feature, side);
    if (refused) return none(refused);
    const [u, v] = AXES_OF[feature.side];
    const lines = needsJoints(feature) ? ground.joints() : undefined;
    const spots = kind.placed
      ? spotsOf(feature, side, { joints: { u: lines?.[u] ?? [], v: lines?.[v] ?? [] }, placed })
      : [{ u: side.long / 2, v: side.wide / 2 }];
    if (!Array.isArray(spots)) return none(spots);
    if (spots[0]) placed.set(feature.id, spots[0]);
    const cuts = spots.map((spot) => kind.cuts(feature, spot, side));
    if (kind.opens) openings.push(...cuts.flat().flatMap(({ region }) => region));
    return { feature, side, frame, spots, cuts };
  });
}
