export * from './review';
export { compareTarget, type Comparison } from './compare';
export { withoutNewWarnings } from './offers';
export { type FlattenWay, flattenWays } from './flattenways';
export * from './outlook';
export { woodShare } from './share';
export { accentWood, LEAST_ACCENT_MM } from './ways';
