/**
 * How near a quotient must lie to a whole number to count as it. Sizes are sums of a few doubles below 1e5 mm,
 * so their quotients are good to about 1e-11; a maker cannot see a millionth of a strip. Between the two.
 */
const COUNT_TOLERANCE = 1e-6;

/** A count needed: rounds up, except where the quotient is a whole number but for floating point. */
export const countNeeded = (quotient: number): number => Math.ceil(quotient - COUNT_TOLERANCE);

/** A count obtainable: rounds down, except where the quotient is a whole number but for floating point. */
export const countObtainable = (quotient: number): number => Math.floor(quotient + COUNT_TOLERANCE);

/** Rounds a size down to the shop's step; a step of zero leaves it exact. All in millimetres. */
export const roundDownToStep = (mm: number, stepMm: number): number =>
  stepMm > 0 ? Number((countObtainable(mm / stepMm) * stepMm).toFixed(9)) : mm;

/** Rounds a setting up to the shop's step; a step of zero leaves it exact. All in millimetres. */
export const roundUpToStep = (mm: number, stepMm: number): number =>
  stepMm > 0 ? Number((countNeeded(mm / stepMm) * stepMm).toFixed(9)) : mm;

/** Rounds a setting to the nearest of the shop's steps; a step of zero leaves it exact. All in millimetres. */
export const roundToStep = (mm: number, stepMm: number): number =>
  stepMm > 0 ? Number((Math.round(mm / stepMm) * stepMm).toFixed(9)) : mm;

/** A number where it lies between the least and the most, else the nearer of the two; the most where they have crossed. */
export const clamped = (value: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, value));

/** A share of the whole, between 0 and 1: what arithmetic put beyond one of the two lies on it. */
export const asShare = (value: number): number => clamped(value, 0, 1);
