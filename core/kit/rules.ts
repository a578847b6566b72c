import type { Length } from '../units';

/** A rule of the shop's own, from what went wrong there: a size or a reading at a kind of step against a number. */
export interface OwnRule {
  id: string;
  /** What is said when it is broken, in the shop's own words. */
  words: string;
  /** The kind of step after which it is looked at. */
  step: string;
  /** It is broken where what is looked at is below or above the number. */
  side: 'below' | 'above';
  /** A size, planned or as it was read: both or neither. */
  dimension?: 'length' | 'width' | 'thickness';
  size?: Length;
  /** A kind of check, such as the moisture at the pins, and a number in the base unit of its quantity: both or neither. */
  check?: string;
  value?: number;
}

/** The largest number that a rule of a check may name, in base units. */
export const MOST_RULE_VALUE = 100_000;
/** The most rules of one shop. */
export const MOST_RULES = 100;
