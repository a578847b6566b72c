import { describe, expect, it } from 'vitest';
import { readShop } from '../../contract/read';
import {
  inSystem,
  MACHINE_KIND_NAMES,
  paperOf,
  shopFrom,
  typed,
  usualClamps,
  usualMachines,
  usualSaws,
} from '.';

describe('a shop of one’s own', () => {
  it('is accepted by the contract in both systems, with everything usual, nothing, and all skipped', () => {
    for (const system of ['inch', 'mm'] as const)
      for (const told of [
        {},
        { saws: [], machines: [], clamps: [], glues: [] },
        {
          saws: usualSaws(system).map(({ item }) => item),
          machines: usualMachines(system, MACHINE_KIND_NAMES).map(({ item }) => item),
          clamps: usualClamps(system).map(({ item }) => item),
          glues: [{ class: 'pva_yellow', name: 'Yellow', foodOk: true }],
        },
      ]) {
        const shop = shopFrom({ name: 'Own', system, currency: 'JPY', ...told });
        expect(readShop(JSON.parse(JSON.stringify(shop)))).toMatchObject({ ok: true });
      }
  });

  it('keeps apart what was told to be none and what was skipped', () => {
    const skipped = shopFrom({ name: 'Own', system: 'inch' });
    expect([skipped.clamps, skipped.adhesives]).toEqual([undefined, undefined]);
    expect(skipped.machines.length).toBeGreaterThan(0);
    const none = shopFrom({ name: 'Own', system: 'inch', machines: [], clamps: [], glues: [] });
    expect([none.machines, none.clamps, none.adhesives]).toEqual([[], [], []]);
  });

  it('has sizes that are round in its own system, and no inch text in a metric one', () => {
    expect(inSystem(typed('13'), 'mm')).toEqual({ mm: 330 });
    expect(inSystem(typed('1/8'), 'mm')).toEqual({ mm: 3.2 });
    expect(inSystem(typed('3'), 'mm')).toEqual({ mm: 76 });
    expect(inSystem(typed('13'), 'inch')).toEqual(typed('13'));
    const metric = shopFrom({ name: 'Own', system: 'mm', clamps: usualClamps('mm').map(({ item }) => item) });
    expect(JSON.stringify(metric)).not.toContain('"inch"');
    expect(metric.display.system).toBe('mm');
  });

  it('prints on the paper it said, else on what is usual where it measures so', () => {
    expect(paperOf(shopFrom({ name: 'Own', system: 'mm' }))).toBe('a4');
    expect(paperOf(shopFrom({ name: 'Own', system: 'inch' }))).toBe('letter');
    expect(paperOf(shopFrom({ name: 'Own', system: 'inch', paper: 'a4' }))).toBe('a4');
  });
});
