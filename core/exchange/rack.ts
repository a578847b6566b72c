import Papa from 'papaparse';
import type { Format } from './format';
import {
  type BoardStock,
  FAULT_KINDS,
  type GrainCut,
  type Price,
  PRICE_PER,
  type PricePer,
  SOLD_AS,
  type SoldAs,
} from '../document';
import { type Length, type LengthSystem, parseLength } from '../units';
import { SPECIES } from '../wood';

/** What a column of the table can hold. */
export const COLUMNS = [
  'label',
  'species',
  'sold',
  'length',
  'width',
  'thickness',
  'price',
  'currency',
  'per',
  'moisture',
  'arrived',
  'grain',
  'log',
] as const;

export type ColumnName = (typeof COLUMNS)[number];

export const COLUMN_TITLES: Record<ColumnName, string> = {
  label: 'Number on its end',
  species: 'Wood',
  sold: 'How it is sold',
  length: 'Length',
  width: 'Width',
  thickness: 'Thickness',
  price: 'Price',
  currency: 'Currency',
  per: 'Price is per',
  moisture: 'Moisture, %',
  arrived: 'Arrived',
  grain: 'Grain as cut',
  log: 'Log or bundle',
};

/** Words that heads of columns are recognised by. */
const WORDS: Record<ColumnName, readonly string[]> = {
  label: ['number', 'no', 'nr', 'board', 'label', 'id', 'tag'],
  species: ['wood', 'species', 'timber', 'kind'],
  sold: ['sold', 'surface', 'sold as', 'finish'],
  length: ['length', 'len', 'long', 'l'],
  width: ['width', 'wide', 'w'],
  thickness: ['thickness', 'thick', 't'],
  price: ['price', 'cost', 'value'],
  currency: ['currency', 'cur'],
  per: ['per', 'price per', 'unit'],
  moisture: ['moisture', 'mc', 'moisture %'],
  arrived: ['arrived', 'date', 'arrival', 'bought'],
  grain: ['grain', 'cut'],
  log: ['log', 'bundle', 'lot'],
};

/** A table read from text: its heads, its rows, and how it was read. */
export interface CsvTable {
  heads: string[];
  rows: string[][];
  separator: string;
  encoding: string;
  /** Numbers are written with a comma: `12,5`. */
  decimalComma: boolean;
}

/** Signs of Windows-1252 from 0x80 to 0x9f (published code page); a space where it has none. */
const C1_SIGNS = '€ ‚ƒ„…†‡ˆ‰Š‹Œ Ž  ‘’“”•–—˜™š›œ žŸ';

/** Text of a file in whichever encoding it is: UTF-16 by its mark, UTF-8 if it is valid, else Windows-1252. */
export function decodeText(bytes: Uint8Array): { text: string; encoding: string } {
  if (bytes[0] === 0xff && bytes[1] === 0xfe)
    return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' };
  if (bytes[0] === 0xfe && bytes[1] === 0xff)
    return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    const text = new TextDecoder('windows-1252').decode(bytes);
    // Some decoders leave this code page's own signs as control characters.
    const own = (sign: string) => C1_SIGNS[sign.charCodeAt(0) - 0x80] ?? sign;
    return { text: text.replace(/[\u0080-\u009f]/g, own), encoding: 'Windows-1252' };
  }
}

/** Reads a table with commas, semicolons, tabs or bars between its columns; the first row holds the heads. */
export function readCsv(text: string, encoding = 'UTF-8'): CsvTable {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  const [heads = [], ...rows] = parsed.data;
  const separator = parsed.meta.delimiter;
  const numbers = rows.flat().filter((cell) => /^\s*\d+[.,]\d+\s*$/.test(cell));
  const commas = numbers.filter((cell) => cell.includes(',')).length;
  return {
    heads: heads.map((head) => head.trim()),
    rows,
    separator,
    encoding,
    decimalComma: separator !== ',' && commas > numbers.length / 2,
  };
}

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
  const find = (name: ColumnName): number => {
    for (const exact of [true, false])
      for (const word of WORDS[name]) {
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
  return Object.fromEntries(COLUMNS.map((name) => [name, find(name)])) as Record<ColumnName, number>;
}

/** What the matching step settles: which column is what, the system of bare numbers, and the currency where none is named. */
export interface CsvMatching {
  columns: Record<ColumnName, number>;
  system: LengthSystem;
  currency?: string;
  per: PricePer;
}

/** A row that is no board, with its line in the file and every reason. */
export interface RowError {
  line: number;
  reasons: string[];
}

type Draft = Omit<BoardStock, 'id'>;

const byName = new Map(
  SPECIES.flatMap((species) => [
    [species.common.toLowerCase(), species.id],
    [species.latin.toLowerCase(), species.id],
    [species.id.toLowerCase(), species.id],
  ]),
);

/** A wood by a name people write: its common or Latin name, in either order of its words. */
export function speciesByName(name: string): string | undefined {
  const plain = name.trim().toLowerCase();
  if (!plain) return undefined;
  const exact = byName.get(plain);
  if (exact) return exact;
  const words = plain.split(/[\s,]+/).toSorted();
  const matches = SPECIES.filter((species) => {
    const own = species.common.toLowerCase().split(/[\s,]+/);
    return words.every((word) => own.includes(word));
  });
  return matches.length >= 1
    ? matches.toSorted((a, b) => a.common.length - b.common.length)[0].id
    : undefined;
}

const decimal = (text: string, comma: boolean): number =>
  Number((comma ? text.replaceAll('.', '').replace(',', '.') : text.replaceAll(',', '')).trim());

/**
 * Boards from the rows of a table, and every row that is none with all its reasons. A number that is on the rack or
 * in the table already is an error of its row. Nothing is thrown and nothing is guessed silently.
 */
export function boardsFromCsv(
  table: CsvTable,
  matching: CsvMatching,
  taken: ReadonlySet<string>,
): { boards: Draft[]; errors: RowError[] } {
  const boards: Draft[] = [];
  const errors: RowError[] = [];
  const seen = new Set(taken);
  table.rows.forEach((row, i) => {
    const reasons: string[] = [];
    const board = readRow(row, table, matching, { seen, reasons });
    if (reasons.length > 0 || !board) errors.push({ line: i + 2, reasons });
    else {
      seen.add(board.label);
      boards.push(board);
    }
  });
  return { boards, errors };
}

function readRow(
  row: readonly string[],
  table: CsvTable,
  matching: CsvMatching,
  { seen, reasons }: { seen: ReadonlySet<string>; reasons: string[] },
): Draft | undefined {
  const cell = (name: ColumnName) =>
    matching.columns[name] < 0 ? '' : (row[matching.columns[name]] ?? '').trim();
  const bad = (reason: string): undefined => void reasons.push(reason);
  const size = (name: 'length' | 'width' | 'thickness'): Length | undefined => {
    const text = table.decimalComma ? cell(name).replace(/(\d),(\d)/, '$1.$2') : cell(name);
    if (!text) return bad(`${COLUMN_TITLES[name].toLowerCase()} is missing`);
    const parsed = parseLength(text, matching.system);
    return parsed.ok
      ? parsed.length
      : bad(`${COLUMN_TITLES[name].toLowerCase()} “${cell(name)}”: ${parsed.reason}`);
  };
  const pick = <T extends string>(name: ColumnName, values: readonly T[]): T | undefined => {
    const text = cell(name).toLowerCase();
    if (!text) return undefined;
    const found = values.find(
      (value) => value.toLowerCase() === text || value.toLowerCase() === text.replaceAll(' ', ''),
    );
    return (
      found ?? bad(`${COLUMN_TITLES[name].toLowerCase()} “${cell(name)}” is none of ${values.join(', ')}`)
    );
  };
  const label = cell('label');
  if (!label) bad('the number on its end is missing');
  else if (label.length > 40) bad('the number on its end is longer than 40 characters');
  else if (seen.has(label)) bad(`number ${label} is on another board already`);
  const species = speciesByName(cell('species'));
  if (!species)
    bad(cell('species') ? `“${cell('species')}” is no wood that Junta knows` : 'the wood is missing');
  const [length, width, thickness] = [size('length'), size('width'), size('thickness')];
  const sold = pick<SoldAs>('sold', SOLD_AS);
  const grain = pick<GrainCut>('grain', ['flat', 'rift', 'quarter']);
  const price = readPrice(cell('price'), cell('currency'), {
    per: pick<PricePer>('per', PRICE_PER) ?? matching.per,
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
  const log = cell('log') || undefined;
  if (!species || !length || !width || !thickness) return undefined;
  const whole = { label, species, length, width, thickness, sold, grain, price, moisturePct, arrived, log };
  return Object.fromEntries(
    Object.entries(whole).filter(([, value]) => value !== undefined),
  ) as unknown as Draft;
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
  return { minor: Math.round(amount * 100), currency, per };
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

/** A spreadsheet would run a cell that begins like a formula: such a cell gets an apostrophe in front. */
const guarded = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** Boards as a table that `readCsv` reads again; lengths in mm, faults counted. */
export function boardsToCsv(boards: readonly BoardStock[]): string {
  const rows = boards.map((board) => [
    guarded(board.label),
    board.species,
    board.sold ?? '',
    `${board.length.mm} mm`,
    `${board.width.mm} mm`,
    `${board.thickness.mm} mm`,
    board.price ? String(board.price.minor / 100) : '',
    board.price?.currency ?? '',
    board.price?.per ?? '',
    board.moisturePct === undefined ? '' : String(board.moisturePct),
    board.arrived ?? '',
    board.grain ?? '',
    guarded(board.log ?? ''),
    FAULT_KINDS.flatMap((kind) => {
      const n = (board.faults ?? []).filter((fault) => fault.kind === kind).length;
      return n ? [`${n} ${kind}`] : [];
    }).join(', '),
  ]);
  return Papa.unparse([[...COLUMNS.map((name) => COLUMN_TITLES[name]), 'Faults'], ...rows]);
}

/** The rack as a table: what goes out comes in again, and so do tables of others with their columns matched. */
export const rackFormat: Format<readonly BoardStock[]> = {
  id: 'rack',
  name: 'Rack',
  extension: 'csv',
  media: 'text/csv;charset=utf-8',
  says: 'The boards on the rack, one a line; read again by any spreadsheet, and by Junta.',
  reads: true,
  writes: boardsToCsv,
};
