import type { OkLab } from './looks';

/** An OKLab colour as a CSS colour. */
export const cssColour = ([l, a, b]: OkLab): string => `oklab(${l} ${a} ${b})`;
