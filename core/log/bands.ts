/** Nine readings in ten lie within so many standard deviations. */
export const LIKELY_SD = 1.6448536269514722;
/** The band learns by so much from each reading, and stays within these factors. */
const LEARNS = 0.05;
const FACTOR = { least: 0.7, most: 2 } as const;
const MISSES = 0.1;

/** What a mean and its spreads come to, as half of a band that nine readings in ten lie in, in the same unit. */
export const halfBand = (variance: number, factor = 1): number => factor * LIKELY_SD * Math.sqrt(variance);

/** The band's own factor after a reading, or the mean of several that are one: wider where one missed, a little narrower where none did. */
export const factorAfter = (factor: number, missedShare: number): number =>
  Math.min(FACTOR.most, Math.max(FACTOR.least, Math.exp(Math.log(factor) + LEARNS * (missedShare - MISSES))));

/** Acts alike: how many, minutes of each by plan, and what the shop's own pace makes of it, in logarithms. */
export interface ActsAlike {
  count: number;
  minutes: number;
  /** The mean logarithm of taken to planned, and its squared standard error. */
  m: number;
  se2: number;
  /** Spread from act to act, and from day to day: the day's is shared by all of them. */
  act: number;
  day: number;
}

/** Minutes that acts alike take together, with the band that nine days in ten lie in: log-normal sums by their first two moments (Fenton 1960). */
export function actsTogether({ count, minutes, m, se2, act, day }: ActsAlike): {
  mean: number;
  from: number;
  to: number;
} {
  const mean = count * minutes * Math.exp(m + (act ** 2 + day ** 2) / 2);
  const variance = (Math.exp(act ** 2) - 1) / count + Math.exp(day ** 2) - 1 + se2;
  const L = Math.log1p(variance);
  const middle = Math.log(mean) - L / 2;
  return {
    mean,
    from: Math.exp(middle - LIKELY_SD * Math.sqrt(L)),
    to: Math.exp(middle + LIKELY_SD * Math.sqrt(L)),
  };
}
