import { parseLength } from '../units';
import data from './lumber.data.json';

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
