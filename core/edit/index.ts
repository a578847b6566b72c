export * from './apply';
export * from './carry';
export { readingsOn } from './chain';
export * from './rows';
export * from './split';
export { lostByPlanning } from './planning';
