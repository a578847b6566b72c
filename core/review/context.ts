import type { BuildDocument, Step, DimensionName } from '../document';
import type { Timeline, Tolerance, WorkPiece } from '../steps';

/** A played build, and what entered each of its steps. */
export interface ReviewContext {
  build: BuildDocument;
  timeline: Timeline;
  before: (step: Step) => WorkPiece[];
  enteringTolerance: (step: Step, dimension: DimensionName) => Tolerance;
  /** The day as YYYY-MM-DD, where it is known: bottles go past their date. */
  today?: string;
}
