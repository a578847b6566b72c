import { rectangle } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, tooRound } from '../kind';

/** A recess with a floor, round in its corners as the cutter leaves them. */
export interface PocketFeature extends FeatureBase {
  kind: 'pocket';
  length: Length;
  width: Length;
  depth: Length;
  radius: Length;
}

export const pocket: FeatureKind<PocketFeature> = {
  kind: 'pocket',
  name: 'Recess',
  says: 'A pocket with a floor: for a tray, a hinge, a plate, a vise jaw.',
  fields: {
    length: lengthField('Length'),
    width: lengthField('Width'),
    depth: lengthField('Depth'),
    radius: lengthField('Radius of its corners', 0),
  },
  begin: ({ long, wide, deep }) => ({
    length: { mm: Math.min(100, long / 2) },
    width: { mm: Math.min(60, wide / 2) },
    depth: { mm: Math.min(10, deep / 2) },
    radius: { mm: 6 },
  }),
  placed: true,
  cuts: ({ length, width, depth, radius }, { u, v }, { deep }) => [
    {
      region: [rectangle({ x: u - length.mm / 2, y: v - width.mm / 2 }, length.mm, width.mm, radius.mm)],
      from: 0,
      to: Math.min(depth.mm, deep),
    },
  ],
  refuses: tooRound,
  narrowest: ({ radius, length, width }) => (radius.mm > 0 ? 2 * radius.mm : Math.min(length.mm, width.mm)),
  bits: ['spiral', 'straight'],
  by: 'cutter',
  order: 20,
  crosses: true,
  caution:
    'In passes, from the middle outwards; the cutter is lowered only where its manual allows a plunge.',
};

declare module '../model' {
  interface FeatureKinds {
    pocket: PocketFeature;
  }
}
