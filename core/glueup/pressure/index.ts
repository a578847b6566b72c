export { NotSolvable } from './band';
export * from './beams';
export * from './closed';
export * from './contact';
export * from './edges';
export * from './even';
export * from './words';
