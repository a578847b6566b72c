export * from './calendar';
export * from './formats';
export * from './rack';
export * from './timeline';
