import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Aim, Brief } from '../document';
import { defaultShop, type ShopSnapshot, typed } from '../kit';
import { run } from '../run';
import { DEFAULT_DISPLAY, INCH } from '../units';
import { aimText, meetsAim, plainSize, wholeModules } from './aims';
import { mustFit } from './fit';
import { flatteners, machineTakes } from './machines';

const fixed = (mm: number): Aim => ({ aim: 'fixed', value: { mm } });

const brief = (change: Partial<Brief> = {}): Brief => ({
  pattern: 'panel',
  length: fixed(700),
  width: fixed(250),
  thickness: fixed(20),
  woods: ['ash_white', 'walnut_black', 'cherry_black'],
  module: { mm: 45 },
  saw: 'table-full',
  flattenWith: 'planer',
  trimWith: { saw: 'table-full' },
  chequer: false,
  extraSlices: 0,
  sections: 0,
  ...change,
});

const plan = (change: Partial<Brief> = {}, shop: ShopSnapshot = defaultShop('fit')) =>
  mustFit(brief(change), shop, { name: 'fit', use: '' });

const stepOf = (build: ReturnType<typeof plan>, id: string) =>
  build.steps.find((step) => step.id === id) as never as Record<string, { mm: number } & number>;

describe('whole modules', () => {
  it.each([
    ['fixed', 100, 30, false, 3, 100],
    ['fixed', 100, 30, true, 4, 100],
    ['atLeast', 100, 30, false, 4, 120],
    ['atLeast', 90, 30, false, 3, 90],
    ['atLeast', 90, 30, true, 4, 120],
    ['atMost', 100, 30, false, 3, 90],
    ['atMost', 100, 30, true, 2, 60],
    ['atMost', 10, 30, false, 1, 30],
    ['free', 100, 30, false, 6, 180],
  ] as const)('%s %d in modules of %d', (aim, value, module, even, count, size) => {
    expect(wholeModules({ aim, value: { mm: value } }, module, 6, even)).toEqual({ count, sizeMm: size });
  });
  it('keeps its promise for any aim', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('fixed' as const, 'atLeast' as const, 'atMost' as const),
        fc.integer({ min: 100, max: 2000 }),
        fc.integer({ min: 10, max: 99 }),
        fc.boolean(),
        (aim, value, module, even) => {
          const { count, sizeMm } = wholeModules({ aim, value: { mm: value } }, module, 6, even);
          if (even) expect(count % 2).toBe(0);
          expect(count).toBeGreaterThanOrEqual(1);
          if (aim !== 'atMost' || value >= 2 * module)
            expect(meetsAim({ aim, value: { mm: value } }, sizeMm, 1e-9)).toBe(true);
        },
      ),
      { seed: 20267 },
    );
  });
  it('aims are met, missed and said in words', () => {
    expect([
      meetsAim(fixed(10), 10.4, 0.5),
      meetsAim(fixed(10), 10.6, 0.5),
      meetsAim({ aim: 'atMost', value: { mm: 5 } }, 6, 0.1),
      meetsAim({ aim: 'free' }, 6, 0),
    ]).toEqual([true, false, false, true]);
    expect(aimText({ aim: 'atLeast', value: typed('18') }, DEFAULT_DISPLAY)).toBe('at least 18 in');
    expect(aimText({ aim: 'free' }, DEFAULT_DISPLAY)).toBe('free');
    expect([plainSize({ aim: 'free' }, 7), plainSize(fixed(3), 7)]).toEqual([7, 3]);
  });
});

describe('a panel planned backwards', () => {
  it('gives every strip the same width, woods in turn', () => {
    const [assembly] = plan().assemblies;
    expect(new Set(assembly.slots.map(({ width }) => width.mm)).size).toBe(1);
    expect(assembly.slots.map(({ species }) => species)).toEqual([
      'ash_white',
      'walnut_black',
      'cherry_black',
      'ash_white',
      'walnut_black',
      'cherry_black',
    ]);
  });
  it('rounds what is set up to the rule and lets the trim take the rounding, the same on both sides', () => {
    const build = plan();
    const trim = stepOf(build, 'trim');
    expect(trim.near.mm).toBeCloseTo(trim.far.mm, 12);
    expect(trim.near.mm).toBeGreaterThanOrEqual(build.shop.allowances.trimEdge.mm - 1e-9);
    const steps = build.assemblies[0].slots[0].width.mm / (INCH / 32);
    expect(Math.abs(steps - Math.round(steps))).toBeLessThan(1e-6);
  });
  it('jointed edges are only those that meet', () => {
    const wide = plan({ width: fixed(900) });
    const [first, middle, end] = [1, 2, 3].map((n) => stepOf(wide, `joint-${n}`));
    expect([
      first.near.mm > 0,
      first.far.mm,
      middle.near.mm > 0,
      middle.far.mm > 0,
      end.near.mm,
      end.far.mm > 0,
    ]).toEqual([true, 0, true, true, 0, true]);
  });
  it('as many sections as asked, or as the machine needs', () => {
    expect(plan({ width: fixed(900), sections: 4 }).assemblies).toHaveLength(4);
    expect(plan({ width: fixed(900), sections: 1 }).assemblies).toHaveLength(1);
    expect(plan({ width: fixed(900), flattenWith: 'sled' }).assemblies).toHaveLength(1);
    expect(plan({ width: fixed(320) }).assemblies).toHaveLength(1); // 12.6 in and two trims are within 13 in
    expect(plan({ width: fixed(321) }).assemblies).toHaveLength(2);
  });
  it('a wide panel’s last flattening goes to a machine that takes the whole of it', () => {
    const wide = plan({ width: fixed(900) });
    expect(
      wide.shop.machines.find(({ id }) => id === (stepOf(wide, 'flatten-panel').machine as never))?.kind,
    ).toBe('router sled');
  });
});

describe('a block planned backwards', () => {
  const block = (change: Partial<Brief> = {}) =>
    plan({
      pattern: 'endGrain',
      length: fixed(400),
      width: fixed(260),
      thickness: fixed(40),
      module: { mm: 32 },
      chequer: true,
      woods: ['walnut_black', 'maple_sugar'],
      ...change,
    });
  it('spare slices lengthen the panel and are not laid', () => {
    const [plain, spare] = [block(), block({ extraSlices: 2 })];
    const saw = plain.shop.saws[0];
    expect(spare.assemblies[0].slots[0].length.mm - plain.assemblies[0].slots[0].length.mm).toBeCloseTo(
      2 * (stepOf(plain, 'slice').thickness.mm + saw.kerf.mm),
      1,
    );
    const timeline = run(spare);
    expect(timeline.steps.find(({ id }) => id === 'slice')?.pieces).toHaveLength(
      (stepOf(plain, 'slice').count as number) + 2,
    );
    expect(timeline.finished?.greatest[0]).toBeCloseTo(400, 6);
    expect(timeline.problems).toMatchObject([{ code: 'part-not-laid', severity: 'note' }]);
  });
  it('outer columns carry the trim; all finished columns are alike', () => {
    const build = block();
    const widths = build.assemblies[0].slots.map(({ width }) => width.mm);
    expect(widths[0]).toBeGreaterThan(widths[1]);
    expect(widths[0]).toBe(widths[widths.length - 1]);
    const finished = run(build).finished?.pieces[0].blank.cells ?? [];
    const across = finished
      .slice(0, 8)
      .map(({ vertices }) => Math.max(...vertices.map((v) => v[1])) - Math.min(...vertices.map((v) => v[1])));
    expect(Math.max(...across) - Math.min(...across)).toBeLessThan(1);
  });
  it('never gives the end grain to knives', () => {
    for (const flattenWith of ['planer', 'drum', 'sled', 'hand']) {
      const build = block({ flattenWith });
      const kind = build.shop.machines.find(
        ({ id }) => id === (stepOf(build, 'flatten-block').machine as never),
      )?.kind;
      expect(['drum sander', 'router sled', 'hand planes']).toContain(kind);
    }
  });
  it('says so when no machine of the kit may do it', () => {
    const shop = defaultShop('few');
    shop.machines = shop.machines.filter(({ kind }) => kind === 'planer');
    expect(() =>
      mustFit(brief({ pattern: 'endGrain', thickness: fixed(40), module: { mm: 32 } }), shop, {
        name: '',
        use: '',
      }),
    ).toThrow('end grain');
  });
});

describe('which machine takes a piece', () => {
  const shop = defaultShop('machines');
  const planer = shop.machines.find(({ kind }) => kind === 'planer');
  it('compares unrounded sizes with the limits; zero is no limit', () => {
    if (!planer) throw new Error();
    expect(machineTakes(planer, [400, 13 * INCH, 20])).toBe(true);
    expect(machineTakes(planer, [400, 13 * INCH + 0.001, 20])).toBe(false);
    expect(machineTakes(planer, [12 * INCH - 0.001, 200, 20])).toBe(false);
    expect(machineTakes({ ...planer, maxWidth: { mm: 0 } }, [400, 9999, 20])).toBe(true);
  });
  it('offers them in the order a shop reaches for them', () => {
    expect(flatteners(shop, [500, 300, 20], false).map(({ kind }) => kind)).toEqual([
      'planer',
      'drum sander',
      'router sled',
      'hand planes',
    ]);
    expect(flatteners(shop, [500, 450, 20], true).map(({ kind }) => kind)).toEqual([
      'drum sander',
      'router sled',
      'hand planes',
    ]);
    expect(flatteners(shop, [3000, 1500, 20], true).map(({ kind }) => kind)).toEqual(['hand planes']);
  });
});
