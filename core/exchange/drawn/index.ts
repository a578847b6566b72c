import { areaOf, boxOf, placed, reversed } from '../../curve';
import { cornersOf, MOST_CORNERS, type OutlineCorner } from '../../steps';
import { type Phrase, Refusal } from '../../document';
import { counted, falling } from '../../units';
import { readDxf } from './dxf';
import { closedLoops } from './lines';
import { readSvg } from './svg';

/** Files that outlines are read from, by their ending. */
export const OUTLINE_FILES = { dxf: readDxf, svg: readSvg } as const;
/** The largest file that is read, in letters. */
const MOST_LETTERS = 4_000_000;

/** An outline that a file draws, its low corner at the piece’s. */
export interface OutlineRead {
  corners: OutlineCorner[];
  /** How long and wide it is, mm. */
  length: number;
  width: number;
  /** mm a unit that the file names; undefined where it names none and the one asked for was taken. */
  unitMm?: number;
  /** What else lies in the file and was left out, in words. */
  leftOut: string[];
}

/**
 * The outline that a file draws: the largest closed line of it, in lines and arcs. Files of DXF and SVG; lengths in the unit the file names, or
 * in one of so many mm. Refuses, in words for the reader: another kind of file, one that cannot be read or names no unit where none is
 * given, one without a closed line, and one with too many corners.
 */
export function readOutline(name: string, text: string, unitMm?: number): OutlineRead {
  const ending = /\.([a-z]+)$/i.exec(name)?.[1].toLowerCase() ?? '';
  if (!(ending in OUTLINE_FILES))
    throw new Refusal(['An outline is read from a file that ends in .dxf or .svg; this one is ', `${name}.`]);
  if (text.length > MOST_LETTERS)
    throw new Refusal([`This file has ${text.length} letters; up to ${MOST_LETTERS} are read.`]);
  const read = OUTLINE_FILES[ending as keyof typeof OUTLINE_FILES];
  let drawn: ReturnType<typeof readDxf>;
  try {
    drawn = read(text, unitMm);
  } catch {
    throw new Refusal([`${name} could not be read: it is no ${ending.toUpperCase()} file, or a broken one.`]);
  }
  if (drawn.unitMm === undefined && unitMm === undefined)
    throw new NoUnit([`${name} does not say what its numbers measure. Choose a unit.`]);
  const { loops, open } = closedLoops(drawn.lines);
  const unread = drawn.unread.length > 0 ? `; not read: ${drawn.unread.join(', ')}` : '';
  if (loops.length === 0)
    throw new Refusal([
      `There is no closed line in ${name}: ${counted(drawn.lines.length, 'line')}, ${open} of them open${unread}.`,
    ]);
  const sorted = loops.toSorted(falling((a) => Math.abs(areaOf([a]))));
  const [largest, ...others] = sorted;
  const { x0, y0, x1, y1 } = boxOf([largest]);
  const [own] = placed([areaOf([largest]) < 0 ? reversed(largest) : largest], { x: -x0, y: -y0 });
  const corners = cornersOf(own);
  if (corners.length > MOST_CORNERS)
    throw new Refusal([
      `This outline has ${corners.length} corners; up to ${MOST_CORNERS} are read. Draw it with fewer, larger arcs.`,
    ]);
  return {
    corners,
    length: x1 - x0,
    width: y1 - y0,
    ...(drawn.unitMm === undefined ? {} : { unitMm: drawn.unitMm }),
    leftOut: [
      ...(others.length > 0
        ? [`${counted(others.length, 'smaller closed line')}: openings are cut in Bore and rout`]
        : []),
      ...(open > 0 ? [counted(open, 'open line')] : []),
      ...drawn.unread,
    ],
  };
}

/** A file that does not say its unit: the reader is asked for it. */
export class NoUnit extends Refusal {
  constructor(phrase: Phrase[]) {
    super(phrase);
    this.name = 'NoUnit';
  }
}
