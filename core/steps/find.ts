import {
  type BuildDocument,
  firstOf,
  makerOf,
  makersOf,
  type Step,
  type StepKind,
  type StepKinds,
  userOf,
  usersOf,
} from '../document';
import type { FeatureStep } from './feature/feature';
import type { FitStep } from './fit/fit';
import type { FlattenStep } from './flatten/flatten';
import type { GlueStep } from './glue/step';
import type { JointStep } from './joint/joint';
import { roomOf } from './list';
import type { RipStep } from './rip/step';
import type { SliceStep } from './slice/slice';
import type { TrimStep } from './trim/trim';

/*
 * Ways to the steps that a question is about. Who asks them elsewhere never asks for a kind by name: a kind that is
 * added answers here, by what its room says of it.
 */

/** Whether a step is of a kind and done: one that is left out is none. */
export const isOf = <K extends StepKind>(step: Step | undefined, kind: K): step is StepKinds[K] & Step =>
  step?.kind === kind && !step.off;

/** A glue-up, or undefined for any other step. */
export const asGlueUp = (step: Step | undefined): GlueStep | undefined =>
  isOf(step, 'glue') ? step : undefined;

/** The glue-up with an id, or undefined. */
export const glueUpAt = (build: BuildDocument, id: string): GlueStep | undefined =>
  asGlueUp(build.steps.find((step) => step.id === id));

/** All glue-ups of a job, in order. */
export const glueUps = (build: BuildDocument): GlueStep[] =>
  build.steps.flatMap((step) => asGlueUp(step) ?? []);

/** The glue-up that something came through last, past all other steps. */
export const gluedBefore = (build: BuildDocument, output: string): GlueStep | undefined =>
  asGlueUp(firstOf(makersOf(build, output), (step) => asGlueUp(step) !== undefined));

/** The glue-up whose piece a step works on, with nothing but waiting in between. */
export const freshFrom = (build: BuildDocument, step: Step): GlueStep | undefined =>
  asGlueUp(firstOf(makersOf(build, step.inputs[0] ?? ''), (each) => !roomOf(each).flow.waits));

/** All steps that rip strips, in order. */
export const rips = (build: BuildDocument): RipStep[] =>
  build.steps.flatMap((step) => (isOf(step, 'rip') ? [step] : []));

/** A slicing against a stop, or undefined for any other step. */
export const asSlicing = (step: Step | undefined): SliceStep | undefined =>
  isOf(step, 'slice') ? step : undefined;

/** All slicings, in order. */
export const slicings = (build: BuildDocument): SliceStep[] =>
  build.steps.flatMap((step) => asSlicing(step) ?? []);

/** The step as one that cuts features; undefined where it is none. */
export const asFeatures = (step: Step | undefined): FeatureStep | undefined =>
  step && isOf(step, 'feature') ? step : undefined;
/** The step as one that fits something to its piece; undefined where it is none. */
export const asFit = (step: Step | undefined): FitStep | undefined =>
  step && isOf(step, 'fit') ? step : undefined;
/** A trim, or undefined for any other step. */
export const asTrim = (step: Step | undefined): TrimStep | undefined =>
  isOf(step, 'trim') ? step : undefined;

/** All trims, in order. */
export const trims = (build: BuildDocument): TrimStep[] => build.steps.flatMap((step) => asTrim(step) ?? []);

/** The next trim that something goes through. */
export const trimAfter = (build: BuildDocument, output: string): TrimStep | undefined =>
  asTrim(firstOf(usersOf(build, output), (step) => asTrim(step) !== undefined));

/** A flattening, or undefined for any other step. */
export const asFlattening = (step: Step | undefined): FlattenStep | undefined =>
  isOf(step, 'flatten') ? step : undefined;

/** All flattenings, in order. */
export const flattenings = (build: BuildDocument): FlattenStep[] =>
  build.steps.flatMap((step) => asFlattening(step) ?? []);

/** The step that flattens what a glue-up gives, if that comes next. */
export const flattenAfter = (build: BuildDocument, step: GlueStep): FlattenStep | undefined =>
  asFlattening(userOf(build, step.output));

/** A jointing of edges, or undefined for any other step. */
export const asJointing = (step: Step | undefined): JointStep | undefined =>
  isOf(step, 'joint') ? step : undefined;

/** What is planed off each face of strips after they are ripped, if that comes next, mm. */
export const milledAfter = (build: BuildDocument, rip: RipStep): number => {
  const next = userOf(build, rip.output);
  return isOf(next, 'mill') ? next.face.mm : 0;
};

/** How a turn permutes sizes: whether pieces stand on end, or lie on edge, after a step; undefined where it turns nothing. */
export const turnedHow = (step: Step | undefined): 'onEnd' | 'onEdge' | undefined => {
  if (!isOf(step, 'turn')) return undefined;
  return step.turn === 'standOnEnd' ? 'onEnd' : step.turn === 'tipOnEdge' ? 'onEdge' : undefined;
};

/** Whether pieces come to a place straight from a turn. */
export const comesTurned = (build: BuildDocument, output: string): boolean => {
  const maker = makerOf(build, output);
  return maker !== undefined && roomOf(maker).flow.turns === true;
};

/** The step that made an output, past turns. */
export const pastTurns = (build: BuildDocument, output: string): Step | undefined =>
  firstOf(makersOf(build, output), (step) => !roomOf(step).flow.turns);

/** Whether what a step gives are strips as they came from their boards, nothing joined or cut apart since. */
export const areStrips = (step: Step): boolean =>
  roomOf(step).flow.source === true || roomOf(step).machining?.over === 'both';
