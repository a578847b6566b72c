export * from './predict';
