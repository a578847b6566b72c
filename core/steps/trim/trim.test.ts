import { describe, expect, it } from 'vitest';
import type { Step } from '../../document';
import { lostTo } from '../../solid';
import { INCH } from '../../units';
import { build, GLUE, last, lost, size, three } from '../steps.fixture';
import { trim as room, type TrimStep } from './trim';

describe('trim', () => {
  const trim = (cutter: Extract<Step, { kind: 'trim' }>['cutter'], mm: number): Step => ({
    id: 't',
    kind: 'trim',
    inputs: ['panel'],
    output: 'piece',
    cutter,
    start: { mm },
    end: { mm },
    near: { mm },
    far: { mm },
  });
  it('a sawn trim turns one kerf to dust and leaves the rest as offcut; the size is exact', () => {
    const step = last(build(three, [GLUE, trim({ saw: 'table-full' }, 5)]));
    expect(size(step)).toEqual([490, 140, 25].map((v) => expect.closeTo(v, 9)));
    expect(lostTo(step.lost, 'kerf')).toBeCloseTo(25 * 3.175 * (2 * 500 + 2 * 140), 6);
    expect(lostTo(step.lost, 'offcut')).toBeCloseTo(25 * (5 - 3.175) * (2 * 500 + 2 * 140), 6);
  });
  it('the narrower of its two rips is what a hand comes nearest to; an edge that loses nothing is not ripped', () => {
    const rips = (near: number, far: number) =>
      room.sawing?.carried?.along?.({
        ...trim({ saw: 'table-full' }, 5),
        near: { mm: near },
        far: { mm: far },
      } as TrimStep);
    expect([rips(3, 10), rips(10, 3), rips(0, 10), rips(0.5, 10)]).toEqual([3, 3, 10, 0.5]);
  });
  it('a trim thinner than the kerf is all dust, a planed one all shavings, to the same size', () => {
    const sawn = last(build(three, [GLUE, trim({ saw: 'table-full' }, 2)]));
    const planed = last(build(three, [GLUE, trim({ machine: 'hand' }, 2)]));
    expect(lost(sawn)).toMatchObject({ offcut: 0, kerf: 25 * 2 * (2 * 500 + 2 * 146) });
    expect(lost(planed)).toMatchObject({ kerf: 0, shaving: 25 * 2 * (2 * 500 + 2 * 146) });
    expect(size(sawn)).toEqual(size(planed).map((v) => expect.closeTo(v, 9)));
  });
  it('trims nothing where nothing is asked, and keeps the error of that size', () => {
    const before = last(build(three, [GLUE]));
    const after = last(
      build(three, [GLUE, { ...trim({ saw: 'table-full' }, 4), near: { mm: 0 }, far: { mm: 0 } } as Step]),
    );
    expect(size(after)[1]).toBe(size(before)[1]);
    expect(after.tolerance[1]).toEqual(before.tolerance[1]);
    expect(after.tolerance[0].likelyMm).toBeCloseTo(0.008 * INCH, 9);
  });
});
