import type { BoardStock, FaultKind, PricePer, SoldAs } from '../../../core/document';

/* The trade's words for what the rack holds. */
export const SOLD_NAMES: Record<SoldAs, string> = {
  rough: 'rough quarters',
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
