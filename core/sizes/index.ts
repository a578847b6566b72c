export * from './dependent';
export { LONGEST_FORMULA } from './formula';
