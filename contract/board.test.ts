import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FAULT_KINDS, PRICE_PER, SOLD_AS } from '../core/document';
import { demoBoards } from '../demo/boards';
import { demoJobs } from '../demo/jobs';
import {
  boardSchema,
  type NewBoard,
  newBoardsBody,
  newBoardSchema,
  removeBoardsBody,
  saveBoardBody,
} from './board';
import { reserveBoardsBody } from './bodies';
import { readDocument } from './read';
import { checkWith } from './check';

const plain = (): NewBoard => ({
  label: '7',
  species: 'ash_white',
  length: { mm: 1800 },
  width: { mm: 150 },
  thickness: { mm: 38 },
});
const problems = (change: object) => {
  const checked = checkWith(newBoardSchema(), { ...plain(), ...change });
  return checked.ok ? [] : checked.problems;
};
const fault = (change: object = {}) => ({
  id: 'f',
  kind: 'knot',
  face: 'up',
  x: 10,
  y: 10,
  length: 20,
  width: 20,
  ...change,
});

describe('a board', () => {
  it('needs a number, a wood and three sizes, and nothing else', () => {
    expect(problems({})).toEqual([]);
    for (const field of ['label', 'species', 'length', 'width', 'thickness'])
      expect(
        problems({ [field]: undefined }).map(({ path }) => path),
        field,
      ).toContain(field);
  });
  it('comes through whole with everything that can be known of it', () => {
    for (const board of demoBoards)
      expect(checkWith(newBoardSchema(), structuredClone(board))).toEqual({ ok: true, build: board });
    const full = {
      ...plain(),
      log: 'north',
      sold: 'reclaimed',
      grade: 'first and seconds',
      grain: 'rift',
      pith: 'above',
      ringRadius: { mm: 120, typed: { text: '120', system: 'mm' } },
      fibre: 'rising',
      goodFace: 'down',
      sapEdge: 'both',
      colour: '#A0b1C2',
      price: { minor: 0, currency: 'NOK', per: 'cubicMetre' },
      moisturePct: 12.5,
      arrived: '2026-02-28',
      warp: { cup: { mm: 0 }, bow: { mm: 3 }, crook: { mm: 1 }, wind: { mm: 2 } },
      faults: FAULT_KINDS.map((kind, i) => fault({ id: `f${i}`, kind, face: i % 2 ? 'both' : 'down' })),
    };
    expect(checkWith(newBoardSchema(), structuredClone(full))).toEqual({ ok: true, build: full });
  });
  it.each([
    ['a fault past its end', { faults: [fault({ x: 1790 })] }, 'faults[0]', '1800 mm long'],
    ['a fault past its edge', { faults: [fault(), fault({ id: 'g', y: 140 })] }, 'faults[1]', '150 mm wide'],
    ['a fault without size', { faults: [fault({ length: 0 })] }, 'faults[0]', 'no size'],
    ['a fault nobody knows', { faults: [fault({ kind: 'dragon' })] }, 'faults[0].kind', 'one of'],
    ['a fault before its start', { faults: [fault({ x: -5 })] }, 'faults[0].x', '0'],
    ['a price without a currency', { price: { minor: 100, per: 'board' } }, 'price.currency', 'required'],
    ['a currency in words', { price: { minor: 100, per: 'board', currency: 'euros' } }, 'price.currency', ''],
    ['a negative price', { price: { minor: -1, per: 'board', currency: 'EUR' } }, 'price.minor', ''],
    ['half a cent', { price: { minor: 0.5, per: 'board', currency: 'EUR' } }, 'price.minor', 'integer'],
    ['a hollow upwards', { warp: { cup: { mm: -1 } } }, 'warp.cup', 'zero or more'],
    ['moisture over 200 %', { moisturePct: 201 }, 'moisturePct', ''],
    ['a day in words', { arrived: 'yesterday' }, 'arrived', '2026-03-31'],
    ['a colour in words', { colour: 'brown' }, 'colour', '#8a6a4f'],
    ['no thickness', { thickness: { mm: 0 } }, 'thickness', 'more than zero'],
    ['a grade that is a novel', { grade: 'x'.repeat(31) }, 'grade', '30'],
    ['a field nobody knows', { weight: 3 }, '', 'weight'],
  ])('%s is refused with its place and a reason', (_name, change, path, words) => {
    const found = problems(change);
    expect(found.length).toBeGreaterThan(0);
    expect(found.map((p) => p.path).some((at) => at.startsWith(path))).toBe(true);
    expect(found.map((p) => p.reason).join('; ')).toContain(words);
  });
  it('whatever is sent is taken whole or refused with a place: never half', () => {
    const odd = fc.oneof(
      fc.constant(null),
      fc.string(),
      fc.double(),
      fc.boolean(),
      fc.constant([]),
      fc.constant({}),
    );
    const key = fc.constantFrom(
      'label',
      'species',
      'length',
      'sold',
      'grain',
      'price',
      'warp',
      'faults',
      'colour',
      'arrived',
      'moisturePct',
    );
    fc.assert(
      fc.property(key, odd, (name, value) => {
        const sent = { ...plain(), [name]: value };
        const checked = checkWith(newBoardSchema(), sent);
        if (checked.ok) expect(checked.build).toEqual(sent);
        else expect(checked.problems.every(({ reason }) => reason.length > 3)).toBe(true);
      }),
      { numRuns: 400, seed: 9 },
    );
  });
  it('takes every way of selling and pricing', () => {
    for (const sold of SOLD_AS) expect(problems({ sold })).toEqual([]);
    for (const per of PRICE_PER) expect(problems({ price: { minor: 1, currency: 'EUR', per } })).toEqual([]);
  });
});

describe('a board in a job', () => {
  const job = (change: object) => {
    const board = { ...plain(), id: 'b1', ...change };
    return readDocument({ ...JSON.parse(JSON.stringify(demoJobs[1])), boards: [board] });
  };
  it('keeps the places that others take', () => {
    const taken = [
      {
        label: 'B3',
        of: 'another job',
        slot: 's',
        copy: 0,
        x: 0,
        y: 0,
        length: 10,
        width: 10,
        thickness: 10,
        leaf: 0,
        leaves: 2,
      },
    ];
    expect(job({ taken }).ok).toBe(true);
    expect(job({ taken: [{ ...taken[0], x: -1 }] })).toMatchObject({
      ok: false,
      problems: [{ path: 'boards[0].taken[0].x' }],
    });
  });
  it('has an id, which a board for the rack must not bring', () => {
    expect(checkWith(boardSchema(), plain()).ok).toBe(false);
    expect(problems({ id: 'mine' })[0].reason).toContain('id');
  });
  it('its strips’ places and the breakdown are checked to the last field', () => {
    const build = JSON.parse(JSON.stringify(demoJobs[1]));
    const with_ = (strip: object, breakdown?: object) => {
      const next = structuredClone(build);
      next.assemblies[0].slots[0].strip = strip;
      if (breakdown) next.breakdown = breakdown;
      return readDocument(next);
    };
    expect(
      with_({ board: 'b', at: { x: 1, y: 2 }, leaf: 1, leaves: 2, faceDown: true, locked: true }).ok,
    ).toBe(true);
    expect(with_({ board: 'b', at: { x: 1 } })).toMatchObject({ ok: false });
    expect(with_({ at: { x: 'near', y: 0 } })).toMatchObject({ ok: false });
    expect(with_({ shape: 'round' })).toMatchObject({ ok: false });
    const settings = {
      goal: 'leastWaste',
      crosscutSaw: 'a',
      ripSaw: 'a',
      resawSaw: 'a',
      resaw: true,
      extraLength: { mm: 0 },
      extraWidth: { mm: 0 },
      endTrim: { mm: 5 },
      edgeTrim: { mm: 2 },
      remnant: { mm: 25 },
      leastOffcutLength: { mm: 300 },
      leastOffcutWidth: { mm: 40 },
      offcutWorthPct: 75,
    };
    expect(with_({}, settings).ok).toBe(true);
    for (const [field, wrong] of [
      ['goal', 'luck'],
      ['remnant', { mm: -1 }],
      ['offcutWorthPct', 101],
      ['resaw', 'yes'],
    ] as const)
      expect(with_({}, { ...settings, [field]: wrong }), field).toMatchObject({ ok: false });
  });
});

describe('what is sent about boards', () => {
  it('a batch holds one to 2,000 boards', () => {
    expect(checkWith(newBoardsBody, { boards: [plain()] }).ok).toBe(true);
    expect(checkWith(newBoardsBody, { boards: [] }).ok).toBe(false);
    expect(checkWith(newBoardsBody, { boards: Array.from({ length: 2001 }, plain) }).ok).toBe(false);
  });
  it('a change brings the version it was made from; removal says whether it insists; reserving names boards', () => {
    expect(checkWith(saveBoardBody, { version: 1, board: plain() }).ok).toBe(true);
    expect(checkWith(saveBoardBody, { board: plain() }).ok).toBe(false);
    expect(checkWith(saveBoardBody, { version: 0, board: plain() }).ok).toBe(false);
    expect(checkWith(removeBoardsBody, { ids: ['a'] }).ok).toBe(false);
    expect(checkWith(removeBoardsBody, { ids: ['a'], force: true }).ok).toBe(true);
    expect(checkWith(reserveBoardsBody, { boards: [] }).ok).toBe(true);
    expect(checkWith(reserveBoardsBody, { boards: ['no spaces please'] }).ok).toBe(false);
  });
});
