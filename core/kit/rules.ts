import type { Length } from '../units';

/** A rule of the shop's own, from what went wrong there: a size of a kind of step against a number. */
export interface OwnRule {
  id: string;
  /** What is said when it is broken, in the shop's own words. */
  words: string;
  /** The kind of step after which it is looked at. */
  step: string;
  dimension: 'length' | 'width' | 'thickness';
  /** It is broken where the size, planned or as it was read, is below or above this. */
  side: 'below' | 'above';
  size: Length;
}

/** The most rules of one shop. */
export const MOST_RULES = 100;
