import { axisOf, type DimensionName } from '../document';
import { type Blank, extents } from '../solid';

type Pieces = readonly { blank: Blank }[];

const sizesOf = (pieces: Pieces, dimension: DimensionName): number[] =>
  pieces.map(({ blank }) => extents(blank)[axisOf(dimension)]);

/** The least size of pieces in a dimension, mm; Infinity without any. */
export const leastSize = (pieces: Pieces, dimension: DimensionName): number =>
  Math.min(...sizesOf(pieces, dimension));

/** The greatest size of pieces in a dimension, mm; 0 without any. */
export const greatestSize = (pieces: Pieces, dimension: DimensionName): number =>
  Math.max(0, ...sizesOf(pieces, dimension));
