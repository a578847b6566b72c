import { INCH } from '../units';
import { LIKELY_SD } from './bands';
import { ASKED_SD } from './estimate';

/** A reading that can hardly be true, with what was most likely meant, mm; missing where nothing suggests itself. */
export interface Suspect {
  /** How many standard deviations it lies off. */
  z: number;
  meantMm?: number;
  /** How one comes from what was meant to what was written. */
  slip?: string;
}

/** A slip is suggested where taking it back brings the reading this near. */
const NEAR_SD = 2;

/** What hands slip by, and how it is taken back. */
const SLIPS: readonly (readonly [words: string, back: (mm: number) => number])[] = [
  ['written in inches, meant in millimetres', (mm) => mm / INCH],
  ['written in millimetres, meant in inches', (mm) => mm * INCH],
  ['the point one place too far right', (mm) => mm / 10],
  ['the point one place too far left', (mm) => mm * 10],
  ['a centimetre too much', (mm) => mm - 10],
  ['a centimetre too little', (mm) => mm + 10],
  ['an inch too much', (mm) => mm - INCH],
  ['an inch too little', (mm) => mm + INCH],
];

/** Whether a size that was read can hardly be true, against its band; undefined where it may well be. Sizes in mm. */
export function suspectOf({
  predicted,
  measured,
  likely,
}: {
  predicted: number;
  measured: number;
  likely: number;
}): Suspect | undefined {
  if (!(likely > 0)) return undefined;
  const zOf = (mm: number) => Math.abs(mm - predicted) / (likely / LIKELY_SD);
  const z = zOf(measured);
  if (z <= ASKED_SD) return undefined;
  const slip = SLIPS.find(([, back]) => zOf(back(measured)) < NEAR_SD);
  return { z, ...(slip ? { slip: slip[0], meantMm: slip[1](measured) } : {}) };
}
