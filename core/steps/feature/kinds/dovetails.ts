import type { Loop, Region } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { countField, type FeatureKind, lengthField, type Refused } from '../kind';

/** A row of tails on an end: the waste between them is cut away right through the thickness. */
export interface DovetailsFeature extends FeatureBase {
  kind: 'dovetails';
  tails: number;
  /** As long as the other board is thick. */
  length: Length;
  /** Of a pin at its narrow end, and of the half pins at both sides. */
  pin: Length;
  half: Length;
  /** Slope as so many along to one across: 6 in softwood, 8 in hardwood (common practice). */
  slope: number;
}

export const dovetails: FeatureKind<DovetailsFeature> = {
  kind: 'dovetails',
  name: 'Dovetails',
  says: 'A row of tails on an end: laid out by number, pin and slope, the waste between them cut away.',
  sides: ['upper'],
  fields: {
    tails: countField('Tails', 1, 60),
    length: lengthField('Length'),
    pin: lengthField('Pins, narrow end'),
    half: lengthField('Half pins, narrow end'),
    slope: { is: 'number', label: 'Slope, 1 to', least: 3, most: 14 },
  },
  begin: ({ wide, deep }) => ({
    tails: Math.max(1, Math.round(wide / 40)),
    length: { mm: Math.round(deep) },
    pin: { mm: 8 },
    half: { mm: 6 },
    slope: 8,
  }),
  placed: false,
  cuts: (feature, _at, { long, wide, deep }) => {
    const { length, pin, half, slope } = feature;
    const tail = tailOf(feature, wide);
    if (tail <= 0) return [];
    const grow = length.mm / slope;
    const over = 1;
    const wedge = (at: number, width: number): Loop => [
      { x: long - length.mm, y: at - width / 2 - grow },
      { x: long + over, y: at - width / 2 + (grow * over) / length.mm },
      { x: long + over, y: at + width / 2 - (grow * over) / length.mm },
      { x: long - length.mm, y: at + width / 2 + grow },
    ];
    // Half pins reach past the edge, so that their outer side is the edge.
    const ends: Loop[] = [
      [
        { x: long - length.mm, y: -over },
        { x: long + over, y: -over },
        { x: long + over, y: half.mm - (grow * over) / length.mm },
        { x: long - length.mm, y: half.mm + grow },
      ],
      [
        { x: long - length.mm, y: wide - half.mm - grow },
        { x: long + over, y: wide - half.mm + (grow * over) / length.mm },
        { x: long + over, y: wide + over },
        { x: long - length.mm, y: wide + over },
      ],
    ];
    const pins = Array.from({ length: feature.tails - 1 }, (_, i) =>
      wedge(half.mm + (i + 1) * tail + i * pin.mm + pin.mm / 2, pin.mm),
    );
    const region: Region = [...ends, ...pins];
    return [{ region, from: 0, to: deep }];
  },
  refuses: (feature, { wide }): Refused | undefined => {
    const tail = tailOf(feature, wide) - 2 * (feature.length.mm / feature.slope);
    return tail <= 0
      ? {
          words: [`${feature.tails} tails with these pins leave `, { mm: tail }, ' at the root of each.'],
          numbers: { tails: feature.tails, root: tail },
        }
      : undefined;
  },
  bits: [],
  by: 'saw',
  order: 15,
  crosses: true,
  runsOut: true,
  caution: 'Saw on the waste side, chop halfway from each face. Keep both hands behind the chisel.',
};

/** How wide a tail is at its wide end, mm: what half pins and pins leave, shared. */
export const tailOf = ({ tails, pin, half }: DovetailsFeature, wide: number): number =>
  (wide - 2 * half.mm - (tails - 1) * pin.mm) / tails;

declare module '../model' {
  interface FeatureKinds {
    dovetails: DovetailsFeature;
  }
}
