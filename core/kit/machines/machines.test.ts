import { describe, expect, it } from 'vitest';
import { defaultShop, typed } from '..';
import {
  asKind,
  doesWork,
  LIMITS,
  type LimitName,
  MACHINE_KIND_NAMES,
  machineFacts,
  machinesThat,
  removalCause,
  SAW_KINDS,
  sawDoes,
  takesEndGrain,
  tearsAcross,
  usualMachine,
  usualSaw,
  widestMilled,
  WORKS,
  worksText,
} from '.';

const every = MACHINE_KIND_NAMES.map((kind) => usualMachine(kind, kind));
const named = (names: readonly { kind: string }[]) => names.map(({ kind }) => kind);

describe('kinds of machine', () => {
  it.each(
    every.map((machine) => [machine.kind, machine] as const),
  )('%s says what it does, its limits and its caution', (_kind, machine) => {
    const facts = machineFacts(machine);
    expect(facts.does.length).toBeGreaterThan(0);
    for (const work of facts.does) expect(WORKS).toHaveProperty(work);
    for (const limit of Object.keys(facts.limits)) expect(LIMITS).toHaveProperty(limit);
    expect(facts.caution).toMatch(/\.$/);
    expect(machine.setting.worst.mm).toBeGreaterThan(machine.setting.likely.mm);
    // A bit it wants for a work is one for that work, which it does.
    for (const work of Object.keys(facts.bits ?? {})) expect(facts.does).toContain(work);
  });

  it('knives never take end grain, abrasive leaves dust, and only rollers under knives tear across', () => {
    expect(named(every.filter((machine) => !takesEndGrain(machine)))).toEqual(['jointer', 'planer']);
    expect(named(every.filter((machine) => removalCause(machine) === 'dust'))).toEqual([
      'drum sander',
      'belt sander',
      'paid machine',
    ]);
    expect(named(every.filter(tearsAcross))).toEqual(['planer']);
  });

  it('are found by what they do, in the order a shop reaches for them, whatever that of the kit', () => {
    const shop = { machines: every.toReversed() };
    expect(named(machinesThat(shop, 'flatten'))).toEqual([
      'planer',
      'drum sander',
      'router sled',
      'computer-guided router',
      'hand planes',
      'paid machine',
    ]);
    expect(named(machinesThat(shop, 'joint'))).toEqual(['jointer', 'hand planes']);
    expect(named(machinesThat(shop, 'bore'))).toEqual(['computer-guided router', 'drill press']);
    expect(named(machinesThat(shop, 'mortise'))).toEqual(['loose-tenon cutter']);
    expect(machinesThat({ machines: [] }, 'flatten')).toEqual([]);
  });

  it('the widest a shop mills: its widest planer, no limit where one has none, nothing without', () => {
    const wide = { ...usualMachine('planer', 'wide'), maxWidth: typed('20') };
    expect(widestMilled({ machines: every })).toBeCloseTo(13 * 25.4, 9);
    expect(widestMilled({ machines: [...every, wide] })).toBeCloseTo(20 * 25.4, 9);
    expect(widestMilled({ machines: [{ ...wide, maxWidth: { mm: 0 } }] })).toBe(Infinity);
    expect(widestMilled({ machines: every.filter((machine) => !doesWork(machine, 'mill')) })).toBe(0);
  });

  it('made another kind, a machine keeps what both have and begins the rest as usual', () => {
    const planer = {
      ...usualMachine('planer', 'p', 'The old planer'),
      maxWidth: typed('15'),
      minLength: typed('10'),
    };
    const drill = asKind(planer, 'drill press');
    expect(drill).toMatchObject({
      id: 'p',
      name: 'The old planer',
      kind: 'drill press',
      setting: planer.setting,
    });
    expect(drill.minLength).toEqual(typed('10'));
    expect(drill.maxWidth).toEqual({ mm: 0 });
    expect(drill.reach?.mm).toBeCloseTo(7 * 25.4, 9);
    expect(asKind(planer, 'drum sander').maxWidth).toEqual(typed('15'));
  });

  it('a limit that a kind has not is none in a new one', () => {
    for (const machine of every)
      for (const limit of Object.keys(LIMITS) as LimitName[])
        if (!(limit in machineFacts(machine).limits)) expect(machine[limit]?.mm ?? 0).toBe(0);
  });

  it('what a tool does, as a sentence ends', () => {
    expect(worksText(['rip'])).toBe('rips');
    expect(worksText(['rip', 'crosscut', 'resaw'])).toBe('rips, crosscuts and resaws');
    expect(worksText([])).toBe('');
  });
});

describe('kinds of saw', () => {
  it('a mitre saw never rips; one whose kind nobody said is taken at its sizes', () => {
    const mitre = usualSaw('mitre saw', 'm');
    expect(sawDoes(mitre, 'crosscut')).toBe(true);
    expect(sawDoes(mitre, 'rip')).toBe(false);
    const { kind: _kind, ...unsaid } = mitre;
    expect(sawDoes(unsaid, 'rip')).toBe(true);
  });
  it('the saws of a small shop rip and crosscut, and have the kerfs the trade knows', () => {
    const { saws } = defaultShop('s');
    // Full 1/8 in and thin 3/32 in blades (common practice).
    expect(saws.map(({ kerf }) => kerf.typed?.text)).toEqual(['1/8', '3/32', '1/16', '3/32']);
    for (const saw of saws)
      for (const work of ['rip', 'crosscut'] as const) expect(sawDoes(saw, work)).toBe(true);
    for (const kind of Object.keys(SAW_KINDS) as (keyof typeof SAW_KINDS)[])
      expect(usualSaw(kind, 'x').kerf.mm).toBeGreaterThan(0);
  });
});
