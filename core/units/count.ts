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
