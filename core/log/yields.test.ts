import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import type { BuildDocument } from '../document';
import { mustEdit } from '../edit';
import { boardVolume } from '../stock';
import { boardsCut, USUAL_YIELD, yieldsOf } from '.';

/** A job whose first two strips come out of one board of 3 m by 300 by 52 mm. */
const broken = (): BuildDocument => {
  const job = structuredClone(demoJobs[4]) as BuildDocument;
  const [first, second] = job.assemblies[0].slots;
  return mustEdit(job, {
    do: 'useBoards',
    boards: [
      {
        id: 'a',
        label: 'a',
        grade: 'prime',
        species: first.species,
        length: { mm: 3000 },
        width: { mm: 300 },
        thickness: { mm: 52 },
      },
    ],
    strips: {
      [first.id]: { board: 'a', at: { x: 0, y: 0 } },
      [second.id]: { board: 'a', at: { x: 0, y: first.width.mm + 3.175 } },
    },
    breakdown: {
      goal: 'leastWaste',
      crosscutSaw: 'table-full',
      ripSaw: 'table-full',
      resawSaw: 'bandsaw',
      resaw: true,
      extraLength: { mm: 0 },
      extraWidth: { mm: 0 },
      endTrim: { mm: 0 },
      edgeTrim: { mm: 0 },
      remnant: { mm: 0 },
      leastOffcutLength: { mm: 300 },
      leastOffcutWidth: { mm: 40 },
      offcutWorthPct: 75,
    },
  });
};
const ripped = (build: BuildDocument): BuildDocument => ({
  ...build,
  steps: build.steps.map((step) => (step.kind === 'rip' ? { ...step, done: true } : step)),
});

describe('what comes of boards', () => {
  it('is known once they are cut: strips over what is gone of each', () => {
    expect(boardsCut(broken())).toEqual([]);
    const [cut, ...others] = boardsCut(ripped(broken()));
    expect(others).toEqual([]);
    const slots = broken().assemblies[0].slots.slice(0, 2);
    const strips = slots.reduce(
      (sum, { length, width, thickness }) => sum + length.mm * width.mm * thickness.mm,
      0,
    );
    expect(cut).toMatchObject({ species: slots[0].species, grade: 'prime', faulty: false });
    expect(cut.good).toBeCloseTo(strips, 3);
    // The rest of the board is long and wide enough to be kept: gone is little more than the strips, and never less.
    expect(cut.all).toBeGreaterThanOrEqual(cut.good);
    expect(cut.all).toBeLessThan(boardVolume(broken().boards[0]) / 2);
  });
  it('counts common practice as six boards, and tells boards with faults from those without', () => {
    const board = { species: 'maple_sugar', faulty: false, all: 100, good: 90 };
    const yields = yieldsOf([board, board, { ...board, faulty: true, good: 40 }]);
    expect(yields).toEqual([
      {
        species: 'maple_sugar',
        faulty: false,
        boards: 2,
        value: expect.closeTo((600 * USUAL_YIELD + 180) / 800, 12),
      },
      {
        species: 'maple_sugar',
        faulty: true,
        boards: 1,
        value: expect.closeTo((600 * USUAL_YIELD + 40) / 700, 12),
      },
    ]);
    expect(yieldsOf([])).toEqual([]);
  });
  it('goes by the grade where one is noted, however it is written, and by faults where none is', () => {
    const board = { species: 'maple_sugar', faulty: false, all: 100, good: 90 };
    const yields = yieldsOf([
      { ...board, grade: 'Prime' },
      { ...board, grade: 'prime ', faulty: true, good: 70 },
      { ...board, grade: 'Second', good: 30 },
      board,
      { ...board, species: 'ash_white', grade: 'Prime' },
    ]);
    expect(yields.map(({ value: _value, ...rest }) => rest)).toEqual([
      { species: 'maple_sugar', grade: 'Prime', boards: 2 },
      { species: 'maple_sugar', grade: 'Second', boards: 1 },
      { species: 'maple_sugar', faulty: false, boards: 1 },
      { species: 'ash_white', grade: 'Prime', boards: 1 },
    ]);
    expect(yields[0].value).toBeCloseTo((600 * USUAL_YIELD + 160) / 800, 12);
  });
});
