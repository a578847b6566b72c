import { rectangle } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, type Refused, tooRound, RUNS, type Runs } from '../kind';

/** A line or plate let into a recess: a bar of metal, or of another wood. */
export interface InlayFeature extends FeatureBase {
  kind: 'inlay';
  of: 'metal' | 'wood';
  runs: Runs;
  length: Length;
  width: Length;
  depth: Length;
  radius: Length;
  /** How much narrower and shorter than its recess the inlay is made. */
  fit?: Length;
  /** How much it stands proud before it is levelled. */
  proud?: Length;
}

export const inlay: FeatureKind<InlayFeature> = {
  kind: 'inlay',
  name: 'Inlay',
  says: 'A bar of metal or of another wood let into a recess, and levelled with the face.',
  fields: {
    of: {
      is: 'choice',
      label: 'Of',
      options: [
        { value: 'metal', label: 'Metal' },
        { value: 'wood', label: 'Wood' },
      ],
    },
    runs: RUNS,
    length: lengthField('Length of the recess'),
    width: lengthField('Width of the recess'),
    depth: lengthField('Depth of the recess'),
    radius: lengthField('Radius of its corners', 0),
    fit: { ...lengthField('Inlay smaller than its recess by', 0, 5), optional: true },
    proud: { ...lengthField('Stands proud before it is levelled', 0, 20), optional: true },
  },
  begin: ({ long, deep }) => ({
    of: 'metal',
    runs: 'along',
    length: { mm: Math.min(300, long / 2) },
    width: { mm: 6 },
    depth: { mm: Math.min(5, deep / 3) },
    radius: { mm: 0 },
  }),
  placed: true,
  cuts: ({ runs, length, width, depth, radius }, { u, v }, { deep }) => {
    const [l, w] = runs === 'along' ? [length.mm, width.mm] : [width.mm, length.mm];
    return [
      {
        region: [rectangle({ x: u - l / 2, y: v - w / 2 }, l, w, radius.mm)],
        from: 0,
        to: Math.min(depth.mm, deep),
      },
    ];
  },
  refuses: (feature): Refused | undefined => {
    const { length, width, fit } = feature;
    const least = Math.min(length.mm, width.mm);
    return fit && fit.mm >= least
      ? {
          words: ['The inlay is to be smaller by ', fit, ', and its recess is ', { mm: least }, ' wide.'],
          numbers: { fit: fit.mm, width: least },
        }
      : tooRound(feature);
  },
  makes: ({ of, length, width, depth, fit, proud, radius }) => {
    const less = fit?.mm ?? 0;
    return [
      `Inlay of ${of}: `,
      { mm: length.mm - less },
      ' by ',
      { mm: width.mm - less },
      ' by ',
      { mm: depth.mm + (proud?.mm ?? 0) },
      ' thick',
      ...(radius.mm > 0 ? [', its corners round, radius ', { mm: Math.max(0, radius.mm - less / 2) }] : []),
      '.',
    ];
  },
  narrowest: ({ width, radius }) => (radius.mm > 0 ? 2 * radius.mm : width.mm),
  bits: ['spiral', 'straight'],
  bitMm: ({ width }) => width.mm,
  by: 'cutter',
  order: 20,
  crosses: true,
  caution:
    'Square corners are cut with a chisel. Metal is levelled cool and slowly: its dust burns, and hot it loosens the glue.',
};

declare module '../model' {
  interface FeatureKinds {
    inlay: InlayFeature;
  }
}
