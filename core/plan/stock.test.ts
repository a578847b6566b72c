import { describe, expect, it } from 'vitest';
import { type Brief, type BuildDocument, isRefused, phraseText } from '../document';
import { namedStock, soldIn, STOCK_KIND_NAMES, stockKind } from '../kit';
import { run } from '../run';
import { extents } from '../solid';
import { INCH } from '../units';
import { SPECIES } from '../wood';
import {
  fit,
  mustFit,
  PATTERNS,
  startingBrief,
  stockGives,
  stripsOfStock,
  largestSawn,
  thinnerForStock,
} from '.';
import { shopWith } from './briefs.fixture';

const shop = shopWith();
const about = { name: 'p', use: '' };
const mm = (value: number) => ({ mm: value });
const brief = (change: Partial<Brief> = {}): Brief => startingBrief('panel', shop, change);
const fixed = (value: number) => ({ aim: 'fixed' as const, value: mm(value) });
/** Widths of what the first glue-up is laid from. */
const laidWidths = (build: BuildDocument): number[] => {
  const glue = build.steps.find(({ kind }) => kind === 'glue');
  const entry = run(build).steps.find(({ id }) => id === glue?.id);
  return (entry?.entered ?? []).map(({ blank }) => extents(blank)[1]);
};

describe('what wood is sold as', () => {
  it('is read by its nominal name, its quarters or its real size', () => {
    // PS 20 table 3, from memory: a dry 2x8 is 1 1/2 by 7 1/4.
    expect(namedStock('2x8')).toEqual({ thicknessMm: 1.5 * INCH, widthMm: 7.25 * INCH, by: 'nominal' });
    expect(namedStock('8/4')).toEqual({ thicknessMm: 2 * INCH, by: 'quarters' });
    expect(namedStock(' 5 / 4 ')).toEqual({ thicknessMm: 1.25 * INCH, by: 'quarters' });
    expect(namedStock('45 x 95')).toEqual({ thicknessMm: 45, widthMm: 95, by: 'real' });
    for (const text of ['', 'x', '2x', '1/4', '40/4', '8/3', '2x8x10', '-2x8'])
      expect(namedStock(text)).toBeUndefined();
  });
  it('gives strips without its rounded corners and what is milled off its edges', () => {
    const edge = shop.allowances.millEdge.mm;
    const gives = stockGives('2x8', shop);
    // An eighth of an inch off each edge for the corner (common practice).
    expect(gives?.stripMm).toBeCloseTo(7.25 * INCH - 2 * (INCH / 8 + edge), 6);
    expect(stockGives('2x8', shop, true)?.stripMm).toBeCloseTo(7.25 * INCH, 9);
    expect(stockGives('8/4', shop)?.stripMm).toBeUndefined();
  });
  it('a plan with strips of that width saws them no wider than the stock', () => {
    const gives = stockGives('2x8', shop);
    if (!gives) throw new Error('not read');
    const change = stripsOfStock(brief(), gives);
    const build = mustFit(brief({ ...change, width: fixed(24 * INCH) }), shop, about);
    expect(largestSawn(build).widthMm).toBeLessThanOrEqual(7.25 * INCH - (2 * INCH) / 8 + 1e-9);
    // As milled: where strips are sections by themselves, their edges are jointed after.
    const milled = run(build).steps.filter(({ id }) => id.startsWith('mill'));
    expect(milled.length).toBeGreaterThan(0);
    for (const { least, greatest } of milled)
      for (const size of [least, greatest]) expect(size[1]).toBeCloseTo(gives.stripMm ?? 0, 6);
    // A pattern that cannot hold a width is not offered it.
    expect(stripsOfStock(startingBrief('leg', shop), gives)).toBeUndefined();
  });
  it('a piece too thick for it is offered thinner, and then comes out of it', () => {
    const gives = stockGives('45 x 95', shop);
    if (!gives) throw new Error('not read');
    const thick = brief({ thickness: fixed(45) });
    expect(largestSawn(mustFit(thick, shop, about)).thicknessMm).toBeGreaterThan(45);
    const change = thinnerForStock(thick, shop, gives);
    expect(largestSawn(mustFit({ ...thick, ...change }, shop, about)).thicknessMm).toBeLessThanOrEqual(
      45 + 1e-9,
    );
    expect(thinnerForStock(brief({ thickness: fixed(20) }), shop, gives)).toBeUndefined();
  });
});

describe('strips as they are', () => {
  it('of 32 mm stay 32, and nothing is milled', () => {
    const metric = shopWith({ display: { system: 'mm', fraction: 0 } });
    const own = startingBrief('lamination', metric, {
      asTheyAre: true,
      module: mm(32),
      thickness: { aim: 'free' },
    });
    const build = mustFit(own, metric, about);
    expect(build.steps.some(({ kind }) => kind === 'mill')).toBe(false);
    for (const { thickness } of build.assemblies.flatMap(({ slots }) => slots)) expect(thickness.mm).toBe(32);
    expect(build.shop.allowances).toEqual(metric.allowances);
    expect(run(build).problems).toEqual([]);
  });
  it('of every pattern come out at the size asked', () => {
    for (const { id } of PATTERNS) {
      const planned = fit(startingBrief(id, shop, { asTheyAre: true }), shop, about);
      if (isRefused(planned)) {
        // The maker's own rule is not there in an empty shop.
        expect(phraseText(planned.refused, shop.display)).toMatch(/No pattern of your own is saved/);
        continue;
      }
      const timeline = run(planned);
      expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
      const [target] = planned.targets;
      const sizes = timeline.finished?.greatest ?? [0, 0, 0];
      for (const [axis, aim] of [target.length, target.width, target.thickness].entries())
        if (aim.aim === 'fixed') expect(sizes[axis], `${id} ${axis}`).toBeCloseTo(aim.value?.mm ?? 0, 5);
    }
  });
});

describe('a row of strips', () => {
  const holding = PATTERNS.filter(({ measures }) => measures.some(({ key }) => key === 'moduleAs'));
  it('is held to a width or a number in at least six patterns', () => {
    expect(holding.length).toBeGreaterThanOrEqual(6);
  });
  it('of exactly a width is laid from strips exactly so wide, and what is over comes off both edges alike', () => {
    const build = mustFit(
      brief({ module: mm(40), width: fixed(290), measures: { moduleAs: 'exactly' }, sections: 1 }),
      shop,
      about,
    );
    const widths = laidWidths(build);
    const needed = 290 + 2 * shop.allowances.trimEdge.mm;
    expect(widths).toHaveLength(Math.ceil(needed / 40));
    for (const width of widths) expect(width).toBeCloseTo(40, 9);
    const trim = build.steps.find(({ kind }) => kind === 'trim') as {
      near?: { mm: number };
      far?: { mm: number };
    };
    expect(trim.near?.mm).toBeCloseTo((widths.length * 40 - 290) / 2, 9);
    expect(trim.far).toEqual(trim.near);
    expect(run(build).finished?.greatest[1]).toBeCloseTo(290, 6);
  });
  it('of exactly a width in sections: none wider than the planer, and what their joints lose is there too', () => {
    const limit = shop.machines.find(({ id }) => id === 'planer')?.maxWidth.mm ?? 0;
    for (const module of [40, 60, 100, 174])
      for (const width of [400, 900, 1200]) {
        const build = mustFit(
          brief({ module: mm(module), width: fixed(width), measures: { moduleAs: 'exactly' } }),
          shop,
          about,
        );
        expect(build.assemblies.length).toBeGreaterThan(1);
        for (const { slots } of build.assemblies)
          expect(slots.length * module, `${module} ${width}`).toBeLessThanOrEqual(limit);
        const timeline = run(build);
        expect(timeline.problems).toEqual([]);
        expect(timeline.finished?.greatest[1]).toBeCloseTo(width, 6);
        const trim = build.steps.find(({ id }) => id === 'trim') as { near?: { mm: number } };
        expect(trim.near?.mm).toBeGreaterThanOrEqual(shop.allowances.trimEdge.mm - 1e-9);
      }
  });
  it('of at most a width has none wider in the piece', () => {
    for (const module of [33, 40, 57.5]) {
      const build = mustFit(
        brief({ module: mm(module), width: fixed(290), measures: { moduleAs: 'atMost' }, sections: 1 }),
        shop,
        about,
      );
      const count = Math.ceil(290 / module);
      expect(laidWidths(build)).toHaveLength(count);
      expect(290 / count).toBeLessThanOrEqual(module);
    }
  });
  it('of a number held has that many, in every pattern that holds it', () => {
    for (const { id } of holding) {
      const build = mustFit(startingBrief(id, shop, { measures: { strips: 6 } }), shop, about);
      const twelve = mustFit(startingBrief(id, shop, { measures: { strips: 12 } }), shop, about);
      const slots = (of: BuildDocument) => of.assemblies.reduce((sum, each) => sum + each.slots.length, 0);
      expect(slots(twelve), id).toBeGreaterThan(slots(build));
      expect(run(twelve).problems, id).toEqual([]);
    }
  });
  it('that cannot be is refused with its numbers and one that would do', () => {
    const refused = (measures: Brief['measures']) => {
      const planned = fit(brief({ module: mm(40), width: fixed(290), measures }), shop, about);
      return isRefused(planned) ? phraseText(planned.refused, { system: 'mm', fraction: 0 }) : '';
    };
    expect(refused({ moduleAs: 'exactly', strips: 5 })).toMatch(
      /5 strips of exactly 40 mm make 200 mm.*8 would do/,
    );
    expect(refused({ moduleAs: 'atMost', strips: 5 })).toMatch(
      /58 mm wide each, and at most 40 mm.*8 would do/,
    );
  });
});

describe('the centre strip', () => {
  it('stands in the very middle, its sides equal and mirrored', () => {
    const build = mustFit(
      startingBrief('centred', shop, { woods: ['walnut_black', 'ash_white', 'maple_sugar'] }),
      shop,
      about,
    );
    const { slots } = build.assemblies[0];
    expect(slots.length % 2).toBe(1);
    expect(slots.map(({ species }) => species)).toEqual(slots.map(({ species }) => species).toReversed());
    expect(slots[(slots.length - 1) / 2].species).toBe('walnut_black');
    const timeline = run(build);
    const cells = timeline.finished?.pieces[0].blank.cells ?? [];
    const ys = cells
      .filter(({ origin }) => origin.species === 'walnut_black')
      .flatMap(({ vertices }) => vertices.map(([, y]) => y));
    const width = timeline.finished?.greatest[1] ?? 0;
    expect((Math.min(...ys) + Math.max(...ys)) / 2).toBeCloseTo(width / 2, 6);
  });
});

describe('kinds of stock', () => {
  it('every wood but metal is sold in some kind, softwood first as construction lumber', () => {
    for (const { id, group } of SPECIES) expect(soldIn(id).length > 0).toBe(group !== 'metal');
    expect(soldIn('douglas_fir_coast')[0]).toBe('construction');
    expect(soldIn('oak_white')).toEqual(['rough']);
  });
  it('each has sizes in inches and in millimetres', () => {
    for (const name of STOCK_KIND_NAMES)
      for (const system of ['inch', 'mm'] as const) {
        const { sections, lengths } = stockKind(name);
        expect(sections[system].length).toBeGreaterThan(0);
        expect(Math.min(...lengths[system])).toBeGreaterThan(900);
      }
  });
});
