export * from './review';
export { compareTarget, type Comparison } from './compare';
export * from './outlook';
export { woodShare } from './share';
