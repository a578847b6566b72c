export * from './hold';
export * from './rows';
export * from './tables';
export * from './tools';
