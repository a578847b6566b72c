export * from './hours';
export * from './schedule';
export * from './tasks';
