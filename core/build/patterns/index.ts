export { PATTERNS, patternOf } from './patterns';
export { startingBrief } from './start';
export { chevronPanel } from './chevron';
export { rhombus } from './cubes';
export { stackFor } from './lamination';
export { measureOf, type MeasureField, type Pattern } from './pattern';
export { bestStagger, staggerOf } from './stagger';
export { jointsOf } from './staggered';
