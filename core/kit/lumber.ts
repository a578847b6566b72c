import { parseLength } from '../units';
import data from './lumber.data.json';

/** Real size of dry, dressed construction lumber, mm. */
export interface DressedSize {
  thicknessMm: number;
  widthMm: number;
}

/**
 * Real size of construction lumber sold by a nominal name such as `2x4` (American Softwood Lumber Standard PS 20,
 * from memory). Undefined for a name the standard's table does not have.
 */
export function dressedSize(name: string): DressedSize | undefined {
  const row = data.byName.find(
    (entry) => entry.name === name.replaceAll(' ', '').toLowerCase().replace('×', 'x'),
  );
  const sides = row?.dry_in.split('x').map((side) => parseLength(side, 'inch'));
  if (!sides || sides.length !== 2 || !sides[0].ok || !sides[1].ok) return undefined;
  return { thicknessMm: sides[0].length.mm, widthMm: sides[1].length.mm };
}
