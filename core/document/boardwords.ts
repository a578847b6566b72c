import type { LengthSystem } from '../units';
import type { BoardStock, FaultKind, PricePer, SoldAs } from './board';

/* The trade's words for what a board is: on the rack, on its card and in tables. */
export const SOLD_NAMES: Record<SoldAs, string> = {
  rough: 'rough (4/4, 6/4)',
  surfaced: 'surfaced',
  dressed: 'dressed lumber',
  offcut: 'offcut',
  reclaimed: 'reclaimed',
};
export const PER_NAMES: Record<PricePer, string> = {
  board: 'board',
  boardFoot: 'board foot',
  metre: 'metre',
  cubicMetre: 'cubic metre',
};
const PRICES_PER: Record<LengthSystem, readonly PricePer[]> = {
  inch: ['boardFoot', 'board'],
  mm: ['cubicMetre', 'metre', 'board'],
};
/** What wood is priced by where a shop measures so; also what a price is by already. */
export const pricesPer = (system: LengthSystem, also?: PricePer): readonly PricePer[] =>
  also && !PRICES_PER[system].includes(also) ? [...PRICES_PER[system], also] : PRICES_PER[system];
export const FAULT_NAMES: Record<FaultKind, string> = {
  knot: 'Knot',
  split: 'Split',
  check: 'Check',
  chip: 'Chip',
  wane: 'Wane',
  sapwood: 'Sapwood',
  pith: 'Pith',
  nail: 'Nail',
  stain: 'Stain',
};
export const GRAIN_NAMES: Record<NonNullable<BoardStock['grain']>, string> = {
  flat: 'flat-sawn',
  rift: 'rift-sawn',
  quarter: 'quartersawn',
};
