import { INCH, parseLength } from '../units';
import data from './lumber.data.json';

/** Rounded factory corners are ripped off dressed construction lumber by this, each edge (common practice). */
export const FACTORY_CORNER_MM = INCH / 8;

/** The last saw marks or the dust of years that come off each face of a board that was planed before (common practice). */
export const SURFACED_FACE_MM = INCH / 64;

/** Real size of dry, dressed construction lumber, mm. */
export interface DressedSize {
  thicknessMm: number;
  widthMm: number;
}

const sizeOf = (dryIn: string): DressedSize | undefined => {
  const sides = dryIn.split('x').map((side) => parseLength(side, 'inch'));
  if (sides.length !== 2 || !sides[0].ok || !sides[1].ok) return undefined;
  return { thicknessMm: sides[0].length.mm, widthMm: sides[1].length.mm };
};

/** All names of the table with their real sizes. */
export const DRESSED_SIZES: readonly (DressedSize & { name: string })[] = data.byName.flatMap((entry) => {
  const size = sizeOf(entry.dry_in);
  return size ? [{ name: entry.name, ...size }] : [];
});

/**
 * Real size of construction lumber sold by a nominal name such as `2x4` (American Softwood Lumber Standard PS 20,
 * from memory). Undefined for a name the standard's table does not have.
 */
export function dressedSize(name: string): DressedSize | undefined {
  const plain = name.replaceAll(' ', '').toLowerCase().replace('×', 'x');
  const row = DRESSED_SIZES.find((entry) => entry.name === plain);
  return row && { thicknessMm: row.thicknessMm, widthMm: row.widthMm };
}

/** A size lumber is sold by, with its real thickness and width, mm, and how they came to it. */
export interface SoldSize extends DressedSize {
  /** A nominal name, real sizes by the standard; or real sizes as they stand, usual where lumber is sold in mm. */
  by: 'nominal' | 'real';
}

const PAIR = /^(\d+(?:[.,]\d+)?)\s*(?:mm)?\s*[x×*]\s*(\d+(?:[.,]\d+)?)\s*(mm)?$/i;
/** No nominal name has a side of more than 16: what is larger is said in mm. */
const LEAST_MM_SIDE = 17;

/**
 * Reads a cross-section as lumber is sold: `2x8` by its nominal name (PS 20, from memory), `45 x 95` as the real size of
 * planed lumber in mm (common practice). The lesser side is the thickness. Undefined for anything else.
 */
export function soldSize(text: string): SoldSize | undefined {
  const nominal = dressedSize(text);
  if (nominal) return { ...nominal, by: 'nominal' };
  const pair = PAIR.exec(text.trim());
  if (!pair) return undefined;
  const sides = [pair[1], pair[2]].map((side) => Number(side.replace(',', '.')));
  const [thicknessMm, widthMm] = [Math.min(...sides), Math.max(...sides)];
  if (!(thicknessMm > 0) || (widthMm < LEAST_MM_SIDE && !pair[3])) return undefined;
  return { thicknessMm, widthMm, by: 'real' };
}

/** What wood is sold as: a cross-section, or a rough thickness in quarters of an inch with whatever width there is. */
export interface NamedStock {
  thicknessMm: number;
  widthMm?: number;
  by: SoldSize['by'] | 'quarters';
}

const QUARTERS = /^(\d{1,2})\s*\/\s*4$/;
/** From 3/4 to 16/4; what is thicker is a timber and not sold so. */
const [LEAST_QUARTERS, MOST_QUARTERS] = [3, 16];

/**
 * Reads what wood is sold as: `2x8` and `45 x 95` as `soldSize` does, `8/4` as so many quarters of an inch, rough (NHLA
 * names, from memory). Undefined for anything else.
 */
export function namedStock(text: string): NamedStock | undefined {
  const quarters = Number(QUARTERS.exec(text.trim())?.[1]);
  if (quarters >= LEAST_QUARTERS && quarters <= MOST_QUARTERS)
    return { thicknessMm: (quarters / 4) * INCH, by: 'quarters' };
  return soldSize(text);
}
