export * from './marks';
export * from './note';
