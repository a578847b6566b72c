import { type Display, INCH } from '../units';

/** What a reading that cannot be right most likely is. */
export interface Outlier {
  cause: 'inches' | 'millimetres' | 'inch' | 'point' | 'far';
  /** What was most likely meant, mm; missing where nobody can say. */
  meantMm?: number;
  /** How far it is off what was predicted, mm. */
  offMm: number;
}

/** A reading so many times the greatest error off is asked about. */
const TIMES_WORST = 4;
/** And at least so far off, mm, or so large a share of the size: smaller surprises are what one measures for. */
const LEAST_MM = 1;
const LEAST_SHARE = 0.02;
/** Whole inches that a rule is misread by. */
const MOST_INCHES = 3;

/**
 * Whether a reading is so far off its prediction that it must be asked about, and the likely cause: typed in the other unit,
 * a whole inch misread, a decimal point slipped, or none of these. Undefined where it may well be true. Sizes in mm.
 */
export function outlierOf(
  measuredMm: number,
  { predictedMm, worstMm }: { predictedMm: number; worstMm: number },
  { system }: Pick<Display, 'system'>,
): Outlier | undefined {
  const near = Math.max(TIMES_WORST * worstMm, LEAST_MM, LEAST_SHARE * predictedMm);
  const offMm = measuredMm - predictedMm;
  if (Math.abs(offMm) <= near) return undefined;
  const fits = (mm: number) => Math.abs(mm - predictedMm) <= near;
  // Typed in the shop's own unit and meant in the other; or sent by a gauge that was switched to the other one.
  if (fits(measuredMm / INCH)) return { cause: 'millimetres', meantMm: measuredMm / INCH, offMm };
  if (fits(measuredMm * INCH)) return { cause: 'inches', meantMm: measuredMm * INCH, offMm };
  const inches = system === 'inch' ? Math.round(offMm / INCH) : 0;
  const straight = measuredMm - inches * INCH;
  if (inches !== 0 && Math.abs(inches) <= MOST_INCHES && straight > 0 && fits(straight))
    return { cause: 'inch', meantMm: straight, offMm };
  const slipped = [measuredMm * 10, measuredMm / 10, measuredMm * 100, measuredMm / 100].find(fits);
  if (slipped !== undefined) return { cause: 'point', meantMm: slipped, offMm };
  return { cause: 'far', offMm };
}
