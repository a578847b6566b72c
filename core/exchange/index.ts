export * from './predict';
export * from './calendar';
