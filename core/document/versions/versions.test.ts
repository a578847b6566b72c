import { describe, expect, it } from 'vitest';
import { FORMAT_VERSION } from '../document';
import { from1 } from './from1';
import { raised, READ_VERSIONS } from './raise';

const step = (kind: string, more: object) => ({ id: kind, kind, inputs: [], output: kind, ...more });

describe('documents of earlier versions', () => {
  it('from 1: dead settings of rests and surfacings go, everything else stays as it was', () => {
    const before = {
      version: 1,
      name: 'a job',
      steps: [
        step('rest', { hours: 4, coats: 2 }),
        step('surface', { days: 3, settings: { grit: 180 } }),
        step('finish', { coats: 3 }),
        step('outside', { days: 3 }),
        step('of tomorrow', { coats: 1, days: 1 }),
      ],
    };
    expect(from1(before).steps).toEqual([
      step('rest', { hours: 4 }),
      step('surface', { settings: { grit: 180 } }),
      step('finish', { coats: 3 }),
      step('outside', { days: 3 }),
      step('of tomorrow', { coats: 1, days: 1 }),
    ]);
    expect(before.steps[0]).toHaveProperty('coats');
  });
  it('survive what is no document: the contract refuses it afterwards', () => {
    for (const steps of [undefined, 3, [null, 4, { kind: 7 }, { kind: 'constructor' }]])
      expect(from1({ version: 1, steps })).toMatchObject({ version: 1 });
  });
  it('are raised version by version to this one; this one is left alone, others are not known', () => {
    for (const version of READ_VERSIONS)
      expect(raised({ version })).toMatchObject({ version: FORMAT_VERSION });
    const now = { version: FORMAT_VERSION };
    expect(raised(now)).toBe(now);
    for (const version of [0, -1, 1.5, FORMAT_VERSION + 1, '1', undefined])
      expect(raised({ version })).toBeUndefined();
  });
});
