import type { ShopSnapshot } from '../kit';
import type { Length } from '../units';
import type { BoardStock } from './board';
import type { BreakdownSettings } from './breakdown';
import type { Brief } from './brief';
import type { Check } from './check';
import type { Failure } from './failure';
import type { GlueUse } from './glueplan';
import type { PlaceOfUse } from './place';
import type { DependentSize } from './sizes';
import type { Assembly } from './slots';
import type { Step } from './step';
import type { DimensionName, Target } from './targets';

/** A size taken at a step with rule or caliper. */
export interface Reading {
  id: string;
  step: string;
  piece?: string;
  dimension: DimensionName;
  measured: Length;
  taken?: string;
  /** Who took it, by name, and the gauge that it came from. */
  who?: string;
  gauge?: string;
}

/** A job that another was made again from. */
export interface EarlierJob {
  job: string;
  name: string;
}

/** The build: what is done, never what results. */
export interface BuildDocument {
  format: 'junta-build';
  version: typeof FORMAT_VERSION;
  name: string;
  use: string;
  targets: Target[];
  boards: BoardStock[];
  assemblies: Assembly[];
  steps: Step[];
  readings: Reading[];
  /** What was checked beside sizes: corners, light, moisture. */
  checks?: Check[];
  /** What failed while it was made, in the order in which it was told. */
  failures?: Failure[];
  /** The job it was made again from, as it was called then; the shop may not have that job any more. */
  earlier?: EarlierJob;
  /** The day it is promised for, as YYYY-MM-DD by the shop's clock. */
  promised?: string;
  shop: ShopSnapshot;
  brief?: Brief;
  /** What its glue must stand; guessed from the use and the woods if missing. */
  uses?: GlueUse[];
  /** Sizes that follow from those that come out: a leg, a base, a gap. */
  sizes?: DependentSize[];
  /** Where it will stand; a heated house is assumed, and said, if missing. */
  place?: PlaceOfUse;
  /** How its strips come out of boards, once that has been planned. */
  breakdown?: BreakdownSettings;
}

/** The version this Junta reads and writes. */
export const FORMAT_VERSION = 2;
