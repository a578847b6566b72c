export * from './bands';
export * from './drift';
export * from './estimate';
export * from './levels';
export * from './rows';
