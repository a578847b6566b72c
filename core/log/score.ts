import { rising } from '../units';
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
  for (const { predicted, measured, likely, band = 1 } of lines.toSorted(rising((x) => Date.parse(x.at)))) {
    if (!(likely > 0)) continue;
    const off = Math.abs(measured - predicted);
    if (off > SLIP * likely * Math.max(1, factor / band)) continue;
    counted += 1;
    if (off <= likely) within += 1;
    factor = factorAfter(factor, off > (likely * factor) / band ? 1 : 0);
  }
  return { counted, within, factor };
}

/** Fewer readings than these say nothing of bands. */
const LEAST_SCORED = 20;
/** A factor this near to the one in use is the same. */
const SAME_FACTOR = 0.05;

/**
 * What the band of the kit comes to by its readings: the factor to a hundredth; undefined where it stays as it is: too few readings, too
 * near to what it is, held by its maker, or too narrow only because something is off that can be put right (`biased`).
 */
export function bandAfter(
  { counted, factor }: Score,
  { band = 1, bandHeld }: { band?: number; bandHeld?: boolean },
  biased: boolean,
): number | undefined {
  const rounded = Math.round(factor * 100) / 100;
  if (bandHeld || counted < LEAST_SCORED || Math.abs(rounded - band) <= SAME_FACTOR) return undefined;
  return biased && rounded > band ? undefined : rounded;
}

/** The kit with a band so many times as wide as its spreads say. */
export const withBand = <Shop extends { band?: number; bandHeld?: boolean }>(
  shop: Shop,
  factor: number,
): Shop => {
  const { band: _band, ...rest } = shop;
  return (factor === 1 ? rest : { ...rest, band: factor }) as Shop;
};
