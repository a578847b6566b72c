import { describe, expect, it } from 'vitest';
import type { BuildDocument } from '../document';
import { defaultShop, typed } from '../kit';
import { mustFit, startingBrief } from '../plan';
import { fixed } from '../plan/briefs.fixture';
import { run } from '../run';
import {
  type Blank,
  boxBlank,
  extents,
  glueBlanks,
  moveBlank,
  quarterTurn,
  type Rigid,
  toOrigin,
} from '../solid';
import { type GlueStep, swingOf, type Timeline, type WorkPiece } from '../steps';
import { findingsOf } from '.';
import { crossGrain } from './crossgrain';

/** Fibres along x; the pith so far below that the rings lie in the face, or so far to the side that they stand upright. */
const FAR = 1e9;
const flatSawn: Rigid = [0, 1, 0, 0, 0, 0, 1, FAR, 1, 0, 0, 0];
const quarterSawn: Rigid = [0, 0, 1, 0, 0, 1, 0, FAR, 1, 0, 0, 0];
const board = (width: number, toLog: Rigid, id: string, species = 'oak_white'): Blank =>
  boxBlank([1200, width, 30], toLog, { board: id, species, seed: 1, shade: 1 }, id);

/** A top of boards with a cap glued along its end, as the review sees it. */
function capped(boards: readonly Blank[], cap: Blank, apart = false, build: Partial<BuildDocument> = {}) {
  const top = toOrigin(glueBlanks([...boards], 1));
  const width = extents(top)[1];
  const whole = toOrigin(glueBlanks([top, cap], 0));
  const errors = [{}, {}, {}] as const;
  const piece = (id: string, blank: Blank): WorkPiece => ({ id, blank, errors });
  const parts = apart ? boards.map((each, i) => piece(`board-${i}`, each)) : [piece('top', top)];
  const step: GlueStep = { id: 'cap', kind: 'glue', inputs: [], output: 'capped', along: 'length' };
  const size = extents(whole);
  let at = 0;
  const timeline = {
    steps: [
      {
        id: 'cap',
        kind: 'glue',
        entered: [...parts, piece('cap', cap)],
        pieces: [piece('capped', whole)],
        laid: [
          ...parts.map(({ id, blank }) => {
            const from = apart ? at : 0;
            at += extents(blank)[1];
            return { piece: id, min: [0, from, 0], max: [1200, apart ? at : width, 30] };
          }),
          { piece: 'cap', min: [1200, 0, 0], max: [size[0], width, 30] },
        ],
      },
    ],
  } as unknown as Timeline;
  return crossGrain(step, {
    build: build as BuildDocument,
    timeline,
    before: () => [],
    enteringTolerance: () => ({ likelyMm: 0, worstMm: 0 }),
  });
}
const capOf = (width: number): Blank =>
  toOrigin(
    moveBlank(
      boxBlank([width, 90, 30], flatSawn, { board: 'c', species: 'oak_white', seed: 2, shade: 2 }, 'c'),
      quarterTurn(2, 1),
    ),
  );

/* Wood Handbook, table of dimensional change coefficients, from memory: white oak 0.00180 radial, 0.00365 tangential. */
describe('a top between end caps moves by its whole width', () => {
  const five = (toLog: Rigid) => Array.from({ length: 5 }, (_, i) => board(164, toLog, `b${i}`));
  it('820 mm of flat-sawn white oak, 4 %: 820 x 0.00365 x 4 = 11.972 mm', () => {
    const [finding] = capped(five(flatSawn), capOf(820));
    expect(finding.code).toBe('cross-grain-joint');
    expect(finding.numbers.length).toBeCloseTo(820, 3);
    expect(finding.numbers.moves).toBeCloseTo(820 * 0.00365 * 4, 3);
  });
  it('by the year of the place where it will stand, to a tenth of a percent, once that is told', () => {
    const told = {
      shop: defaultShop('place'),
      place: {
        dry: { temperatureC: 21, humidityPct: 25 },
        damp: { temperatureC: 21, humidityPct: 70 },
      },
    };
    // Equilibrium moisture by the Wood Handbook's equation at 21 C: about 5.4 % at 25 % and 13 % at 70 %.
    const { dry, damp } = swingOf(told);
    const year = Number((damp - dry).toFixed(1));
    expect(year).toBeGreaterThan(7);
    expect(year).toBeLessThan(8.5);
    const [finding] = capped(five(flatSawn), capOf(820), false, told);
    expect(finding.numbers.moves).toBeCloseTo(820 * 0.00365 * year, 3);
  });
  it('quartersawn by the radial coefficient, 820 x 0.0018 x 4 = 5.904 mm, and is found all the same', () => {
    const [finding] = capped(five(quarterSawn), capOf(820));
    expect(finding.numbers.length).toBeCloseTo(820, 3);
    expect(finding.numbers.moves).toBeCloseTo(820 * 0.0018 * 4, 3);
  });
  it('mixed boards count with their widths, none is dropped: 2 flat, 3 quartersawn', () => {
    const mixed = [flatSawn, quarterSawn, flatSawn, quarterSawn, quarterSawn].map((at, i) =>
      board(164, at, `b${i}`),
    );
    const [finding] = capped(mixed, capOf(820));
    expect(finding.numbers.length).toBeCloseTo(820, 3);
    expect(finding.numbers.moves).toBeCloseTo((2 * 0.00365 + 3 * 0.0018) * 164 * 4, 3);
  });
  it('glued on board by board it is the same joint', () => {
    const [finding] = capped(five(flatSawn), capOf(820), true);
    expect(finding.numbers.length).toBeCloseTo(820, 3);
    expect(finding.numbers.moves).toBeCloseTo(820 * 0.00365 * 4, 3);
  });
});

describe('a wall of face-grain bricks', () => {
  it.each([
    '9',
    '14',
  ])('%s in wide is joined across the grain over its width, not over twice that', (width) => {
    const shop = defaultShop('wall');
    const wall = mustFit(
      {
        ...startingBrief('bricks', shop),
        width: fixed(width),
        module: typed('2'),
        measures: { grain: 'face', mortar: typed('1/4'), height: typed('1') },
      },
      shop,
      { name: 'wall', use: '' },
    );
    const timeline = run(wall);
    const block = timeline.steps.find(({ id }) => id === 'glue-block');
    for (const { code, numbers } of findingsOf(wall, timeline))
      if (code === 'cross-grain-joint')
        expect(numbers.length).toBeLessThanOrEqual((block?.greatest[1] ?? 0) + 1e-6);
  });
});
