import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import {
  type BuildDocument,
  flipPart,
  isTurned,
  makerOf,
  ruleText,
  type TurnRule,
  userOf,
} from '../document';
import { assemblyOf, glueOf, ripOf } from './graph';
import { laths } from './laths';
import { tookBy } from './took';

const job = (name: string): BuildDocument => {
  const found = demoJobs.find((build) => build.name === name);
  if (!found) throw new Error(name);
  return found;
};

const block = job('Galley chopping block');

const table = job('Chart-table top');

describe('the graph of steps', () => {
  it('finds the strips a step works on, up to where they are sliced or several meet', () => {
    expect(ripOf(block, 'flatten')?.id).toBe('rip');
    expect(ripOf(block, 'slice')).toBeUndefined();
    expect(ripOf(block, 'glue-block')).toBeUndefined();
    expect(ripOf(table, 'joint-2')?.id).toBe('rip-2');
    expect(ripOf(table, 'join')).toBeUndefined();
    expect(assemblyOf(table, 'flatten-3')?.name).toBe('Section 3');
    expect(assemblyOf(table, 'trim')).toBeUndefined();
  });
  it('finds the glue-up of the strips from before and after it', () => {
    for (const step of ['rip', 'mill', 'glue', 'flatten']) expect(glueOf(block, step)?.id).toBe('glue');
    expect(glueOf(table, 'rip-2')?.id).toBe('glue-2');
    expect(glueOf(table, 'join')).toBeUndefined();
  });
  it('knows who makes and who uses an output', () => {
    expect([makerOf(block, 'slices')?.id, userOf(block, 'slices')?.id, userOf(block, 'piece')]).toEqual([
      'slice',
      'stand',
      undefined,
    ]);
  });
  it('lays steps on laths: one for each section, flowing into the main one', () => {
    expect(laths(block).map(({ steps }) => steps.length)).toEqual([9]);
    const all = laths(table);
    expect(all.map(({ name, steps, into }) => [name, steps.length, into])).toEqual([
      ['Section 1', 5, 'join'],
      ['Section 2', 5, 'join'],
      ['Section 3', 5, 'join'],
      ['Chart-table top', 3, undefined],
    ]);
    expect(all.flatMap(({ steps }) => steps).length).toBe(table.steps.length);
  });
  it('says what each step takes by its settings', () => {
    const took = (id: string) =>
      tookBy(block.steps.find((step) => step.id === id) ?? block.steps[0], block).map(({ from, mm }) => [
        from,
        Number((mm / 25.4).toFixed(6)),
      ]);
    expect(took('rip')).toEqual([['kerf', 0.125]]);
    expect(took('mill')).toEqual([
      ['faces', 0.125],
      ['edges', 0.0625],
    ]);
    expect(took('slice')).toEqual([['kerfs', 13 * 0.125]]);
    expect(took('stand')).toEqual([]);
    expect(took('trim')).toEqual([
      ['ends', 0.375],
      ['edges', 0.375],
    ]);
  });
});

describe('turns by rule with exceptions', () => {
  const rule: TurnRule = { turn: 'endForEnd', every: 2, first: 2, except: [] };
  const turned = (r: TurnRule, n = 8) =>
    Array.from({ length: n }, (_, i) => i + 1).filter((part) => isTurned(r, part));
  it('every other, every third, from any part on', () => {
    expect(turned(rule)).toEqual([2, 4, 6, 8]);
    expect(turned({ ...rule, every: 3, first: 1 })).toEqual([1, 4, 7]);
    expect(turned({ ...rule, every: 1, first: 5 })).toEqual([5, 6, 7, 8]);
  });
  it('an exception does the opposite, and flipping twice is nothing', () => {
    expect(turned(flipPart(flipPart(rule, 4), 5))).toEqual([2, 5, 6, 8]);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.array(fc.integer({ min: 1, max: 30 })),
        (part, flips) => {
          const some = flips.reduce(flipPart, rule);
          expect(flipPart(flipPart(some, part), part)).toEqual(some);
          expect(isTurned(flipPart(some, part), part)).toBe(!isTurned(some, part));
        },
      ),
      { seed: 20273 },
    );
  });
  it('scales: the rule stays when there are more parts', () =>
    expect(turned(flipPart(rule, 4), 12)).toEqual([2, 6, 8, 10, 12]));
  it('is said in words', () => {
    expect(ruleText(rule)).toBe('every other from 2, end for end');
    expect(ruleText(flipPart(flipPart(rule, 4), 5))).toBe(
      'every other from 2, end for end, but not 4, and also 5',
    );
    expect(ruleText({ turn: 'rollOver', every: 3, first: 1, except: [] })).toBe(
      'every third from 1, rolled over',
    );
    expect(ruleText({ turn: 'rollOver', every: 1, first: 1, except: [] })).toBe(
      'every one from 1, rolled over',
    );
  });
});
