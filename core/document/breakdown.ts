import type { StockKind } from '../kit';
import type { Length } from '../units';

/** What the breakdown aims at. */
export type Goal = 'leastWaste' | 'fewestBoards' | 'cheapest' | 'offcutsFirst' | 'keepWide' | 'colour';

export const GOALS: readonly Goal[] = [
  'leastWaste',
  'fewestBoards',
  'cheapest',
  'offcutsFirst',
  'keepWide',
  'colour',
];

/** How boards are broken down into this job's strips. */
export interface BreakdownSettings {
  goal: Goal;
  crosscutSaw: string;
  ripSaw: string;
  resawSaw: string;
  /** Whether a thicker board may be resawn into leaves. */
  resaw: boolean;
  /** Rough strips are cut longer and wider by this. */
  extraLength: Length;
  extraWidth: Length;
  /** Cleaned off each end and each edge of a board before anything else. */
  endTrim: Length;
  edgeTrim: Length;
  /** Width that must stay in hand at the fence after the last rip; zero where none need stay. */
  remnant: Length;
  /** The least offcut worth keeping. */
  leastOffcutLength: Length;
  leastOffcutWidth: Length;
  /** What an offcut worth keeping counts, in % of the same wood in a whole board. */
  offcutWorthPct: number;
  /** What is bought is bought as this; as its wood usually is, if missing. */
  buyAs?: StockKind;
  /** Lengths the yard has; the usual ones of that kind, if missing. */
  buyLengths?: Length[];
}

/** The most lengths a yard may have. */
export const MOST_BUY_LENGTHS = 20;
