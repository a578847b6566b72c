import { describe, expect, it } from 'vitest';
import type { BoardStock, BuildDocument } from '../document';
import { mustEdit } from '../edit';
import { defaultShop, typed } from '../kit';
import { mustFit } from '../plan';
import { INCH } from '../units';
import { answerEdit } from './apply';
import { board, problem, strip } from './cases.fixture';
import { settingsOf } from './demand';
import { dropStrip, planOf, swapStrips } from './hand';
import { layAnswer } from './layout';
import { nextNumber, type RackQuestion, rackSums, searchRack } from './rack';
import { problemFor, shortages } from './shortage';
import { solveNow } from './solve';
import { tradeStrips } from './trade';

const ask = (change: Partial<RackQuestion> = {}): RackQuestion => ({
  text: '',
  species: '',
  sold: '',
  onlyFree: false,
  order: 'entered',
  downwards: false,
  grouped: false,
  ...change,
});
const rack: (BoardStock & { reserved?: { job: string; name: string } })[] = [
  board('10', 900, 100, 25, { log: 'north', arrived: '2026-02-01' }),
  board('9', 1200, 150, 40, { species: 'walnut_black', sold: 'offcut' }),
  { ...board('2', 700, 90, 25, { arrived: '2026-01-01' }), reserved: { job: 'j', name: 'stair tread' } },
];
const labels = (question: RackQuestion) =>
  searchRack(rack, question).flatMap((line) =>
    'board' in line ? [line.board.label] : [`# ${line.head} ${line.sums.boards}`],
  );

describe('searching the rack', () => {
  it('finds by every word, in any of number, wood, log and job', () => {
    expect(labels(ask({ text: 'maple north' }))).toEqual(['10']);
    expect(labels(ask({ text: 'tread' }))).toEqual(['2']);
    expect(labels(ask({ text: 'maple walnut' }))).toEqual([]);
  });
  it('filters, orders numbers as numbers, and keeps what is not known last either way', () => {
    expect(labels(ask({ sold: 'offcut' }))).toEqual(['9']);
    expect(labels(ask({ onlyFree: true }))).toEqual(['10', '9']);
    expect(labels(ask({ order: 'label' }))).toEqual(['2', '9', '10']);
    expect(labels(ask({ order: 'arrived' }))).toEqual(['2', '10', '9']);
    expect(labels(ask({ order: 'arrived', downwards: true }))).toEqual(['10', '2', '9']);
  });
  it('groups by wood and thickness with sums', () => {
    expect(labels(ask({ grouped: true }))).toEqual([
      '# Black walnut 1',
      '9',
      '# Sugar (hard) maple 2',
      '10',
      '2',
    ]);
    expect(rackSums(rack).volume).toBe(900 * 100 * 25 + 1200 * 150 * 40 + 700 * 90 * 25);
  });
  it('proposes the number after the last one that is free', () => {
    expect(nextNumber(['7', 'B8', 'B9'])).toBe('B10');
    expect(nextNumber(['3', '5', '4'])).toBe('6');
    expect(nextNumber([])).toBe('1');
  });
});

describe('the strip ledger (common practice)', () => {
  it('says where each board ends, what goes round, and which cannot give that much', () => {
    const rows = [2, 4, 3].map((gives, i) => ({ label: `${i}`, width: 10, gives, receives: 3 }));
    expect(tradeStrips(rows, 0.5, 0.125)).toEqual({
      ends: [10.125, 8.875, 9.5],
      given: 9,
      received: 9,
      tooNarrow: [],
    });
    expect(tradeStrips([{ label: 'a', width: 1, gives: 2, receives: 0 }], 0.5, 0.125).tooNarrow).toEqual([
      'a',
    ]);
    expect(tradeStrips([{ label: 'a', width: 10, gives: 8, receives: 0 }], 0.5, 0.125).tooNarrow).toEqual([]);
    expect(tradeStrips([{ label: 'a', width: 7, gives: 0, receives: 0 }], 0.5, 0.125).ends).toEqual([7]);
  });
});

const shop = defaultShop('hand');
const job = (): BuildDocument =>
  mustFit(
    {
      pattern: 'panel',
      length: { aim: 'fixed', value: typed('20') },
      width: { aim: 'fixed', value: typed('8') },
      thickness: { aim: 'fixed', value: typed('3/4') },
      woods: ['maple_sugar'],
      module: typed('2'),
      saw: 'table-full',
      flattenWith: 'planer',
      trimWith: { saw: 'table-full' },
      chequer: false,
      extraSlices: 0,
      sections: 1,
    },
    shop,
    { name: 'hand', use: '' },
  );
const maple = (id: string, l: number, w: number) =>
  board(id, l * INCH, w * INCH, 1.25 * INCH, { sold: 'rough' });
const solved = (build: BuildDocument, boards: BoardStock[]) => {
  const { problem: p, demand } = problemFor([build], boards);
  const answer = solveNow(p, 3000);
  return {
    p,
    demand,
    answer,
    build: mustEdit(build, answerEdit(p, demand, answer, { job: 0, settings: settingsOf(build) })),
  };
};

describe('by hand', () => {
  const boards = [maple('a', 50, 7), maple('b', 44, 6)];
  it('a plan written into a job reads back as it was', () => {
    const { answer, build } = solved(job(), boards);
    const back = planOf([build]).answer;
    expect(back.missing).toEqual([]);
    expect(new Set(back.places.map((place) => JSON.stringify(place)))).toEqual(
      new Set(answer.places.map((place) => JSON.stringify(place))),
    );
  });
  it('copies read back from the places the boards keep for them', () => {
    const twice = job();
    twice.targets[0].quantity = 2;
    const { answer, build } = solved(twice, boards);
    expect(planOf([build]).answer.places).toHaveLength(answer.places.length);
  });
  it('a dropped strip is drawn to what is near, refused by a locked one, and by a board that cannot give it', () => {
    const p = problem(
      [
        strip('s', 400, 50),
        strip('t', 400, 50, 25, {
          locked: { board: 'a', x: 500, y: 0, leaf: 0, leaves: 1, faceDown: false },
        }),
      ],
      [board('a', 1000, 120), board('w', 1000, 120, 25, { species: 'teak' }), board('n', 1000, 40)],
    );
    const [a, wrong, narrow] = p.boards;
    const drop = (b: BoardStock, x: number, y: number) =>
      dropStrip(p, undefined, { board: b, strip: 's', at: { x, y }, snapMm: 10 });
    expect(drop(a, 4, 7)).toEqual({ ok: true, at: { x: 0, y: 0 } });
    // At the whole distance nothing draws it yet.
    expect(drop(a, 10, 60)).toEqual({ ok: true, at: { x: 10, y: 60 } });
    expect(drop(a, 9.9, 60)).toEqual({ ok: true, at: { x: 0, y: 60 } });
    expect(drop(a, -90, 300)).toEqual({ ok: true, at: { x: 0, y: 70 } });
    expect(drop(a, 300, 20)).toMatchObject({ ok: false, reason: expect.stringContaining('locked') });
    expect(drop(wrong, 0, 0)).toMatchObject({ ok: false, reason: expect.stringContaining('another wood') });
    expect(drop(narrow, 0, 0)).toMatchObject({ ok: false, reason: expect.stringContaining('too narrow') });
  });
  it('of several places near enough the nearest draws it', () => {
    const p = problem([strip('s', 400, 50)], [board('a', 1000, 120)]);
    const laid = (x: number) => ({ x, length: 100, lanes: [[{ strip: { id: 'other' }, y: 60, width: 20 }]] });
    const layout = { sections: [laid(8), laid(11)] } as never;
    expect(
      dropStrip(p, layout, { board: p.boards[0], strip: 's', at: { x: 5, y: 3 }, snapMm: 10 }),
    ).toMatchObject({ ok: true, at: { x: 8, y: 0 } });
  });
  it('two strips that swap are both locked at each other’s place', () => {
    const { build } = solved(job(), boards);
    const [one, two] = build.assemblies[0].slots;
    const swapped = swapStrips(build, one.id, two.id);
    expect(swapped?.[one.id]).toMatchObject({ board: two.strip?.board, at: two.strip?.at, locked: true });
    expect(swapped?.[two.id]).toMatchObject({ board: one.strip?.board, at: one.strip?.at, locked: true });
  });
  it('a strip locked to a board that is gone is free again, and nothing is lost', () => {
    const { build } = solved(job(), boards);
    const locked = mustEdit(build, {
      do: 'setStrip',
      strip: build.assemblies[0].slots[0].id,
      change: { locked: true },
    });
    const other = [maple('c', 60, 8)];
    const { problem: p } = problemFor([locked], other);
    const answer = solveNow(p, 2000);
    expect(answer.places.length + answer.missing.length).toBe(p.strips.length);
    expect(new Set(answer.places.map((place) => place.board))).toEqual(new Set(['c']));
  });
  it('the others of a set follow the one that is locked to its board', () => {
    const p = problem(
      [
        strip('s', 400, 50, 25, {
          set: 'pair',
          locked: { board: 'b', x: 0, y: 0, leaf: 0, leaves: 1, faceDown: false },
        }),
        strip('t', 400, 50, 25, { set: 'pair' }),
      ],
      [board('a', 410, 60), board('b', 1000, 120)],
    );
    const answer = solveNow(p, 1000);
    expect(answer.missing).toEqual([]);
    expect(answer.places.map((place) => place.board)).toEqual(['b', 'b']);
  });
});

describe('odd questions', () => {
  it('a kerf of zero, no boards, no strips, and strips longer than every board are answered', () => {
    const two = [strip('s', 400, 50), strip('t', 400, 50)];
    const exact = problem(two, [board('a', 400, 100)], { ripKerf: 0, crosscutKerf: 0 });
    expect(solveNow(exact, 500).missing).toEqual([]);
    expect(layAnswer(exact, solveNow(exact, 500))[0].kerfs).toEqual([]);
    expect(solveNow(problem(two, []), 500).missing).toEqual(['s', 't']);
    expect(solveNow(problem([], [board('a', 400, 100)]), 500).places).toEqual([]);
    const long = problem([strip('s', 5000, 50)], [board('a', 400, 100)]);
    expect(shortages(long, solveNow(long, 500))[0].numbers).toMatchObject({
      strips: 1,
      needed: 5000,
      available: 400,
    });
    // What both ends and both edges lose is none of it; of two boards the larger says what there is.
    const trims = { endTrim: 12, edgeTrim: 4 };
    const boards = [board('a', 400, 100), board('b', 300, 120)];
    const said = (...sizes: [number, number]) => {
      const p = problem([strip('s', ...sizes)], boards, trims);
      return shortages(p, solveNow(p, 500))[0].numbers;
    };
    expect(said(390, 50)).toMatchObject({ needed: 390, available: 400 - 24 });
    expect(said(200, 115)).toMatchObject({ needed: 115, available: 120 - 8 });
  });
});
