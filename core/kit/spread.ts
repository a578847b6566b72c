import type { Length } from '../units';

/** Where a spread or limit comes from. */
export type Basis = 'common practice' | "this shop's log" | "the machine's manual";

/** How far a setting or a removal may be off: nine times in ten within `likely`, never beyond `worst`. */
export interface Spread {
  likely: Length;
  worst: Length;
  basis: Basis;
}

/** How far a kerf that nobody measured may be off what stands on its blade: set, runout and wear. From memory of common practice. */
export const KERF_OFF: Spread = { likely: { mm: 0.1 }, worst: { mm: 0.25 }, basis: 'common practice' };
