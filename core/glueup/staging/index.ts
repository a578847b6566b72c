export * from './why';
export * from './machining';
export * from './reasons';
export * from './split';
export * from './ways';
