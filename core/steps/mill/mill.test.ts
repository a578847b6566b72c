import { describe, expect, it } from 'vitest';
import { build, last, lost, three } from '../steps.fixture';

describe('mill', () => {
  it('milling takes both faces and both edges of every strip, as shavings', () => {
    const step = last(
      build(three, [
        {
          id: 'mill',
          kind: 'mill',
          inputs: ['strips'],
          output: 'milled',
          machine: 'planer',
          face: { mm: 1 },
          edge: { mm: 0.5 },
        },
      ]),
    );
    expect([step.least[1], step.greatest[1], step.greatest[2]]).toEqual(
      [39, 59, 23].map((v) => expect.closeTo(v, 9)),
    );
    expect(lost(step)).toMatchObject({ kerf: 0, offcut: 0, dust: 0, shaving: expect.any(Number) });
  });
});
