import { describe, expect, it } from 'vitest';
import type { OwnRule } from '../kit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { findingsOf } from '.';

const rule = (change: Partial<OwnRule>): OwnRule => ({
  id: 'r',
  words: 'A slice was lost before, at this size.',
  step: 'slice',
  dimension: 'length',
  side: 'below',
  size: { mm: 60 },
  ...change,
});
const found = (change: Partial<OwnRule>, readings: object[] = []) => {
  const build = plannedFor(panelBrief({ ...CHEQUER }), shopWith({ rules: [rule(change)] }));
  const asked = { ...build, readings: readings as never };
  return findingsOf(asked, run(asked)).filter(({ code }) => code === 'own-rule');
};

describe('a rule of the shop’s own', () => {
  it('warns where a size breaks it, with both numbers and its own words; and nowhere else', () => {
    const build = plannedFor(panelBrief({ ...CHEQUER }), shopWith());
    const slice = run(build).steps.find(({ kind }) => kind === 'slice');
    const size = slice?.least[0] ?? 0;
    const [finding, ...others] = found({});
    expect(others).toEqual([]);
    expect(finding).toMatchObject({
      step: slice?.id,
      severity: 'warning',
      dimension: 'length',
      numbers: { rule: 60 },
    });
    expect(finding.numbers.size).toBeCloseTo(size, 9);
    expect(finding.message[0]).toContain('A slice was lost before');
    expect(found({ size: { mm: size - 1 } })).toEqual([]);
    expect(found({ size: { mm: size } })).toEqual([]);
    expect(found({ side: 'above', size: { mm: size } })).toEqual([]);
    expect(found({ side: 'above', size: { mm: size - 1 } })).toHaveLength(1);
    expect(found({ step: 'oblique' })).toEqual([]);
  });
  it('goes by what was read where something was', () => {
    const build = plannedFor(panelBrief({ ...CHEQUER }), shopWith());
    const flatten = run(build).steps.find(({ kind }) => kind === 'flatten');
    const thick = flatten?.greatest[2] ?? 0;
    const thin = { step: 'flatten', dimension: 'thickness', size: { mm: thick - 1 } } as const;
    const at = { id: 'x', step: flatten?.id, dimension: 'thickness' };
    const of = (readings: object[]) => found(thin, readings).filter(({ step }) => step === flatten?.id);
    expect(of([])).toEqual([]);
    expect(of([{ ...at, measured: { mm: thick - 2 } }])).toHaveLength(1);
  });
});
