export * from './why';
export * from './split';
export * from './ways';
