import { describe, expect, it } from 'vitest';
import { run } from '../../run';
import { build, GLUE, size, three } from '../steps.fixture';
import { outside, type OutsideStep } from './outside';

const step = (days?: number): OutsideStep => ({
  id: 'out',
  kind: 'outside',
  inputs: ['panel'],
  output: 'back',
  ...(days === undefined ? {} : { days }),
});

describe('outside work', () => {
  it('sizes pass through, and a note says that it is not computed', () => {
    const timeline = run(build(three, [GLUE, step(3)]));
    const [glued, back] = timeline.steps.slice(-2);
    expect(size(back)).toEqual(size(glued));
    expect(timeline.problems).toMatchObject([{ step: 'out', severity: 'note' }]);
  });
  it('is away for its days, a week where nobody said', () => {
    const hours = (each: OutsideStep) => outside.labour.waits?.(each).map((wait) => wait.hours);
    expect([hours(step(3)), hours(step(0)), hours(step())]).toEqual([[72], [0], [168]]);
  });
});
