export * from './model';
export { coreLength } from './kinds/breadboard';
export { mitreOpening } from './kinds/mitre';
export * from './kind';
export * from './kinds';
export * from './fit';
