export * from './finding';
export * from './gluing';
export * from './size';
export * from './sums';
export * from './wood';
