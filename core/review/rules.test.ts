import { describe, expect, it } from 'vitest';
import type { OwnRule } from '../kit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { checkPlace, CHECKS, checksAt, ruleChecks } from '../bench';
import { roomOf } from '../steps';
import { phraseText } from '../document';
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
  it('warns of a check that breaks it once it is made, by its newest reading of each piece, in words of its quantity', () => {
    const build = plannedFor(
      panelBrief({ ...CHEQUER }),
      shopWith({
        rules: [{ id: 'wet', words: 'It moved.', step: 'rip', side: 'above', check: 'moisture', value: 10 }],
      }),
    );
    const rip = build.steps.find(({ kind }) => kind === 'rip')?.id ?? '';
    const checked = (...all: (readonly [values: number[], piece?: string, step?: string])[]) => {
      const checks = all.map(([values, piece, step = rip], i) => ({
        ...{ id: `c${i}`, step, kind: 'moisture' as const, values },
        ...(piece === undefined ? {} : { piece }),
      }));
      const asked = { ...build, checks };
      return findingsOf(asked, run(asked)).filter(({ code }) => code === 'own-rule');
    };
    expect(checked()).toEqual([]);
    expect(checked([[10]])).toEqual([]);
    const [finding] = checked([[9, 12.34, 11]]);
    expect(finding).toMatchObject({ step: rip, numbers: { value: 12.34, rule: 10 }, fixes: [] });
    expect(phraseText(finding.message, build.shop.display)).toBe(
      'It moved. Moisture at the pins: 12.3 %, above 10 %: a rule of this shop’s own.',
    );
    // It rested, and was read anew; another piece was not.
    expect(checked([[12], 'a'], [[9], 'a'])).toEqual([]);
    expect(checked([[12], 'b'], [[9], 'a'])).toHaveLength(1);
    expect(checked([[12], 'a', 'glue'])).toEqual([]);
  });
  it('of several readings minds the one that breaks it most, on its own side', () => {
    const dry = { id: 'dry', words: 'It cracked.', step: 'rip', side: 'below', check: 'moisture', value: 7 };
    const build = plannedFor(panelBrief({ ...CHEQUER }), shopWith({ rules: [dry as OwnRule] }));
    const rip = build.steps.find(({ kind }) => kind === 'rip')?.id ?? '';
    const of = (values: number[]) => {
      const checks = [{ id: 'c', step: rip, kind: 'moisture' as const, values }];
      const asked = { ...build, checks };
      return findingsOf(asked, run(asked)).filter(({ code }) => code === 'own-rule');
    };
    expect(of([8, 6.5, 9])[0]?.numbers).toEqual({ value: 6.5, rule: 7 });
    expect(of([8, 7])).toEqual([]);
  });
  it('can look at every check which that kind of step may have, and at no other', () => {
    const build = plannedFor(panelBrief({ ...CHEQUER }), shopWith());
    const timeline = run(build);
    for (const step of build.steps) {
      const place = checkPlace(build, timeline, step.id);
      if (!place) continue;
      const able = checksAt(place).filter((kind) => CHECKS[kind].numbers.length === 1);
      expect(ruleChecks(roomOf(step)), step.id).toEqual(able);
    }
    const of = (kind: string) => ruleChecks(roomOf({ kind } as never));
    expect(of('glue')).toEqual(['light', 'gap', 'moisture', 'opening', 'weight', 'glueUsed']);
    expect(of('rip')).not.toContain('tail');
    expect(of('slice')).toContain('tail');
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
