export * from './model';
export * from './floor';
export * from './frame';
export * from './kind';
export * from './kinds';
export * from './lay';
export * from './place';
export { type ProfileName, profileLine } from './profile';
export { type FeatureStep, featureName, laidOn, MOST_FEATURES } from './feature';
