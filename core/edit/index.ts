export * from './apply';
export * from './carry';
export { readingsOn } from './chain';
export { edgeAnew } from './failing';
export * from './lost';
export { reaches } from './order';
export * from './rows';
export * from './split';
export { plannedAgain } from './planning';
