export * from './review';
export { compareTarget, type Comparison } from './target';
export * from './outlook';
