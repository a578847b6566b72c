/** What is checked beside sizes, each in its own unit: mm, degrees, % or kg. */
export const CHECK_KINDS = [
  'squareness',
  'light',
  'corners',
  'bladeAngle',
  'gap',
  'moisture',
  'opening',
  'weight',
  'kerf',
  'tail',
  'glueUsed',
] as const;
export type CheckKind = (typeof CHECK_KINDS)[number];

/** Something that was checked at a step: the numbers as they were read, in the base unit of their quantity. */
export interface Check {
  id: string;
  step: string;
  kind: CheckKind;
  values: number[];
  piece?: string;
  /** When, as an ISO time, by whom, and with which gauge. */
  taken?: string;
  who?: string;
  gauge?: string;
}

/** The most checks of one job, and the most numbers of one: an opening may be read all along. */
export const MOST_CHECKS = 2000;
export const MOST_CHECK_VALUES = 40;
