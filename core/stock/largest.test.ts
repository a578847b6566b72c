import { describe, expect, it } from 'vitest';
import type { BoardStock, Brief } from '../document';
import { mustEdit } from '../edit';
import { defaultShop, typed } from '../kit';
import { mustFit, fromPanel } from '../plan';
import { run } from '../run';
import { boardsForStrip, largestFrom, stripFromBoard } from '.';

const shop = { ...defaultShop('largest'), settingStep: { mm: 1 } };
const brief: Brief = {
  pattern: 'panel',
  length: { aim: 'fixed', value: { mm: 600 } },
  width: { aim: 'fixed', value: { mm: 240 } },
  thickness: { aim: 'fixed', value: { mm: 20 } },
  woods: ['cherry_black'],
  module: { mm: 60 },
  saw: 'table-full',
  flattenWith: 'planer',
  trimWith: { saw: 'table-full' },
  chequer: true,
  extraSlices: 0,
  sections: 0,
};
const board = (n: number, length: number, width: number): BoardStock => ({
  id: `b${n}`,
  label: `${n}`,
  species: 'cherry_black',
  length: { mm: length },
  width: { mm: width },
  thickness: { mm: 34 },
  sold: 'rough',
});
const plan = (change: Partial<Brief> = {}) =>
  mustFit({ ...brief, ...change }, shop, { name: 'largest', use: '' });

describe('the largest piece a rack gives', () => {
  it('is cut whole from the boards, and a step more is not', () => {
    const boards = [board(1, 900, 185), board(2, 900, 185)];
    const { sizeMm, build, more } = largestFrom(plan(), boards, 'length');
    expect(more).toBe(false);
    expect(build && run(build).finished?.greatest[0]).toBeCloseTo(sizeMm ?? 0, 6);
    // One board length less the trims of board and piece is what a strip can be.
    const most = 900 - 2 * typed('1/2').mm - 2 * shop.allowances.trimEnd.mm;
    expect(sizeMm).toBeLessThanOrEqual(most);
    expect(sizeMm).toBeGreaterThan(most - 30);
  });
  it('says so where the rack gives nothing of it, or more than was tried', () => {
    expect(largestFrom(plan(), [], 'length')).toMatchObject({ more: false });
    expect(largestFrom(plan(), [], 'length').sizeMm).toBeUndefined();
    const plenty = Array.from({ length: 8 }, (_, i) => board(i, 3000, 200));
    expect(largestFrom(plan(), plenty, 'length')).toMatchObject({ more: true, sizeMm: 1800 });
  });
  it('grows in width by strips', () => {
    const two = largestFrom(plan(), [board(1, 900, 185), board(2, 900, 185)], 'width').sizeMm ?? 0;
    const three =
      largestFrom(plan(), [board(1, 900, 185), board(2, 900, 185), board(3, 900, 185)], 'width').sizeMm ?? 0;
    expect(three).toBeGreaterThan(two);
  }, 60_000);
});

describe('a strip of another board in a strip’s place', () => {
  it('offers boards that are large enough, and the strip takes on its wood', () => {
    const build = plan();
    const [slot] = build.assemblies[0].slots;
    const rack = [board(1, 500, 185), board(2, 900, 185), { ...board(3, 900, 185), species: 'walnut_black' }];
    expect(boardsForStrip(build, slot, rack).map(({ id }) => id)).toEqual(['b2', 'b3']);
    const next = mustEdit(build, stripFromBoard(build, slot, { ...rack[2], colour: '#553311' }));
    expect(next.assemblies[0].slots[0]).toMatchObject({ species: 'walnut_black', strip: { board: 'b3' } });
    expect(next.boards).toMatchObject([{ id: 'b3', colour: '#553311' }]);
    const cell = run(next).steps[0].pieces[0].blank.cells[0];
    expect(cell.origin).toMatchObject({ board: 'b3', species: 'walnut_black' });
    expect(cell.origin.tone).toBeDefined();
    expect(boardsForStrip(next, slot, rack).map(({ id }) => id)).toEqual(['b2']);
  });
});

describe('a panel on hand', () => {
  const block = plan({
    pattern: 'endGrain',
    length: { aim: 'fixed', value: { mm: 400 } },
    width: { aim: 'fixed', value: { mm: 240 } },
    thickness: { aim: 'fixed', value: { mm: 40 } },
    module: { mm: 30 },
    woods: ['walnut_black', 'maple_sugar'],
  });
  it('gives exactly what the solid model gives when it is sliced', () => {
    for (const [length, thickness] of [
      [500, 29],
      [700, 33],
      [911, 26.5],
    ] as const) {
      const answer = fromPanel(block, { length, thickness });
      const cut = [
        ...block.assemblies[0].slots.map(({ id }) => ({
          do: 'setSlot' as const,
          step: 'rip',
          strip: id,
          change: { length: { mm: length } },
        })),
        {
          do: 'measure' as const,
          step: 'flatten',
          dimension: 'thickness' as const,
          measured: { mm: thickness },
        },
        { do: 'setStep' as const, step: 'slice', change: { count: 200 } },
      ].reduce(mustEdit, block);
      // The model keeps in hand what must stay there, as the plan does.
      expect(run(cut).steps.find(({ id }) => id === 'slice')?.pieces.length).toBe(answer?.slices);
    }
  });
  it('a thickness that keeps the pattern makes the planned rows fill the length; longer is exact', () => {
    const answer = fromPanel(block, { length: 300, thickness: 30 });
    const planned = block.steps.find(({ id }) => id === 'slice');
    const rows = planned?.kind === 'slice' ? planned.count : 0;
    expect((answer?.keepsPattern ?? 0) * rows).toBeCloseTo(400 + 2 * shop.allowances.trimEnd.mm, 9);
    const long = fromPanel(block, { length: 300 + (answer?.longer ?? 0), thickness: 30 });
    expect(long?.slices).toBe(long?.needed);
    expect(fromPanel(block, { length: 300 + (answer?.longer ?? 0) - 0.1, thickness: 30 })?.slices).toBe(
      (long?.needed ?? 0) - 1,
    );
  });
  it('patterns without rows have none', () => {
    expect(fromPanel(plan(), { length: 500, thickness: 20 })).toBeUndefined();
    expect(fromPanel(block, { length: 0, thickness: 20 })).toBeUndefined();
  });
});
