import { describe, expect, it } from 'vitest';
import { run } from '../../run';
import { extents, lostTo } from '../../solid';
import { build, closes, GLUE, last, shop, three } from '../steps.fixture';
import { apartIds, cutApart, type CutApartStep, lostApart } from './cutApart';

const apart = (change: Partial<CutApartStep> = {}): CutApartStep => ({
  id: 'apart',
  kind: 'cutApart',
  inputs: ['panel'],
  output: 'parts',
  saw: 'table-full',
  along: 'width',
  first: { mm: 60 },
  ...change,
});
const KERF = shop.saws.find(({ id }) => id === 'table-full')?.kerf.mm ?? 0;
/** Strips of 40, 50 and 60 by 500: a panel of 150. */
const cut = (change: Partial<CutApartStep> = {}) => build(three, [GLUE, apart(change)]);

describe('cutting a panel apart', () => {
  it('in one cut: what is set, and the rest less a kerf', () => {
    const step = last(cut());
    expect(step.pieces.map(({ id }) => id)).toEqual(apartIds('panel'));
    expect(step.pieces.map(({ blank }) => extents(blank)[1])).toEqual([60, expect.closeTo(90 - KERF, 9)]);
    expect(lostTo(step.lost, 'kerf')).toBeCloseTo(KERF * 500 * 25, 3);
    expect(lostTo(step.lost, 'offcut')).toBe(0);
    closes(cut());
  });
  it('with a band taken out: two kerfs more, and the band is offcut', () => {
    const step = last(cut({ out: { mm: 12 } }));
    expect(step.pieces.map(({ blank }) => extents(blank)[1])).toEqual([
      60,
      expect.closeTo(150 - 60 - lostApart({ mm: 12 }, KERF), 9),
    ]);
    expect(lostApart({ mm: 12 }, KERF)).toBeCloseTo(12 + 2 * KERF, 9);
    expect(lostTo(step.lost, 'offcut')).toBeCloseTo(12 * 500 * 25, 3);
    closes(cut({ out: { mm: 12 } }));
  });
  it('across: the length is shared, and the saw must crosscut', () => {
    const step = last(cut({ along: 'length', first: { mm: 200 } }));
    expect(step.pieces.map(({ blank }) => extents(blank)[0])).toEqual([200, expect.closeTo(300 - KERF, 9)]);
    expect(step.pieces.map(({ blank }) => extents(blank)[1])).toEqual([150, 150]);
    expect(cutApart.sawing?.work(apart({ along: 'length' }))).toEqual(['crosscut']);
    expect(cutApart.sawing?.work(apart())).toEqual(['rip']);
    closes(cut({ along: 'length', first: { mm: 200 } }));
  });
  it('the first part has the error of the fence, the other that of the panel too', () => {
    const before = Object.keys(last(build(three, [GLUE])).pieces[0].errors[1]);
    const [first, second] = last(cut()).pieces.map(({ errors }) => Object.keys(errors[1]));
    expect(first).toEqual(['apart:fence']);
    expect(second).toEqual(expect.arrayContaining([...before, 'apart:fence']));
  });
  it.each([
    0,
    -1,
    150,
    150 - KERF,
    1e6,
  ])('of nothing, or of all there is (%d mm), it says why it cannot', (mm) => {
    const { problems } = run(cut({ first: { mm } }));
    expect(problems).toMatchObject([
      { code: 'nothing-left-apart', severity: 'stop', numbers: { size: 150, first: mm } },
    ]);
  });
  it('says at the bench where the fence stands, and what comes off', () => {
    const entry = last(cut({ out: { mm: 12 } }));
    const said = cutApart.operations(apart({ out: { mm: 12 } }), { entry } as never);
    expect(said.map(({ say }) => say.join(''))).toEqual([
      'Cut 1 piece apart, the near edge against the fence.',
      'Cut the bad band off the other part.',
    ]);
    expect(said.map(({ dial }) => dial?.value)).toEqual([{ mm: 60 }, { mm: 12 }]);
  });
});
