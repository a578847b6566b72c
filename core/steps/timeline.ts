import type { Finding, Step, StepKind } from '../document';
import type { Blank, GrainSide, Ledger, Vec3 } from '../solid';
import type { Errors, Sources, Tolerance } from './tolerance';

/** A piece as it is after a step. */
export interface WorkPiece {
  id: string;
  blank: Blank;
  errors: readonly [Errors, Errors, Errors];
}

/** Where one part of a glue-up came to lie, and how it was turned. */
export interface Laid {
  piece: string;
  min: Vec3;
  max: Vec3;
  endForEnd: boolean;
  rollOver: boolean;
  quarter?: boolean;
  locked?: boolean;
}

/** What one step did. */
export interface TimelineStep {
  id: string;
  kind: StepKind;
  name: string;
  /** Ids of the steps whose outputs went in. */
  from: string[];
  pieces: WorkPiece[];
  /** What went in: of an input that several steps share, only what this one took. */
  entered: WorkPiece[];
  /** The step with the amounts that were played, where a size to reach decided them. */
  as?: Step;
  /** Sizes after the step: the least and the greatest of its pieces on each axis, mm. */
  least: Vec3;
  greatest: Vec3;
  tolerance: readonly [Tolerance, Tolerance, Tolerance];
  /** What this step alone took. */
  lost: Ledger;
  /** Glue-ups: the parts and the glued area between them, mm2. */
  laid?: Laid[];
  glue?: { joints: number; areaMm2: number };
  /** Slices: how many were asked for. */
  wanted?: number;
  massKg: number;
  /** Where a reading took its place: the greatest sizes as they were predicted. */
  predicted?: Vec3;
}

/** What a run keeps of a step so that the next one need not play it again; only run looks into it. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- what is kept is run's own
export interface PlayedStep {}

/** A build played forward. Ends before the first step that could not be carried out. */
export interface Timeline {
  steps: TimelineStep[];
  sources: Sources;
  woodInMm3: number;
  ledger: Ledger;
  /** Wood that no step used any more and that is not the target. */
  leftOverMm3: number;
  /** The first piece wanted, or the last step where none is. */
  finished?: TimelineStep;
  /** Each piece wanted, with the step it comes out of: without one where the run did not come to it. */
  wanted: { target: string; step?: TimelineStep }[];
  joints: {
    count: number;
    areaMm2: number;
    contacts: number;
    finishedAreaMm2: number;
    bySideMm2: Record<GrainSide, number>;
  };
  /** What stopped the run, or was passed over. */
  problems: Finding[];
  /** What was played, step by step: a run of a changed build begins from it. */
  played: ReadonlyMap<string, PlayedStep>;
}
