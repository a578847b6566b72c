import { rectangle, type Region, reversed } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, type Refused } from '../kind';

/** A tenon on an end or edge: what is cut away around it. Off one face, or off both. */
export interface TenonFeature extends FeatureBase {
  kind: 'tenon';
  length: Length;
  thickness: Length;
  /** Along the side; as long as the side if missing. */
  width?: Length;
  /** A shorter part over the rest of the width that keeps it from twisting. */
  haunch?: Length;
}

export const tenon: FeatureKind<TenonFeature> = {
  kind: 'tenon',
  name: 'Tenon',
  says: 'A tenon on an end or an edge, off one face or both, with a haunch if wanted.',
  sides: ['left', 'right', 'near', 'far'],
  fields: {
    length: lengthField('Length of the tenon'),
    thickness: lengthField('Thickness of the tenon'),
    width: { ...lengthField('Width, as wide as the side if empty'), optional: true },
    haunch: { ...lengthField('Haunch, length'), optional: true },
  },
  // A third of the thickness (common practice).
  begin: ({ wide }) => ({ length: { mm: 30 }, thickness: { mm: Math.round((wide / 3) * 10) / 10 } }),
  placed: true,
  cuts: ({ length, thickness, width, haunch }, { u, v }, { long, wide, deep }) => {
    const over = 1;
    const all = rectangle({ x: -over, y: -over }, long + 2 * over, wide + 2 * over);
    const around = (w: number): Region => [
      all,
      reversed(rectangle({ x: (width ? u : long / 2) - w / 2, y: v - thickness.mm / 2 }, w, thickness.mm)),
    ];
    const own = width?.mm ?? long;
    const to = Math.min(length.mm, deep);
    const short = Math.min(haunch?.mm ?? 0, to);
    return short > 0
      ? [
          { region: around(own), from: 0, to: to - short },
          { region: around(long), from: to - short, to },
        ]
      : [{ region: around(own), from: 0, to }];
  },
  refuses: ({ thickness, width, length }, { wide, long, deep }): Refused | undefined =>
    thickness.mm >= wide - 1e-9
      ? {
          words: [
            'The tenon is ',
            thickness,
            ' thick, and the piece ',
            { mm: wide },
            ': nothing would be cut.',
          ],
          numbers: { tenon: thickness.mm, thickness: wide },
        }
      : width && width.mm > long
        ? {
            words: ['The tenon is ', width, ' wide, and the side ', { mm: long }, '.'],
            numbers: { tenon: width.mm, side: long },
          }
        : length.mm >= deep
          ? {
              words: ['The tenon is ', length, ' long, and the piece ', { mm: deep }, '.'],
              numbers: { tenon: length.mm, piece: deep },
            }
          : undefined,
  bits: ['straight', 'spiral'],
  by: 'cutter',
  order: 10,
  crosses: true,
  runsOut: true,
  caution:
    'A stop sets its shoulder; the last pass is light, and fitted to the mortise. Keep the fence’s stop clear of the offcut.',
};

declare module '../model' {
  interface FeatureKinds {
    tenon: TenonFeature;
  }
}
