import type { Length } from '../../../units';
import {
  fitLength,
  type FittingKind,
  type FitProblem,
  HELD_AT,
  heldFast,
  type HeldAt,
  sideMoves,
  TAKEN_UP_MM,
} from '../kind';
import type { FittingBase } from '../model';

/** A panel in the grooves of a frame, or under a cap: it must neither touch the bottom nor fall out. */
export interface Framed extends FittingBase {
  kind: 'frame';
  held: HeldAt;
  /** Depth of the groove, and the gap between panel and bottom at each side when it is fitted. */
  groove: Length;
  gap: Length;
  /** What must stay in the groove. */
  least: Length;
}

export const frame: FittingKind<Framed> = {
  kind: 'frame',
  name: 'Frame or cap',
  says: 'The piece stands loose in grooves of a frame or under a cap.',
  fields: {
    held: HELD_AT,
    groove: fitLength('Depth of the groove', 200, 0.5),
    gap: fitLength('Gap at its bottom, each side', 200),
    least: fitLength('Must stay in the groove', 100),
  },
  begin: (at) => {
    const side = sideMoves('middle', at);
    const gap = at.up(side.out + 0.5);
    return {
      held: 'middle',
      gap: { mm: gap },
      groove: { mm: Math.ceil(gap + side.in + 5) },
      least: { mm: 4 },
    };
  },
  report: (own, at) => {
    const { held, groove, gap, least } = own;
    const side = sideMoves(held, at);
    const all = at.moves(1);
    const stays = groove.mm - gap.mm - side.in;
    const problems: FitProblem<Framed>[] = [];
    if (held === 'all' && all.out + all.in > TAKEN_UP_MM)
      problems.push(
        heldFast('The frame', all, [{ label: 'Fix it in the middle only', change: { held: 'middle' } }]),
      );
    else {
      if (gap.mm + 1e-9 < side.out)
        problems.push({
          code: 'gap-short',
          severity: 'warning',
          message: [
            'In the dampest month the panel goes ',
            { mm: side.out },
            ' out, and the gap at the bottom of the groove is ',
            gap,
            ': short by ',
            { mm: side.out - gap.mm },
            '. It pushes the frame apart.',
          ],
          numbers: { needed: side.out, gap: gap.mm, short: side.out - gap.mm },
          fixes: [
            {
              label: 'Leave the gap that it needs, in a groove as much deeper',
              change: {
                gap: { mm: at.up(side.out) },
                groove: { mm: groove.mm + Math.max(0, at.up(side.out) - gap.mm) },
              },
            },
          ],
        });
      if (stays + 1e-9 < least.mm)
        problems.push({
          code: 'relief-short',
          severity: 'warning',
          message: [
            'In the driest month the panel goes ',
            { mm: side.in },
            ' in: ',
            { mm: stays },
            ' of it stays in the groove, and ',
            least,
            ' must.',
          ],
          numbers: { stays, least: least.mm },
          fixes: [
            {
              label: 'Cut the groove as deep as it must be',
              change: { groove: { mm: Math.ceil((groove.mm + least.mm - stays) * 10) / 10 } },
            },
          ],
        });
    }
    return {
      problems,
      facts: [
        {
          name: 'Gap, dampest month',
          says: [{ mm: gap.mm - side.out }],
          state: gap.mm + 1e-9 < side.out ? 'broken' : 'met',
        },
        {
          name: 'Gap, driest month',
          says: [{ mm: gap.mm + side.in }, ', with ', { mm: stays }, ' in the groove'],
          state: stays + 1e-9 < least.mm ? 'broken' : 'met',
        },
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    frame: Framed;
  }
}
