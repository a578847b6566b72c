import { circle, ellipse, offset, rectangle, type Loop } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, type Refused, tooRound } from '../kind';

/** An opening right through, for a sink, a hob, a hatch or a handle; what falls out is an offcut. */
export interface OpeningFeature extends FeatureBase {
  kind: 'opening';
  shape: 'rectangle' | 'ellipse' | 'circle';
  length: Length;
  width: Length;
  radius: Length;
  /** What cuts its line: how wide it takes away wood, inside the line. */
  cutter: Length;
  /** The round blade that saws its straight sides, diameter; a router or jigsaw cuts them if missing. */
  blade?: Length;
}

const lineOf = ({ shape, length, width, radius }: OpeningFeature, at: { x: number; y: number }): Loop =>
  shape === 'circle'
    ? circle(at, length.mm / 2)
    : shape === 'ellipse'
      ? ellipse(at, length.mm, width.mm)
      : rectangle({ x: at.x - length.mm / 2, y: at.y - width.mm / 2 }, length.mm, width.mm, radius.mm);

export const opening: FeatureKind<OpeningFeature> = {
  kind: 'opening',
  name: 'Opening',
  says: 'An opening right through: for a sink, a hob, a hatch. What falls out is an offcut.',
  sides: ['upper', 'lower'],
  fields: {
    shape: {
      is: 'choice',
      label: 'Shape',
      options: [
        { value: 'rectangle', label: 'Rectangle' },
        { value: 'ellipse', label: 'Ellipse' },
        { value: 'circle', label: 'Circle' },
      ],
    },
    length: lengthField('Length'),
    width: { ...lengthField('Width'), when: ({ shape }: OpeningFeature) => shape !== 'circle' },
    radius: {
      ...lengthField('Radius of its corners', 0),
      when: ({ shape }: OpeningFeature) => shape === 'rectangle',
    },
    cutter: lengthField('Width of the cut', 0.5, 60),
    blade: {
      ...lengthField('Round blade for the straight sides, diameter', 0, 400),
      optional: true,
      when: ({ shape }: OpeningFeature) => shape === 'rectangle',
    },
  },
  begin: ({ long, wide }) => ({
    shape: 'rectangle',
    length: { mm: Math.min(400, Math.round(long / 3)) },
    width: { mm: Math.min(300, Math.round(wide / 2)) },
    radius: { mm: 20 },
    cutter: { mm: 10 },
  }),
  placed: true,
  cuts: (feature, { u, v }, { deep }) => {
    const line = lineOf(feature, { x: u, y: v });
    return [{ region: [line], from: 0, to: deep, plug: offset(line, -feature.cutter.mm) }];
  },
  refuses: (feature): Refused | undefined => {
    const { shape, radius, cutter } = feature;
    if (shape !== 'rectangle') return undefined;
    return radius.mm > 0 && radius.mm < cutter.mm / 2
      ? {
          words: [
            'A cutter of ',
            cutter,
            ' leaves corners of ',
            { mm: cutter.mm / 2 },
            ', not ',
            radius,
            '.',
          ],
          numbers: { radius: radius.mm, cutter: cutter.mm / 2 },
        }
      : tooRound(feature);
  },
  narrowest: ({ cutter }) => cutter.mm,
  bits: ['spiral', 'straight'],
  bitMm: ({ cutter }) => cutter.mm,
  by: 'cutter',
  order: 40,
  crosses: true,
  opens: true,
  caution:
    'Bore the corners first; support what falls out, it must not drop or bind. A round blade leaves the corners to a hand saw. Plumbing and electrics: licensed trades.',
};

declare module '../model' {
  interface FeatureKinds {
    opening: OpeningFeature;
  }
}
