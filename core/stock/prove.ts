import { falling } from '../units';
import { hasRoom } from '../document';
import { type Lane, packBoard, type PackedSection } from './pack';
import { prepare, type Problem } from './problem';
import { readBoard, scoringOf } from './score';

/** More strips than this are not enumerated. */
export const MOST_PROVEN = 7;
const MOST_NODES = 400_000;

/**
 * Whether no arrangement of a small breakdown scores better than `score`: every way to open sections and to fill them
 * is looked at. Undefined where the case is not small and plain enough (faults, leaves, sets, locked strips) or the
 * enumeration grows too long. In a section the order of strips decides nothing while there are no faults.
 */
export function provenBest(problem: Problem, score: number): boolean | undefined {
  const { strips, boards: stock } = problem;
  if (strips.length > MOST_PROVEN || strips.some(({ set, locked }) => set !== undefined || locked))
    return undefined;
  if (stock.some(({ faults }) => faults?.length) || problem.goal === 'colour') return undefined;
  const { boards, kinds, kindOf } = prepare(problem);
  if (kinds.some(({ leaves }) => leaves.some((n) => n > 1))) return undefined;
  const scoring = scoringOf(problem.goal, boards, problem.rules);
  const { rules } = problem;
  const order = strips.map((_, i) => i).toSorted(falling((a) => strips[a].length));
  const layouts: PackedSection[][] = boards.map(() => []);
  let nodes = 0;
  let better = false;
  const alike = boards.map((board, i) =>
    boards.findIndex(
      (other) =>
        JSON.stringify({ ...other.stock, id: '', label: '' }) ===
          JSON.stringify({ ...board.stock, id: '', label: '' }) && other.index <= i,
    ),
  );
  const lane = (strip: number): Lane => {
    const { length, width } = strips[strip];
    return {
      kind: kindOf[strip],
      strips: [strip],
      leaves: 1,
      length,
      width,
      x: 0,
      y: 0,
      faceDown: false,
      fixed: false,
    };
  };
  const scoreNow = (missing: number): number => {
    let total = missing * scoring.missing;
    for (const [b, sections] of layouts.entries()) {
      const packed = packBoard(boards[b], sections, kinds, rules);
      if (!packed) return Infinity;
      total += scoring.board(boards[b], readBoard(boards[b], packed, rules));
    }
    return total;
  };
  const go = (at: number, missing: number): void => {
    if (better || ++nodes > MOST_NODES) return;
    if (missing * scoring.missing >= score) return;
    if (at === order.length) {
      if (scoreNow(missing) < score - 1e-6 * Math.abs(score)) better = true;
      return;
    }
    const strip = order[at];
    for (const [b, sections] of layouts.entries()) {
      const board = boards[b];
      if (kinds[kindOf[strip]].leaves[b] === 0) continue;
      for (const section of sections) {
        const width =
          section.lanes.reduce((sum, l) => sum + l.width + rules.ripKerf, 0) + strips[strip].width;
        if (!hasRoom(width, board.yMax - board.yMin)) continue;
        section.lanes.push(lane(strip));
        go(at + 1, missing);
        section.lanes.pop();
      }
      const used = sections.reduce((sum, s) => sum + s.length + rules.crosscutKerf, 0);
      // Of boards exactly alike, the first empty one stands for all.
      const twin = alike[b] < b && sections.length === 0 && layouts[alike[b]].length === 0;
      if (twin || !hasRoom(used + strips[strip].length, board.xMax - board.xMin)) continue;
      sections.push({ x: 0, length: strips[strip].length, lanes: [lane(strip)], fixed: false });
      go(at + 1, missing);
      sections.pop();
    }
    go(at + 1, missing + 1);
  };
  go(0, 0);
  if (nodes > MOST_NODES && !better) return undefined;
  return !better;
}
