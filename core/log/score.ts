import { factorAfter, LIKELY_SD } from './bands';
import { ASKED_SD } from './estimate';

/** How honest the bands are: the share of readings within theirs, and what the bands must be widened by. */
export interface Score {
  /** Readings that count; those that can hardly be true do not. */
  counted: number;
  within: number;
  /** The factor the band has come to, from the first reading on. */
  factor: number;
}

/** Half of a band that is so many times wider than a reading is off: one that lies farther is a slip of the hand, not a narrow band. */
const SLIP = ASKED_SD / LIKELY_SD;

/** Goes through readings in their order, each against the band that was shown with it. */
export function scoreOf(
  lines: readonly { at: string; predicted: number; measured: number; likely: number; band?: number }[],
): Score {
  let factor = 1;
  let within = 0;
  let counted = 0;
  for (const { predicted, measured, likely, band = 1 } of lines.toSorted(
    (x, y) => Date.parse(x.at) - Date.parse(y.at),
  )) {
    if (!(likely > 0)) continue;
    const off = Math.abs(measured - predicted);
    if (off > SLIP * likely * Math.max(1, factor / band)) continue;
    counted += 1;
    if (off <= likely) within += 1;
    factor = factorAfter(factor, off > (likely * factor) / band ? 1 : 0);
  }
  return { counted, within, factor };
}
