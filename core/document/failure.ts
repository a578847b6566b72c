import type { Length } from '../units';

/** What can fail at the bench; `other` is told in words of one's own. */
export const FAILURE_KINDS = [
  'spoiltStrip',
  'wrongRip',
  'crack',
  'openJoint',
  'lostSlice',
  'wrongFeature',
  'tooThin',
  'skinnedGlue',
  'other',
] as const;
export type FailureKind = (typeof FAILURE_KINDS)[number];

/** What each kind is called. */
export const FAILURE_NAMES: Record<FailureKind, string> = {
  spoiltStrip: 'A strip is spoilt',
  wrongRip: 'A strip was ripped too narrow',
  crack: 'It cracked',
  openJoint: 'A joint opened',
  lostSlice: 'A slice is lost',
  wrongFeature: 'It was cut in the wrong place or the wrong member',
  tooThin: 'It came out too thin',
  skinnedGlue: 'The glue skinned over before it was closed',
  other: 'Something else',
};

/** Something that failed at a step, as it was told; it stays in the record whatever is done about it. */
export interface Failure {
  id: string;
  step: string;
  kind: FailureKind;
  /** Own words. */
  words?: string;
  /** The pieces it struck, by id. */
  pieces?: string[];
  /** The joint that opened, counted as the parts lie, from 1. */
  joint?: number;
  /** The bad band: how far it lies from the near edge, and how wide it is. */
  from?: Length;
  wide?: Length;
  /** The size that came out. */
  measured?: Length;
  /** When, as an ISO time, and who told it. */
  at?: string;
  who?: string;
  /** The way that was chosen, as it was offered. */
  way?: string;
  /** Codes of the findings that had warned of it in the plan, none if it came unannounced; missing where nobody looked. */
  warned?: string[];
}

/** The most failures that one job remembers. */
export const MOST_FAILURES = 200;

/** The most findings that are remembered of a failure. */
export const MOST_WARNED = 50;

/** A failure in a few words, with what was done about it. */
export const failureWords = ({ kind, words, way }: Failure): string =>
  [
    words?.trim() || FAILURE_NAMES[kind].replace(/^./, (letter) => letter.toLowerCase()),
    ...(way ? [`way taken: ${way}`] : []),
  ].join('; ');
