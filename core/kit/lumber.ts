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
