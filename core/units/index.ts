export * from './count';
export * from './dialled';
export * from './display';
export * from './length';
export * from './list';
export * from './parse';
export * from './words';
export * from './arithmetic';
