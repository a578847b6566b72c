export * from './model';
export { coreLength } from './kinds/breadboard';
export * from './kind';
export * from './kinds';
export * from './fit';
