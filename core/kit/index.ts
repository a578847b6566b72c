export * from './defaults';
export * from './kit';
export * from './lumber';
