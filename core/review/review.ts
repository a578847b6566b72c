import {
  toleranceOf,
  type BuildDocument,
  type Finding,
  type Step,
  type Timeline,
  type Tolerance,
  type WorkPiece,
} from '../build';
import { extents, type Axis } from '../solid';
import { oddChequer, raggedEnds, sliceCounts, thicknessSteps } from './layup';
import { machineLimits, sawReach } from './limits';
import { crossGrain } from './crossgrain';
import { doneEarly } from './early';
import { glueUpFindings } from './glueups';
import { seamFindings } from './seams';
import { stripsWithoutBoard } from './wood';
import { lopsidedTrim, targetMissed, thinMargins } from './target';

/** A played build, and what entered each of its steps. */
export interface ReviewContext {
  build: BuildDocument;
  timeline: Timeline;
  before: (step: Step) => WorkPiece[];
  enteringTolerance: (step: Step, axis: Axis) => Tolerance;
  /** The day as YYYY-MM-DD, where it is known: bottles go past their date. */
  today?: string;
}

/**
 * Everything that will not work, is short, or deserves a second look, each with the numbers that say so and what
 * Junta can do about it. Findings of the run itself come first. Pure and in a fixed order.
 */
export function review(build: BuildDocument, timeline: Timeline, today?: string): Finding[] {
  const pieces = new Map(
    timeline.steps.map((entry) => [build.steps.find(({ id }) => id === entry.id)?.output, entry.pieces]),
  );
  const before = (step: Step): WorkPiece[] => step.inputs.flatMap((input) => pieces.get(input) ?? []);
  const enteringTolerance = (step: Step, axis: Axis): Tolerance => {
    const entered = before(step);
    const widest = entered.reduce(
      (best, piece) => (extents(piece.blank)[axis] > extents(best.blank)[axis] ? piece : best),
      entered[0],
    );
    return toleranceOf(widest.errors[axis], timeline.sources);
  };
  const context: ReviewContext = { build, timeline, before, enteringTolerance, ...(today ? { today } : {}) };
  const played = build.steps.filter(({ id }) => timeline.steps.some((entry) => entry.id === id));
  const perStep = [
    machineLimits,
    sawReach,
    thicknessSteps,
    raggedEnds,
    oddChequer,
    sliceCounts,
    stripsWithoutBoard,
    seamFindings,
    crossGrain,
    lopsidedTrim,
    thinMargins,
    glueUpFindings,
    doneEarly,
  ];
  return [
    ...timeline.problems,
    ...played.flatMap((step) => perStep.flatMap((check) => check(step, context))),
    ...targetMissed(context),
  ];
}
