import type { BoardStock, Phrase } from '../document';
import { isSolid } from '../wood/species';

/** A board is seldom wider, mm: 24 in (common practice). */
const WIDEST_MM = 609.6;
/** Nor thicker: 16/4 (common practice). */
const THICKEST_MM = 101.6;

/** What looks like a slip in a board's size, with the number, and whether length and width may have changed places. */
export interface OddSize {
  words: Phrase[];
  swapped: boolean;
}

/**
 * Why a size is asked about before it is believed: wider than long, wider than 24 in, thicker than wide or than 16/4.
 * Undefined where nothing is odd. Only solid wood: sheets are as wide as they are.
 */
export function oddSize({
  species,
  length,
  width,
  thickness,
}: Pick<BoardStock, 'species' | 'length' | 'width' | 'thickness'>): OddSize | undefined {
  if (!isSolid(species)) return undefined;
  if (width.mm > length.mm) return { words: [width, ' wide and only ', length, ' long'], swapped: true };
  if (width.mm > WIDEST_MM)
    return { words: [width, ' wide: boards are seldom wider than ', { mm: WIDEST_MM }], swapped: false };
  if (thickness.mm > width.mm)
    return { words: [thickness, ' thick and only ', width, ' wide'], swapped: false };
  if (thickness.mm > THICKEST_MM)
    return {
      words: [thickness, ' thick: boards are seldom thicker than ', { mm: THICKEST_MM }],
      swapped: false,
    };
  return undefined;
}
