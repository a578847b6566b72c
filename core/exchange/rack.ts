import Papa from 'papaparse';
import type { Format } from './format';
import {
  type BoardStock,
  FAULT_KINDS,
  type Fault,
  type GrainCut,
  GRAIN_NAMES,
  MOST_FAULTS,
  MOST_GRADE,
  PER_NAMES,
  type Phrase,
  type Price,
  PRICE_PER,
  type PricePer,
  SOLD_AS,
  SOLD_NAMES,
  type SoldAs,
} from '../document';
import { faultProblem, nextNumber, oddSize } from '../stock';
import { counted, type Length, type LengthSystem, parseLength, plainText, toMinor } from '../units';
import { speciesName, woodsByName } from '../wood';
import type { CsvTable } from './csv';
import {
  boardRow,
  COLUMN_TITLES,
  COLUMN_WORDS,
  type ColumnName,
  COLUMNS,
  FACES,
  FAULT_GAP,
} from './rackcolumns';

export { decodeText, readCsv, type CsvTable } from './csv';
export { COLUMN_TITLES, type ColumnName, COLUMNS } from './rackcolumns';

/** Which column probably holds what; -1 where none does. */
export function guessColumns(heads: readonly string[]): Record<ColumnName, number> {
  const plain = heads.map((head) =>
    head
      .toLowerCase()
      .replace(/[^a-z% ]/g, ' ')
      .replace(/\s+/g, ' ')
      .trim(),
  );
  const taken = new Set<number>();
  const find = (name: ColumnName, exact: boolean): number => {
    for (const word of COLUMN_WORDS[name]) {
      const at = plain.findIndex(
        (head, i) =>
          !taken.has(i) && (exact ? head === word : word.length > 2 && head.split(' ').includes(word)),
      );
      if (at >= 0) {
        taken.add(at);
        return at;
      }
    }
    return -1;
  };
  // A head that is a column's own goes to it, before another takes it for a word in it.
  const titled = COLUMNS.map((name) => {
    const at = heads.findIndex((head, i) => !taken.has(i) && head === COLUMN_TITLES[name]);
    if (at >= 0) taken.add(at);
    return at;
  });
  const exact = COLUMNS.map((name, i) => (titled[i] >= 0 ? titled[i] : find(name, true)));
  return Object.fromEntries(
    COLUMNS.map((name, i) => [name, exact[i] >= 0 ? exact[i] : find(name, false)]),
  ) as Record<ColumnName, number>;
}

/** What the matching step settles: which column is what, the system of bare numbers, and the currency where none is named. */
export interface CsvMatching {
  columns: Record<ColumnName, number>;
  system: LengthSystem;
  currency?: string;
  per: PricePer;
  /** Which wood is meant by a name that may mean several, by the name in small letters. */
  woods?: Readonly<Record<string, string>>;
  /** Sizes that look like a slip are taken as they are. */
  takeOdd?: boolean;
}

/** A row that is no board, with its line in the file and every reason. */
export interface RowError {
  line: number;
  reasons: string[];
}

/** A name in the table that may mean several woods, and how many rows have it. */
export interface WoodAsked {
  name: string;
  woods: string[];
  rows: number;
}

/** What a table was read as. `odd` rows are not among the boards unless they are taken as they are. */
export interface CsvRead {
  boards: Draft[];
  errors: RowError[];
  asked: WoodAsked[];
  odd: { line: number; words: Phrase[] }[];
  /** How many boards were given a number because the table has no column for it. */
  numbered: number;
}

type Draft = Omit<BoardStock, 'id'>;

const decimal = (text: string, comma: boolean): number =>
  Number((comma ? text.replaceAll('.', '').replace(',', '.') : text.replaceAll(',', '')).trim());

/**
 * Boards from the rows of a table, and every row that is none with all its reasons. A number that is on the rack or
 * in the table already is an error of its row; where the table has no numbers, the next free ones are given. A name that
 * may mean several woods, and a size that looks like a slip, are asked about: nothing is guessed silently.
 */
export function boardsFromCsv(table: CsvTable, matching: CsvMatching, taken: ReadonlySet<string>): CsvRead {
  const out: CsvRead = { boards: [], errors: [], asked: [], odd: [], numbered: 0 };
  const seen = new Set(taken);
  // A table without numbers gets those that follow the rack's.
  const numbers = [...taken];
  const isNumbered = matching.columns.label >= 0;
  table.rows.forEach((row, i) => {
    const line = i + 2;
    const reasons: string[] = [];
    const ask = (name: string, woods: string[]) => {
      const known = out.asked.find((each) => each.name === name);
      if (known) known.rows += 1;
      else out.asked.push({ name, woods, rows: 1 });
    };
    const label = isNumbered ? undefined : nextNumber(numbers);
    const board = readRow(row, { table, matching, seen, reasons, ask, label });
    if (reasons.length > 0 || !board) {
      out.errors.push({ line, reasons });
      return;
    }
    const odd = oddSize(board);
    if (odd) out.odd.push({ line, words: odd.words });
    if (odd && !matching.takeOdd) return;
    seen.add(board.label);
    if (label) {
      numbers.push(label);
      out.numbered += 1;
    }
    out.boards.push(board);
  });
  return out;
}

interface Reading {
  table: CsvTable;
  matching: CsvMatching;
  seen: ReadonlySet<string>;
  reasons: string[];
  ask: (name: string, woods: string[]) => void;
  /** The number it gets where the table has none. */
  label: string | undefined;
}

/** A cell that was kept from being run as a formula, as it was. */
const unguarded = (text: string): string => (/^'+[=+\-@\t\r]/.test(text) ? text.slice(1) : text);

function readRow(row: readonly string[], reading: Reading): Draft | undefined {
  const { table, matching, seen, reasons, ask } = reading;
  const cell = (name: ColumnName) =>
    matching.columns[name] < 0 ? '' : (row[matching.columns[name]] ?? '').trim();
  const bad = (reason: string): undefined => void reasons.push(reason);
  const size = (name: ColumnName, needed: boolean): Length | undefined => {
    const text = table.decimalComma ? cell(name).replace(/(\d),(\d)/, '$1.$2') : cell(name);
    if (!text) return needed ? bad(`${COLUMN_TITLES[name].toLowerCase()} is missing`) : undefined;
    const parsed = parseLength(text, matching.system, needed ? {} : { minMm: 0 });
    return parsed.ok
      ? parsed.length
      : bad(`${COLUMN_TITLES[name].toLowerCase()} “${cell(name)}”: ${parsed.reason}`);
  };
  const pick = <T extends string>(
    name: ColumnName,
    values: readonly T[],
    names: Partial<Record<T, string>> = {},
  ): T | undefined => {
    const text = cell(name).toLowerCase();
    if (!text) return undefined;
    const found = values.find((value) =>
      [value, names[value] ?? value].some(
        (known) => known.toLowerCase() === text || known.toLowerCase() === text.replaceAll(' ', ''),
      ),
    );
    const known = values.map((value) => names[value] ?? value).join(', ');
    return found ?? bad(`${COLUMN_TITLES[name].toLowerCase()} “${cell(name)}” is none of ${known}`);
  };
  const label = reading.label ?? unguarded(cell('label'));
  if (!label) bad('the number on its end is missing');
  else if (label.length > 40) bad('the number on its end is longer than 40 characters');
  else if (seen.has(label)) bad(`number ${label} is on another board already`);
  const species = readWood(cell('species'), { matching, bad, ask });
  const [length, width, thickness] = (['length', 'width', 'thickness'] as const).map((d) => size(d, true));
  const sold = pick<SoldAs>('sold', SOLD_AS, SOLD_NAMES);
  const grain = pick<GrainCut>('grain', ['flat', 'rift', 'quarter'], GRAIN_NAMES);
  const price = readPrice(cell('price'), cell('currency'), {
    per: pick<PricePer>('per', PRICE_PER, PER_NAMES) ?? matching.per,
    table,
    matching,
    bad,
  });
  const moistureText = cell('moisture').replace('%', '');
  const moisturePct = moistureText ? decimal(moistureText, table.decimalComma) : undefined;
  if (moisturePct !== undefined && !(moisturePct >= 0 && moisturePct <= 200))
    bad(`moisture “${cell('moisture')}” is not a share of 0 to 200 %`);
  const arrived = cell('arrived') ? isoDay(cell('arrived')) : undefined;
  if (cell('arrived') && !arrived) bad(`the day “${cell('arrived')}” is not like 2026-03-31`);
  const colour = cell('colour') || undefined;
  if (colour && !/^#[0-9a-f]{6}$/i.test(colour)) bad(`colour “${colour}” is not like #8a6a4f`);
  const warp = Object.fromEntries(
    (['cup', 'bow', 'crook', 'wind'] as const).flatMap((name) => {
      const gap = size(name, false);
      return gap ? [[name, gap]] : [];
    }),
  );
  const grade = unguarded(cell('grade')) || undefined;
  if (grade && grade.length > MOST_GRADE) bad(`the grade is longer than ${MOST_GRADE} characters`);
  const faults = readFaults(cell, { length, width, bad });
  if (!species || !length || !width || !thickness) return undefined;
  const whole = {
    ...{ label, species, length, width, thickness, sold, grain, price, moisturePct, arrived, colour, faults },
    ...{ log: unguarded(cell('log')) || undefined, grade },
    pith: pick('pith', ['above', 'below'] as const),
    ringRadius: size('ringRadius', false),
    fibre: pick('fibre', ['straight', 'rising', 'falling'] as const),
    goodFace: pick('goodFace', ['up', 'down'] as const, FACES),
    sapEdge: pick('sapEdge', ['near', 'far', 'both', 'none'] as const),
    warp: Object.keys(warp).length > 0 ? warp : undefined,
  };
  return Object.fromEntries(
    Object.entries(whole).filter(([, value]) => value !== undefined),
  ) as unknown as Draft;
}

function readWood(
  text: string,
  { matching, bad, ask }: { matching: CsvMatching; bad: (reason: string) => undefined; ask: Reading['ask'] },
): string | undefined {
  if (!text) return bad('the wood is missing');
  const woods = woodsByName(text);
  if (woods.length === 0) return bad(`“${text}” is no wood that Junta knows`);
  if (woods.length === 1) return woods[0];
  const name = plainText(text);
  ask(name, woods);
  const told = matching.woods?.[name];
  return told && woods.includes(told)
    ? told
    : bad(`“${text}” may be ${woods.slice(0, 4).map(speciesName).join(', ')}: say which`);
}

/** The faults of a row: three cells whose parts belong together. */
function readFaults(
  cell: (name: ColumnName) => string,
  {
    length,
    width,
    bad,
  }: { length: Length | undefined; width: Length | undefined; bad: (reason: string) => undefined },
): Fault[] | undefined {
  const parts = (name: ColumnName) =>
    cell(name)
      .split(FAULT_GAP.trim())
      .map((part) => part.trim())
      .filter(Boolean);
  const [kinds, places, sizes] = [parts('faults'), parts('faultPlaces'), parts('faultSizes')];
  // Tables of earlier versions only counted the faults: there is no place to put them.
  if (kinds.length === 0 || (places.length === 0 && kinds.every((part) => /^\d/.test(part))))
    return undefined;
  if (places.length !== kinds.length || sizes.length !== kinds.length)
    return bad(
      `${counted(kinds.length, 'fault')} ${kinds.length === 1 ? 'has' : 'have'} ${counted(places.length, 'place')} and ${counted(sizes.length, 'size')}: each needs one of both`,
    );
  if (kinds.length > MOST_FAULTS) return bad(`${counted(kinds.length, 'fault')}; the most is ${MOST_FAULTS}`);
  const faults: Fault[] = [];
  for (const [i, said] of kinds.entries()) {
    const kind = FAULT_KINDS.find((each) => said.toLowerCase().startsWith(each));
    const faceText = said
      .slice(kind?.length ?? 0)
      .trim()
      .toLowerCase();
    const face = (Object.keys(FACES) as Fault['face'][]).find(
      (each) => faceText === '' || FACES[each] === faceText || each === faceText,
    );
    if (!kind || !face) return bad(`“${said}” is no fault such as “knot upper”, “split both faces”`);
    const [place, size] = [pairOf(places[i]), pairOf(sizes[i])];
    if (!place || !size) return bad(`the ${kind}’s place and size are written like “305 x 51 mm”`);
    const fault: Fault = {
      id: `f${i + 1}`,
      kind,
      face,
      x: place[0],
      y: place[1],
      length: size[0],
      width: size[1],
    };
    const problem = length && width && faultProblem(fault, { length, width });
    if (problem) return bad(problem);
    faults.push(fault);
  }
  return faults;
}

/** Two sizes as `12 x 2 in` or `305 x 51 mm`, mm. */
function pairOf(text: string): [number, number] | undefined {
  const match = /^([\d.]+)\s*[x×]\s*([\d.]+)\s*(in|mm)$/i.exec(text);
  if (!match) return undefined;
  const unit = match[3].toLowerCase() === 'in' ? 25.4 : 1;
  const [a, b] = [Number(match[1]) * unit, Number(match[2]) * unit];
  return Number.isFinite(a) && Number.isFinite(b) ? [a, b] : undefined;
}

const SIGNS: Record<string, string> = { '€': 'EUR', '£': 'GBP', '¥': 'JPY' };

function readPrice(
  text: string,
  currencyCell: string,
  {
    per,
    table,
    matching,
    bad,
  }: { per: PricePer; table: CsvTable; matching: CsvMatching; bad: (reason: string) => undefined },
): Price | undefined {
  if (!text) return undefined;
  const sign = Object.keys(SIGNS).find((s) => text.includes(s));
  const code = /[A-Za-z]{3}/.exec(text)?.[0];
  const currency = (currencyCell || code || (sign && SIGNS[sign]) || matching.currency || '').toUpperCase();
  const amount = decimal(text.replace(/[^\d.,-]/g, ''), table.decimalComma);
  if (!/\d/.test(text) || !Number.isFinite(amount) || amount < 0)
    return bad(`price “${text}” is not an amount`);
  if (!/^[A-Z]{3}$/.test(currency)) return bad(`price “${text}” has no currency`);
  return { minor: toMinor(amount, currency), currency, per };
}

/** A day written as `2026-03-31`, `31.03.2026` or `31/03/2026`; undefined for anything else or a day that is none. */
function isoDay(text: string): string | undefined {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text);
  const local = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(text);
  const [y, m, d] = iso ? iso.slice(1) : local ? [local[3], local[2], local[1]] : [];
  if (!y) return undefined;
  const day = `${y}-${m.padStart(2, '0')}-${d.padStart(2, '0')}`;
  const time = Date.parse(`${day}T00:00:00Z`);
  return Number.isFinite(time) && new Date(time).toISOString().startsWith(day) ? day : undefined;
}

/** The rack and the system in which its table is written. */
export interface RackContent {
  boards: readonly BoardStock[];
  system: LengthSystem;
}

/** Boards as a table that `readCsv` reads again: sizes in the shop's units, woods and the rest by their trade names. */
export const boardsToCsv = ({ boards, system }: RackContent): string =>
  Papa.unparse([
    COLUMNS.map((name) => COLUMN_TITLES[name]),
    ...boards.map((board) => boardRow(board, system)),
  ]);

/** The rack as a table: what goes out comes in again, and so do tables of others with their columns matched. */
export const rackFormat: Format<RackContent> = {
  id: 'rack',
  name: 'Rack',
  extension: 'csv',
  media: 'text/csv;charset=utf-8',
  says: 'The boards on the rack, one a line, faults with their places; read again by any spreadsheet, and by Junta.',
  reads: true,
  writes: boardsToCsv,
};
