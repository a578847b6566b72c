import { INCH } from '../units';
import { findSpecies, isSolid, materialOf } from '../wood';
import { DRESSED_SIZES } from './lumber';

/** A cross-section that is sold, mm, under its name where it has one. */
export interface SoldSection {
  name?: string;
  thicknessMm: number;
  widthMm: number;
}

type System = 'inch' | 'mm';

/** How one kind of stock is sold. */
export interface StockKindFacts {
  name: string;
  /** What it is and where its sizes come from. */
  says: string;
  /** Its faces and edges as it comes. */
  sold: 'rough' | 'surfaced' | 'dressed';
  /** Whether a wood is sold so. */
  sells: (species: string) => boolean;
  sections: Record<System, readonly SoldSection[]>;
  /** Lengths, mm. */
  lengths: Record<System, readonly number[]>;
  /** How its board feet are counted: by a hardwood tally, by its nominal name, or by its real volume. */
  tally: 'hardwood' | 'nominal' | 'volume';
}

const feet = (...list: number[]): number[] => list.map((ft) => ft * 12 * INCH);
const grid = (thicknesses: readonly number[], widths: readonly number[]): SoldSection[] =>
  thicknesses.flatMap((thicknessMm) => widths.map((widthMm) => ({ thicknessMm, widthMm })));

/** Rough thicknesses hardwood is sold in, in quarters of an inch: 4/4 to 16/4 (NHLA standard thicknesses, from memory). */
const QUARTERS = [4, 5, 6, 8, 10, 12, 16];
/** Widths a yard can usually be asked for; random widths are sold, so these are wishes (common practice). */
const WIDTHS_IN = [4, 6, 8, 10];

/** The kinds of stock a yard sells, the usual one of a wood before the others. A new one is one entry here. */
export const STOCK_KINDS = {
  construction: {
    name: 'Construction lumber, planed',
    says: 'Softwood sold by a nominal name, smaller than it says (PS 20, unverified); in a metric yard by its real size (common practice).',
    sold: 'dressed',
    sells: (species) => isSolid(species) && findSpecies(species)?.group === 'softwood',
    sections: {
      inch: DRESSED_SIZES,
      mm: [
        ...grid([22], [95, 120, 145]),
        ...grid([45], [95, 120, 145, 170, 195, 220]),
        ...grid([70], [120, 145, 170, 195]),
      ],
    },
    lengths: { inch: feet(8, 10, 12, 14, 16), mm: [2400, 3000, 3600, 4200, 4800, 5400] },
    tally: 'nominal',
  },
  rough: {
    name: 'Rough boards',
    says: 'Sawn and dried, sold by the quarter inch or by the millimetre in random widths (NHLA, unverified; common practice).',
    sold: 'rough',
    sells: isSolid,
    sections: {
      inch: QUARTERS.flatMap((q) =>
        WIDTHS_IN.map((w) => ({ name: `${q}/4`, thicknessMm: (q / 4) * INCH, widthMm: w * INCH })),
      ),
      mm: grid([27, 34, 41, 52, 65, 80, 100], [100, 150, 200, 250]),
    },
    lengths: { inch: feet(4, 6, 8, 10, 12, 14, 16), mm: [1000, 1500, 2000, 2500, 3000, 4000] },
    tally: 'hardwood',
  },
  veneerLumber: {
    name: 'Laminated veneer lumber',
    says: 'Beams of veneer, in the widths of joists (common practice).',
    sold: 'surfaced',
    sells: (species) => species === 'veneer_lumber',
    sections: {
      inch: grid([1.75 * INCH], [9.5 * INCH, 11.875 * INCH, 14 * INCH]),
      mm: grid([39, 45], [200, 240, 300]),
    },
    lengths: { inch: feet(8, 12, 16, 20), mm: [3000, 4000, 5000, 6000] },
    tally: 'volume',
  },
  sheet: {
    name: 'Sheets',
    says: 'Whole sheets, by their thickness (common practice).',
    sold: 'surfaced',
    sells: (species) =>
      materialOf(species).sheet && materialOf(species).woodGlue && species !== 'veneer_lumber',
    sections: {
      inch: grid(
        [0.25, 0.5, 0.75].map((t) => t * INCH),
        [48 * INCH],
      ),
      mm: grid([6.5, 9, 12, 15, 18, 21, 24], [1250]),
    },
    lengths: { inch: feet(8), mm: [2500] },
    tally: 'volume',
  },
} as const satisfies Record<string, StockKindFacts>;

export type StockKind = keyof typeof STOCK_KINDS;
export const STOCK_KIND_NAMES = Object.keys(STOCK_KINDS) as StockKind[];

/** Facts of a kind, whatever its own fields. */
export const stockKind = (kind: StockKind): StockKindFacts => STOCK_KINDS[kind];

/** The kinds a wood is sold in, the usual one first. */
export const soldIn = (species: string): StockKind[] =>
  STOCK_KIND_NAMES.filter((kind) => stockKind(kind).sells(species));
