import { stripLedgerWidth, sumOf } from '../units';

/** One of several boards that give strips to one another. Widths in mm. */
export interface TradingBoard {
  label: string;
  width: number;
  gives: number;
  receives: number;
}

/** What the trade comes to. */
export interface Trade {
  /** Width each ends at, in the order given. */
  ends: number[];
  given: number;
  received: number;
  /** Boards that would have to give more than they have. */
  tooNarrow: string[];
}

/**
 * The strip ledger: boards of some widths give strips of width `strip` and receive others. Every strip given costs its
 * width and a kerf; a board that takes part is split once more to let strips in. One that does neither keeps its
 * width. What is given beyond what is received is spare; what is received beyond what is given has to come from
 * elsewhere.
 */
export function tradeStrips(boards: readonly TradingBoard[], strip: number, kerf: number): Trade {
  const ends = boards.map(({ width, gives, receives }) =>
    gives + receives === 0
      ? width
      : stripLedgerWidth(width, { s: strip, k: kerf, given: gives, received: receives }),
  );
  const left = ({ width, gives }: TradingBoard) => width - gives * (strip + kerf);
  return {
    ends,
    given: sumOf(boards, ({ gives }) => gives),
    received: sumOf(boards, ({ receives }) => receives),
    tooNarrow: boards.filter((board) => left(board) <= 0).map(({ label }) => label),
  };
}
