import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../../demo/jobs';
import {
  type BoardStock,
  type BreakdownSettings,
  type BuildDocument,
  type Fault,
  FAULT_KINDS,
  forbids,
  isThrough,
  overlap,
} from '../../document';
import { mustEdit } from '../../edit';
import { DRESSED_SIZES, dressedSize, typed } from '../../kit';
import { review } from '../../review';
import { run } from '../../run';
import { bulkText } from '../../units';

const job = structuredClone(demoJobs[4]) as BuildDocument;

const slots = (build: BuildDocument) => build.assemblies.flatMap((assembly) => assembly.slots);

const board = (id: string): BoardStock => ({
  id,
  label: id,
  species: 'walnut_black',
  length: { mm: 3000 },
  width: { mm: 300 },
  thickness: { mm: 52 },
});

const breakdown: BreakdownSettings = {
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
};

describe('edits that bring wood into a job', () => {
  const [first, second] = slots(job);
  const put = mustEdit(job, {
    do: 'useBoards',
    boards: [board('a')],
    strips: { [first.id]: { board: 'a', at: { x: 0, y: 0 } } },
    breakdown,
  });
  it('write boards, places and settings, and leave the job they were made on alone', () => {
    expect(slots(put)[0].strip).toEqual({ board: 'a', at: { x: 0, y: 0 } });
    expect(put.boards.map(({ id }) => id)).toEqual(['a']);
    expect(put.breakdown).toBe(breakdown);
    expect(job.boards).toEqual([]);
    expect(slots(job)[0].strip).toBeUndefined();
  });
  it('keep boards that strips not spoken of still name, and drop the others', () => {
    const both = mustEdit(put, {
      do: 'useBoards',
      boards: [board('b')],
      strips: { [second.id]: { board: 'b', at: { x: 0, y: 0 } } },
      breakdown,
    });
    expect(both.boards.map(({ id }) => id).toSorted()).toEqual(['a', 'b']);
    const moved = mustEdit(both, {
      do: 'useBoards',
      boards: [board('b')],
      strips: { [first.id]: {} },
      breakdown,
    });
    expect(moved.boards.map(({ id }) => id)).toEqual(['b']);
    expect(slots(moved)[0].strip).toBeUndefined();
  });
  it('keep a strip’s seed, so that its figure does not change when it loses its board', () => {
    const seeded = mustEdit(job, { do: 'setSlots', strips: [first.id], change: { strip: { seed: 7 } } });
    const placed = mustEdit(seeded, {
      do: 'useBoards',
      boards: [board('a')],
      strips: { [first.id]: { board: 'a', at: { x: 1, y: 1 } } },
      breakdown,
    });
    const bare = mustEdit(placed, { do: 'useBoards', boards: [], strips: { [first.id]: {} }, breakdown });
    expect(slots(bare)[0].strip).toEqual({ seed: 7 });
  });
  it('lock, leave out, and change strips of any lay-up by name', () => {
    const locked = mustEdit(put, { do: 'setStrip', strip: first.id, change: { locked: true } });
    expect(slots(locked)[0].strip).toMatchObject({ board: 'a', locked: true });
    const changed = mustEdit(put, {
      do: 'setSlots',
      strips: [first.id, second.id],
      change: { grade: 'clear' },
    });
    expect(slots(changed).filter(({ grade }) => grade === 'clear')).toHaveLength(2);
    expect(
      mustEdit(put, { do: 'setBreakdown', breakdown: { ...breakdown, goal: 'colour' } }).breakdown?.goal,
    ).toBe('colour');
  });
  it('survive planning again: settings and boards stay, places go with the old strips', () => {
    const again = mustEdit(put, { do: 'replan', change: { module: typed('1 1/4') } });
    expect(again.breakdown).toEqual(breakdown);
    expect(again.boards.map(({ id }) => id)).toEqual(['a']);
    expect(slots(again).every(({ strip }) => strip === undefined)).toBe(true);
  });
});

describe('strips without a board', () => {
  const found = (build: BuildDocument) =>
    review(build, run(build)).filter(({ code }) => code === 'strips-without-board');
  it('are no finding before a breakdown was asked for, then one with their number and a fix', () => {
    expect(found(job)).toEqual([]);
    const asked = mustEdit(job, { do: 'setBreakdown', breakdown });
    const [finding] = found(asked);
    expect(finding.numbers).toMatchObject({ strips: slots(job).length, of: slots(job).length });
    const volumes = slots(job).map(({ length, width, thickness }) => length.mm * width.mm * thickness.mm);
    expect(finding.numbers.shortMm3).toBeCloseTo(
      volumes.reduce((sum, mm3) => sum + mm3),
      3,
    );
    expect(found(mustEdit(asked, finding.fixes[0].edit))).toEqual([]);
  });
});

describe('faults and grades', () => {
  const fault = (change: Partial<Fault>): Fault => ({
    id: 'f',
    kind: 'knot',
    face: 'up',
    x: 0,
    y: 0,
    length: 10,
    width: 10,
    ...change,
  });
  it('every grade forbids what the one below it forbids', () => {
    for (const kind of FAULT_KINDS) {
      if (forbids('hidden', kind)) expect(forbids('show', kind)).toBe(true);
      if (forbids('show', kind)) expect(forbids('clear', kind)).toBe(true);
    }
  });
  it('splits, wane, nails and pith go through whichever face they were drawn on; a stain does not', () => {
    expect((['split', 'wane', 'nail', 'pith'] as const).every((kind) => isThrough(fault({ kind })))).toBe(
      true,
    );
    expect(isThrough(fault({ kind: 'stain' }))).toBe(false);
    expect(isThrough(fault({ kind: 'stain', face: 'both' }))).toBe(true);
  });
  it('touching is not overlapping', () => {
    const at = (x: number, y: number) => ({ x, y, length: 10, width: 10 });
    expect([
      overlap(at(0, 0), at(10, 0)),
      overlap(at(0, 0), at(9.9, 9.9)),
      overlap(at(0, 0), at(0, 10)),
    ]).toEqual([false, true, false]);
  });
});

describe('construction lumber and stacked boards', () => {
  it('has a real size for every name of the table, smaller than its name', () => {
    expect(DRESSED_SIZES.length).toBeGreaterThan(20);
    for (const { name, thicknessMm, widthMm } of DRESSED_SIZES) {
      const [t, w] = name.split('x').map(Number);
      expect(thicknessMm).toBeLessThan(t * 25.4);
      expect(widthMm).toBeLessThan(w * 25.4);
      expect(dressedSize(` ${name.toUpperCase().replace('X', ' × ')}`)).toEqual({ thicknessMm, widthMm });
    }
    expect(dressedSize('3x3')).toBeUndefined();
  });
  it('reads bulk in cubic feet or cubic metres', () => {
    expect(bulkText(28_316_846.592, { system: 'inch', fraction: 32 })).toBe('1.0 ft³');
    expect(bulkText(1.5e9, { system: 'mm', fraction: 0 })).toBe('1.500 m³');
  });
});
