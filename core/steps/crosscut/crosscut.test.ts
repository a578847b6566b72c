import { describe, expect, it } from 'vitest';
import type { Step } from '../../document';
import { run } from '../../run';
import { lostTo } from '../../solid';
import { INCH } from '../../units';
import { build, last, size, three } from '../steps.fixture';

describe('crosscut', () => {
  it('crosscutting to a length books kerf and the rest, and refuses to lengthen', () => {
    const cut = (mm: number): Step => ({
      id: 'c',
      kind: 'crosscut',
      inputs: ['strips'],
      output: 'cut',
      saw: 'bandsaw',
      length: { mm },
    });
    const step = last(build(three, [cut(480)]));
    expect(size(step)[0]).toBeCloseTo(480, 9);
    expect(lostTo(step.lost, 'kerf')).toBeCloseTo(150 * 25 * (INCH / 16), 6);
    expect(run(build(three, [cut(501)])).problems).toMatchObject([
      { code: 'too-short-to-cut', numbers: { length: 500, wanted: 501 } },
    ]);
  });
});
