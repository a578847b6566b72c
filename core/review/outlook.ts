import { heldFor, toBuy } from '../bench';
import {
  type BuildDocument,
  type DimensionName,
  DIMENSIONS,
  type Finding,
  type Phrase,
  type Step,
  type StepKind,
} from '../document';
import type { Held } from '../kit';
import { type JointReading, jointReadings } from '../layup';
import { layOut } from '../picture';
import { run } from '../run';
import { dependentSizes, outputSizes, type SizeOutcome } from '../sizes';
import {
  blankVolume,
  type Bounds,
  type Cause,
  CAUSES,
  compensatedSum,
  extents,
  lostTo,
  type Vec3,
} from '../solid';
import {
  asFlattening,
  cutList,
  type Fact,
  type Helpers,
  helpersOf,
  type Laid,
  massOf,
  type NoPasses,
  type PassPlan,
  handMinutes,
  passCount,
  passPlan,
  roomOf,
  type Timeline,
  type TimelineStep,
  type Tolerance,
  type Took,
  tookBy,
} from '../steps';
import { compareTarget, type Comparison } from './compare';
import { type FaceReserve, faceReserves } from './hollows';
import { findingsOf } from './review';

/** A step as the screen shows it. */
export interface StepOutlook {
  id: string;
  kind: StepKind;
  name: string;
  count: number;
  least: Vec3;
  greatest: Vec3;
  tolerance: readonly [Tolerance, Tolerance, Tolerance];
  took: Took[];
  lost: Record<Cause, number>;
  laid?: Laid[];
  glue?: { joints: number; areaMm2: number };
  massKg: number;
  /** The heaviest of its pieces. */
  heaviestKg: number;
  /** Pieces made, by id, where they can be spoilt one by one. */
  pieces: string[];
  /** Leaves of a resaw, each with its thickness, mm: they are measured one by one. */
  leaves?: { id: string; mm: number }[];
  /** Greatest sizes as predicted, where a reading took their place. */
  predicted?: Vec3;
  /** The step with the amounts that a size to reach decided. */
  as?: Step;
  /** What each face must lose against what is taken off it. */
  reserves?: FaceReserve[];
  /** What is put on its pieces to be machined with them, and cut off again. */
  helpers?: Helpers;
  /** The cuts that square its pieces, in their order. */
  cuts?: Phrase[][];
  /** How often its pieces go over a machine, and minutes of hands for one round of it, machine set up with them. */
  passCount?: number;
  minutes?: number;
  /** How its machine is set, pass by pass, where it brings pieces to thickness. */
  passes?: PassPlan | NoPasses;
  /** What is known of it, in words with numbers. */
  facts?: Fact[];
  /** What it wants at hand besides wood and clamps, held against the kit. */
  held: Held[];
}

/** What lies on the bench at the chosen step. */
export interface BenchScene {
  step: string;
  box: Bounds;
  pieces: { id: string; box: Bounds }[];
}

/** Wood in all pieces wanted, mm3; what two of them share is counted once. */
function finishedMm3({ finished, wanted }: Timeline): number {
  const ends = [finished, ...wanted.map(({ step }) => step)].flatMap((step) => step ?? []);
  const once = new Map(ends.map((step) => [step.id, step]));
  return compensatedSum(
    [...once.values()].flatMap(({ pieces }) => pieces.map(({ blank }) => blankVolume(blank))),
  );
}

/** Everything the job screen reads, as plain data. */
export interface Outlook {
  steps: StepOutlook[];
  findings: Finding[];
  /** What its open steps want and the kit has not. */
  toBuy: Held[];
  comparison?: Comparison[];
  /** Each piece wanted, with the step it comes out of and how it meets what was asked. */
  wanted: { target: string; step?: string; count: number; comparison?: Comparison[] }[];
  finishedStep?: string;
  woodInMm3: number;
  finishedMm3: number;
  joints: Timeline['joints'];
  /** Sizes that follow from those that come out; and the names of these. */
  sizes: SizeOutcome[];
  outputs: { name: string; mm: number }[];
  scene?: BenchScene;
  /** What the joints of the shown lay-up show, where it lays strips side by side. */
  seams?: JointReading[];
}

/** Slices that came of each blank, spoilt ones with them: kerfs were cut for all of those. */
const cutOf = ({ pieces, entered, wanted }: TimelineStep, spoilt: number): number | undefined =>
  wanted === undefined || entered.length === 0
    ? undefined
    : Math.ceil((pieces.length + spoilt) / entered.length);

const stepOutlook = (step: TimelineStep, build: BuildDocument, timeline: Timeline): StepOutlook => {
  const source = step.as ?? build.steps.find(({ id }) => id === step.id);
  const { each } = roomOf(step);
  const passes = source && passPlan(source, step, build);
  const flat = asFlattening(source);
  const reserves = flat ? faceReserves(flat, { build, timeline }) : [];
  const helpers = flat && helpersOf(flat, step.entered);
  const cuts = source ? cutList(source, step, build) : [];
  const facts = (source && roomOf(source).facts?.(source, { build, entry: step })) ?? [];
  const machined = source && roomOf(source).machining ? source : undefined;
  return {
    id: step.id,
    kind: step.kind,
    name: step.name,
    count: step.pieces.length,
    least: step.least,
    greatest: step.greatest,
    tolerance: step.tolerance,
    took: source ? tookBy(source, build, cutOf(step, source.spoilt?.length ?? 0)) : [],
    lost: Object.fromEntries(CAUSES.map((cause) => [cause, lostTo(step.lost, cause)])) as Record<
      Cause,
      number
    >,
    laid: step.laid,
    glue: step.glue,
    massKg: step.massKg,
    heaviestKg: Math.max(0, ...step.pieces.map(({ blank }) => massOf(blank))),
    held: source ? heldFor(source, build, timeline) : [],
    pieces: each ? step.pieces.map(({ id }) => id) : [],
    ...(each?.measured
      ? {
          leaves: step.pieces.map(({ id, blank }) => ({
            id,
            mm: extents(blank)[DIMENSIONS.indexOf(each.measured as DimensionName)],
          })),
        }
      : {}),
    ...(passes ? { passes } : {}),
    ...(machined
      ? {
          passCount: passCount(machined, step, build),
          minutes: handMinutes(machined, step, { build, pieces: step.pieces.length, times: 1 }),
        }
      : {}),
    ...(step.as ? { as: step.as } : {}),
    ...(flat && reserves.length > 0 ? { reserves } : {}),
    ...(helpers ? { helpers } : {}),
    ...(cuts.length > 0 ? { cuts } : {}),
    ...(facts.length > 0 ? { facts } : {}),
    ...(step.predicted ? { predicted: step.predicted } : {}),
  };
};

/**
 * Plays a build, reviews it, and lays out the step the screen shows: the last that could be played if that one was not.
 * The findings come without their ways out: those are played one by one, and follow (`reviewing`).
 */
export const outlook = (build: BuildDocument, shownStep: string | undefined, today?: string): Outlook =>
  outlookOf(build, run(build), shownStep, today);

/** The same of a build that was played. */
export function outlookOf(
  build: BuildDocument,
  timeline: Timeline,
  shownStep: string | undefined,
  today?: string,
): Outlook {
  const shown = timeline.steps.find(({ id }) => id === shownStep) ?? timeline.steps.at(-1);
  const scene = shown && layOut(shown.pieces);
  return {
    steps: timeline.steps.map((step) => stepOutlook(step, build, timeline)),
    findings: findingsOf(build, timeline, today),
    toBuy: toBuy(build, timeline),
    comparison: compareTarget(build, timeline),
    wanted: build.targets.map((target, i) => {
      const step = i === 0 ? timeline.finished : timeline.wanted[i]?.step;
      return {
        target: target.id,
        ...(step ? { step: step.id } : {}),
        count: step?.pieces.length ?? 0,
        comparison: compareTarget(build, timeline, target),
      };
    }),
    finishedStep: timeline.finished?.id,
    woodInMm3: timeline.woodInMm3,
    finishedMm3: finishedMm3(timeline),
    joints: timeline.joints,
    sizes: dependentSizes(build, timeline),
    outputs: outputSizes(build, timeline).map(({ name, mm }) => ({ name, mm })),
    scene: shown && scene && { step: shown.id, box: scene.box, pieces: scene.pieces },
    ...(shown && roomOf(shown).flow.joins ? { seams: jointReadings(build, timeline, shown.id) } : {}),
  };
}
