export * from './cauls';
export * from './counts';
export * from './elastic';
export * from './order';
export * from './plan';
