import { describe, expect, it } from 'vitest';
import { type BuildDocument, duplicateOf, phraseText, type Step } from '../document';
import { gatesOf, adhesiveFor, glueUpOf } from '../glueup';
import { climateOf, glueTimes } from '../kit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { mustFit, PATTERNS, startingBrief } from '../plan';
import { SHOPS } from '../review/scenarios.fixture';
import { run } from '../run';
import { applyEdit } from '../edit';
import { STEP_ROOMS } from '../steps';
import { build, GLUE, RIP, three } from '../steps/steps.fixture';
import { DEFAULT_DISPLAY } from '../units';
import { bindingGate, benchStep, goesOnAt, placeOf, worked } from './workstep';
import { tasksOf } from './tasks';

const H = 3_600_000;
const NOW = Date.parse('2026-11-27T10:00:00Z');
const iso = (ms: number) => new Date(ms).toISOString();
const block = plannedFor(panelBrief(CHEQUER), shopWith({}, { hands: 2 }));
const sheetOf = (document: BuildDocument, step: string) => {
  const sheet = benchStep(document, run(document), step);
  if (!sheet) throw new Error(`no sheet of ${step}`);
  return sheet;
};
const changed = (document: BuildDocument, step: string, change: Partial<Step>): BuildDocument => ({
  ...document,
  steps: document.steps.map((each) => (each.id === step ? ({ ...each, ...change } as Step) : each)),
});
const text = (document: BuildDocument, step: string) =>
  sheetOf(document, step).operations.map(({ say }) => phraseText(say, DEFAULT_DISPLAY));

describe('a step at the bench', () => {
  it('has something to do at every step of every pattern, in whole sentences, with what is dialled above nothing', () => {
    for (const { id } of PATTERNS) {
      const document = mustFit(startingBrief(id, SHOPS.inch), SHOPS.inch, { name: id, use: '' });
      const timeline = run(document);
      for (const step of worked(document)) {
        const sheet = benchStep(document, timeline, step.id);
        if (!sheet) throw new Error(`${id}: nothing at ${step.id}`);
        expect(sheet.operations.length, step.id).toBeGreaterThan(0);
        for (const { say, dial } of sheet.operations) {
          const words = phraseText(say, DEFAULT_DISPLAY);
          expect(words, words).toMatch(/^[A-Z0-9].*[.]$/);
          const value = dial?.value;
          if (typeof value === 'object' && 'mm' in value) expect(value.mm, words).toBeGreaterThan(0);
        }
      }
    }
  });
  it('is said for every kind of step there is', () => {
    for (const room of STEP_ROOMS) expect(room.operations, room.kind).toBeTypeOf('function');
  });
  it('rips each width at its own fence, the widest first', () => {
    const document = build([...three, { ...three[0], id: 's4' }], []);
    const { operations, toRead } = sheetOf(document, 'rip');
    expect(operations.map(({ dial }) => dial?.value)).toEqual([{ mm: 60 }, { mm: 50 }, { mm: 40 }]);
    expect(text(document, 'rip')).toEqual(['Rip 1 strip.', 'Rip 1 strip.', 'Rip 2 strips.']);
    // A strip that was just ripped is read across.
    expect(toRead[0]).toMatchObject({ dimension: 'width', predictedMm: 60 });
  });
  it('sets a planer pass by pass to what the piece then is', () => {
    const flat = sheetOf(block, 'flatten');
    const passes = flat.operations.filter(({ takesMm }) => takesMm !== undefined);
    expect(passes.length).toBeGreaterThan(1);
    const entry = run(block).steps.find(({ id }) => id === 'flatten');
    expect(passes.at(-1)?.leavesMm).toBeCloseTo(entry?.greatest[2] ?? 0, 6);
    for (const [i, pass] of passes.slice(1).entries())
      expect((passes[i].leavesMm ?? 0) - (pass.leavesMm ?? 0)).toBeCloseTo(pass.takesMm ?? 0, 6);
    expect(flat.toRead[0].dimension).toBe('thickness');
    expect(flat.caution).toContain('manual comes first');
  });
  it('names its saw or machine, and weighs the heaviest piece that is lifted, before it or after', () => {
    expect(sheetOf(block, 'mill').tool?.id).toBe('planer');
    const slice = sheetOf(block, 'slice');
    expect(block.shop.saws.map(({ id }) => id)).toContain(slice.tool?.id);
    // The panel goes in whole: it weighs what the flattened panel weighs, not what a slice does.
    const panel = run(block).steps.find(({ id }) => id === 'flatten');
    expect(slice.heaviestKg).toBeCloseTo(panel?.massKg ?? 0, 9);
  });
  it('tells each cut of a trim once, with the length to measure', () => {
    const { operations } = sheetOf(block, 'trim');
    const words = operations.map(({ say }) => phraseText(say, DEFAULT_DISPLAY));
    expect(new Set(words).size).toBe(words.length);
    // The last line says how the piece lies; the four before it each have a length.
    expect(
      operations.slice(0, 4).every(({ dial }) => dial?.name === 'measure'),
      words.join(' | '),
    ).toBe(true);
    expect(words.filter((each) => each.includes('edge,')).length).toBe(2);
  });
  it('keeps what was predicted beside what was read', () => {
    const read = { id: 'r', step: 'glue', dimension: 'width' as const, measured: { mm: 245 } };
    const planned = sheetOf(block, 'glue').toRead.find(({ dimension }) => dimension === 'width');
    const after = sheetOf({ ...block, readings: [read] }, 'glue').toRead.find(
      ({ dimension }) => dimension === 'width',
    );
    expect(after?.predictedMm).toBeCloseTo(planned?.predictedMm ?? 0, 9);
  });
  it('is not told of a step that is left out, or that the job does not come to', () => {
    expect(benchStep(changed(block, 'trim', { off: true }), run(block), 'trim')).toBeUndefined();
    expect(benchStep(block, run(block), 'nowhere')).toBeUndefined();
  });
});

describe('waits before a step', () => {
  const glued = (hoursAgo: number) =>
    ['rip', 'mill', 'glue'].reduce(
      (document, step) => changed(document, step, { done: true, doneAt: iso(NOW - hoursAgo * H) }),
      block,
    );
  const glueUp = glueUpOf(block, run(block), 'glue');
  if (!glueUp) throw new Error('no glue-up');
  const facts = adhesiveFor(glueUp, block.shop);
  const { surfaceH } = gatesOf(facts && glueTimes(facts, climateOf(block.shop)), block.shop);

  it('bind to the minute: a minute before they are over, and not when they are', () => {
    const { gates } = sheetOf(glued(1), 'flatten');
    const last = bindingGate(gates, NOW);
    expect(last).toMatchObject({ step: 'glue', kind: 'settle' });
    expect(last?.until).toBe(NOW - H + surfaceH * H);
    const until = last?.until ?? 0;
    expect(bindingGate(gates, until - 60_000)).toBeDefined();
    expect(bindingGate(gates, until)).toBeUndefined();
    // Gone past once, none of those that ran is asked about again; one that ends later, or began later, is.
    const early = (at: number, to: number) => [{ at: iso(at), until: iso(to), wait: '' }];
    expect(bindingGate(gates, NOW, early(NOW, until))).toBeUndefined();
    expect(bindingGate(gates, NOW, early(NOW, until - 2 * H))).toBe(last);
    expect(bindingGate(gates, NOW, early(NOW - 2 * H, until))).toBe(last);
  });
  it('of two panels come in the order in which they end', () => {
    const slots = three.map((each) => ({ ...each, id: `b${each.id}` }));
    const done = (hoursAgo: number) => ({ done: true, doneAt: iso(NOW - hoursAgo * H) });
    const plain = build(three, [
      { ...GLUE, ...done(1) },
      { ...RIP, id: 'rip-b', assembly: 'b', output: 'strips-b', ...done(3) } as Step,
      { ...GLUE, id: 'glue-b', inputs: ['strips-b'], output: 'panel-b', ...done(2) },
      { ...GLUE, id: 'join', inputs: ['panel', 'panel-b'], output: 'both' },
    ]);
    const both = { ...plain, assemblies: [...plain.assemblies, { id: 'b', name: 'b', repeat: 1, slots }] };
    const { gates } = sheetOf(changed(both, 'rip', done(3)), 'join');
    expect(new Set(gates.map(({ step }) => step))).toEqual(new Set(['glue', 'glue-b']));
    const ends = gates.map(({ until }) => until);
    expect(ends).toEqual(ends.toSorted((a, b) => a - b));
    expect(gates[0].step).toBe('glue-b');
  });
  it('are longer where the air is colder', () => {
    const until = (temperatureC: number) => {
      const shop = { ...block.shop, climate: { temperatureC, humidityPct: 50 } };
      const document = { ...glued(0.1), shop };
      return sheetOf(document, 'flatten').gates.find(({ kind }) => kind === 'clamps')?.until ?? 0;
    };
    expect(until(12)).toBeGreaterThan(until(22));
  });
  it('are not told of a glue-up that nobody ticked; it is said that it comes first', () => {
    const { gates, before } = sheetOf(block, 'flatten');
    expect(gates).toEqual([]);
    expect(before).toHaveLength(1);
    expect(sheetOf(glued(1), 'flatten').before).toEqual([]);
  });
  it('stand between two coats, from the end of the one', () => {
    const finish = {
      id: 'coat',
      kind: 'finish',
      inputs: ['panel'],
      output: 'done',
      coats: 3,
      hours: 4,
    } as Step;
    const document = build(three, [
      { ...GLUE, done: true, doneAt: iso(NOW - 100 * H) },
      { ...finish, operations: 1, work: [{ from: iso(NOW - 2 * H), to: iso(NOW - H) }] } as Step,
    ]);
    const sheet = sheetOf(document, 'coat');
    expect(sheet.operations).toHaveLength(3);
    expect(sheet.rounds).toBe(true);
    expect(bindingGate(sheet.gates, NOW)).toMatchObject({ kind: 'coat', until: NOW + 3 * H });
    // On the calendar: the coat that dries, and two more.
    const tasks = tasksOf('j', document, run(document)).filter(({ step }) => step === 'coat');
    expect(tasks.map(({ kind, began }) => [kind, began])).toEqual([
      ['coat', NOW - H],
      ['work', undefined],
      ['coat', undefined],
      ['work', undefined],
      ['coat', undefined],
    ]);
  });
});

describe('where the bench goes on', () => {
  it('is what was begun last and is not done, else the first that is not', () => {
    expect(goesOnAt(block)?.id).toBe(block.steps[0].id);
    const begun = changed(block, 'flatten', { work: [{ from: iso(NOW), to: iso(NOW + H) }] });
    expect(goesOnAt(begun)?.id).toBe('flatten');
    expect(goesOnAt(changed(begun, 'flatten', { done: true }))?.id).toBe(block.steps[0].id);
    const all = block.steps.reduce((document, { id }) => changed(document, id, { done: true }), block);
    expect(goesOnAt(all)).toBeUndefined();
    expect(placeOf(block, block.steps[1].id)).toBe(`2 of ${block.steps.length} steps`);
  });
  it('takes what hands did off the calendar, and leaves some while a step is not ticked', () => {
    const minutes = (document: BuildDocument) =>
      tasksOf('j', document, run(document)).find(({ id }) => id === 'mill')?.minutes ?? 0;
    const planned = minutes(block);
    const worked = (min: number) =>
      changed(block, 'mill', { work: [{ from: iso(NOW), to: iso(NOW + min * 60_000) }] });
    expect(minutes(worked(10))).toBeCloseTo(planned - 10, 6);
    expect(minutes(worked(1000))).toBe(5);
  });
  it('is forgotten by a copy of the job and of the step, and kept by a plan made anew', () => {
    const spell = [{ from: iso(NOW), to: iso(NOW + H) }];
    const document = changed(block, 'mill', {
      operations: 1,
      work: spell,
      early: [{ at: iso(NOW), until: iso(NOW), wait: 'x' }],
    });
    const copy = duplicateOf(document, 'copy').steps.find(({ id }) => id === 'mill');
    expect([copy?.operations, copy?.work, copy?.early]).toEqual([undefined, undefined, undefined]);
    const twice = applyEdit(document, { do: 'duplicateStep', step: 'mill' });
    if (!('steps' in twice)) throw new Error('not duplicated');
    expect(twice.steps.filter(({ work }) => work !== undefined)).toHaveLength(1);
    const again = applyEdit(document, { do: 'replan' });
    if (!('steps' in again)) throw new Error('not planned');
    expect(again.steps.find(({ id }) => id === 'mill')?.work).toEqual(spell);
  });
});
