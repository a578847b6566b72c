import { describe, expect, it } from 'vitest';
import { run } from '../../run';
import { lostTo } from '../../solid';
import { INCH } from '../../units';
import { build, closes, last, shop, slot } from '../steps.fixture';
import { resaw, type ResawStep } from './resaw';

const into = (leaves: number, saw = 'bandsaw'): ResawStep => ({
  id: 'resaw',
  kind: 'resaw',
  inputs: ['strips'],
  output: 'leaves',
  saw,
  leaves,
});
const board = [slot('s1', 600, 150, 40)];
/** The bandsaw of a small shop takes 1/16 in (common practice). */
const KERF = INCH / 16;

describe('resaw', () => {
  it.each([
    2, 3, 5,
  ])('into %i leaves alike: the thickness less one kerf fewer than leaves, shared', (leaves) => {
    const step = last(build(board, [into(leaves)]));
    const each = (40 - (leaves - 1) * KERF) / leaves;
    expect(step.pieces.map(({ id }) => id)).toEqual(Array.from({ length: leaves }, (_, i) => `s1.${i + 1}`));
    expect([step.least[2], step.greatest[2]]).toEqual([expect.closeTo(each, 9), expect.closeTo(each, 9)]);
    expect(lostTo(step.lost, 'kerf')).toBeCloseTo((leaves - 1) * KERF * 600 * 150, 3);
    expect(lostTo(step.lost, 'offcut')).toBe(0);
    closes(build(board, [into(leaves)]));
  });
  it('leaves as they were measured: one is thicker, and the others share what is left', () => {
    const measured = build(board, [into(3)], {
      readings: [{ id: 'r', step: 'resaw', dimension: 'thickness', measured: { mm: 14 }, piece: 's1.2' }],
    });
    const { least, greatest } = last(measured);
    expect(greatest[2]).toBeCloseTo(14, 9);
    expect(least[2]).toBeCloseTo((40 - 2 * KERF - 14) / 2, 9);
    closes(measured);
  });
  it('leaves no thinner than a sheet of paper, and not one or fifty-one of them', () => {
    const most = Math.floor((40 + KERF) / KERF);
    const [thin] = run(build(board, [into(most)])).problems;
    expect(thin).toMatchObject({ code: 'leaves-too-thin', severity: 'stop', numbers: { leaves: most } });
    expect(thin.numbers.kerfs).toBeCloseTo((most - 1) * KERF, 9);
    for (const leaves of [1, 0, 51, 2.5])
      expect(run(build(board, [into(leaves)])).problems).toMatchObject([
        { code: 'bad-count', numbers: { leaves } },
      ]);
  });
  it('stands under the stick with its kerfs, and wants a saw that resaws', () => {
    expect(resaw.took?.(into(4), KERF)).toEqual([{ from: 'kerfs', mm: expect.closeTo(3 * KERF, 9) }]);
    expect(resaw.sawing?.work(into(2))).toEqual(['resaw']);
    expect(resaw.subtitle?.(into(4), { strips: 0 })).toBe('4 leaves from every board');
    expect(shop.saws.find(({ id }) => id === 'bandsaw')?.kerf.mm).toBeCloseTo(KERF, 9);
  });
});
