import { expose } from 'comlink';
import { type BenchStep, benchStep } from '../../core/bench';
import type { BuildDocument, Failure, Finding } from '../../core/document';
import {
  type FailureSheet,
  failureSheet,
  inOrder,
  type Moment,
  type Plan,
  planning,
} from '../../core/recovery';
import { type ClearingSearch, findClearings, type WishName } from '../../core/clearing';
import { type FlattenWay, flattenWays, outlookOf, reviewing } from '../../core/review';
import { run } from '../../core/run';
import { beginFitting, type Fitting, type FittingKindName, type Timeline } from '../../core/steps';
import {
  type ChainMenu,
  type ChainPlace,
  type FeatureSheet,
  featureSheet,
  type JobOutlook,
  lyingAt,
  type MovementSheet,
  movementSheet,
  partsShown,
  stepsAt,
} from '../../core/view';
import { pause } from './pause';

let latest = 0;
/** What was played last: of the next build only what changed since is played. */
let last: Timeline | undefined;
const play = (build: BuildDocument): Timeline => (last = run(build, last));

const worker = {
  outlook: (build: BuildDocument, shownStep: string | undefined, today?: string): JobOutlook => {
    const timeline = play(build);
    return {
      ...outlookOf(build, timeline, shownStep, today),
      lying: shownStep === undefined ? [] : lyingAt(build, timeline, shownStep),
      parts: partsShown(build, timeline, shownStep),
    };
  },
  /** What could be put in at a place of the chain, each kind played forward. */
  stepsAt: (build: BuildDocument, place: ChainPlace): ChainMenu => stepsAt(build, play(build), place),
  /** The ways to flatten what a step flattens, each played forward. */
  flattenWays: (build: BuildDocument, step: string): FlattenWay[] => flattenWays(build, step),
  /** The features of a step as they lie on what enters it. */
  features: (build: BuildDocument, step: string): FeatureSheet | undefined =>
    featureSheet(build, play(build), step),
  /** The finished piece through a year at its place. */
  movement: (build: BuildDocument): MovementSheet | undefined => movementSheet(build, play(build)),
  /** A step as it is worked on at the bench. */
  atBench: (build: BuildDocument, step: string): BenchStep | undefined => benchStep(build, play(build), step),
  /** What can fail at a step, and what there is to point at. */
  failure: (build: BuildDocument, step: string): FailureSheet | undefined =>
    failureSheet(build, play(build), step),
  /** The ways to go on after a failure, each played forward, the best first. */
  async plans(build: BuildDocument, told: Failure, moment: Moment): Promise<Plan[]> {
    const out: Plan[] = [];
    for (const plan of planning(build, told, moment)) {
      out.push(plan);
      await pause();
    }
    return inOrder(out);
  },
  /** A fitting of a kind as it begins on what a step gives; nothing where it gives nothing yet. */
  fitting: (build: BuildDocument, step: string, kind: FittingKindName, id: string): Fitting | undefined => {
    const [piece] = play(build).steps.find((each) => each.id === step)?.pieces ?? [];
    return piece && beginFitting(kind, id, piece, build);
  },
  /** Layouts in which an opening clears the aids of all joints, each played forward. */
  clearings: (
    build: BuildDocument,
    at: { step: string; feature: string },
    wishes: { may: readonly WishName[]; limitMm: number },
  ): ClearingSearch | undefined => findClearings(build, at.step, at.feature, wishes),
  /** The findings with their ways out, each played forward; nothing where the build has changed in the meantime. */
  async offers(build: BuildDocument, today: string): Promise<Finding[] | undefined> {
    const mine = ++latest;
    const out: Finding[] = [];
    for (const finding of reviewing(build, play(build), today)) {
      out.push(finding);
      await pause();
      if (mine !== latest) return undefined;
    }
    return out;
  },
  /** A newer build is on its way: what is being played is of no use any more. */
  forget: () => void latest++,
};
export type PredictWorker = typeof worker;
expose(worker);
