import type { QuantityBreak, Rates } from '../kit';

/** A price for so many pieces, in whole minor units. */
export interface Price {
  pieces: number;
  costMinor: number;
  markupMinor: number;
  /** What is taken off for the number of pieces. */
  breakPct: number;
  breakMinor: number;
  netMinor: number;
  taxMinor: number;
  totalMinor: number;
  /** Each piece, rounded up: so that all of them come to no less than the total. */
  eachMinor: number;
}

/** What is taken off for so many pieces: the largest number of the list that is reached decides. */
export const breakFor = (breaks: readonly QuantityBreak[], pieces: number): number =>
  breaks.reduce((best, each) => (each.from <= pieces && each.from >= best.from ? each : best), {
    from: 0,
    pct: 0,
  }).pct;

/**
 * What a number of pieces is quoted at, from what one batch costs: cost by the piece, markup on it, less the break for the number, tax on
 * what is left. Each step is rounded to the minor unit, so the lines add up as they stand. Refuses fewer than one piece.
 */
export function priceFor(
  { minor, pieces: made }: { minor: number; pieces: number },
  { markupPct = 0, taxPct = 0, breaks = [] }: Pick<Rates, 'markupPct' | 'taxPct' | 'breaks'>,
  pieces: number,
): Price {
  if (!(Number.isInteger(pieces) && pieces >= 1)) throw new RangeError(`priceFor: ${pieces} pieces`);
  const costMinor = Math.round((minor / made) * pieces);
  const markupMinor = Math.round((costMinor * markupPct) / 100);
  const breakPct = breakFor(breaks, pieces);
  const breakMinor = Math.round(((costMinor + markupMinor) * breakPct) / 100);
  const netMinor = costMinor + markupMinor - breakMinor;
  const taxMinor = Math.round((netMinor * taxPct) / 100);
  const totalMinor = netMinor + taxMinor;
  return {
    pieces,
    costMinor,
    markupMinor,
    breakPct,
    breakMinor,
    netMinor,
    taxMinor,
    totalMinor,
    eachMinor: Math.ceil(totalMinor / pieces),
  };
}
