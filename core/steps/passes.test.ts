import { describe, expect, it } from 'vitest';
import type { Machine } from '../kit';
import { passesOf, biteOf } from './passes';
import { build, GLUE, last, shop, slot, three } from './steps.fixture';
import type { FlattenStep } from './flatten/flatten';

const flatten = (top: number, bottom: number, more: Partial<FlattenStep> = {}): FlattenStep => ({
  id: 'f',
  kind: 'flatten',
  inputs: ['panel'],
  output: 'flat',
  machine: 'planer',
  top: { mm: top },
  bottom: { mm: bottom },
  ...more,
});

describe('passes', () => {
  it('go over each side for itself, and never take more than the bite', () => {
    expect(passesOf(flatten(2, 1), 0.5)).toBe(4 + 2);
    expect(passesOf(flatten(2.1, 1), 0.5)).toBe(5 + 2);
    expect(passesOf(flatten(2, 1), 2)).toBe(1 + 1);
    // Nothing comes off the lower side; a machine without a limit takes a side at once.
    expect(passesOf(flatten(2, 0), 0.5)).toBe(4);
    expect(passesOf(flatten(2, 1), 0)).toBe(2);
  });

  it('take what the step says, never over what the machine does, and less of hardwood where the kit says so', () => {
    const planer = shop.machines.find(({ id }) => id === 'planer');
    if (!planer) throw new Error('no planer');
    const limits = (bite: number, hardBite?: number): Machine => {
      const { hardBite: _, ...rest } = planer;
      return {
        ...rest,
        bite: { mm: bite },
        ...(hardBite === undefined ? {} : { hardBite: { mm: hardBite } }),
      };
    };
    const hard = last(build(three, [GLUE])).pieces;
    const soft = last(build([slot('s', 500, 90, 25, 'pine_eastern_white')], [])).pieces;
    const own = flatten(2, 1, { bite: { mm: 0.8 } });
    expect(biteOf(flatten(2, 1), undefined, hard)).toBe(0);
    expect(biteOf(flatten(2, 1), limits(1.6), hard)).toBe(1.6);
    expect(biteOf(own, limits(1.6), hard)).toBe(0.8);
    expect(biteOf(own, limits(0.6), hard)).toBe(0.6);
    expect(biteOf(own, limits(1.6, 0.4), hard)).toBe(0.4);
    expect(biteOf(own, limits(1.6, 0.4), soft)).toBe(0.8);
  });
});
