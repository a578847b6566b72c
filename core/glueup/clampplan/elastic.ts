import type { PlaneElastic } from '../../wood';
import { evenEnough, worstOfLines } from '../pressure/even';
import { NotSolvable } from '../pressure/band';
import { pressQuickly } from '../pressure/beams';
import { elasticPlaces } from './counts';

/** A stack as the count of the elastic school needs it: boards with cauls, and the lines that are glued. */
export interface ElasticStack {
  length: number;
  thickness: number;
  boards: readonly { width: number; wood: PlaneElastic }[];
  lines: readonly number[];
  pad: number;
}

/** Boards farther in than this from both edges are left out: the lines next to the clamps are the worst. */
const OUTER = 5;
const MOST = 40;

/** The outer boards of a stack and the glued lines among them, counted anew. */
function outerPart({ boards, lines }: ElasticStack): Pick<ElasticStack, 'boards' | 'lines'> {
  if (boards.length <= 2 * OUTER) return { boards, lines };
  const kept = [...boards.keys()].filter((i) => i < OUTER || i >= boards.length - OUTER);
  return {
    boards: kept.map((i) => boards[i]),
    lines: [...Array(kept.length - 1).keys()].filter(
      (l) => lines.includes(kept[l]) && kept[l + 1] === kept[l] + 1,
    ),
  };
}

/**
 * The fewest clamps, laid out by the rule of thumb, under which the worst line is even (least at least three quarters
 * of its mean): by the quick model of beams on springs, at most 40. The full solver is asked for the chosen layout.
 */
export function clampsByElastic(stack: ElasticStack): number {
  const { boards, lines } = outerPart(stack);
  if (lines.length === 0) return 1;
  const { length, thickness, pad } = stack;
  const enough = (count: number) => {
    const clamps = elasticPlaces(count, length).map((at) => ({ at, force: 1000, pad }));
    try {
      return evenEnough(worstOfLines(pressQuickly({ length, thickness, boards, clamps }), lines));
    } catch (error) {
      // Sizes that no boards have: nothing shows that any number of clamps would do.
      if (error instanceof NotSolvable) return false;
      throw error;
    }
  };
  let count = 1;
  while (count < MOST && !enough(count)) count += 1;
  return count;
}
