import type { BuildDocument } from '../document';
import type { Totals } from '../stock';
import { run } from '../run';
import { blankVolume, compensatedSum } from '../solid';
import { number, type Worked } from './sums';

/** The yield of a breakdown: strips over the wood of the boards, less the offcuts that are kept. */
export function workedYield({
  strips,
  used,
  reusable,
}: Pick<Totals, 'strips' | 'used' | 'reusable'>): Worked | undefined {
  if (!(used > reusable)) return undefined;
  return {
    title: 'Yield, %',
    sum: {
      is: 'over',
      top: {
        is: 'times',
        of: [number(100, 'count', 'per cent'), number(strips, 'volume', 'strips at their rough sizes')],
      },
      under: {
        is: 'less',
        from: number(used, 'volume', 'wood of the boards'),
        of: reusable > 0 ? [number(reusable, 'volume', 'offcuts worth keeping')] : [],
      },
    },
    unit: 'count',
    source:
      'Volume over volume: exact, from the places of the strips on their boards. Which offcuts are worth keeping is the shop’s own rule.',
  };
}

/** Which share of the wood that goes in is in the finished pieces. */
export function workedShare(build: BuildDocument): Worked | undefined {
  const { woodInMm3, wanted, finished } = run(build);
  const ends = new Map(
    [finished, ...wanted.map(({ step }) => step)].flatMap((step) => (step ? [[step.id, step]] : [])),
  );
  const inPieces = compensatedSum(
    [...ends.values()].flatMap(({ pieces }) => pieces.map(({ blank }) => blankVolume(blank))),
  );
  if (!(woodInMm3 > 0) || ends.size === 0) return undefined;
  return {
    title: 'Wood that is in the piece, %',
    sum: {
      is: 'over',
      top: {
        is: 'times',
        of: [number(100, 'count', 'per cent'), number(inPieces, 'volume', 'finished pieces')],
      },
      under: number(woodInMm3, 'volume', 'wood that goes in'),
    },
    unit: 'count',
    source: 'Volume over volume: exact, from the sizes of every step.',
  };
}
