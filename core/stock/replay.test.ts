import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { BoardStock, BuildDocument, Fault } from '../document';
import { mustEdit } from '../edit';
import { defaultShop, typed } from '../kit';
import { mustFit } from '../plan';
import { run } from '../run';
import { blankVolume, CAUSES, extents, lostTo } from '../solid';
import { INCH } from '../units';
import { answerEdit } from './apply';
import { board, dice } from './cases.fixture';
import { settingsOf } from './demand';
import { planOf } from './hand';
import { type BoardLayout, layAnswer, totalsOf } from './layout';
import { setUpList } from './setup';
import { problemFor } from './shortage';
import { solveNow } from './solve';

const shop = defaultShop('replay');
const WOODS = ['cherry_black', 'maple_sugar'];

/** A random panel or block and a rack that may or may not be enough for it. */
function randomCase(seed: number): { build: BuildDocument; boards: BoardStock[] } {
  const roll = dice(seed + 40);
  const block = roll(0, 3) === 0;
  const planned = mustFit(
    {
      pattern: block ? 'endGrain' : 'panel',
      length: { aim: 'fixed', value: { mm: roll(block ? 9 : 14, block ? 14 : 34) * 25 } },
      width: { aim: 'fixed', value: { mm: roll(6, 14) * 25 } },
      thickness: { aim: 'fixed', value: { mm: roll(5, 12) * 3 } },
      woods: roll(0, 1) ? WOODS : [WOODS[0]],
      module: { mm: roll(10, 26) * 3 },
      saw: 'table-full',
      flattenWith: 'sled',
      trimWith: { saw: 'table-full' },
      chequer: false,
      extraSlices: 0,
      sections: roll(1, 2),
    },
    shop,
    { name: `case ${seed}`, use: '' },
  );
  const build: BuildDocument = {
    ...planned,
    targets: planned.targets.map((target) => ({ ...target, quantity: roll(1, 2) })),
    breakdown: {
      ...settingsOf(planned),
      ripSaw: ['table-full', 'table-thin', 'bandsaw'][roll(0, 2)],
      resaw: roll(0, 1) === 1,
      extraLength: { mm: roll(0, 2) * 4 },
      extraWidth: { mm: roll(0, 2) * 1.5 },
      endTrim: { mm: roll(0, 3) * 5 },
      edgeTrim: { mm: roll(0, 2) * 2 },
      remnant: { mm: roll(0, 1) * 25 },
    },
  };
  const boards = Array.from({ length: roll(1, 6) }, (_, b) => {
    const [l, w] = [roll(16, 60) * 40, roll(8, 24) * 10];
    const faults = Array.from({ length: roll(0, 3) }, (_f, i): Fault => {
      const [length, width] = [roll(2, 9) * 10, Math.min(w, roll(1, 5) * 9)];
      const [x, y] = [roll(0, l - length), roll(0, w - width)];
      return {
        id: `f${i}`,
        kind: roll(0, 1) ? 'knot' : 'split',
        face: roll(0, 1) ? 'up' : 'down',
        x,
        y,
        length,
        width,
      };
    });
    const warp = roll(0, 2) ? undefined : { cup: { mm: roll(0, 3) }, bow: { mm: roll(0, 5) } };
    return board(`b${b}`, l, w, roll(3, 9) * 10, { species: WOODS[roll(0, 1)], sold: 'rough', faults, warp });
  });
  return { build, boards };
}

const solved = (seed: number, work = 900) => {
  const { build, boards } = randomCase(seed);
  const { problem, demand } = problemFor([build], boards);
  const answer = solveNow(problem, work);
  const placed = mustEdit(
    build,
    answerEdit(problem, demand, answer, { job: 0, settings: settingsOf(build) }),
  );
  return { problem, demand, answer, placed, layouts: layAnswer(problem, answer) };
};
const volume = (list: readonly { length: number; width: number }[], { board: b }: BoardLayout) =>
  list.reduce((sum, { length, width }) => sum + length * width, 0) * b.thickness.mm;

describe('what the solver lays out, cut by the solid model', () => {
  it('gives every strip its size, from its board, and closes the ledger', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const { placed, layouts, answer, demand } = solved(seed);
        const timeline = run(placed);
        const stops = timeline.problems.filter(({ severity }) => severity === 'stop');
        expect(stops).toEqual([]);
        // No strip that the solver placed carries a fault its grade forbids.
        expect(timeline.problems.filter(({ code }) => code === 'fault-on-strip')).toEqual([]);
        const rips = timeline.steps.filter(({ kind }) => kind === 'rip');
        const slots = new Map(placed.assemblies.flatMap((a) => a.slots.map((slot) => [slot.id, slot])));
        for (const { id, blank } of rips.flatMap(({ pieces }) => pieces)) {
          const slot = slots.get(id);
          const size = [slot?.length.mm, slot?.width.mm, slot?.thickness.mm];
          extents(blank).forEach((mm, axis) => expect(mm).toBeCloseTo(size[axis] ?? 0, 6));
          if (slot?.strip?.board) expect(blank.cells[0].origin.board).toBe(slot.strip.board);
        }
        const kept = (timeline.finished?.pieces ?? []).reduce(
          (sum, { blank }) => sum + blankVolume(blank),
          0,
        );
        const gone = CAUSES.reduce((sum, cause) => sum + lostTo(timeline.ledger, cause), 0);
        const off = timeline.woodInMm3 - kept - gone - timeline.leftOverMm3;
        expect(Math.abs(off) / timeline.woodInMm3).toBeLessThan(1e-9);
        // With one copy the boards' kerf is the layout's, and offcuts are at least the layout's.
        if (placed.targets[0].quantity > 1) return;
        const own = (cause: 'kerf' | 'offcut') =>
          rips.reduce((sum, step) => sum + lostTo(step.lost, cause), 0);
        const kerf = layouts.reduce((sum, layout) => sum + volume(layout.kerfs, layout), 0);
        const lanes = answer.places.filter(({ leaves }) => leaves > 1).length;
        if (lanes === 0 && layouts.length > 0) expect(own('kerf') / kerf).toBeCloseTo(1, 6);
        const offcuts = layouts.reduce((sum, layout) => sum + volume(layout.offcuts, layout), 0);
        expect(own('offcut')).toBeGreaterThanOrEqual(offcuts * (1 - 1e-9));
        expect(demand.of.size).toBe(answer.places.length + answer.missing.length);
      }),
      { numRuns: 120, seed: 11 },
    );
  });
  it('reads back from the job as it was written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const { placed, answer } = solved(seed, 400);
        const back = planOf([placed]).answer;
        const key = (places: typeof answer.places) =>
          new Set(places.map(({ strip, board: b, x, y, leaf }) => `${strip} ${b} ${x} ${y} ${leaf}`));
        expect(key(back.places)).toEqual(key(answer.places));
        expect(new Set(back.missing)).toEqual(new Set(answer.missing));
      }),
      { numRuns: 80, seed: 12 },
    );
  });
  it('counts wood once: boards are strips, reusable offcuts and waste', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const { layouts } = solved(seed, 400);
      const totals = totalsOf(layouts);
      expect(totals.used - totals.reusable - totals.strips - totals.waste).toBeCloseTo(0, 3);
      expect(totals.waste).toBeGreaterThanOrEqual(-1e-6);
      expect(totals.yield).toBeGreaterThanOrEqual(0);
      expect(totals.yield).toBeLessThanOrEqual(1 + 1e-9);
    }
  });
});

describe('the set-up list of any plan', () => {
  it('names every strip at one rip or as a whole board, and every section at one crosscut', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const { layouts, placed, demand } = solved(seed, 300);
        const label = (id: string) => demand.of.get(id)?.label ?? '?';
        const list = setUpList(layouts, settingsOf(placed), shop, label);
        const count = (kind: string) =>
          list.filter((s) => s.kind === kind).reduce((sum, s) => sum + s.count, 0);
        const sections = layouts.flatMap((layout) => layout.sections);
        expect(count('crosscut')).toBe(sections.length);
        const lanes = sections.flatMap((section) => section.lanes);
        expect(count('rip')).toBeLessThanOrEqual(lanes.length);
        const whole = layouts.flatMap((layout) =>
          layout.sections.flatMap((s) =>
            s.lanes.filter(([laid]) => laid.width >= layout.board.width.mm - 1e-6),
          ),
        );
        expect(count('rip')).toBe(lanes.length - whole.length);
        expect(count('resaw')).toBe(lanes.filter(([laid]) => laid.place.leaves > 1).length);
        for (const setUp of list) {
          expect(setUp.bladeHeight).toBeGreaterThan(0);
          if (setUp.measuredBy !== 'eye') expect(setUp.distance).toBeGreaterThan(0);
          expect(setUp.pieces.reduce((sum, { labels }) => sum + labels.length, 0)).toBe(setUp.count);
          if (setUp.caution) expect(setUp.caution).toMatch(/manual/);
        }
        // The pieces named at the rips are the strips placed, each once.
        const named = list.filter((s) => s.kind === 'rip').flatMap((s) => s.pieces.flatMap((p) => p.labels));
        expect(new Set(named).size).toBe(named.length);
      }),
      { numRuns: 80, seed: 13 },
    );
  });
  it('speaks of what is cut away to pass a fault, and not of what only cleans an end', () => {
    const split: Fault = { id: 's', kind: 'split', face: 'both', x: 0, y: 30, length: 90, width: 20 };
    const { build } = randomCase(3);
    const one: BuildDocument = {
      ...build,
      targets: build.targets.map((t) => ({ ...t, quantity: 1 })),
      assemblies: build.assemblies.slice(0, 1).map((a) => ({
        ...a,
        slots: [
          {
            ...a.slots[0],
            species: 'maple_sugar',
            length: typed('20'),
            width: typed('4'),
            thickness: typed('1'),
          },
        ],
      })),
      breakdown: {
        ...settingsOf(build),
        endTrim: { mm: 10 },
        edgeTrim: { mm: 0 },
        extraLength: { mm: 0 },
        extraWidth: { mm: 0 },
      },
    };
    const list = (faults: Fault[]) => {
      const { problem } = problemFor(
        [one],
        [board('b', 40 * INCH, 4.2 * INCH, 1.5 * INCH, { faults, sold: 'rough' })],
      );
      return setUpList(layAnswer(problem, solveNow(problem, 200)), settingsOf(one), shop, (id) => id);
    };
    expect(list([])[0]).toMatchObject({ kind: 'clean end', measuredBy: 'eye' });
    const [first] = list([split]);
    expect(first).toMatchObject({ kind: 'clean end', measuredBy: 'tape' });
    const kerf = shop.saws.find(({ id }) => id === settingsOf(one).crosscutSaw)?.kerf.mm ?? 0;
    expect(first.distance).toBeCloseTo(90 - kerf, 6);
  });
});
