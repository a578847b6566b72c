import { FINISH_LIST } from './finishes';
import { GRITS } from './ladders';

/** What is known of one kind of hardware or consumable. */
export interface SupplyKindFacts {
  name: string;
  /** What it is counted in. */
  unit: 'piece' | 'sheet' | 'ml' | 'm';
  /** Sizes as the trade names them, where Junta asks for one; any words else. */
  sizes?: readonly string[];
}

/** The kinds of hardware and consumables. A new one is one entry here. */
export const SUPPLY_KINDS = {
  biscuit: { name: 'Biscuits', unit: 'piece', sizes: ['56 x 23', '47 x 15'] },
  dowel: { name: 'Dowels', unit: 'piece', sizes: ['10 x 40', '8 x 30', '6 x 30'] },
  looseTenon: { name: 'Loose tenons', unit: 'piece', sizes: ['8 x 40', '5 x 30'] },
  spline: { name: 'Splines', unit: 'm', sizes: ['6 x 16'] },
  screw: { name: 'Screws', unit: 'piece' },
  bolt: { name: 'Bolts', unit: 'piece' },
  insert: { name: 'Threaded inserts', unit: 'piece' },
  handle: { name: 'Handles', unit: 'piece' },
  foot: { name: 'Feet', unit: 'piece' },
  bracket: { name: 'Brackets', unit: 'piece' },
  abrasive: { name: 'Abrasive sheets', unit: 'sheet', sizes: GRITS.map((grit) => `P${grit}`) },
  finish: { name: 'Finish', unit: 'ml', sizes: FINISH_LIST.map(([, { name }]) => name) },
  tape: { name: 'Tape', unit: 'm' },
} as const satisfies Record<string, SupplyKindFacts>;

export type SupplyKind = keyof typeof SUPPLY_KINDS;
/** What Junta knows of a kind of hardware or consumable. */
export const supplyFacts = (kind: SupplyKind): SupplyKindFacts => SUPPLY_KINDS[kind];

/** Hardware or a consumable on the shelf. */
export interface Supply {
  id: string;
  name: string;
  kind: SupplyKind;
  /** As the trade names it; any if missing. */
  size?: string;
  /** In the unit of its kind. */
  onHand: number;
  /** Of one unit, in minor units of the currency. */
  priceMinor?: number;
  currency?: string;
}
