import { type BuildDocument, type Finding, type Step, type DimensionName, axisOf } from '../document';
import { run } from '../run';
import { extents } from '../solid';
import { asPlayed, type Timeline, type Tolerance, toleranceOf, type WorkPiece } from '../steps';
import { alike, otherMachine, otherSaw } from './asked';
import type { ReviewContext } from './context';
import { crossGrain } from './crossgrain';
import { doneEarly } from './early';
import { featureFindings } from './features';
import { glueUpFindings } from './glueups';
import { oddChequer, raggedEnds, sliceCounts, thicknessSteps } from './layup';
import { hollows } from './hollows';
import { rigidInlays } from './inlays';
import { leafMargins } from './leaves';
import { machineLimits } from './limits';
import { materialFindings } from './materials';
import { notOnHand } from './onhand';
import { sizesMissed } from './sizes';
import { withPlayedOffers } from './offers';
import { reachingSize } from './reaching';
import { ownFindings } from './own';
import { riding } from './rides';
import { cutMargins, endsBeforeEdges, sawCapacity, sawReach } from './sawing';
import { ownRules } from './rules';
import { seamFindings } from './seams';
import { mitredStripes, staggeredSeams } from './stripes';
import { crossFeed, flattening } from './surfaces';
import { lopsidedTrim, targetMissed, thinMargins } from './target';
import { wrongTool } from './tools';
import { stripsWithoutBoard } from './wood';

/**
 * Everything that will not work, is short, or deserves a second look, each with the numbers that say so and what
 * Junta can do about it: ways out that were played forward, and only those. Findings of the run itself come first.
 * Pure and in a fixed order.
 */
export const review = (build: BuildDocument, timeline: Timeline, today?: string): Finding[] => [
  ...reviewing(build, timeline, today),
];

/** The same, one finding after the other: what is played forward in between can take a moment each. */
export const reviewing = (build: BuildDocument, timeline: Timeline, today?: string): Generator<Finding> =>
  withPlayedOffers(build, raise(build, timeline, today), (next) => raise(next, run(next, timeline), today));

/** The findings of some kinds, one by one, each with its ways out played forward; nobody pays for those of others. */
export function* reviewingThese(
  build: BuildDocument,
  timeline: Timeline,
  wanted: (finding: Finding) => boolean,
  today?: string,
): Generator<Finding> {
  const find = (next: BuildDocument) => raise(next, run(next, timeline), today);
  const found = raise(build, timeline, today).map((each) => (wanted(each) ? each : { ...each, fixes: [] }));
  for (const finding of withPlayedOffers(build, found, find)) if (wanted(finding)) yield finding;
}

/** The findings of a build without their ways out, in a fraction of the time. */
export const findingsOf = (build: BuildDocument, timeline: Timeline, today?: string): Finding[] =>
  raise(build, timeline, today).map((finding) => ({ ...finding, fixes: [] }));

/** What is found, with every way out that might do; none of them tried yet. */
function raise(asked: BuildDocument, timeline: Timeline, today?: string): Finding[] {
  // A size to reach decides amounts: what is found is about those.
  const build = asPlayed(asked, timeline);
  const entered = new Map(timeline.steps.map((entry) => [entry.id, entry.entered]));
  const before = (step: Step): WorkPiece[] => entered.get(step.id) ?? [];
  const enteringTolerance = (step: Step, dimension: DimensionName): Tolerance => {
    const axis = axisOf(dimension);
    const pieces = before(step);
    const widest = pieces.reduce(
      (best, piece) => (extents(piece.blank)[axis] > extents(best.blank)[axis] ? piece : best),
      pieces[0],
    );
    return toleranceOf(widest.errors[axis], timeline.sources);
  };
  const context: ReviewContext = { build, timeline, before, enteringTolerance, ...(today ? { today } : {}) };
  const played = build.steps.filter(({ id }) => timeline.steps.some((entry) => entry.id === id));
  const perStep = [
    otherMachine,
    otherSaw,
    alike,
    machineLimits,
    crossFeed,
    sawReach,
    sawCapacity,
    cutMargins,
    endsBeforeEdges,
    leafMargins,
    thicknessSteps,
    raggedEnds,
    oddChequer,
    sliceCounts,
    stripsWithoutBoard,
    seamFindings,
    staggeredSeams,
    mitredStripes,
    crossGrain,
    flattening,
    hollows,
    reachingSize,
    riding,
    featureFindings,
    lopsidedTrim,
    thinMargins,
    glueUpFindings,
    doneEarly,
    notOnHand,
    wrongTool,
    materialFindings,
    ownFindings,
    ownRules,
    rigidInlays,
  ];
  return [
    ...timeline.problems,
    ...played.flatMap((step) => perStep.flatMap((check) => check(step, context))),
    ...targetMissed(context),
    ...sizesMissed(context),
  ];
}
