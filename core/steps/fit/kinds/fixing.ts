import type { Length } from '../../../units';
import {
  fitLength,
  type FittingKind,
  type FitProblem,
  HELD_AT,
  heldFast,
  type HeldAt,
  placeMoves,
  slotFor,
  TAKEN_UP_MM,
} from '../kind';
import type { FittingBase } from '../model';

/** An apron, base, cleat or batten across the piece, fixed to it. */
export interface AcrossFixing extends FittingBase {
  kind: 'fixing';
  to: 'apron' | 'base' | 'cleat';
  by: 'slots' | 'figureEight' | 'screws';
  held: HeldAt;
  /** The fixing farthest from where it is held. */
  farthest: Length;
  bolt: Length;
  /** The slot in all; how far a figure-eight swings each way. */
  slot?: Length;
  swing?: Length;
  spare: Length;
}

const NAMES = { apron: 'The apron', base: 'The base', cleat: 'The cleat' } as const;

export const fixing: FittingKind<AcrossFixing> = {
  kind: 'fixing',
  name: 'Apron, base or cleat',
  says: 'Something across the grain is fixed to the piece: by slots, figure-eights, or screws that hold it.',
  fields: {
    to: {
      is: 'choice',
      label: 'Fixed to',
      options: [
        { value: 'apron', label: 'An apron' },
        { value: 'base', label: 'A base' },
        { value: 'cleat', label: 'A cleat or batten' },
      ],
    },
    by: {
      is: 'choice',
      label: 'With',
      options: [
        { value: 'slots', label: 'Bolts in slots' },
        { value: 'figureEight', label: 'Figure-eight fasteners' },
        { value: 'screws', label: 'Screws, tight' },
      ],
    },
    held: { ...HELD_AT, label: 'Held fast' },
    farthest: fitLength('Farthest fixing, from where it is held'),
    bolt: { ...fitLength('Bolt or screw', 100, 0.5) },
    slot: {
      ...fitLength('Its slot, in all', 300),
      optional: true,
      when: ({ by }: AcrossFixing) => by === 'slots',
    },
    swing: {
      ...fitLength('It swings, each way', 100),
      optional: true,
      when: ({ by }: AcrossFixing) => by === 'figureEight',
    },
    spare: fitLength('To spare', 50),
  },
  begin: (at) => {
    const farthest = Math.max(0, at.size[1] / 2 - 50);
    const bolt = 6;
    return {
      to: 'apron',
      by: 'slots',
      held: 'middle',
      farthest: { mm: farthest },
      bolt: { mm: bolt },
      slot: { mm: at.up(slotFor(bolt, placeMoves('middle', farthest, at), 1)) },
      spare: { mm: 1 },
    };
  },
  report: (own, at) => {
    const { to, by, held, farthest, bolt, slot, swing, spare } = own;
    const way = placeMoves(held, farthest.mm, at);
    const needs = slotFor(bolt.mm, way, spare.mm);
    const most = Math.max(way.out, way.in) + spare.mm / 2;
    const problems: FitProblem<AcrossFixing>[] = [];
    const fast = (held === 'all' || by === 'screws') && way.out + way.in > TAKEN_UP_MM;
    const hasSlot = slot?.mm ?? 0;
    const swings = swing?.mm ?? 0;
    if (fast)
      problems.push(
        heldFast(NAMES[to], way, [
          {
            label: 'Hold it in the middle and let the others slide in slots',
            change: { held: 'middle', by: 'slots', slot: { mm: at.up(needs) } },
          },
        ]),
      );
    else if (by === 'slots' && hasSlot + 1e-9 < needs)
      problems.push({
        code: 'slot-short',
        severity: 'warning',
        message: [
          'The farthest slot must be ',
          { mm: needs },
          ' long: bolt ',
          bolt,
          ', ',
          { mm: way.out },
          ' out, ',
          { mm: way.in },
          ' in and ',
          spare,
          ' to spare. It is ',
          { mm: hasSlot },
          ': short by ',
          { mm: needs - hasSlot },
          '.',
        ],
        numbers: { needed: needs, slot: hasSlot, short: needs - hasSlot },
        fixes: [{ label: 'Cut the slot as long as it must be', change: { slot: { mm: at.up(needs) } } }],
      });
    else if (by === 'figureEight' && swings + 1e-9 < most)
      problems.push({
        code: 'slot-short',
        severity: 'warning',
        message: [
          'The farthest figure-eight must swing ',
          { mm: most },
          ' one way, and swings ',
          { mm: swings },
          ': short by ',
          { mm: most - swings },
          '.',
        ],
        numbers: { needed: most, swing: swings, short: most - swings },
        fixes: [
          {
            label: 'Use bolts in slots as long as they must be',
            change: { by: 'slots', slot: { mm: at.up(needs) } },
          },
        ],
      });
    const broken = problems.length > 0;
    return {
      problems,
      facts: [
        {
          name: 'The farthest fixing moves',
          says: [{ mm: way.out }, ' out and ', { mm: way.in }, ' in over the year'],
          state: fast ? 'broken' : 'met',
        },
        ...(by === 'slots'
          ? [
              {
                name: 'Slot, in all',
                says: ['needs ', { mm: needs }, ', has ', { mm: hasSlot }],
                state: broken ? ('broken' as const) : ('met' as const),
              },
              {
                name: 'Bolt in its slot',
                says: [
                  'when it is fitted ',
                  { mm: way.in + spare.mm / 2 },
                  ' of the slot towards where it is held, ',
                  { mm: way.out + spare.mm / 2 },
                  ' away from it: not in the middle unless these are alike',
                ],
              },
            ]
          : by === 'figureEight'
            ? [
                {
                  name: 'Swing, each way',
                  says: ['needs ', { mm: most }, ', has ', { mm: swings }],
                  state: broken ? ('broken' as const) : ('met' as const),
                },
              ]
            : []),
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    fixing: AcrossFixing;
  }
}
