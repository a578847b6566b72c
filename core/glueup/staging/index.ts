export * from './split';
export * from './ways';
