import type { Length } from '../../../units';
import { fitLength, type FittingKind, type FitProblem, TAKEN_UP_MM } from '../kind';
import type { FittingBase } from '../model';

/** Something that does not move, let into the piece or glued on: a brass line, a border, a strip of stone. */
export interface RigidInlay extends FittingBase {
  kind: 'rigid';
  runs: 'across' | 'along';
  length: Length;
  from: Length;
}

export const rigid: FittingKind<RigidInlay> = {
  kind: 'rigid',
  name: 'Rigid inlay or line',
  says: 'Brass, stone or a border that does not move with the wood.',
  fields: {
    runs: {
      is: 'choice',
      label: 'It runs',
      options: [
        { value: 'along', label: 'Along' },
        { value: 'across', label: 'Across' },
      ],
    },
    length: fitLength('How long', 10_000, 1),
    from: fitLength('Begins, from the left end or the near edge', 10_000),
  },
  begin: ({ size }) => ({ runs: 'along', length: { mm: size[0] / 2 }, from: { mm: size[0] / 4 } }),
  report: ({ runs, length, from }, { size, moves }) => {
    const axis = runs === 'across' ? 1 : 0;
    const [a, b] = [from.mm, Math.min(size[axis], from.mm + length.mm)];
    const way = moves(axis, [a, b]);
    const all = way.out + way.in;
    const problems: FitProblem<RigidInlay>[] =
      all > TAKEN_UP_MM
        ? [
            {
              code: 'held-across-grain',
              severity: 'warning',
              message: [
                'Rigid over ',
                { mm: b - a },
                ' of the moving wood, which wants to go ',
                { mm: way.out },
                ' out and ',
                { mm: way.in },
                ' in over the year: it lifts, or the wood cracks beside it. Run it along the grain, cut it into short lengths with gaps, or hold it in one place.',
              ],
              numbers: { length: b - a, out: way.out, in: way.in },
              fixes: [
                {
                  label: 'As short as the wood takes up',
                  change: { length: { mm: Math.floor(((b - a) * TAKEN_UP_MM * 10) / all) / 10 } },
                },
              ],
            },
          ]
        : [];
    const over = from.mm + length.mm - size[axis];
    if (over > 1e-6)
      problems.push({
        code: 'does-not-fit',
        severity: 'warning',
        message: ['It reaches ', { mm: over }, ' past the piece, which is ', { mm: size[axis] }, ' there.'],
        numbers: { over, size: size[axis] },
        fixes: [
          {
            label: 'As long as the piece',
            change: { from: { mm: 0 }, length: { mm: size[axis] } },
          },
        ],
      });
    return {
      problems,
      facts: [
        {
          name: 'The wood under it moves',
          says: [{ mm: way.out }, ' out and ', { mm: way.in }, ' in over the year'],
          state: all > TAKEN_UP_MM ? 'broken' : 'met',
        },
      ],
    };
  },
};

declare module '../model' {
  interface FittingKinds {
    rigid: RigidInlay;
  }
}
