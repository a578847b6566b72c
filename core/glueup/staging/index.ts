export * from './why';
export * from './machining';
export * from './split';
export * from './ways';
