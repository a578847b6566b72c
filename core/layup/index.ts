export * from './faces';
export * from './joints';
export * from './propose/exact';
export * from './propose/propose';
export * from './propose/search';
export * from './propose/terms';
export * from './sheet';
