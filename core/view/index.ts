export * from './hold';
export * from './rows';
