import {
  type Loop,
  mirroredX,
  mirroredY,
  offset,
  placed,
  rectangle,
  type Region,
  reversed,
} from '../../../curve';
import type { BitKind } from '../../../kit';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, type Refused, type SideSize } from '../kind';
import { cornerSection, PROFILE_OPTIONS, PROFILES, type ProfileName, profileWidth } from '../profile';
import { finishedLine } from './juice';

/** Which edges a profile runs along. */
const WHICH = [
  { value: 'all', label: 'All round' },
  { value: 'edges', label: 'Both long edges' },
  { value: 'ends', label: 'Both ends' },
  { value: 'near', label: 'The near edge' },
  { value: 'far', label: 'The far edge' },
  { value: 'left', label: 'The left end' },
  { value: 'right', label: 'The right end' },
  { value: 'openings', label: 'Openings before it' },
  { value: 'corners', label: 'The upright corners' },
] as const;
type Which = (typeof WHICH)[number]['value'];

/** A profile along edges of a face: all round or some of them, round the openings, or down the upright corners. */
export interface EdgeFeature extends FeatureBase {
  kind: 'edge';
  profile: ProfileName;
  size: Length;
  /** A step above it, so deep. */
  step?: Length;
  which: Which;
}

/** The cutters that make each profile. */
const BIT: Record<ProfileName, BitKind> = {
  roundOver: 'roundOver',
  chamfer: 'chamfer',
  cove: 'cove',
  rabbet: 'rabbet',
  ogee: 'ogee',
};

const sizes = ({ profile, size, step }: EdgeFeature) => ({ profile, size: size.mm, step: step?.mm ?? 0 });

/** What a width all along some straight edges takes. */
function along(which: Which, w: number, { long, wide, trims: { u, v } }: SideSize): Region {
  const strip = (x0: number, y0: number, x1: number, y1: number): Loop =>
    rectangle({ x: x0, y: y0 }, x1 - x0, y1 - y0);
  const strips: Partial<Record<Which, Loop>> = {
    near: strip(0, v[0], long, v[0] + w),
    far: strip(0, wide - v[1] - w, long, wide - v[1]),
    left: strip(u[0], 0, u[0] + w, wide),
    right: strip(long - u[1] - w, 0, long - u[1], wide),
  };
  const names: readonly Which[] =
    which === 'edges' ? ['near', 'far'] : which === 'ends' ? ['left', 'right'] : [which];
  return names.flatMap((name) => {
    const own = strips[name];
    return own ? [own] : [];
  });
}

/** What runs down the four corners of the finished piece. */
function corners(feature: EdgeFeature, { long, wide, trims: { u, v } }: SideSize): Region {
  const low: Region = [cornerSection(sizes(feature))];
  const [x0, x1, y0, y1] = [u[0], long - u[1], v[0], wide - v[1]];
  return [
    ...placed(low, { x: x0, y: y0 }),
    ...placed(mirroredX(low), { x: x1, y: y0 }),
    ...placed(mirroredY(low), { x: x0, y: y1 }),
    ...placed(mirroredX(mirroredY(low)), { x: x1, y: y1 }),
  ];
}

export const edge: FeatureKind<EdgeFeature> = {
  kind: 'edge',
  name: 'Shaped edge',
  says: 'A round-over, chamfer, cove, rabbet or ogee along edges of a face, round openings, or down the corners.',
  sides: ['upper', 'lower'],
  fields: {
    profile: { is: 'choice', label: 'Profile', options: [...PROFILE_OPTIONS] },
    size: lengthField('Size'),
    step: {
      ...lengthField('A step above it, deep'),
      optional: true,
      when: ({ which }: EdgeFeature) => which !== 'corners',
    },
    which: { is: 'choice', label: 'Which edges', options: [...WHICH] },
  },
  begin: ({ deep }) => ({ profile: 'roundOver', size: { mm: Math.min(6, deep / 2) }, which: 'all' }),
  placed: false,
  cuts: (feature, _at, side) => {
    const { which } = feature;
    if (which === 'corners') return [{ region: corners(feature, side), from: 0, to: side.deep }];
    const of = sizes(feature);
    const line = finishedLine(side);
    const ring = (z: number): Region => {
      const w = profileWidth(of, z);
      if (w <= 1e-6) return [];
      if (which === 'all') return [line, ...offset(line, -w).map(reversed)];
      if (which === 'openings')
        return (side.openings ?? []).flatMap((each) => [...offset(each, w), reversed(each)]);
      return along(which, w, side);
    };
    const to = Math.min(of.size + of.step, side.deep);
    return [
      ...(of.step > 0 ? [{ region: ring(0), from: 0, to: Math.min(of.step, to) }] : []),
      ...(to > of.step
        ? [
            {
              region: ring(of.step),
              from: of.step,
              to,
              ...(feature.profile === 'rabbet' ? {} : { at: ring }),
            },
          ]
        : []),
    ];
  },
  refuses: (feature, side): Refused | undefined => {
    const { size, step, profile, which } = feature;
    const deep = size.mm + (which === 'corners' ? 0 : (step?.mm ?? 0));
    if (which !== 'corners' && deep > side.deep)
      return {
        words: [
          `A ${PROFILES[profile].label.toLowerCase()} of `,
          { mm: deep },
          ' is more than the piece is thick, ',
          { mm: side.deep },
          '.',
        ],
        numbers: { size: deep, thickness: side.deep },
      };
    if (side.outline && which !== 'all' && which !== 'openings')
      return {
        words: ['The piece was sawn to an outline: its edge is shaped all round, or round its openings.'],
        numbers: { corners: side.outline[0]?.length ?? 0 },
      };
    if (which === 'openings' && !side.openings?.length)
      return {
        words: ['No opening comes before it in this list: there is no edge of one to shape.'],
        numbers: { openings: 0 },
      };
    const { u, v } = side.trims;
    const room = Math.min(side.long - u[0] - u[1], side.wide - v[0] - v[1]);
    return 2 * size.mm > room
      ? {
          words: ['Two sides of ', size, ' are more than the piece is wide, ', { mm: room }, '.'],
          numbers: { size: size.mm, width: room },
        }
      : undefined;
  },
  bits: ['roundOver', 'chamfer', 'cove', 'rabbet', 'ogee'],
  only: ({ profile }) => BIT[profile],
  by: 'cutter',
  order: 60,
  crosses: true,
  runsOut: true,
  caution:
    'Ends first, then the long edges; a block at the corner takes the break-out. A small piece is shaped before it is cut free.',
};

declare module '../model' {
  interface FeatureKinds {
    edge: EdgeFeature;
  }
}
