import { describe, expect, it } from 'vitest';
import { INCH } from '../../units';
import { build, GLUE, last, size, three } from '../steps.fixture';

describe('joint', () => {
  it('jointing adds its error once for each edge taken', () => {
    const jointed = (near: number, far: number) =>
      last(
        build(three, [
          GLUE,
          {
            id: 'j',
            kind: 'joint',
            inputs: ['panel'],
            output: 'jointed',
            machine: 'jointer',
            near: { mm: near },
            far: { mm: far },
          },
        ]),
      );
    expect(size(jointed(1, 2))[1]).toBeCloseTo(147, 9);
    const [none, one, two] = [jointed(0, 0), jointed(1, 0), jointed(1, 1)].map(
      (step) => step.tolerance[1].worstMm,
    );
    expect(one - none).toBeCloseTo(0.015 * INCH, 9);
    expect(two - none).toBeCloseTo(2 * 0.015 * INCH, 9);
  });
});
