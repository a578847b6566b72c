export * from './review';
export { compareTarget, type Comparison } from './compare';
export { withoutNewWarnings } from './offers';
export * from './outlook';
export { woodShare } from './share';
