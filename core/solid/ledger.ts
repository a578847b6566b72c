import { sumOf } from '../units';
import { blankVolumes, type Blank } from './blank';

/** What wood is lost to. */
export type Cause = 'kerf' | 'offcut' | 'shaving' | 'dust' | 'chips';
export const CAUSES: readonly Cause[] = ['kerf', 'offcut', 'shaving', 'dust', 'chips'];

/** Volumes in mm3, by cause and species. */
export type Ledger = Record<Cause, Record<string, number>>;

/** Nothing lost yet. */
export const emptyLedger = (): Ledger => ({ kerf: {}, offcut: {}, shaving: {}, dust: {}, chips: {} });

/** Books all of a blank under a cause; gives a new ledger. */
export function book(ledger: Ledger, cause: Cause, lost: Blank): Ledger {
  if (lost.cells.length === 0) return ledger;
  return bookVolumes(ledger, cause, blankVolumes(lost));
}

/** Books volumes by species, mm3, under a cause; gives a new ledger. */
export function bookVolumes(ledger: Ledger, cause: Cause, lost: Record<string, number>): Ledger {
  const bySpecies = { ...ledger[cause] };
  for (const [species, volume] of Object.entries(lost))
    bySpecies[species] = (bySpecies[species] ?? 0) + volume;
  return { ...ledger, [cause]: bySpecies };
}

/** Two ledgers as one. */
export function mergeLedgers(a: Ledger, b: Ledger): Ledger {
  const out = emptyLedger();
  for (const cause of CAUSES)
    for (const source of [a, b])
      for (const [species, volume] of Object.entries(source[cause]))
        out[cause][species] = (out[cause][species] ?? 0) + volume;
  return out;
}

/** All woods of one cause, mm3. */
export const lostTo = (ledger: Ledger, cause: Cause): number => sumOf(Object.values(ledger[cause]));
