export * from './scan';
export * from './scene';
