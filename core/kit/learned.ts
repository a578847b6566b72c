import type { Spread } from './spread';

/** Something of the shop that was taken over from its log, with what stood there before: it can be put back. */
export interface Learned {
  /** What it is, as the log names it: `kerf:table-full`. */
  id: string;
  /** When it was taken over, as an ISO time. */
  at: string;
  was: number;
  is: number;
  /** How many readings said so. */
  readings: number;
  /** The spread that stood there, where one did. */
  spreadWas?: Spread;
}

/** A blade that was changed, a scale that was moved: what was read before tells nothing of it any more. */
export interface Renewed {
  /** What changed, as the log names it. */
  id: string;
  /** From when on it is as it is now, as an ISO time. */
  at: string;
  /** What it is taken to be until readings say more: mm. */
  from: number;
}

/** How much longer or shorter than planned this shop is at steps of a kind: 1 as planned. */
export interface StepPace {
  kind: string;
  factor: number;
}

/** The most of each that a shop keeps. */
export const MOST_LEARNED = 200;
/** Minutes of steps are stretched by no more, and bands widened by no more, than between these. */
export const PACE_LIMITS = { least: 0.1, most: 10 } as const;
export const BAND_LIMITS = { least: 0.7, most: 2 } as const;

/** How much longer this shop is at steps of a kind than planned; 1 where nobody knows. */
export const paceOf = ({ paces = [] }: { paces?: readonly StepPace[] }, kind: string): number =>
  paces.find((pace) => pace.kind === kind)?.factor ?? 1;
