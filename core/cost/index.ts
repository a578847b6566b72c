export * from './cost';
export * from './price';
export * from './made';
