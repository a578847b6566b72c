import { describe, expect, it } from 'vitest';
import { build, GLUE, last, lost, size, three } from '../steps.fixture';
import { rest, type RestStep } from './rest';

const step = (hours?: number): RestStep => ({
  id: 'rest',
  kind: 'rest',
  inputs: ['panel'],
  output: 'rested',
  ...(hours === undefined ? {} : { hours }),
});

describe('rest', () => {
  it('changes nothing and takes nothing', () => {
    const [before, after] = [last(build(three, [GLUE])), last(build(three, [GLUE, step(5)]))];
    expect([size(after), after.tolerance]).toEqual([size(before), before.tolerance]);
    expect(Object.values(lost(after))).toEqual([0, 0, 0, 0, 0]);
  });
  it('waits the hours it says, overnight where it says none, and asks nothing of hands', () => {
    const hours = (each: RestStep) => rest.labour.waits?.(each).map((wait) => wait.hours);
    expect([hours(step(30)), hours(step(0)), hours(step())]).toEqual([[30], [0], [12]]);
    expect([rest.labour.setUp, rest.labour.each]).toEqual([0, 0]);
  });
});
