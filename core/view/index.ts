export * from './chain';
export * from './hold';
export * from './layup';
export * from './line';
export * from './lying';
export * from './rows';
export * from './tables';
export * from './tools';
