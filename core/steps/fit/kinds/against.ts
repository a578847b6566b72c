import type { DimensionName } from '../../../document';
import { axisOf } from '../../../document';
import type { Length } from '../../../units';
import { fitLength, type FittingKind, type FitProblem } from '../kind';
import type { FittingBase } from '../model';

/** A thing the piece must fit into, or onto: an opening, a rebate, an older frame. */
export interface AgainstThing extends FittingBase {
  kind: 'against';
  dimension: DimensionName;
  thing: Length;
  /** Room that must be left in all, at any time of the year. */
  clearance: Length;
}

export const against: FittingKind<AgainstThing> = {
  kind: 'against',
  name: 'Fits into something',
  says: 'An opening, a rebate or a carcase that the piece must go into, all year.',
  fields: {
    dimension: {
      is: 'choice',
      label: 'Across its',
      options: [
        { value: 'width', label: 'Width' },
        { value: 'length', label: 'Length' },
        { value: 'thickness', label: 'Thickness' },
      ],
    },
    thing: fitLength('The opening measures', 30_000, 1),
    clearance: fitLength('Room to be left, in all', 300),
  },
  begin: (at) => ({
    dimension: 'width',
    thing: { mm: Math.ceil(at.size[1] + at.moves(1).out + 2) },
    clearance: { mm: 1 },
  }),
  report: ({ dimension, thing, clearance }, at) => {
    const { size, moves } = at;
    const axis = axisOf(dimension);
    const { out, in: inwards } = moves(axis);
    const now = thing.mm - size[axis];
    const tight = now - out - clearance.mm;
    const problems: FitProblem<AgainstThing>[] =
      tight < -1e-9
        ? [
            {
              code: 'does-not-fit',
              severity: 'warning',
              message: [
                'In the dampest month the piece is ',
                { mm: size[axis] + out },
                `, and the opening ${now - out < 0 ? 'is' : 'leaves'} `,
                { mm: now - out < 0 ? thing.mm : now - out },
                now - out < 0 ? ': it is squeezed by ' : ' of room: short by ',
                { mm: now - out < 0 ? out - now : -tight },
                '.',
              ],
              numbers: { size: size[axis] + out, opening: thing.mm, short: -tight },
              fixes: [
                {
                  label: 'Make the opening as large as it must be',
                  change: { thing: { mm: at.up(size[axis] + out + clearance.mm) } },
                },
              ],
            },
          ]
        : [];
    return {
      problems,
      facts: [
        { name: 'Room when it is fitted', says: [{ mm: now }], state: now < clearance.mm ? 'broken' : 'met' },
        {
          name: 'Room, dampest month',
          says: now - out < 0 ? ['squeezed by ', { mm: out - now }] : [{ mm: now - out }],
          state: tight < -1e-9 ? 'broken' : 'met',
        },
        { name: 'Room, driest month', says: [{ mm: now + inwards }], state: 'met' },
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    against: AgainstThing;
  }
}
