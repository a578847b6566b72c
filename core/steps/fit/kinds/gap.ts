import type { Length } from '../../../units';
import { fitLength, type FittingKind, type FitProblem, HELD_AT, type HeldAt, sideMoves } from '../kind';
import type { FittingBase } from '../model';

/** A moulding, a wall, or the sides of a carcase beside the piece: what gap there is when it is fitted. */
export interface GapBeside extends FittingBase {
  kind: 'gap';
  to: 'wall' | 'moulding' | 'carcase';
  held: HeldAt;
  gap: Length;
  /** What covers the gap: it must not open farther. */
  covers?: Length;
}

const NAMES = { wall: 'the wall', moulding: 'the moulding', carcase: 'the side of the carcase' } as const;

export const gap: FittingKind<GapBeside> = {
  kind: 'gap',
  name: 'Wall, moulding or carcase side',
  says: 'The free side of the piece stands so far from something that does not move.',
  fields: {
    to: {
      is: 'choice',
      label: 'Beside it',
      options: [
        { value: 'wall', label: 'A wall' },
        { value: 'moulding', label: 'A moulding' },
        { value: 'carcase', label: 'The sides of a carcase' },
      ],
    },
    held: { ...HELD_AT, label: 'The piece is held' },
    gap: fitLength('Gap at each free side when fitted', 300),
    covers: { ...fitLength('Covered up to', 300), optional: true },
  },
  begin: (at) => ({ to: 'wall', held: 'near', gap: { mm: at.up(sideMoves('near', at).out + 1) } }),
  report: (own, at) => {
    const { to, held, gap: left, covers } = own;
    const side = sideMoves(held, at);
    const open = left.mm + side.in;
    const problems: FitProblem<GapBeside>[] = [];
    if (left.mm + 1e-9 < side.out)
      problems.push({
        code: 'gap-short',
        severity: 'warning',
        message: [
          'In the dampest month the free side goes ',
          { mm: side.out },
          ` towards ${NAMES[to]}, and the gap is `,
          left,
          ': it presses by ',
          { mm: side.out - left.mm },
          '.',
        ],
        numbers: { needed: side.out, gap: left.mm, short: side.out - left.mm },
        fixes: [{ label: 'Leave the gap that it needs', change: { gap: { mm: at.up(side.out) } } }],
      });
    if (covers && covers.mm > 0 && covers.mm + 1e-9 < open)
      problems.push({
        code: 'does-not-fit',
        severity: 'warning',
        message: [
          'In the driest month the gap opens to ',
          { mm: open },
          ', and it is covered up to ',
          covers,
          '.',
        ],
        numbers: { open, covers: covers.mm },
        fixes: [{ label: 'Cover as much as it opens', change: { covers: { mm: at.up(open) } } }],
      });
    return {
      problems,
      facts: [
        {
          name: 'Gap, dampest month',
          says:
            side.out > left.mm ? ['squeezed by ', { mm: side.out - left.mm }] : [{ mm: left.mm - side.out }],
          state: left.mm + 1e-9 < side.out ? 'broken' : 'met',
        },
        {
          name: 'Gap, driest month',
          says: [{ mm: open }],
          state: covers && covers.mm > 0 && covers.mm < open ? 'broken' : 'met',
        },
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    gap: GapBeside;
  }
}
