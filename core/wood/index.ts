export * from './elastic';
export * from './colour';
export * from './css';
export * from './figure';
export * from './looks';
export * from './marks';
export * from './noise';
export * from './species';
