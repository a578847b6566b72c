import { rectangle, slot } from '../../../curve';
import type { Length } from '../../../units';
import type { FeatureBase } from '../model';
import { type FeatureKind, lengthField, type Refused, RUNS, type Runs } from '../kind';
import { floorOf, FLOORS, type Floor } from '../floor';

/** A straight groove along a side, or across it: right through or stopped. */
export interface GrooveFeature extends FeatureBase {
  kind: 'groove';
  runs: Runs;
  width: Length;
  depth: Length;
  /** Between its ends; from edge to edge if missing. */
  length?: Length;
  floor: Floor;
}

export const groove: FeatureKind<GrooveFeature> = {
  kind: 'groove',
  name: 'Groove or dado',
  says: 'A straight groove along a side, or a dado across it, from edge to edge or stopped.',
  fields: {
    runs: RUNS,
    width: lengthField('Width'),
    depth: lengthField('Depth'),
    length: { ...lengthField('Length, edge to edge if empty'), optional: true },
    floor: { is: 'choice', label: 'Floor', options: [...FLOORS] },
  },
  begin: ({ deep }) => ({
    runs: 'along',
    width: { mm: 6 },
    depth: { mm: Math.min(8, deep / 3) },
    floor: 'flat',
  }),
  placed: true,
  cuts: ({ runs, width, depth, length, floor }, { u, v }, { long, wide, deep }) => {
    const along = runs === 'along';
    const reach = 2 * Math.max(long, wide);
    // From edge to edge it stays where it is across; its ends lie past the wood.
    const stopped = length?.mm;
    const at = stopped === undefined ? { x: along ? long / 2 : u, y: along ? v : wide / 2 } : { x: u, y: v };
    const total = stopped ?? reach;
    const turn = along ? 0 : Math.PI / 2;
    return floorOf(
      (w) =>
        stopped === undefined
          ? [
              rectangle(
                { x: at.x - (along ? total : w) / 2, y: at.y - (along ? w : total) / 2 },
                along ? total : w,
                along ? w : total,
              ),
            ]
          : [slot(at, total - width.mm + w, w, turn)],
      { width: width.mm, depth: Math.min(depth.mm, deep), floor },
    );
  },
  refuses: ({ length, width }): Refused | undefined =>
    length && length.mm < width.mm
      ? {
          words: [
            'It is ',
            length,
            ' long and ',
            width,
            ' wide: the cutter makes it as long as it is wide at least.',
          ],
          numbers: { length: length.mm, width: width.mm },
        }
      : undefined,
  narrowest: ({ width }) => width.mm,
  bits: ['straight', 'spiral', 'coreBox', 'stackedCutter'],
  by: 'cutter',
  order: 20,
  crosses: true,
  runsOut: true,
  caution:
    'Against the feed, in passes; a stacked cutter is never lowered onto the wood freehand. The machine’s manual comes first.',
};

declare module '../model' {
  interface FeatureKinds {
    groove: GrooveFeature;
  }
}
