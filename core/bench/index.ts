export * from './hours';
export * from './needs';
export * from './schedule';
export * from './tasks';
export * from './today';
