export { type Asked } from './failures';
export * from './plans';
export type { RemedyName } from './remedies';
export type { JointPlace } from './where';
