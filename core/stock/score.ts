import { rising, sumOf } from '../units';
import { type Goal, TOUCH_MM } from '../document';
import { labDifference, labOfColour } from '../wood';
import type { PackedBoard } from './pack';
import type { CuttingRules, SolverBoard } from './problem';

/** What one board's layout uses and leaves. Volumes in mm3. */
export interface BoardReading {
  used: boolean;
  /** Volume of the strips' rectangles over the board's whole thickness. */
  strips: number;
  /** Offcuts large enough to keep. */
  reusable: number;
}

/** Calls back for every rectangle a layout leaves over, with its place. */
export function eachOffcut(
  board: Pick<SolverBoard, 'length' | 'width'>,
  packed: PackedBoard,
  rules: CuttingRules,
  take: (x: number, y: number, length: number, width: number) => void,
): void {
  // Called for every gap of every trial: four plain arguments, nothing allocated. Each end that borders on a strip costs
  // a kerf: `from` and `to` have it taken already.
  const gap = (from: number, to: number, flush: boolean, found: (a: number, b: number) => void) => {
    if (to - from > TOUCH_MM && !flush) found(from, to);
  };
  let x = 0;
  packed.forEach((section, i) => {
    gap(x, section.x - rules.crosscutKerf, i === 0 && section.x <= TOUCH_MM, (a, b) =>
      take(a, 0, b - a, board.width),
    );
    const lanes = section.fixed ? section.lanes.toSorted(rising((a) => a.y)) : section.lanes;
    let y = 0;
    lanes.forEach((lane, j) => {
      gap(y, lane.y - rules.ripKerf, j === 0 && lane.y <= TOUCH_MM, (a, b) =>
        take(section.x, a, section.length, b - a),
      );
      gap(section.x, lane.x - rules.crosscutKerf, false, (a, b) => take(a, lane.y, b - a, lane.width));
      const end = lane.x + lane.length + rules.crosscutKerf;
      gap(end, section.x + section.length, false, (a, b) => take(a, lane.y, b - a, lane.width));
      y = lane.y + lane.width + rules.ripKerf;
    });
    gap(y, board.width, false, (a, b) => take(section.x, a, section.length, b - a));
    x = section.x + section.length + rules.crosscutKerf;
  });
  gap(x, board.length, false, (a, b) => take(a, 0, b - a, board.width));
}

/** Whether a leftover is worth keeping. */
export const isReusable = (length: number, width: number, rules: CuttingRules): boolean =>
  length >= rules.leastOffcutLength - TOUCH_MM && width >= rules.leastOffcutWidth - TOUCH_MM;

/** Reads a board's layout. */
export function readBoard(board: SolverBoard, packed: PackedBoard, rules: CuttingRules): BoardReading {
  if (packed.length === 0) return { used: false, strips: 0, reusable: 0 };
  let strips = 0;
  let reusable = 0;
  for (const section of packed)
    for (const lane of section.lanes) strips += lane.length * lane.width * board.thickness;
  eachOffcut(board, packed, rules, (_x, _y, length, width) => {
    if (isReusable(length, width, rules)) reusable += length * width * board.thickness;
  });
  return { used: true, strips, reusable };
}

/** What a goal weighs, so that a plan's worth can be said in one number and told in words. */
export interface Scoring {
  /** A board's share in the score. Volumes in mm3 or, for money, mm3 worth the same. */
  board: (board: SolverBoard, reading: BoardReading) => number;
  /** What spans boards: how far their colours are apart. */
  together: (readings: readonly BoardReading[]) => number;
  /** Worth of one strip that found no place, so large that placing it always pays. */
  missing: number;
  /** What taking one board more counts, where the goal is the least waste. */
  oneMore: number;
}

/** Fixed weights of the goals; `how-it-works.md` states each sum in words. */
const SMALL = 1e-4;
const OFFCUT_WEIGHT = 0.05;
const WIDE_WEIGHT = 4;
/** Share of a board's volume that one unit of colour difference (CIEDE2000) is worth. */
const COLOUR_WEIGHT = 0.2;

/** The score of a goal: the least is the best. */
export function scoringOf(goal: Goal, boards: readonly SolverBoard[], rules: CuttingRules): Scoring {
  const all = sumOf(boards, (board) => board.volume) || 1;
  const mean = all / Math.max(1, boards.length);
  const rate = sumOf(boards, (board) => board.cost) / all || 1;
  const widest = Math.max(1, ...boards.map(({ width }) => width));
  const wood = (board: SolverBoard, { used, reusable }: BoardReading) =>
    used ? board.volume - rules.offcutWorth * reusable : 0;
  const count = ({ used }: BoardReading, weight: number) => (used ? weight : 0);
  const of: Record<Goal, Scoring['board']> = {
    leastWaste: (board, reading) => wood(board, reading) + count(reading, SMALL * mean),
    fewestBoards: (board, reading) => count(reading, all) + wood(board, reading),
    cheapest: (board, reading) =>
      (wood(board, reading) * board.cost) / (board.volume * rate) +
      SMALL * wood(board, reading) +
      count(reading, SMALL * mean),
    offcutsFirst: (board, reading) =>
      wood(board, reading) * (board.stock.sold === 'offcut' ? OFFCUT_WEIGHT : 1) +
      count(reading, SMALL * mean),
    keepWide: (board, reading) =>
      wood(board, reading) * (1 + WIDE_WEIGHT * (board.width / widest) ** 2) + count(reading, SMALL * mean),
    colour: (board, reading) => SMALL * 100 * wood(board, reading) + count(reading, SMALL * mean),
  };
  return {
    board: of[goal],
    together: goal === 'colour' ? colourSpread(boards) : () => 0,
    missing: 4 * all + mean,
    oneMore: SMALL * mean,
  };
}

type Lab = readonly [number, number, number];

/** Volume times colour difference from the mean of the boards used, for each wood by itself. */
function colourSpread(boards: readonly SolverBoard[]): Scoring['together'] {
  const labs = boards.map(({ stock }) => (stock.colour ? labOfColour(stock.colour) : undefined));
  const looked = boards.filter((_, i) => labs[i]);
  const groups = [...new Set(looked.map(({ stock }) => stock.species))].map((species) =>
    looked.filter(({ stock }) => stock.species === species),
  );
  return (readings) => {
    let sum = 0;
    for (const group of groups) {
      const used = group.filter(({ index }) => readings[index].used);
      if (used.length < 2) continue;
      const volume = sumOf(used, ({ index }) => readings[index].strips);
      const mean = [0, 1, 2].map(
        (k) => sumOf(used, ({ index }) => (labs[index] as Lab)[k] * readings[index].strips) / volume,
      );
      for (const { index } of used)
        sum += COLOUR_WEIGHT * readings[index].strips * labDifference(labs[index] as Lab, mean);
    }
    return sum;
  };
}
