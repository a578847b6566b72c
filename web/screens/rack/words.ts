/* The trade's words for what the rack holds. */
export const WARP_NAMES = { cup: 'cup', bow: 'bow', crook: 'crook', wind: 'twist (wind)' } as const;
export { FAULT_NAMES, GRAIN_NAMES, PER_NAMES, pricesPer, SOLD_NAMES } from '../../../core/document';
