import { slot } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, type Refused } from '../kind';

/** A hand hold cut into an edge or end: as long as a hand, with round ends, so deep from the finished edge. */
export interface HandHoldFeature extends FeatureBase {
  kind: 'handHold';
  length: Length;
  height: Length;
  /** From the finished edge. */
  depth: Length;
}

export const handHold: FeatureKind<HandHoldFeature> = {
  kind: 'handHold',
  name: 'Hand hold',
  says: 'A hollow in an edge or end for the fingers of a hand.',
  sides: ['near', 'far', 'left', 'right'],
  fields: {
    length: lengthField('Length'),
    height: lengthField('Height'),
    depth: lengthField('Depth from the finished edge'),
  },
  begin: ({ long, wide }) => ({
    length: { mm: Math.min(110, long / 2) },
    height: { mm: Math.min(18, wide / 2) },
    depth: { mm: 12 },
  }),
  placed: true,
  cuts: ({ length, height, depth }, { u, v }, { deep, trims }) => [
    // What a later trim takes off this edge comes before it.
    { region: [slot({ x: u, y: v }, length.mm, height.mm)], from: 0, to: Math.min(depth.mm + trims.n, deep) },
  ],
  refuses: ({ length, height }): Refused | undefined =>
    length.mm < height.mm
      ? {
          words: ['It is ', length, ' long and ', height, ' high: it is longer than high.'],
          numbers: { length: length.mm, height: height.mm },
        }
      : undefined,
  narrowest: ({ height }) => height.mm,
  bits: ['coreBox', 'spiral', 'straight'],
  bitMm: ({ height }) => height.mm,
  by: 'cutter',
  order: 25,
  crosses: true,
  caution:
    'The piece stands on edge: clamp it to something square and wide. In passes; the router’s manual comes first.',
};

declare module '../model' {
  interface FeatureKinds {
    handHold: HandHoldFeature;
  }
}
