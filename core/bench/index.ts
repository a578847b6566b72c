export * from './hours';
export * from './hands';
export * from './needs';
export * from './outlier';
export * from './schedule';
export * from './tasks';
export * from './today';
export * from './workstep';
