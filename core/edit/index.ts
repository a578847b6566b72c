export * from './apply';
export * from './carry';
export * from './rows';
export * from './split';
