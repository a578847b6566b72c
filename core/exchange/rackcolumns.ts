import { type BoardStock, type Fault, GRAIN_NAMES, PER_NAMES, SOLD_NAMES, type Warp } from '../document';
import { fromMinor, INCH, type Length, type LengthSystem } from '../units';
import { speciesName } from '../wood';

/** What a table is written for: lengths in the shop's system. */
type Writer = (board: BoardStock, system: LengthSystem) => string;

/** One column of the table: its title, the words that heads of others' tables are recognised by, and what it says of a board. */
interface Column {
  title: string;
  words: readonly string[];
  write: Writer;
}

const round = (value: number, digits: number) => String(Number(value.toFixed(digits)));
/** A size in the shop's unit, to a thousandth of a millimetre's thousandth: read again, it is the same. */
const sizeText = (mm: number, system: LengthSystem) =>
  system === 'mm' ? `${round(mm, 6)} mm` : `${round(mm / INCH, 8)} in`;
/** As it was typed, where that was in this system; a bare number gets its unit. */
export function lengthCell({ mm, typed }: Length, system: LengthSystem): string {
  if (typed?.system !== system) return sizeText(mm, system);
  return /[a-z"'′″]/i.test(typed.text) ? typed.text : `${typed.text} ${system === 'mm' ? 'mm' : 'in'}`;
}
const optional = (length: Length | undefined, system: LengthSystem) =>
  length ? lengthCell(length, system) : '';
const warped =
  (name: keyof Warp): Writer =>
  ({ warp }, system) =>
    optional(warp?.[name], system);

/** Between the faults of one board, in all three of their columns. */
export const FAULT_GAP = '; ';
export const FACES: Record<Fault['face'], string> = { up: 'upper', down: 'under', both: 'both faces' };
const pair = (a: number, b: number, system: LengthSystem) =>
  system === 'mm' ? `${round(a, 6)} x ${round(b, 6)} mm` : `${round(a / INCH, 8)} x ${round(b / INCH, 8)} in`;
const ofFaults =
  (text: (fault: Fault, system: LengthSystem) => string): Writer =>
  ({ faults = [] }, system) =>
    faults.map((fault) => text(fault, system)).join(FAULT_GAP);

/** A spreadsheet would run a cell that begins like a formula: such a cell gets an apostrophe in front. */
const guarded = (text: string): string => (/^'*[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** Every column, in the order in which it is written. */
const COLUMN = {
  label: {
    title: 'Number on its end',
    words: ['number', 'no', 'nr', 'board', 'label', 'id', 'tag'],
    write: ({ label }) => guarded(label),
  },
  species: {
    title: 'Wood',
    words: ['wood', 'species', 'timber', 'kind'],
    write: ({ species }) => speciesName(species),
  },
  sold: {
    title: 'How it is sold',
    words: ['sold', 'surface', 'sold as', 'finish'],
    write: ({ sold }) => (sold ? SOLD_NAMES[sold] : ''),
  },
  grade: {
    title: 'Grade',
    words: ['grade', 'quality', 'sorting'],
    write: ({ grade }) => guarded(grade ?? ''),
  },
  length: {
    title: 'Length',
    words: ['length', 'len', 'long', 'l'],
    write: ({ length }, system) => lengthCell(length, system),
  },
  width: {
    title: 'Width',
    words: ['width', 'wide', 'w'],
    write: ({ width }, system) => lengthCell(width, system),
  },
  thickness: {
    title: 'Thickness',
    words: ['thickness', 'thick', 't'],
    write: ({ thickness }, system) => lengthCell(thickness, system),
  },
  price: {
    title: 'Price',
    words: ['price', 'cost', 'value'],
    write: ({ price }) => (price ? String(fromMinor(price.minor, price.currency)) : ''),
  },
  currency: {
    title: 'Currency',
    words: ['currency', 'cur'],
    write: ({ price }) => price?.currency ?? '',
  },
  per: {
    title: 'Price is per',
    words: ['per', 'price per', 'unit'],
    write: ({ price }) => (price ? PER_NAMES[price.per] : ''),
  },
  moisture: {
    title: 'Moisture, %',
    words: ['moisture', 'mc', 'moisture %'],
    write: ({ moisturePct }) => (moisturePct === undefined ? '' : String(moisturePct)),
  },
  arrived: {
    title: 'Arrived',
    words: ['arrived', 'date', 'arrival', 'bought'],
    write: ({ arrived }) => arrived ?? '',
  },
  grain: {
    title: 'Grain as cut',
    words: ['grain as cut', 'grain', 'cut'],
    write: ({ grain }) => (grain ? GRAIN_NAMES[grain] : ''),
  },
  log: {
    title: 'Log or bundle',
    words: ['log', 'bundle', 'lot'],
    write: ({ log }) => guarded(log ?? ''),
  },
  pith: { title: 'Pith lies', words: ['pith lies'], write: ({ pith }) => pith ?? '' },
  ringRadius: {
    title: 'Radius of the rings',
    words: ['radius of the rings', 'ring radius', 'radius'],
    write: ({ ringRadius }, system) => optional(ringRadius, system),
  },
  fibre: {
    title: 'Grain direction',
    words: ['grain direction', 'direction', 'fibre'],
    write: ({ fibre }) => fibre ?? '',
  },
  goodFace: {
    title: 'Good face',
    words: ['good face'],
    write: ({ goodFace }) => (goodFace ? FACES[goodFace] : ''),
  },
  sapEdge: {
    title: 'Sapwood side',
    words: ['sapwood side', 'sapwood'],
    write: ({ sapEdge }) => sapEdge ?? '',
  },
  colour: { title: 'Colour', words: ['colour', 'color'], write: ({ colour }) => colour ?? '' },
  cup: { title: 'Cup', words: ['cup'], write: warped('cup') },
  bow: { title: 'Bow', words: ['bow'], write: warped('bow') },
  crook: { title: 'Crook', words: ['crook'], write: warped('crook') },
  wind: { title: 'Twist (wind)', words: ['twist wind', 'twist', 'wind'], write: warped('wind') },
  faults: {
    title: 'Faults',
    words: ['faults', 'defects'],
    write: ofFaults(({ kind, face }) => `${kind} ${FACES[face]}`),
  },
  faultPlaces: {
    title: 'Fault places',
    words: ['fault places'],
    write: ofFaults(({ x, y }, system) => pair(x, y, system)),
  },
  faultSizes: {
    title: 'Fault sizes',
    words: ['fault sizes'],
    write: ofFaults(({ length, width }, system) => pair(length, width, system)),
  },
} satisfies Record<string, Column>;

/** What a column of the table can hold. */
export type ColumnName = keyof typeof COLUMN;
export const COLUMNS = Object.keys(COLUMN) as ColumnName[];
const each = <T>(of: (column: Column) => T): Record<ColumnName, T> =>
  Object.fromEntries(COLUMNS.map((name) => [name, of(COLUMN[name])])) as Record<ColumnName, T>;
export const COLUMN_TITLES = each(({ title }) => title);
/** Words that heads of columns are recognised by. */
export const COLUMN_WORDS = each(({ words }) => words);

/** Which columns each field of a board travels in. A field that is added to boards does not compile until it has one. */
export const TRAVELS: Record<Exclude<keyof BoardStock, 'id' | 'taken'>, readonly ColumnName[]> = {
  label: ['label'],
  species: ['species'],
  length: ['length'],
  width: ['width'],
  thickness: ['thickness'],
  log: ['log'],
  sold: ['sold'],
  grade: ['grade'],
  grain: ['grain'],
  pith: ['pith'],
  ringRadius: ['ringRadius'],
  fibre: ['fibre'],
  goodFace: ['goodFace'],
  sapEdge: ['sapEdge'],
  colour: ['colour'],
  price: ['price', 'currency', 'per'],
  moisturePct: ['moisture'],
  arrived: ['arrived'],
  warp: ['cup', 'bow', 'crook', 'wind'],
  faults: ['faults', 'faultPlaces', 'faultSizes'],
};

/** A board as a row of cells, in the order of the columns. */
export const boardRow = (board: BoardStock, system: LengthSystem): string[] =>
  COLUMNS.map((name) => COLUMN[name].write(board, system));
