export * from './adhesives';
export * from './clamps';
export * from './climate';
export * from './defaults';
export * from './kit';
export * from './lumber';
export * from './practice';
export * from './reading';
