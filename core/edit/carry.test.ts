import { describe, expect, it } from 'vitest';
import type { Brief, BuildDocument, Edit } from '../document';
import { defaultShop, typed } from '../kit';
import { mustFit, startingBrief } from '../plan';
import { run } from '../run';
import type { GlueStep } from '../steps';
import { mustEdit } from './apply';

const shop = defaultShop('carry');

const brief = startingBrief('endGrain', shop);

const plan = (change: Partial<Brief> = {}) =>
  mustFit({ ...brief, ...change }, shop, { name: 'carry', use: '' });

const panel = (change: Partial<Brief> = {}) =>
  plan({
    pattern: 'panel',
    length: { aim: 'fixed', value: typed('32') },
    module: typed('2'),
    thickness: { aim: 'fixed', value: typed('7/8') },
    ...change,
  });

const edited = (build: BuildDocument, ...edits: Edit[]) => edits.reduce(mustEdit, build);

const glue = (build: BuildDocument, id: string) => build.steps.find((step) => step.id === id) as GlueStep;

const longer: Edit = { do: 'replan', change: { length: { aim: 'fixed', value: typed('20') } } };

describe('planned again, what was done by hand stays', () => {
  it('exceptions of a rule, as far as there are still parts for them', () => {
    const build = edited(
      plan(),
      { do: 'flipSlice', step: 'glue-block', part: 4 },
      { do: 'flipSlice', step: 'glue-block', part: 12 },
    );
    expect(glue(edited(build, longer), 'glue-block').turns?.except).toEqual([4, 12]);
    const shorter = edited(build, {
      do: 'replan',
      change: { length: { aim: 'fixed', value: typed('12') }, extraSlices: 1 },
    });
    expect(glue(shorter, 'glue-block').turns?.except).toEqual([4]);
  });
  it('woods, grades and grain of single strips; woods that the brief changes go with it elsewhere', () => {
    const build = edited(panel({ woods: ['cherry_black'] }), {
      do: 'setSlot',
      step: 'rip',
      strip: 'strip-2',
      change: { species: 'wenge', grade: 'clear', grain: 'quarter' },
    });
    const next = edited(build, { do: 'replan', change: { woods: ['ash_white'] } });
    expect(next.assemblies[0].slots.map(({ species }) => species)).toEqual([
      'ash_white',
      'wenge',
      ...Array(3).fill('ash_white'),
    ]);
    expect(next.assemblies[0].slots[1]).toMatchObject({ grade: 'clear', grain: 'quarter' });
  });
  it('order, turns and locks of strips, where the same strips are laid', () => {
    const build = edited(
      panel(),
      { do: 'moveStrip', step: 'glue', from: 0, to: 3 },
      { do: 'turnPart', step: 'glue', piece: 'strip-2', turn: 'rollOver' },
      { do: 'lockPart', step: 'glue', piece: 'strip-5' },
    );
    const next = edited(build, { do: 'replan', change: { length: { aim: 'fixed', value: typed('40') } } });
    expect(glue(next, 'glue').parts?.map(({ piece }) => piece)).toEqual([
      'strip-2',
      'strip-3',
      'strip-4',
      'strip-1',
      'strip-5',
    ]);
    expect(glue(next, 'glue').parts?.[0]).toMatchObject({ rollOver: true });
    expect(glue(next, 'glue').parts?.[4]).toMatchObject({ locked: true });
    expect(run(next).finished?.greatest[0]).toBeCloseTo(typed('40').mm, 6);
  });
  it('a quarter turn by hand on a part that is still there', () => {
    const build = panel();
    const parts = [1, 2, 3, 4, 5].map((n) => ({
      piece: `strip-${n}`,
      ...(n === 2 ? { quarter: true } : {}),
    }));
    const next = edited(
      build,
      { do: 'layParts', step: 'glue', parts },
      { do: 'replan', change: { length: { aim: 'fixed', value: typed('40') } } },
    );
    expect(glue(next, 'glue').parts?.map(({ quarter }) => quarter ?? false)).toEqual([
      false,
      true,
      false,
      false,
      false,
    ]);
  });
  it('a rule that a hand changed, took away or wrote out on the parts is not put on top of them again', () => {
    const accent = { mm: 6, species: 'wenge', length: 300, thickness: 40 };
    const written = edited(plan(), { do: 'addAccent', step: 'glue-block', accent }, longer);
    const laid = run(written).steps.find(({ id }) => id === 'glue-block')?.laid ?? [];
    expect(glue(written, 'glue-block').turns).toBeUndefined();
    expect(laid.map(({ endForEnd }) => endForEnd)).toEqual(laid.map((_, i) => i % 2 === 1));
    const rolled = { turn: 'rollOver' as const, every: 3, first: 1, except: [2] };
    const changed = edited(plan(), { do: 'setRule', step: 'glue-block', rule: rolled }, longer);
    expect(glue(changed, 'glue-block').turns).toEqual(rolled);
    const plain = edited(plan(), { do: 'setRule', step: 'glue-block' }, longer);
    expect(glue(plain, 'glue-block').turns).toBeUndefined();
  });
  it('machines, saws, notes and marks; readings of steps that are still there', () => {
    const build = edited(
      plan(),
      { do: 'useMachine', step: 'flatten', machine: 'drum' },
      { do: 'setStep', step: 'glue', change: { note: 'mind the knot', mark: 'triangle' } },
      { do: 'measure', step: 'flatten', dimension: 'thickness', measured: typed('1 1/4') },
    );
    const next = edited(build, longer);
    expect(next.steps.find(({ id }) => id === 'flatten')).toMatchObject({ machine: 'drum' });
    expect(glue(next, 'glue')).toMatchObject({ note: 'mind the knot', mark: 'triangle' });
    expect(next.readings).toHaveLength(1);
  });
  it('nothing is carried where nothing was done: the plan is the plain one', () => {
    const build = plan();
    expect(edited(build, longer)).toEqual(
      mustFit({ ...brief, length: { aim: 'fixed', value: typed('20') } }, shop, { name: 'carry', use: '' }),
    );
  });
  it('another pattern altogether keeps the boards and begins afresh', () => {
    const next = edited(plan(), {
      do: 'replan',
      change: { pattern: 'chevron', thickness: { aim: 'fixed', value: typed('3/4') } },
    });
    expect(next.steps.some(({ kind }) => kind === 'oblique')).toBe(true);
    expect(run(next).finished?.greatest[0]).toBeCloseTo(typed('15').mm, 3);
  });
});

describe('edits of a lay-up', () => {
  it('more rows take spare slices first, then cut more, and the rule goes on', () => {
    const build = plan({ extraSlices: 1 });
    const one = edited(build, { do: 'addRows', step: 'glue-block', rows: 1 });
    expect(one.steps.find(({ id }) => id === 'slice')).toMatchObject({ count: 13 });
    expect(glue(one, 'glue-block').parts?.at(-1)?.piece).toBe('slice.13');
    const three = edited(build, { do: 'addRows', step: 'glue-block', rows: 3 });
    expect(three.steps.find(({ id }) => id === 'slice')).toMatchObject({ count: 15 });
    expect(glue(three, 'glue-block').parts).toHaveLength(15);
    expect(glue(three, 'glue-block').turns).toEqual(glue(build, 'glue-block').turns);
  });
  it('spoilt slices leave the lay-up, and come back', () => {
    const build = edited(plan({ extraSlices: 1 }), { do: 'spoil', step: 'slice', piece: 'slice.3' });
    const next = edited(build, { do: 'addRows', step: 'glue-block', rows: 1 });
    expect(glue(next, 'glue-block').parts?.map(({ piece }) => piece)).not.toContain('slice.3');
    expect(glue(next, 'glue-block').parts).toHaveLength(12);
    expect(
      edited(build, { do: 'spoil', step: 'slice', piece: 'slice.3' }).steps.find(({ id }) => id === 'slice')
        ?.spoilt,
    ).toBeUndefined();
  });
  it('a spare takes a slice’s place and its turn; without one nothing changes', () => {
    const build = plan({ extraSlices: 1 });
    const next = edited(build, { do: 'swapSpare', step: 'glue-block', piece: 'slice.4' });
    expect(glue(next, 'glue-block').parts?.[3].piece).toBe('slice.13');
    expect(run(next).steps.find(({ id }) => id === 'glue-block')?.laid?.[3]).toMatchObject({
      piece: 'slice.13',
      endForEnd: true,
    });
    expect(edited(plan(), { do: 'swapSpare', step: 'glue-block', piece: 'slice.4' })).toEqual(plan());
  });
  it('an accent strip lies in the middle, of strips or of slices, and what was turned stays turned', () => {
    const accent = { mm: 6, species: 'wenge', length: 300, thickness: 40 };
    const block = edited(plan(), { do: 'addAccent', step: 'glue-block', accent });
    const turned = run(block).steps.find(({ id }) => id === 'glue-block')?.laid ?? [];
    expect(turned[6]).toMatchObject({ piece: 'accent-1', quarter: true });
    expect(turned.filter(({ endForEnd }) => endForEnd)).toHaveLength(6);
    expect(run(block).problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
    const wide = edited(panel(), {
      do: 'addAccent',
      step: 'glue',
      accent: { ...accent, length: 900, thickness: 30 },
    });
    expect(glue(wide, 'glue').parts?.[2].piece).toBe('accent-1');
    expect(wide.assemblies[0].slots.at(-1)).toMatchObject({ id: 'accent-1', width: { mm: 6 } });
  });
  it('a proposal’s parts replace order and rule; several edits are one', () => {
    const build = plan();
    const parts = [{ piece: 'slice.2', endForEnd: true }, { piece: 'slice.1' }];
    const next = edited(build, {
      do: 'many',
      edits: [
        { do: 'layParts', step: 'glue-block', parts },
        { do: 'rename', name: 'two' },
      ],
    });
    expect(glue(next, 'glue-block')).toMatchObject({ parts, turns: undefined });
    expect(next.name).toBe('two');
  });
  it('a reading is entered once for each step and dimension, and taken back', () => {
    const enter = (text: string): Edit => ({
      do: 'measure',
      step: 'flatten',
      dimension: 'thickness',
      measured: typed(text),
    });
    const build = edited(plan(), enter('1 1/4'), enter('1 3/16'));
    expect(build.readings).toMatchObject([
      { step: 'flatten', dimension: 'thickness', measured: typed('1 3/16') },
    ]);
    expect(edited(build, { do: 'measure', step: 'flatten', dimension: 'thickness' }).readings).toEqual([]);
  });
  it('how a glue-up is done; clamps put by hand where the strips are as long as they were', () => {
    const placed = [{ id: 'c', at: typed('6'), side: 'above' as const, forceN: 2000 }];
    const build = edited(panel(), {
      do: 'planGlue',
      step: 'glue',
      change: { adhesive: 'epoxy', hands: 2, hollow: typed('1/32'), clamps: placed },
    });
    const again = glue(edited(build, { do: 'replan' }), 'glue').plan;
    expect(again).toEqual(glue(build, 'glue').plan);
    const other = glue(edited(build, longer), 'glue').plan;
    expect(other).toMatchObject({ adhesive: 'epoxy', hands: 2, hollow: typed('1/32') });
    expect(other?.clamps).toBeUndefined();
  });
  it('what is done, where the step stays as it was; when a step is to begin; what the glue must stand', () => {
    const at = '2027-03-01T08:00:00.000Z';
    const build = edited(
      panel(),
      { do: 'setStep', step: 'rip', change: { done: true, doneAt: at } },
      { do: 'setStep', step: 'trim', change: { begin: at } },
      { do: 'setUses', uses: ['food'] },
    );
    const again = edited(build, { do: 'replan' });
    expect(again.steps.find(({ id }) => id === 'rip')).toMatchObject({ done: true, doneAt: at });
    expect(again.steps.find(({ id }) => id === 'trim')).toMatchObject({ begin: at });
    expect(again.uses).toEqual(['food']);
    // Strips of another length are not ripped yet.
    expect(edited(build, longer).steps.find(({ id }) => id === 'rip')?.done).toBeUndefined();
  });
});
