export * from './carve';
export * from './form';
export * from './section';
export * from './take';
export * from './volume';
