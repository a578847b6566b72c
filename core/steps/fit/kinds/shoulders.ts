import type { Length } from '../../../units';
import { fitLength, type FittingKind } from '../kind';
import type { FittingBase } from '../model';

/** Shoulders that are moved back so that a joint closes: the whole grows shorter by as much at each. */
export interface Shoulders extends FittingBase {
  kind: 'shoulders';
  ends: 'both' | 'one';
  back: Length;
  /** What the members at the ends have to spare in width. */
  toSpare: Length;
}

export const shoulders: FittingKind<Shoulders> = {
  kind: 'shoulders',
  name: 'Shoulders moved back',
  says: 'Shoulders are pared back until they close: what that costs in length.',
  fields: {
    ends: {
      is: 'choice',
      label: 'At',
      options: [
        { value: 'both', label: 'Both ends' },
        { value: 'one', label: 'One end' },
      ],
    },
    back: fitLength('Each moved back by', 100),
    toSpare: fitLength('Each end member has to spare', 200),
  },
  begin: () => ({ ends: 'both', back: { mm: 1 }, toSpare: { mm: 1 } }),
  report: ({ ends, back, toSpare }) => {
    const n = ends === 'both' ? 2 : 1;
    const short = n * Math.max(0, back.mm - toSpare.mm);
    return {
      problems:
        short > 1e-9
          ? [
              {
                code: 'does-not-fit',
                severity: 'warning',
                message: [
                  'Shoulders moved back by ',
                  back,
                  ' make the whole ',
                  { mm: n * back.mm },
                  ' shorter; its end members have ',
                  { mm: n * toSpare.mm },
                  ' to spare: it ends ',
                  { mm: short },
                  ' short.',
                ],
                numbers: { back: back.mm, spare: toSpare.mm, short },
                fixes: [
                  { label: 'Make the end members wider by as much', change: { toSpare: { mm: back.mm } } },
                ],
              },
            ]
          : [],
      facts: [
        {
          name: 'The whole grows shorter by',
          says: [
            { mm: n * back.mm },
            ', of which the end members give ',
            { mm: Math.min(n * toSpare.mm, n * back.mm) },
          ],
          state: short > 1e-9 ? 'broken' : 'met',
        },
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    shoulders: Shoulders;
  }
}
