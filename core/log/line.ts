import type { DimensionName, FailureKind, StepKind } from '../document';
import type { Row } from './estimate';

/** What a line of the log tells of. */
export const LINE_KINDS = {
  size: { name: 'Size' },
  check: { name: 'Check' },
  minutes: { name: 'Minutes' },
  failure: { name: 'Failure' },
  note: { name: 'Note' },
} as const;
export type LineKind = keyof typeof LINE_KINDS;
export const LINE_KIND_NAMES = Object.keys(LINE_KINDS) as LineKind[];

/** Quarters of the year, as wood feels them in a heated shop of the north: by the month. */
export const SEASONS = ['winter', 'spring', 'summer', 'autumn'] as const;
export type Season = (typeof SEASONS)[number];
/** The season of a moment, by its month in universal time; december to february is winter. */
export const seasonOf = (at: string): Season =>
  SEASONS[Math.floor(((new Date(at).getUTCMonth() + 1) % 12) / 3)];

/** A row as a job gives it: with what each mean was taken to be when it was predicted. */
export interface TaughtRow extends Row {
  used: Readonly<Record<string, number>>;
}

/** One thing that was read, checked, timed or went wrong at a step of a job. Sizes in mm, times in minutes. */
export interface LogLine {
  /** Its own among those of its job. */
  id: string;
  kind: LineKind;
  /** When, as an ISO time. */
  at: string;
  step: string;
  /** Nothing where it is of the whole job. */
  stepKind: StepKind | '';
  /** The step as its job calls it. */
  name: string;
  /** The saw or machine, by id, and as it was called then. */
  tool?: string;
  toolName?: string;
  /** Species; the one there is most of. */
  wood?: string;
  dimension?: DimensionName;
  piece?: string;
  predicted?: number;
  measured?: number;
  /** Half of the band that was shown with the prediction: nine readings in ten lie within it. */
  likely?: number;
  /** How much the band was widened by then; 1 if missing. */
  band?: number;
  who?: string;
  gauge?: string;
  words?: string;
  /** What failed, and how many pieces it struck. */
  cause?: FailureKind;
  struck?: number;
  /** Codes of the findings that had warned of it, where somebody looked. */
  warned?: readonly string[];
  /** What the wood of those pieces cost, in minor units, where the job knows what its wood costs. */
  lostMinor?: number;
  rows: TaughtRow[];
}
