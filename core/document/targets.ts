import type { Axis } from '../solid';
import type { Length } from '../units';

/** What is wanted of one dimension. `value` is missing only where the dimension is free. */
export interface Aim {
  aim: 'fixed' | 'atLeast' | 'atMost' | 'free';
  value?: Length;
}

export type DimensionName = 'length' | 'width' | 'thickness';

export const DIMENSIONS: readonly DimensionName[] = ['length', 'width', 'thickness'];

/** Where a dimension stands in a size and in the solid's frame: 0, 1 or 2. */
export const axisOf = (dimension: DimensionName): Axis => DIMENSIONS.indexOf(dimension) as Axis;

/** The most pieces of different kinds that one job is for. */
export const MOST_TARGETS = 20;

/** One piece wanted: on which output it is measured, and what each dimension must be. */
export interface Target {
  id: string;
  purpose: string;
  quantity: number;
  /** How many of them come out when its chain is done once; as many as the brief says, or one, if missing. */
  atOnce?: number;
  output: string;
  length: Aim;
  width: Aim;
  thickness: Aim;
  /** How far off is still right; the setting step's half if missing. */
  tolerance?: Length;
}
