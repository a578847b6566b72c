import { describe, expect, it } from 'vitest';
import { build, GLUE, last, lost, size, three } from '../steps.fixture';
import { assemble, type AssembleStep } from './assemble';

const step = (change: Partial<AssembleStep> = {}): AssembleStep => ({
  id: 'fit',
  kind: 'assemble',
  inputs: ['panel'],
  output: 'whole',
  ...change,
});

describe('assemble or fit', () => {
  it('changes no size and takes nothing', () => {
    const [before, after] = [last(build(three, [GLUE])), last(build(three, [GLUE, step()]))];
    expect([size(after), after.tolerance]).toEqual([size(before), before.tolerance]);
    expect(Object.values(lost(after))).toEqual([0, 0, 0, 0, 0]);
  });
  it('takes parts of several lines', () => {
    const whole = last(
      build(three, [
        { ...GLUE, parts: [{ piece: 's1' }, { piece: 's2' }] },
        step({ inputs: ['panel', 'strips'] }),
      ]),
    );
    expect(whole.pieces.map(({ id }) => id)).toEqual(['panel', 's3']);
  });
  it('takes the minutes it says, half an hour where nobody said', () => {
    expect([assemble.labour.fixed?.(step({ minutes: 12 })), assemble.labour.fixed?.(step())]).toEqual([
      12, 30,
    ]);
  });
  it('wants its hardware at hand, as much as it says', () => {
    const fixings = [
      { kind: 'screw', size: '4 x 40', amount: 8 },
      { kind: 'foot', amount: 4 },
    ] as const;
    expect(assemble.needs?.(step({ fixings: [...fixings] }), { pieces: [] })).toEqual([
      { what: 'supply', kind: 'screw', size: '4 x 40', amount: 8 },
      { what: 'supply', kind: 'foot', amount: 4 },
    ]);
    expect(assemble.needs?.(step(), { pieces: [] })).toEqual([]);
  });
  it('says what is done, of how many parts, by how many', () => {
    expect(assemble.subtitle?.(step({ what: 'Top on its base', hands: 2 }), { count: 3, strips: 0 })).toBe(
      'Top on its base, 3 parts, 2 people',
    );
  });
});
