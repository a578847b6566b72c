import { describe, expect, it } from 'vitest';
import { adhesiveFor, gatesOf, glueUpOf } from '../glueup';
import { climateOf, glueTimes } from '../kit';
import { run } from '../run';
import { build, GLUE, shop, three } from '../steps/steps.fixture';
import type { Step } from '../document';
import { tasksOf } from './tasks';

const mm = (n: number) => ({ mm: n });
const tasks = (steps: Step[]) => {
  const document = build(three, steps);
  return tasksOf('j', document, run(document));
};
const after = (kind: string, more: object): Step =>
  ({ id: 'next', kind, inputs: ['panel'], output: 'next', ...more }) as Step;

describe('waits on the calendar', () => {
  it('outside work is away as many days as it says, a week where it says nothing', () => {
    const away = (days?: number) =>
      tasks([GLUE, after('outside', days === undefined ? {} : { days })]).find(
        ({ kind }) => kind === 'outside',
      )?.minutes;
    expect(away(3)).toBe(3 * 24 * 60);
    expect(away()).toBe(7 * 24 * 60);
    expect(away(0)).toBeUndefined();
  });
  it('a rest takes its hours, twelve where it says none; coats dry one after the other', () => {
    const minutes = (step: Step, kind: string) =>
      tasks([GLUE, step]).find((task) => task.step === 'next' && task.kind === kind)?.minutes;
    expect(minutes(after('rest', { hours: 5 }), 'rest')).toBe(300);
    expect(minutes(after('rest', {}), 'rest')).toBe(720);
    const coats = tasks([GLUE, after('finish', { coats: 3, hours: 4 })]).filter(
      ({ step }) => step === 'next',
    );
    expect(coats.map((task) => [task.kind, task.minutes])).toEqual(
      [1, 2, 3].flatMap(() => [
        ['work', 20],
        ['coat', 240],
      ]),
    );
  });
  it('a joint settles before a trim, a flattening or a saw; not before it is turned or rests', () => {
    const document = build(three, [GLUE]);
    const glueUp = glueUpOf(document, run(document), 'glue');
    if (!glueUp) throw new Error('no glue-up');
    const facts = adhesiveFor(glueUp, shop);
    const gates = gatesOf(facts && glueTimes(facts, climateOf(shop)), shop);
    const trim = after('trim', {
      cutter: { saw: shop.saws[0].id },
      start: mm(5),
      end: mm(5),
      near: mm(2),
      far: mm(2),
    });
    const flatten = after('flatten', { machine: 'planer', top: mm(1), bottom: mm(1) });
    const settles = (step: Step) => tasks([GLUE, step]).find(({ kind }) => kind === 'settle')?.minutes;
    expect(gates.surfaceH).toBeGreaterThan(gates.unclampH);
    for (const step of [trim, flatten])
      expect(settles(step)).toBeCloseTo(60 * (gates.surfaceH - gates.unclampH), 9);
    for (const step of [after('turn', { turn: 'rollOver' }), after('rest', {})])
      expect(settles(step)).toBeUndefined();
  });
});
