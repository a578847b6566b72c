import { describe, expect, it } from 'vitest';
import { build, GLUE, last, size, three } from '../steps.fixture';
import { finish, type FinishStep } from './finish';

const step = (change: Partial<FinishStep> = {}): FinishStep => ({
  id: 'finish',
  kind: 'finish',
  inputs: ['panel'],
  output: 'finished',
  ...change,
});

describe('finish', () => {
  it('changes no size', () =>
    expect(size(last(build(three, [GLUE, step({ coats: 3 })])))).toEqual(size(last(build(three, [GLUE])))));
  it.each([
    [{}, 20, 12, '1 coat dries'],
    [{ coats: 3 }, 60, 36, '3 coats dry'],
    [{ coats: 2, hours: 24 }, 40, 48, '2 coats dry'],
    [{ coats: 0, hours: 4 }, 20, 4, '1 coat dries'],
  ] as const)('%j: minutes of hands, hours of drying, in words', (change, minutes, hours, words) => {
    expect(finish.labour.fixed?.(step(change))).toBe(minutes);
    expect(finish.labour.waits?.(step(change))).toEqual([{ of: 'coat', words, hours }]);
  });
  it('wants some finish at hand, and says that oily rags can catch fire', () => {
    expect(finish.needs?.(step(), { pieces: [] })).toEqual([{ what: 'supply', kind: 'finish' }]);
    expect(finish.caution).toMatch(/catch fire/);
  });
});
