import { type Loop, offset, rectangle, type Region, reversed, slot } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { FLOORS, floorOf, type Floor } from '../floor';
import { type FeatureKind, lengthField, type Refused, type SideSize } from '../kind';

/** A groove all round, so far in from the finished edge, with a drain if wanted. */
export interface JuiceFeature extends FeatureBase {
  kind: 'juice';
  /** From the finished edge to the groove’s outer rim. */
  inset: Length;
  width: Length;
  depth: Length;
  /** Of its outer rim’s corners; follows a sawn outline if there is one. */
  radius: Length;
  floor: Floor;
  /** Runs out to the right end at the middle, so long from the outer rim inwards. */
  drain?: true;
}

/** The finished outline of a side: the piece less what later trims take, or the outline that was sawn. */
export const finishedLine = ({ long, wide, trims: { u, v }, outline }: SideSize): Loop =>
  outline?.[0] ??
  rectangle({ x: u[0], y: v[0] }, Math.max(0, long - u[0] - u[1]), Math.max(0, wide - v[0] - v[1]));

/** The outer rim of the groove. */
export function rimOf({ inset, radius }: JuiceFeature, side: SideSize): Loop | undefined {
  const line = finishedLine(side);
  if (side.outline) return offset(line, -inset.mm)[0];
  const { u, v } = side.trims;
  const [l, w] = [side.long - u[0] - u[1] - 2 * inset.mm, side.wide - v[0] - v[1] - 2 * inset.mm];
  return l > 0 && w > 0 ? rectangle({ x: u[0] + inset.mm, y: v[0] + inset.mm }, l, w, radius.mm) : undefined;
}

export const juice: FeatureKind<JuiceFeature> = {
  kind: 'juice',
  name: 'Juice groove',
  says: 'A groove all round, so far in from the finished edge or the outline, with a drain if wanted.',
  sides: ['upper', 'lower'],
  fields: {
    inset: lengthField('From the finished edge', 0),
    width: lengthField('Width'),
    depth: lengthField('Depth'),
    radius: lengthField('Radius of its corners', 0),
    floor: { is: 'choice', label: 'Floor', options: [...FLOORS] },
    drain: { is: 'flag', label: 'A drain at the right end', optional: true },
  },
  begin: ({ deep }) => ({
    inset: { mm: 15 },
    width: { mm: 10 },
    depth: { mm: Math.min(5, deep / 3) },
    radius: { mm: 15 },
    floor: 'round',
  }),
  placed: false,
  cuts: (feature, _at, side) => {
    const rim = rimOf(feature, side);
    if (!rim) return [];
    const { width, depth, floor, drain } = feature;
    const middle = offset(rim, -width.mm / 2)[0];
    if (!middle) return [];
    const band = (w: number): Region => [...offset(middle, w / 2), ...offset(middle, -w / 2).map(reversed)];
    const right = side.long - side.trims.u[1];
    const to = right + width.mm;
    const from = right - feature.inset.mm - width.mm / 2;
    return [
      ...floorOf(band, { width: width.mm, depth: Math.min(depth.mm, side.deep), floor }),
      ...(drain
        ? floorOf((w) => [slot({ x: (from + to) / 2, y: side.wide / 2 }, to - from + w, w)], {
            width: width.mm,
            depth: Math.min(depth.mm, side.deep),
            floor,
          })
        : []),
    ];
  },
  refuses: (feature, side): Refused | undefined => {
    const { inset, width } = feature;
    if (inset.mm < 0)
      return {
        words: ['It cannot lie ', inset, ' outside the edge.'],
        numbers: { inset: inset.mm, least: 0 },
      };
    const room = Math.min(
      side.long - side.trims.u[0] - side.trims.u[1],
      side.wide - side.trims.v[0] - side.trims.v[1],
    );
    return 2 * (inset.mm + width.mm) >= room
      ? {
          words: ['Two rims of ', { mm: inset.mm + width.mm }, ' leave nothing of ', { mm: room }, '.'],
          numbers: { needs: 2 * (inset.mm + width.mm), room },
        }
      : undefined;
  },
  narrowest: ({ width }) => width.mm,
  bits: ['coreBox', 'straight', 'spiral'],
  bitMm: ({ width }) => width.mm,
  by: 'cutter',
  order: 20,
  crosses: true,
  caution:
    'In passes, against the feed; keep the router moving in the corners, or it burns. Before the outline is cut free.',
};

declare module '../model' {
  interface FeatureKinds {
    juice: JuiceFeature;
  }
}
