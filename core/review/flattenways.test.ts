import { describe, expect, it } from 'vitest';
import { type Edit, phraseText } from '../document';
import { mustEdit } from '../edit';
import { typed, usualMachine } from '../kit';
import { fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { INCH } from '../units';
import { flattenWays, outlook } from '.';

describe('ways to flatten', () => {
  const paidMachine = {
    ...usualMachine('paid machine', 'paid'),
    maxWidth: typed('43'),
    days: 9,
    priceMinor: 6000,
    transportMinor: 500,
  };
  const wide = plannedFor(panelBrief({ width: fixed('19'), sections: 1, module: typed('2 1/2') }), {
    ...shopWith(),
    machines: [...shopWith().machines, paidMachine],
  });
  const step = wide.steps.find(({ kind }) => kind === 'flatten')?.id ?? '';
  const ways = flattenWays(wide, step);
  it('stand side by side, each with its wood and time, those that do not go with the number', () => {
    expect(ways.filter(({ edit, now }) => edit || now).length).toBeGreaterThanOrEqual(5);
    const planer = ways.find(({ id }) => id === 'planer');
    expect(phraseText(planer?.why ?? [], wide.shop.display)).toContain('takes 13');
    for (const way of ways.filter(({ why }) => !why)) {
      expect(way.lostMm3, way.name).toBeGreaterThan(0);
      expect(way.minutes, way.name).toBeGreaterThan(0);
      expect(way.risk.length, way.name).toBeGreaterThan(0);
    }
  });
  it('are taken with one press: the step then runs on that machine, or in sections', () => {
    for (const { id, edit } of ways) {
      if (!edit) continue;
      const after = mustEdit(wide, edit);
      const used = new Set(after.steps.flatMap((each) => (each.kind === 'flatten' ? [each.machine] : [])));
      expect(used, id).toContain(id.replace(':sections', ''));
      if (id.endsWith(':sections')) expect(after.steps.length).toBeGreaterThan(wide.steps.length);
    }
  });
  it('the paid machine costs days and money, and is away in the calendar as long as that', () => {
    const paid = ways.find(({ days }) => days !== undefined);
    expect(paid).toMatchObject({ days: 9, priceMinor: 6500 });
    const after = mustEdit(wide, paid?.edit as Edit);
    expect(flattenWays(after, step).find(({ now }) => now)).toMatchObject({ days: 9, priceMinor: 6500 });
  });
  it('an earlier kit that tells of a paid machine only under how it glues is asked to put it among the machines', () => {
    const early = plannedFor(
      panelBrief({ width: fixed('19'), sections: 1, module: typed('2 1/2') }),
      shopWith({}, { paid: { maxWidth: typed('43'), days: 9, priceMinor: 6500 } }),
    );
    const way = flattenWays(early, step).find(({ id }) => id === 'paid');
    expect(way?.edit).toBeUndefined();
    expect(phraseText(way?.why ?? [], early.shop.display)).toContain('43 in wide. Put it among the machines');
  });
  it('a sled goes over it in tracks of two thirds of its bit', () => {
    const sled = ways.find(({ id }) => id === 'sled');
    // 19 and what is trimmed off, over 2/3 of 38 mm.
    const width = outlook(wide, step).steps.find(({ id }) => id === step)?.greatest[1] ?? 0;
    expect(width).toBeGreaterThanOrEqual(19 * INCH);
    expect(phraseText(sled?.how ?? [], wide.shop.display)).toContain(
      `${Math.ceil(width / ((38 * 2) / 3))} paths`,
    );
  });
});
