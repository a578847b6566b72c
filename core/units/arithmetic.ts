import { countNeeded, countObtainable } from './count';

/*
 * The shop arithmetic of strips, slices, rows and sections. All sizes in one unit of the caller's choice; counts are
 * decided with the tolerance of core/units/count. Formulas and worked values are common practice.
 */

/** Strips of width s that a board of width w yields with kerf k; with a remnant kept in hand at the fence if given. */
export const stripsFromBoard = (w: number, s: number, k: number, remnant?: number): number =>
  Math.max(0, countObtainable((remnant === undefined ? w + k : w - remnant) / (s + k)));

/** Board width needed for m strips of width s: m s + (m - 1) k + both rough edges. */
export const boardWidthForStrips = (m: number, s: number, k: number, edge: number): number =>
  m * s + (m - 1) * k + 2 * edge;

/** Blank length for n slices of thickness t: head trim, its kerf, n slices each with its kerf, and the remnant held. */
export const blankLengthForSlices = (
  n: number,
  t: number,
  k: number,
  { head, remnant }: { head: number; remnant: number },
): number => head + k + n * (t + k) + remnant;

/** Slices needed for a finished length with its trims, when each slice gives one row. Rounds up. */
export const slicesNeeded = (finished: number, trims: number, row: number): number =>
  countNeeded((finished + trims) / row);

/**
 * Rows from a blank of length l after squaring one end. With a clean far end the last row needs no cut behind it;
 * otherwise there is one kerf less room. `squaring` includes its own kerf. Rounds down.
 */
export const rowsFromBlank = (
  l: number,
  squaring: number,
  row: number,
  { k, farEndClean }: { k: number; farEndClean: boolean },
): number => Math.max(0, countObtainable((l - squaring + (farEndClean ? k : 0)) / (row + k)));

/** Width of each of n sections that join to a panel of width w, trimmed on both edges, losing e from each jointed edge. */
export const sectionWidth = (w: number, trim: number, sections: number, edgeLoss: number): number =>
  (w + 2 * trim + (sections - 1) * 2 * edgeLoss) / sections;

/** Least number of sections so that none is wider than the limit. */
export function sectionsNeeded(w: number, trim: number, edgeLoss: number, limit: number): number {
  if (limit <= 2 * edgeLoss) return Number.POSITIVE_INFINITY;
  return Math.max(1, countNeeded((w + 2 * trim - 2 * edgeLoss) / (limit - 2 * edgeLoss)));
}

/**
 * Width at which a board ends that gives strips of width s to others and receives some: w - given (s + k)
 * - the kerf of the cut that splits it + received s. A board that gives none and is not split keeps w.
 */
export const stripLedgerWidth = (
  w: number,
  { s, k, given, received }: { s: number; k: number; given: number; received: number },
): number => w - given * (s + k) - k + received * s;

/** Shift of a brick pattern: half the pitch of a brick and its mortar strip. */
export const brickShift = (brick: number, mortar: number): number => (brick + mortar) / 2;

/** Width left when a shifted blank is squared off: the blank less half a pitch. */
export const squaredBrickWidth = (blank: number, brick: number, mortar: number): number =>
  blank - brickShift(brick, mortar);

/** Thickness of each leaf resawn from thickness t, less what the off-centre error takes. */
export const resawnLeaf = (t: number, k: number, offCentre = 0): number => (t - k) / 2 - offCentre;

/** Passes to take off a total at a given bite; the last one is lighter. Rounds up. */
export const passesNeeded = (total: number, bite: number): number => countNeeded(total / bite);

/** Board feet of a piece, all sizes in inches: L x W x T / 144 (definition of the board foot). */
export const boardFeet = (l: number, w: number, t: number): number => (l * w * t) / 144;
