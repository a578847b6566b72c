export { PATTERNS, patternOf } from './patterns';
export { startingBrief } from './start';
export { measureOf, type MeasureField, type Pattern } from './pattern';
