import { offset, type Region, reversed } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, type Refused } from '../kind';
import { finishedLine } from './juice';

/** Profiles of edges: how wide they are cut at a depth below the face, for a size. */
export const PROFILES = {
  roundOver: {
    label: 'Round-over',
    widthAt: (z: number, r: number) => r - Math.sqrt(Math.max(0, r * r - (r - z) ** 2)),
  },
  chamfer: { label: 'Chamfer', widthAt: (z: number, c: number) => c - z },
  cove: { label: 'Cove', widthAt: (z: number, r: number) => Math.sqrt(Math.max(0, r * r - z * z)) },
} as const;
export type ProfileName = keyof typeof PROFILES;

/** A profile round the edge of a face: all round, or along its long edges or ends only. */
export interface EdgeFeature extends FeatureBase {
  kind: 'edge';
  profile: ProfileName;
  size: Length;
  which: 'all' | 'edges' | 'ends';
}

export const edge: FeatureKind<EdgeFeature> = {
  kind: 'edge',
  name: 'Shaped edge',
  says: 'A round-over, chamfer or cove round the edge of a face, or of the outline that was sawn.',
  sides: ['upper', 'lower'],
  fields: {
    profile: {
      is: 'choice',
      label: 'Profile',
      options: [
        { value: 'roundOver', label: 'Round-over' },
        { value: 'chamfer', label: 'Chamfer' },
        { value: 'cove', label: 'Cove' },
      ],
    },
    size: lengthField('Size'),
    which: {
      is: 'choice',
      label: 'Which edges',
      options: [
        { value: 'all', label: 'All round' },
        { value: 'edges', label: 'Long edges' },
        { value: 'ends', label: 'Ends' },
      ],
    },
  },
  begin: ({ deep }) => ({ profile: 'roundOver', size: { mm: Math.min(6, deep / 2) }, which: 'all' }),
  placed: false,
  cuts: ({ profile, size, which }, _at, side) => {
    const line = finishedLine(side);
    const depth = Math.min(size.mm, side.deep);
    const { widthAt } = PROFILES[profile];
    const { long, wide } = side;
    const { u, v } = side.trims;
    const ring = (z: number): Region => {
      const w = widthAt(z, size.mm);
      if (w <= 1e-6) return [];
      if (which === 'all' || side.outline) return [line, ...offset(line, -w).map(reversed)];
      const strip = (x0: number, y0: number, x1: number, y1: number): Region[number] => [
        { x: x0, y: y0 },
        { x: x1, y: y0 },
        { x: x1, y: y1 },
        { x: x0, y: y1 },
      ];
      return which === 'edges'
        ? [strip(0, v[0], long, v[0] + w), strip(0, wide - v[1] - w, long, wide - v[1])]
        : [strip(u[0], 0, u[0] + w, wide), strip(long - u[1] - w, 0, long - u[1], wide)];
    };
    return [{ region: ring(0), from: 0, to: depth, at: ring }];
  },
  refuses: ({ size, profile }, { deep }): Refused | undefined =>
    size.mm > deep
      ? {
          words: [
            `A ${PROFILES[profile].label.toLowerCase()} of `,
            size,
            ' is more than the piece is thick, ',
            { mm: deep },
            '.',
          ],
          numbers: { size: size.mm, thickness: deep },
        }
      : undefined,
  bits: ['roundOver', 'chamfer', 'cove'],
  only: ({ profile }) => profile,
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
