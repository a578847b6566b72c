export * from './finding';
export * from './gluing';
export * from './log';
export * from './size';
export * from './sums';
export * from './wood';
