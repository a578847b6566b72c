export * from './kind';
export * from './kinds';
export * from './limits';
export * from './list';
export * from './machine';
export * from './saws';
export * from './works';
