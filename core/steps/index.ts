export * from './begin';
export * from './context';
export * from './cutlist';
export * from './deepcut';
export * from './fact';
export * from './faces';
export * from './featurecuts';
export * from './field';
export * from './find';
export * from './graph';
export * from './laths';
export * from './mass';
export * from './list';
export * from './operation';
export * from './outline';
export * from './passes';
export * from './passplan';
export * from './reach';
export * from './reading';
export * from './references';
export * from './renamed';
export * from './room';
export * from './rows';
export * from './sizes';
export * from './swing';
export * from './timeline';
export * from './tolerance';
export * from './took';
export * from './trims';
export type { AssembleStep, Fixing } from './assemble/assemble';
export type { CrosscutStep } from './crosscut/crosscut';
export type { FlattenStep } from './flatten/flatten';
export * from './feature';
export * from './fit';
export { peopleFor } from './install/lift';
export { HOLDS, helpersAdd, helpersOf, type Helpers } from './flatten/helpers';
export type { GlueStep } from './glue/step';
export type { GrainRun, HaveStep } from './have/have';
export type { JointStep } from './joint/joint';
export type { ObliqueStep } from './oblique/oblique';
export { turnOf } from './oblique/oblique';
export type { ResawStep } from './resaw/resaw';
export { claimsOn } from './rip/boards';
export { boardBlank } from './rip/log';
export type { RipStep } from './rip/step';
export {
  bentWrong,
  cornersOf,
  drawnOutline,
  ellipseCorners,
  type OutlineCorner,
  outlineLoop,
} from './shape/outline';
export { blankFor, type LargestOutline, largestOutline } from './shape/fit';
export { MOST_CORNERS, type ShapeStep } from './shape/shape';
export { apartIds, lostApart } from './cutApart/cutApart';
export type { SliceStep } from './slice/slice';
export * from './slice/slicing';
export type { TrimStep } from './trim/trim';
