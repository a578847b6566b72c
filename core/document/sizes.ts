import type { Aim } from './targets';

/** The most sizes of its own that a job has. */
export const MOST_SIZES = 60;

/** A size that follows from others: a leg, a base, a gap to a wall. */
export interface DependentSize {
  id: string;
  /** How other formulas call it. */
  name: string;
  /** As its maker writes it: `overall - thickness + tenon`, or just `780`. */
  formula: string;
  /** What it must be, where something hangs on it: a template that fits, a floor that is level. */
  wanted?: Aim;
}
