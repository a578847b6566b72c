import { describe, expect, it } from 'vitest';
import { board } from '../stock/cases.fixture';
import { boardsFromCsv, boardsToCsv, type CsvMatching, decodeText, guessColumns, readCsv } from './rack';
import { demo } from '../../demo';
import { COLUMNS, TRAVELS } from './rackcolumns';
import type { BoardStock } from '../document';
import { SPECIES, speciesName, woodsByName } from '../wood';

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
    [
      'commas and points',
      'number,wood,length,width,thickness\n1,black walnut,40 1/2 in,6,1',
      ',',
      40.5 * 25.4,
    ],
    ['tabs', 'number\twood\tlength\twidth\tthickness\n1\tblack walnut\t40.5\t6\t1', '\t', 40.5],
    [
      'semicolons and decimal commas',
      'number;wood;length;width;thickness\n1;black walnut;40,5;6,25;1,5',
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
    const text = 'number,wood,length,width,thickness,price\n1,black cherry,900,100,25,10';
    expect(read(text).errors[0].reasons).toEqual(['price “10” has no currency']);
    expect(read(text, { currency: 'CAD', per: 'boardFoot' }).boards[0].price).toEqual({
      minor: 1000,
      currency: 'CAD',
      per: 'boardFoot',
    });
  });
  it('days are days', () => {
    const text = (day: string) =>
      `number,wood,length,width,thickness,arrived\n1,black cherry,900,100,25,${day}`;
    expect(read(text('31.03.2026')).boards[0].arrived).toBe('2026-03-31');
    expect(read(text('2026-02-30')).errors[0].reasons[0]).toContain('2026-02-30');
  });
  it('knows woods by the names people write, and asks where a name may mean several', () => {
    expect(['White Ash', 'ash, white', 'Juglans nigra', 'granite'].map(woodsByName)).toEqual([
      ['ash_white'],
      ['ash_white'],
      ['walnut_black'],
      [],
    ]);
    expect(woodsByName('oak').length).toBeGreaterThan(2);
    for (const { id, common } of SPECIES) expect(woodsByName(common)).toEqual([id]);
    const text =
      'number,wood,length,width,thickness\n1,oak,900,100,25\n2,Oak,900,100,25\n3,White oak,900,100,25';
    const { boards, errors, asked } = read(text);
    expect(boards.map(({ label }) => label)).toEqual(['3']);
    expect(errors[0].reasons[0]).toMatch(/^“oak” may be .*: say which$/);
    expect(asked).toEqual([{ name: 'oak', woods: woodsByName('oak'), rows: 2 }]);
    const told = read(text, { woods: { oak: 'oak_white' } });
    expect(told.boards.map(({ species }) => species)).toEqual(['oak_white', 'oak_white', 'oak_white']);
    // An answer that the name cannot mean is none.
    expect(read(text, { woods: { oak: 'ash_white' } }).errors).toHaveLength(2);
  });
  it('needs no numbers: the next free ones are given, and how many is said', () => {
    const text = 'wood,length,width,thickness\nwhite ash,900,100,25\nwhite ash,800,90,25';
    const { boards, numbered } = read(text, {}, ['40', '41']);
    expect([boards.map(({ label }) => label), numbered]).toEqual([['42', '43'], 2]);
  });
  it('asks about sizes that look like a slip, and takes them when told so', () => {
    const text = [
      'number,wood,length,width,thickness',
      '1,white ash,100,900,25',
      '2,white ash,900,100,120',
      '3,white ash,2400,700,25',
      '4,white ash,900,100,100',
      '5,white ash,900,20,30',
    ].join('\n');
    const { boards, odd } = read(text);
    expect(boards.map(({ label }) => label)).toEqual(['4']);
    expect(odd.map(({ line }) => line)).toEqual([2, 3, 4, 6]);
    expect(read(text, { takeOdd: true }).boards).toHaveLength(5);
  });

  /** A board without ids of faults, and with sizes as plain millimetres: what must come back. */
  const bare = ({ id: _id, taken: _taken, ...board }: BoardStock) =>
    JSON.parse(
      JSON.stringify(board, (key, value: unknown) =>
        key === 'typed' || key === 'id'
          ? undefined
          : typeof value === 'number'
            ? Number(value.toFixed(5))
            : value,
      ),
    ) as unknown;
  const whole = board('W1', 900, 100, 25, {
    ...{ sold: 'dressed', grade: '=A/B', grain: 'rift', log: "'+7", pith: 'below', ringRadius: { mm: 80 } },
    ...{ fibre: 'rising', goodFace: 'down', sapEdge: 'both', colour: '#8a6a4f', moisturePct: 9.5 },
    ...{ arrived: '2026-03-31', price: { minor: 1234, currency: 'JPY', per: 'cubicMetre' } },
    warp: { cup: { mm: 1.5 }, bow: { mm: 0 }, crook: { mm: 2 }, wind: { mm: 3 } },
    faults: [
      { id: 'a', kind: 'knot', face: 'up', x: 123.456789, y: 10, length: 25.4, width: 19.05 },
      { id: 'b', kind: 'split', face: 'both', x: 0, y: 0, length: 90, width: 3 },
    ],
  });
  it.each([
    'inch',
    'mm',
  ] as const)('goes out in %s and comes back as the same boards: every field, faults with place and size', (system) => {
    const boards = [whole, ...demo.boards.map((each, i) => ({ ...each, id: `b${i}` }))];
    const text = boardsToCsv({ boards, system });
    expect(text).not.toMatch(system === 'mm' ? /\d in\b/ : /\d mm\b/);
    expect(text).toContain(speciesName(boards[1].species));
    const table = readCsv(text);
    const back = boardsFromCsv(table, { ...matching(table.heads), takeOdd: true }, new Set());
    expect(back.errors).toEqual([]);
    expect(back.boards.map((each) => bare({ ...each, id: '' }))).toEqual(boards.map(bare));
  });
  it('every column belongs to one field of a board', () => {
    expect(Object.values(TRAVELS).flat().toSorted()).toEqual(COLUMNS.toSorted());
  });
  it('a label like a formula does no harm, and is itself again when it comes back', () => {
    const text = boardsToCsv({ boards: [board('=1+1', 900, 100, 25)], system: 'mm' });
    expect(text).toContain("'=1+1");
    expect(read(text).boards[0].label).toBe('=1+1');
  });
  it('faults without a place, or beside the board, are errors of their row; counted ones of earlier tables are passed over', () => {
    const row = (faults: string, places: string, sizes: string) =>
      read(
        `number,wood,length,width,thickness,Faults,Fault places,Fault sizes\n1,white ash,900,100,25,${faults},${places},${sizes}`,
      );
    expect(row('knot upper', '', '').errors[0].reasons[0]).toContain('1 fault has 0 places');
    expect(row('knot upper', '890 x 10 mm', '25 x 20 mm').errors[0].reasons[0]).toContain('900 mm long');
    expect(row('hole upper', '10 x 10 mm', '25 x 20 mm').errors[0].reasons[0]).toContain('is no fault');
    expect(row('knot upper', '10 by 10', '25 x 20 mm').errors[0].reasons[0]).toContain('written like');
    expect(row('2 knot', '', '').boards[0].faults).toBeUndefined();
  });
});
