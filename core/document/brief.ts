import type { Allowances } from '../kit';
import type { Length } from '../units';
import type { Cutter } from './step';
import type { Aim } from './targets';

/** A measure of a pattern: a length, a count, an angle in degrees, a choice, or words. */
export type MeasureValue = Length | number | string | boolean;

/** The patterns Junta plans. Each is described in patterns/. */
export const PATTERN_IDS = [
  'panel',
  'graded',
  'stagger',
  'butcher',
  'match',
  'skinned',
  'lamination',
  'leg',
  'endGrain',
  'bricks',
  'basket',
  'stepped',
  'mosaic',
  'chevron',
  'cubes',
  'blocks',
  'framed',
  'corner',
  'ownRule',
  'centred',
] as const;

export type PatternId = (typeof PATTERN_IDS)[number];

/** What the build was planned from, so that it can be planned again in another size. */
export interface Brief {
  pattern: PatternId;
  length: Aim;
  width: Aim;
  thickness: Aim;
  woods: string[];
  /** Strip width of a panel, side of a square of a block. */
  module: Length;
  saw: string;
  flattenWith: string;
  trimWith: Cutter;
  /** Every other slice end for end. */
  chequer: boolean;
  extraSlices: number;
  /** Panels only: glued as this many sections, 0 for as many as the machine needs. */
  sections: number;
  /** Strips come planed: faces and edges stay as they are, and no milling is planned. */
  asTheyAre?: boolean;
  /** What the wood is sold as, as typed: `2x8`, `8/4`, `45 x 95`. */
  stock?: string;
  /** How many alike are made together; one if missing. */
  quantity?: number;
  /** What this job allows for where it is not what the shop does. */
  allowances?: Partial<Allowances>;
  /** The pattern's own measures, by their names. */
  measures?: Record<string, MeasureValue>;
}
