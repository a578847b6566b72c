import { describe, expect, it } from 'vitest';
import { board } from '../stock/cases.fixture';
import {
  boardsFromCsv,
  boardsToCsv,
  type CsvMatching,
  decodeText,
  guessColumns,
  readCsv,
  speciesByName,
} from './rack';

const matching = (heads: string[], change: Partial<CsvMatching> = {}): CsvMatching => ({
  columns: guessColumns(heads),
  system: 'mm',
  per: 'board',
  ...change,
});

const read = (text: string, change: Partial<CsvMatching> = {}, taken: string[] = []) => {
  const table = readCsv(text);
  return boardsFromCsv(table, matching(table.heads, change), new Set(taken));
};

describe('a table of boards', () => {
  it('200 rows with ten bad ones: 190 boards, and each bad row by its line with its reasons', () => {
    const bad: Record<number, string> = {
      7: ';Ash, white;900;100;25;10 EUR',
      20: 'x20;Unknownwood;900;100;25;10 EUR',
      33: 'x33;Ash, white;;100;25;10 EUR',
      48: 'x48;Ash, white;900;-5;25;10 EUR',
      61: 'x61;Ash, white;900;100;abc;10 EUR',
      90: 'x1;Ash, white;900;100;25;10 EUR',
      111: 'x111;Ash, white;900;100;25;10',
      140: 'x140;Ash, white;900;100;25;cheap EUR',
      166: 'taken;Ash, white;900;100;25;10 EUR',
      199: 'x199;;900;100;25;10 EUR',
    };
    const rows = Array.from(
      { length: 200 },
      (_, i) => bad[i + 1] ?? `x${i + 1};Ash, white;${900 + i},5;100;25;12,50 EUR`,
    );
    const { boards, errors } = read(['No;Wood;Length;Width;Thickness;Price', ...rows].join('\n'), {}, [
      'taken',
    ]);
    expect(boards).toHaveLength(190);
    expect(errors.map(({ line }) => line)).toEqual(Object.keys(bad).map((row) => Number(row) + 1));
    const words = [
      'number on its end is missing',
      'no wood',
      'length is missing',
      'negative',
      'not a number',
      'another board',
      'no currency',
      'not an amount',
      'another board',
      'wood is missing',
    ];
    errors.forEach(({ reasons }, i) => expect(reasons.join('; ')).toContain(words[i]));
    expect(boards[0]).toMatchObject({
      species: 'ash_white',
      length: { mm: 900.5 },
      price: { minor: 1250, currency: 'EUR', per: 'board' },
    });
  });
  it.each([
    ['commas and points', 'number,wood,length,width,thickness\n1,walnut,40 1/2 in,6,1', ',', 40.5 * 25.4],
    ['tabs', 'number\twood\tlength\twidth\tthickness\n1\twalnut\t40.5\t6\t1', '\t', 40.5],
    [
      'semicolons and decimal commas',
      'number;wood;length;width;thickness\n1;walnut;40,5;6,25;1,5',
      ';',
      40.5,
    ],
  ])('with %s', (_name, text, separator, mm) => {
    expect(readCsv(text).separator).toBe(separator);
    expect(read(text).boards[0].length.mm).toBeCloseTo(mm, 9);
  });
  it('in another encoding: UTF-16 by its mark, UTF-8, and else Windows-1252', () => {
    const text = 'Größe;€';
    const utf16 = new Uint8Array([
      0xff,
      0xfe,
      ...[...text].flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
    ]);
    expect(decodeText(utf16)).toEqual({ text, encoding: 'UTF-16' });
    expect(decodeText(new TextEncoder().encode(text))).toEqual({ text, encoding: 'UTF-8' });
    const west = new Uint8Array([0x47, 0x72, 0xf6, 0xdf, 0x65, 0x3b, 0x80]);
    expect(decodeText(west)).toEqual({ text, encoding: 'Windows-1252' });
  });
  it('asks for a currency where none is named, and takes the one settled in the matching', () => {
    const text = 'number,wood,length,width,thickness,price\n1,cherry,900,100,25,10';
    expect(read(text).errors[0].reasons).toEqual(['price “10” has no currency']);
    expect(read(text, { currency: 'CAD', per: 'boardFoot' }).boards[0].price).toEqual({
      minor: 1000,
      currency: 'CAD',
      per: 'boardFoot',
    });
  });
  it('days are days', () => {
    const text = (day: string) => `number,wood,length,width,thickness,arrived\n1,cherry,900,100,25,${day}`;
    expect(read(text('31.03.2026')).boards[0].arrived).toBe('2026-03-31');
    expect(read(text('2026-02-30')).errors[0].reasons[0]).toContain('2026-02-30');
  });
  it('knows woods by the names people write', () => {
    expect([
      speciesByName('White Ash'),
      speciesByName('ash, white'),
      speciesByName('Juglans nigra'),
      speciesByName('granite'),
    ]).toEqual(['ash_white', 'ash_white', 'walnut_black', undefined]);
  });
  it('goes out and comes back, and a label like a formula does no harm', () => {
    const out = boardsToCsv([
      board('=1+1', 900, 100, 25, {
        sold: 'rough',
        price: { minor: 995, currency: 'EUR', per: 'metre' },
        moisturePct: 9.5,
      }),
    ]);
    expect(out).toContain("'=1+1");
    const table = readCsv(out);
    const back = boardsFromCsv(table, matching(table.heads), new Set());
    expect(back.errors).toEqual([]);
    expect(back.boards[0]).toMatchObject({
      species: 'maple_sugar',
      length: { mm: 900 },
      price: { minor: 995, per: 'metre' },
      moisturePct: 9.5,
    });
  });
});
