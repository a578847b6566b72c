import { describe, expect, it } from 'vitest';
import { INCH } from '../../units';
import { helpersAdd, helpersOf } from './helpers';
import { build, GLUE, last, lost, size, three } from '../steps.fixture';

describe('flatten', () => {
  it('a drum sander makes dust, a planer shavings, and either sets the thickness anew', () => {
    const flat = (machine: string) =>
      last(
        build(three, [
          GLUE,
          {
            id: 'f',
            kind: 'flatten',
            inputs: ['panel'],
            output: 'flat',
            machine,
            top: { mm: 1.5 },
            bottom: { mm: 0.5 },
          },
        ]),
      );
    expect(lost(flat('drum'))).toEqual({ kerf: 0, offcut: 0, chips: 0, shaving: 0, dust: 500 * 150 * 2 });
    expect(lost(flat('planer'))).toEqual({ kerf: 0, offcut: 0, chips: 0, dust: 0, shaving: 500 * 150 * 2 });
    expect(flat('planer').tolerance[2].likelyMm).toBeCloseTo(0.005 * INCH, 9);
    expect(flat('hand').tolerance[2].likelyMm).toBeCloseTo(0.015 * INCH, 9);
  });
  it('runners go past the ends that are glued on, and ends alone are as wide as the work', () => {
    // 500 x 150 x 25.
    const entered = last(build(three, [GLUE])).pieces;
    const mm = (value: number) => ({ mm: value });
    const both = { runners: mm(40), ends: mm(60) };
    expect((['length', 'width', 'thickness'] as const).map((name) => helpersAdd(both, name))).toEqual([
      120, 80, 0,
    ]);
    expect(helpersOf({}, entered)).toBeUndefined();
    expect(helpersOf({ ends: mm(60) }, entered)?.woodMm3).toBeCloseTo(25 * 2 * 60 * 150, 6);
    expect(helpersOf({ runners: mm(40) }, entered)?.woodMm3).toBeCloseTo(25 * 2 * 40 * 500, 6);
    expect(helpersOf(both, entered)?.woodMm3).toBeCloseTo(25 * 2 * 40 * 620, 6);
  });
  it('flattening by nothing leaves size and error as they were', () => {
    const before = last(build(three, [GLUE]));
    const after = last(
      build(three, [
        GLUE,
        {
          id: 'f',
          kind: 'flatten',
          inputs: ['panel'],
          output: 'flat',
          machine: 'planer',
          top: { mm: 0 },
          bottom: { mm: 0 },
        },
      ]),
    );
    expect(size(after)).toEqual(size(before));
    expect(after.tolerance[2]).toEqual(before.tolerance[2]);
  });
});
