import { rectangle, slot } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, type Refused, RUNS, type Runs } from '../kind';

/** A mortise: as long and wide as its tenon, round or square at its ends; right through if it has no depth. */
export interface MortiseFeature extends FeatureBase {
  kind: 'mortise';
  length: Length;
  width: Length;
  depth?: Length;
  ends: 'round' | 'square';
  runs: Runs;
}

export const mortise: FeatureKind<MortiseFeature> = {
  kind: 'mortise',
  name: 'Mortise or slot',
  says: 'A mortise for a tenon or a loose tenon, or a slot for a bolt; blind or right through.',
  fields: {
    length: lengthField('Length'),
    width: lengthField('Width'),
    depth: { ...lengthField('Depth, through if empty'), optional: true },
    ends: {
      is: 'choice',
      label: 'Its ends',
      options: [
        { value: 'round', label: 'Round' },
        { value: 'square', label: 'Square' },
      ],
    },
    runs: RUNS,
  },
  begin: ({ long, wide, deep }) => ({
    length: { mm: Math.min(40, long / 2) },
    // A third of what it is cut into (common practice).
    width: { mm: Math.max(4, Math.min(12, Math.round(wide / 3), long / 4)) },
    depth: { mm: Math.min(25, deep / 2) },
    ends: 'round',
    runs: 'along',
  }),
  placed: true,
  cuts: ({ length, width, depth, ends, runs }, { u, v }, { deep }) => {
    const [l, w] = runs === 'along' ? [length.mm, width.mm] : [width.mm, length.mm];
    const region =
      ends === 'round'
        ? [slot({ x: u, y: v }, length.mm, width.mm, runs === 'along' ? 0 : Math.PI / 2)]
        : [rectangle({ x: u - l / 2, y: v - w / 2 }, l, w)];
    return [{ region, from: 0, to: Math.min(depth?.mm ?? deep, deep) }];
  },
  refuses: ({ length, width }): Refused | undefined =>
    length.mm < width.mm
      ? {
          words: ['It is ', length, ' long and ', width, ' wide: turn it, it runs the other way.'],
          numbers: { length: length.mm, width: width.mm },
        }
      : undefined,
  narrowest: ({ width }) => width.mm,
  bits: ['spiral', 'straight'],
  bitMm: ({ width }) => width.mm,
  by: 'cutter',
  order: 10,
  caution:
    'In passes of no more than the cutter is wide; clear the chips between. The machine’s manual comes first.',
};

declare module '../model' {
  interface FeatureKinds {
    mortise: MortiseFeature;
  }
}
