import type { BoardStock } from '../document';
import { DRESSED_SIZES } from '../kit';
import { INCH } from '../units';

/** Cubic millimetres in a board foot: 144 cubic inches (definition of the board foot). */
export const BOARD_FOOT_MM3 = 144 * INCH ** 3;

/** Volume of the wood that is there, mm3. */
export const boardVolume = (board: Pick<BoardStock, 'length' | 'width' | 'thickness'>): number =>
  board.length.mm * board.width.mm * board.thickness.mm;

/** Board feet of a volume in mm3. */
export const boardFeetOf = (mm3: number): number => mm3 / BOARD_FOOT_MM3;

/**
 * Surface measure of a hardwood board in square feet: width in inches with its fractions, times the length in whole
 * feet, over 12, to the nearest whole number; an exact half goes up. NHLA rules, paragraphs on board measure, from
 * memory (the rules let the tally alternate on exact halves).
 */
export const surfaceMeasure = (widthIn: number, lengthFt: number): number =>
  Math.floor((widthIn * Math.floor(lengthFt + 1e-9)) / 12 + 0.5 + 1e-9);

/**
 * Board feet by a hardwood tally: surface measure times the rough thickness in inches; under an inch counts as one.
 * NHLA rules, from memory.
 */
export const hardwoodTally = (roughIn: number, widthIn: number, lengthFt: number): number =>
  surfaceMeasure(widthIn, lengthFt) * Math.max(1, roughIn);

/** Board feet of construction lumber by its nominal size, length in feet (board measure, PS 20, from memory). */
export const softwoodTally = (nominalThicknessIn: number, nominalWidthIn: number, lengthFt: number): number =>
  (Math.max(1, nominalThicknessIn) * nominalWidthIn * lengthFt) / 12;

/** Rough thickness, in, and what is left when both faces are surfaced (NHLA standard thicknesses, from memory). */
const SURFACED: readonly [number, number][] = [
  [1, 0.8125],
  [1.25, 1.0625],
  [1.5, 1.3125],
  [1.75, 1.5],
  [2, 1.75],
  [2.5, 2.25],
  [3, 2.75],
  [3.5, 3.25],
  [4, 3.75],
];

/** A hair less than a sixteenth: boards are sold by names, and measured with a tape. */
const NAME_TOLERANCE_IN = 0.06;

/** The nominal size a board is billed by: its name for dressed lumber, its rough thickness for surfaced boards. */
export function billedSize(board: BoardStock): { thicknessIn: number; widthIn: number } {
  const [thicknessIn, widthIn] = [board.thickness.mm / INCH, board.width.mm / INCH];
  if (board.sold === 'dressed') {
    const name = dressedName(board);
    if (name) {
      const [t, w] = name.split('x').map(Number);
      return { thicknessIn: t, widthIn: w };
    }
  }
  if (board.sold === 'surfaced') {
    const rough = SURFACED.find(([, s2s]) => thicknessIn <= s2s + NAME_TOLERANCE_IN);
    if (rough) return { thicknessIn: rough[0], widthIn };
  }
  return { thicknessIn, widthIn };
}

/** The name dressed construction lumber of this size is sold by, as in `2x6`; undefined where none fits. */
export const dressedName = (board: Pick<BoardStock, 'width' | 'thickness'>): string | undefined =>
  DRESSED_SIZES.find(
    ({ thicknessMm, widthMm }) =>
      Math.abs(thicknessMm - board.thickness.mm) < NAME_TOLERANCE_IN * INCH &&
      Math.abs(widthMm - board.width.mm) < NAME_TOLERANCE_IN * INCH,
  )?.name;

/** Board feet a seller counts: real length and width, thickness as sold. Shops differ; the bill comes first. */
export function billedBoardFeet(board: BoardStock): number {
  const { thicknessIn, widthIn } = billedSize(board);
  return (thicknessIn * widthIn * (board.length.mm / INCH)) / 144;
}

/** What a board costs in minor units of its price's currency; undefined where it has no price. */
export function boardCost(board: BoardStock): { minor: number; currency: string } | undefined {
  if (!board.price) return undefined;
  const { minor, currency, per } = board.price;
  const amount =
    per === 'board'
      ? 1
      : per === 'boardFoot'
        ? billedBoardFeet(board)
        : per === 'metre'
          ? board.length.mm / 1000
          : boardVolume(board) * 1e-9;
  return { minor: minor * amount, currency };
}

/** What boards are worth together, by currency, in minor units, and how many have no price. */
export function worth(boards: readonly BoardStock[]): {
  byCurrency: Record<string, number>;
  unpriced: number;
} {
  const byCurrency: Record<string, number> = {};
  let unpriced = 0;
  for (const board of boards) {
    const cost = boardCost(board);
    if (cost) byCurrency[cost.currency] = (byCurrency[cost.currency] ?? 0) + cost.minor;
    else unpriced += 1;
  }
  return { byCurrency, unpriced };
}
