import { describe, expect, it } from 'vitest';
import { type BuildDocument, MOST_STRIPS } from '../core/document';
import { demoJobs } from '../demo/jobs';
import { demoShop } from '../demo/shop';
import { saveJobBody } from './bodies';
import { tooMuch } from './bounds';
import { checkWith } from './check';

const bytes = (text: string) => new TextEncoder().encode(text);
const job = () =>
  JSON.parse(
    JSON.stringify(demoJobs.find((each) => each.steps.some(({ kind }) => kind === 'slice'))),
  ) as BuildDocument;

const many = <T>(count: number, make: (i: number) => T): T[] =>
  Array.from({ length: count }, (_, i) => make(i));
const mm = { mm: 100, typed: { text: '100', system: 'mm' } };
const place = { x: 0, y: 0, length: 1, width: 1 };
const FULL_SLOT = {
  species: 'ash_white',
  length: mm,
  width: mm,
  thickness: mm,
  grain: 'flat',
  grade: 'show',
  gradeBelow: 'hidden',
  set: 'a',
  side: 'up',
  fibre: 'rising',
  sapEdge: 'both',
  strip: {
    board: 'b',
    seed: 3,
    at: { x: 1, y: 2 },
    leaf: 1,
    leaves: 2,
    faceDown: true,
    locked: true,
    excluded: false,
  },
};
/** One document for each limit on a list, as full as that list can be and as its entries can be. */
const AT_LIMITS: [string, number, (build: any) => void][] = [
  ['targets', 20, (b) => (b.targets = many(20, (i) => ({ ...b.targets[0], id: `t${i}` })))],
  [
    'boards',
    500,
    (b) =>
      (b.boards = many(500, (i) => ({
        id: `b${i}`,
        label: `${i}`,
        species: 'ash_white',
        length: mm,
        width: mm,
        thickness: mm,
        sold: 'rough',
        price: { minor: 1, currency: 'EUR', per: 'boardFoot' },
      }))),
  ],
  [
    'places taken of a board',
    500,
    (b) =>
      (b.boards = [
        {
          id: 'b',
          label: '1',
          species: 'ash_white',
          length: mm,
          width: mm,
          thickness: mm,
          taken: many(500, () => ({ label: 'x', ...place, thickness: 1 })),
        },
      ]),
  ],
  [
    'faults of a board',
    200,
    (b) =>
      (b.boards = [
        {
          id: 'b',
          label: '1',
          species: 'ash_white',
          length: mm,
          width: mm,
          thickness: mm,
          faults: many(200, (i) => ({ id: `f${i}`, kind: 'knot', face: 'both', ...place })),
        },
      ]),
  ],
  [
    'assemblies',
    50,
    (b) => (b.assemblies = many(50, (i) => ({ id: `a${i}`, name: 'x', repeat: 1, slots: [] }))),
  ],
  [
    'strips',
    MOST_STRIPS,
    (b) => (b.assemblies[0].slots = many(MOST_STRIPS, (i) => ({ id: `s${i}`, ...FULL_SLOT }))),
  ],
  [
    'steps',
    200,
    (b) =>
      (b.steps = many(200, (i) => ({
        id: `s${i}`,
        output: `o${i}`,
        inputs: i ? [`o${i - 1}`] : [],
        kind: 'rest',
        note: 'x'.repeat(4000),
      }))),
  ],
  [
    'inputs',
    100,
    (b) =>
      (b.steps = [
        ...many(100, (i) => ({ id: `s${i}`, output: `o${i}`, inputs: [], kind: 'rest' })),
        { id: 'g', output: 'g', kind: 'rest', inputs: many(100, (i) => `o${i}`) },
      ]),
  ],
  [
    'marks, photos and spoilt pieces',
    2000,
    (b) =>
      Object.assign(b.steps[0], {
        marks: many(50, () => 'm'.repeat(80)),
        photos: many(50, () => 'p'.repeat(200)),
        spoilt: many(2000, (i) => `piece-${i}`),
      }),
  ],
  [
    'laid parts',
    2000,
    (b) =>
      Object.assign(
        b.steps.find((s: any) => s.kind === 'glue'),
        {
          parts: many(2000, (i) => ({
            piece: `p${i}`,
            endForEnd: true,
            rollOver: true,
            quarter: true,
            sacrificial: true,
            locked: true,
            place: { offset: mm, angleDegrees: 1, spacer: mm, about: 'length', x: mm, y: mm, z: mm },
          })),
        },
      ),
  ],
  [
    'exceptions and rows',
    2000,
    (b) =>
      Object.assign(
        b.steps.find((s: any) => s.kind === 'glue'),
        {
          turns: { turn: 'rollOver', every: 1, first: 1, except: many(2000, (i) => i + 1) },
          rows: { counts: many(500, () => 2), across: 'width' },
        },
      ),
  ],
  [
    'contacts',
    2000,
    (b) =>
      Object.assign(
        b.steps.find((s: any) => s.kind === 'glue'),
        { contacts: many(2000, () => ({ between: ['a', 'b'], how: 'in part', clearance: mm })) },
      ),
  ],
  [
    'what was chosen for a glue-up',
    2000,
    (b) =>
      Object.assign(
        b.steps.find((s: any) => s.kind === 'glue'),
        {
          plan: {
            clamps: many(200, (i) => ({ id: `c${i}`, at: mm, side: 'above', forceN: 1, set: 'x' })),
            edges: many(500, (i) => ({ joint: i + 1, shape: 'wavy', depth: mm, wave: mm })),
            aids: {
              kind: 'dowels',
              places: many(500, (i) => ({ joint: i + 1, at: mm })),
              keepOut: many(50, () => ({ from: mm, to: mm, why: 'x' })),
            },
            rehearsal: {
              at: '2027-01-04T10:00:00Z',
              whole: true,
              laps: many(2000, () => ({ act: 'clamp', seconds: 3 })),
            },
            joints: many(500, (i) => ({ joint: i + 1, squeezeOut: 'lean', step: mm })),
          },
        },
      ),
  ],
  [
    'an outline',
    200,
    (b) =>
      b.steps.push({
        id: 'shape-x',
        output: 'shape-x',
        inputs: [b.steps.at(-1).output],
        kind: 'shape',
        outline: many(200, () => ({ x: mm, y: mm })),
      }),
  ],
  [
    'readings',
    2000,
    (b) =>
      (b.readings = many(2000, (i) => ({
        id: `r${i}`,
        step: 'slice',
        piece: 'p',
        dimension: 'length',
        measured: mm,
        taken: '2027-01-04',
      }))),
  ],
  [
    'saws and machines',
    40,
    (b) =>
      Object.assign(b.shop, {
        saws: many(40, (i) => ({ ...b.shop.saws[0], id: `s${i}` })),
        machines: many(40, (i) => ({ ...b.shop.machines[0], id: `m${i}` })),
      }),
  ],
  [
    'lay-up rules',
    100,
    (b) =>
      (b.shop.layUps = many(100, (i) => ({
        id: `l${i}`,
        name: 'x',
        strips: many(200, () => ({ species: 'ash_white', share: 0.5, endForEnd: true, rollOver: true })),
      }))),
  ],
  [
    'clamps and bottles',
    60,
    (b) =>
      Object.assign(b.shop, {
        clamps: many(60, (i) => ({ ...(demoShop.clamps ?? [])[0], id: `c${i}` })),
        adhesives: many(60, (i) => ({ ...(demoShop.adhesives ?? [])[0], id: `a${i}` })),
      }),
  ],
];

describe('a document at a limit of the contract', () => {
  it.each(AT_LIMITS)('is accepted under 4 MB: %s, %i', (_what, _most, fill) => {
    const full = job();
    fill(full);
    const text = JSON.stringify({ version: 1, build: full });
    expect(tooMuch(bytes(text))).toBeUndefined();
    expect(checkWith(saveJobBody, JSON.parse(text))).toMatchObject({ ok: true });
  });
});
