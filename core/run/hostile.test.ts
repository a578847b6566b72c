import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import { demoShop } from '../../demo/shop';
import { schedule, type ShopRoom, tasksOf } from '../bench';
import type { BuildDocument } from '../document';
import { addRows } from '../edit';
import { clampsByForce, clampsBySpacing, clampsBySpread, plannedGlueUp } from '../glueup';
import { gluingOf } from '../kit';
import { outlook } from '../review';
import { freeNumber, nextNumber, problemFor, solveNow } from '../stock';
import { type Display, lengthText } from '../units';
import { elasticOf, lookOf } from '../wood';
import { run } from './run';

/*
 * Documents and numbers that the contract refuses and that may still come from an older database or a caller's slip:
 * the core answers them, with whatever it can, and comes back.
 */
const block = (): BuildDocument & Record<string, any> => ({
  ...structuredClone(demoJobs.find((job) => job.steps.some(({ kind }) => kind === 'slice')) as BuildDocument),
  shop: structuredClone(demoShop),
});

const comesBack = (build: BuildDocument) => {
  const timeline = run(build);
  outlook(build, build.steps.at(-1)?.id, '2027-03-01');
  for (const step of build.steps)
    if (step.kind === 'glue') plannedGlueUp(build, timeline, step.id, '2027-03-01');
  return timeline;
};

describe('a document that goes in circles', () => {
  it('of two steps with one output is played as far as it goes', () => {
    const build = block();
    const slice = build.steps.findIndex(({ kind }) => kind === 'slice');
    build.steps.splice(slice + 1, 0, {
      id: 'round',
      kind: 'turn',
      turn: 'standOnEnd',
      inputs: [build.steps[slice].output],
      output: build.steps[slice].output,
    });
    expect(comesBack(build).steps.length).toBeGreaterThan(0);
  });
  it('of turns that take each other’s pieces stops with the step that finds none', () => {
    const build = block();
    const glue = build.steps.findLast(({ kind }) => kind === 'glue');
    if (!glue) throw new Error('no glue-up');
    glue.inputs = ['b'];
    build.steps.unshift(
      { id: 'a', kind: 'turn', turn: 'rollOver', inputs: ['b'], output: 'a' },
      { id: 'b', kind: 'turn', turn: 'rollOver', inputs: ['a'], output: 'b' },
    );
    expect(comesBack(build).problems.map(({ code }) => code)).toContain('no-such-input');
    expect(addRows(build, glue.id, 3)).toBe(build);
  });
});

describe('absurd sizes', () => {
  it.each<[string, (build: any) => void]>([
    [
      'a largest clamp spacing of a ten-thousandth',
      (b) => (b.shop.gluing = { ...gluingOf(b.shop), mostSpacing: { mm: 1e-4 } }),
    ],
    ['a strip of a millionth', (b) => (b.assemblies[0].slots[0].width = { mm: 1e-6 })],
    [
      'a thickness of 100 m',
      (b) => b.assemblies[0].slots.forEach((slot: any) => (slot.thickness = { mm: 100_000 })),
    ],
    ['clamps without force', (b) => b.shop.clamps.forEach((set: any) => (set.forceN = 0))],
    ['slices without end', (b) => (b.steps.find((s: any) => s.kind === 'slice').count = 1e7)],
  ])('%s is answered', (_what, change) => {
    const build = block();
    change(build);
    expect(comesBack(build).steps.length).toBeGreaterThan(0);
  });
  it('give counts of clamps with a bound, and never none', () => {
    for (const count of [clampsBySpacing(1000, 1e-9), clampsBySpread(1000, 0), clampsByForce(1, 1e9, 0)])
      expect(count).toBe(1000);
    expect([clampsBySpread(0, 0), clampsByForce(0, 0, 0), clampsBySpacing(1000, 250)]).toEqual([1, 1, 4]);
  });
  it('more rows than a glue-up can lay change nothing', () => {
    const build = block();
    const glue = build.steps.findLast(({ kind }) => kind === 'glue')?.id ?? '';
    expect(addRows(build, glue, 1e9)).toBe(build);
    expect(addRows(build, glue, 2)).not.toBe(build);
  });
  it('are set in words without going deep, whatever they are', () => {
    for (const display of [
      { system: 'inch', fraction: 32 },
      { system: 'inch', fraction: 0 },
      { system: 'mm', fraction: 0 },
    ] as Display[])
      for (const mm of [Number.NaN, Number.POSITIVE_INFINITY, -Infinity])
        expect(lengthText(mm, display)).toContain('?');
    expect(lengthText(25.4 * 1e14, { system: 'inch', fraction: 64 })).toMatch(/^\d+/);
  });
});

describe('names that objects have of themselves', () => {
  it('are woods like any other unknown one', () => {
    for (const species of ['__proto__', 'constructor', 'toString']) {
      expect(lookOf(species)).toBe(lookOf('maple_sugar'));
      expect(Number.isFinite(elasticOf(species).EL)).toBe(true);
    }
  });
});

describe('more strips than are laid out at once', () => {
  it('are refused with both numbers, not tried for minutes', () => {
    const build = block();
    build.targets[0].quantity = 1000;
    const { problem } = problemFor([build], []);
    expect(() => solveNow(problem)).toThrow(/^\d+ strips are wanted at once; Junta lays out up to 3000/);
  });
});

describe('a shop that has no room', () => {
  it('without a bench or a clamp still has a calendar that ends', () => {
    const build = block();
    const tasks = tasksOf('job', build, run(build));
    const room: ShopRoom = { hours: gluingOf(build.shop).hours, zone: 'UTC', benches: 0, clamps: {} };
    expect(schedule(tasks, Date.UTC(2027, 2, 1), room)).toHaveLength(tasks.length);
  });
});

describe('numbers of boards', () => {
  it('after one of forty digits go on, and a free one is always found', () => {
    const huge = '9'.repeat(40);
    expect(nextNumber([huge])).not.toBe(huge);
    const taken = new Set(['x']);
    for (let i = 0; i < 300; i++) {
      const free = freeNumber('x'.repeat(40), taken);
      expect(taken.has(free)).toBe(false);
      expect(free.length).toBeLessThanOrEqual(40);
      taken.add(free);
    }
  });
});
