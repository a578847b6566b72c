import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { BuildDocument } from '../document';
import { mustEdit } from '../edit';
import { type Rates, type ShopSnapshot, shopAlone } from '../kit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { blankVolume, extents } from '../solid';
import { demoJobs } from '../../demo/jobs';
import { moneyText } from '../units';
import { breakFor, COST_GROUP_NAMES, type Cost, costOf, metresOf, priceFor, workMinutes } from '.';

const RATES: Rates = {
  handMinor: 3000,
  people: [{ person: 'p1', minor: 6000 }],
  machines: [{ tool: 'table-full', minor: 1200 }],
  edges: [{ tool: 'table-full', minor: 9000, metres: 3000 }],
  glue: [{ adhesive: 'water-resistant', minor: 1500 }],
  wood: [{ species: 'cherry_black', minor: 400_000 }],
};
const bottle = {
  id: 'water-resistant',
  name: 'Water-resistant PVA',
  class: 'pva_crosslink_d3',
  leftG: 500,
} as const;
const kit = (rates: Rates | undefined = RATES, more: Partial<ShopSnapshot> = {}): ShopSnapshot =>
  shopWith({
    currency: 'EUR',
    adhesives: [bottle],
    people: [{ id: 'p1', name: 'Ada' }],
    ...(rates ? { rates } : {}),
    ...more,
  });
const panel = (): BuildDocument => plannedFor(panelBrief(), shopAlone(kit()));
const cost = (build: BuildDocument, shop = kit()): Cost => {
  const found = costOf(build, run(build), shop);
  if (!found) throw new Error('no cost');
  return found;
};
const of = ({ lines }: Cost, group: string) => lines.filter((line) => line.group === group);
const AT = '2026-03-02T08:00:00.000Z';
const after = (minutes: number) => new Date(Date.parse(AT) + minutes * 60_000).toISOString();

describe('what a job costs', () => {
  it('is the sum of its lines, to the minor unit, and nothing so far before anything is done', () => {
    const all = cost(panel());
    expect(all.plannedMinor).toBe(all.lines.reduce((sum, { plannedMinor }) => sum + plannedMinor, 0));
    expect(
      all.lines.every(
        ({ plannedMinor, realMinor }) => Number.isInteger(plannedMinor) && Number.isInteger(realMinor),
      ),
    ).toBe(true);
    expect(all).toMatchObject({ realMinor: 0, currency: 'EUR', pieces: 1 });
    for (const group of ['wood', 'glue', 'edges', 'hands', 'machines'])
      expect(of(all, group).length).toBeGreaterThan(0);
  });
  it('counts wood of no board by its volume, glue by what is taken, hands by the minutes of the calendar', () => {
    const build = panel();
    const timeline = run(build);
    const all = cost(build);
    const mm3 = timeline.steps[0].pieces.reduce((sum, { blank }) => sum + blankVolume(blank), 0);
    expect(of(all, 'wood')[0].plannedMinor).toBe(Math.round((mm3 / 1e9) * 400_000));
    const minutes = [...workMinutes(build, timeline).values()].reduce((sum, each) => sum + each, 0);
    const hands = of(all, 'hands').reduce((sum, { plannedMinor }) => sum + plannedMinor, 0);
    expect(Math.abs(hands - (minutes / 60) * 3000)).toBeLessThan(build.steps.length);
    const [glue] = of(all, 'glue');
    expect(glue.plannedMinor).toBe(Math.round(((glue.amount?.planned ?? 0) / 1000) * 1500));
  });
  it('so far follows the time that was taken, by whose hands they were', () => {
    const build = panel();
    const [rip] = build.steps;
    const done = (who?: string): BuildDocument => ({
      ...build,
      steps: build.steps.map((step) =>
        step.id === rip.id
          ? { ...step, done: true, work: [{ from: AT, to: after(90), ...(who ? { who } : {}) }] }
          : step,
      ),
    });
    const real = (build_: BuildDocument, group: string) =>
      of(cost(build_), group).find(({ step }) => step === rip.id)?.realMinor;
    expect(real(done(), 'hands')).toBe(4500);
    expect(real(done('Ada'), 'hands')).toBe(9000);
    expect(real(done(), 'machines')).toBe(1800);
    // What is planned does not change by being done.
    expect(cost(done()).plannedMinor).toBe(cost(build).plannedMinor);
  });
  it('glue that was weighed counts as it was weighed', () => {
    const build = panel();
    const glue = build.steps.find(({ kind }) => kind === 'glue');
    const weighed = cost({
      ...build,
      checks: [{ id: 'w', step: glue?.id ?? '', kind: 'glueUsed', values: [0.1] }],
    });
    expect(of(weighed, 'glue')[0].realMinor).toBe(150);
    expect(of(weighed, 'glue')[0].plannedMinor).toBe(of(cost(build), 'glue')[0].plannedMinor);
  });
  it('metres of a blade are those of its cuts', () => {
    const build = panel();
    const timeline = run(build);
    const [rip] = build.steps;
    const entry = timeline.steps[0];
    const run_ = metresOf(rip, entry, build);
    const lengths = entry.pieces.reduce((sum, { blank }) => sum + extents(blank)[0], 0) / 1000;
    // Each strip is ripped along, and crosscut once: between once and twice its length.
    if (run_) {
      expect(run_.metres).toBeGreaterThan(0);
      expect(run_.metres).toBeLessThan(2.5 * lengths);
    } else
      expect(entry.pieces.every(({ blank }) => blank.cells[0].origin.board.startsWith('wood for'))).toBe(
        true,
      );
  });
  it('names what has no price, and leaves it out', () => {
    const bare = cost(panel(), kit({}));
    expect(bare).toMatchObject({ plannedMinor: 0, lines: [] });
    expect(bare.unpriced).toEqual(expect.arrayContaining(['hands by the hour', 'Water-resistant PVA']));
    const { currency: _, ...none } = kit();
    expect(costOf(panel(), run(panel()), none)).toBeUndefined();
  });
  it('counts whole boards less the offcuts that are kept, in the shop’s currency only', () => {
    const broken = (demoJobs as BuildDocument[]).find(({ boards }) => boards.length > 0);
    if (!broken) throw new Error('no demo job has boards');
    const priced = (currency: string): BuildDocument => ({
      ...broken,
      boards: broken.boards.map((board) => ({ ...board, price: { minor: 10_000, currency, per: 'board' } })),
    });
    const all = cost(priced('EUR'));
    expect(
      of(all, 'wood')
        .filter(({ words }) => words.startsWith('Board'))
        .every(({ plannedMinor }) => plannedMinor === 10_000),
    ).toBe(true);
    for (const { plannedMinor } of of(all, 'offcuts')) {
      expect(plannedMinor).toBeLessThan(0);
      expect(plannedMinor).toBeGreaterThan(-10_000);
    }
    expect(cost(priced('JPY')).unpriced.some((each) => each.includes('priced in JPY'))).toBe(true);
  });
  it('what is made several times costs as often', () => {
    const build = panel();
    const twice = mustEdit(build, { do: 'setTarget', target: build.targets[0].id, change: { quantity: 2 } });
    const [one, two] = [cost(build), cost(twice)];
    expect(of(two, 'wood')[0].plannedMinor / of(one, 'wood')[0].plannedMinor).toBeCloseTo(2, 3);
    expect(two.pieces).toBe(2);
  });
  it('counts in a currency without cents as in any other', () => {
    const yen = cost(panel(), kit({ handMinor: 3500 }, { currency: 'JPY' }));
    expect(yen.currency).toBe('JPY');
    expect(yen.plannedMinor).toBe(yen.lines.reduce((sum, { plannedMinor }) => sum + plannedMinor, 0));
    expect(moneyText(yen.plannedMinor, 'JPY')).toMatch(/^[\d,]+ JPY$/);
  });
  it('keeps its groups in their order', () => {
    const order = cost(panel()).lines.map(({ group }) => COST_GROUP_NAMES.indexOf(group));
    expect(order).toEqual(order.toSorted((a, b) => a - b));
  });
});

describe('a price', () => {
  it('is cost, markup, break and tax, each as it stands in the quotation', () => {
    const breaks = [
      { from: 5, pct: 5 },
      { from: 10, pct: 8 },
    ];
    expect(priceFor({ minor: 10_001, pieces: 1 }, { markupPct: 33, taxPct: 19, breaks }, 1)).toEqual({
      pieces: 1,
      costMinor: 10_001,
      markupMinor: 3300,
      breakPct: 0,
      breakMinor: 0,
      netMinor: 13_301,
      taxMinor: 2527,
      totalMinor: 15_828,
      eachMinor: 15_828,
    });
    expect(priceFor({ minor: 10_001, pieces: 1 }, { breaks }, 10)).toMatchObject({
      costMinor: 100_010,
      breakPct: 8,
      breakMinor: 8001,
      netMinor: 92_009,
    });
    expect([1, 4, 5, 9, 10, 99].map((n) => breakFor(breaks.toReversed(), n))).toEqual([0, 0, 5, 5, 8, 8]);
  });
  it('adds up, whatever the numbers; all pieces together come to no less than the total', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 10_000_000 }),
        fc.integer({ min: 1, max: 50 }),
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: 0, max: 30 }),
        fc.integer({ min: 1, max: 500 }),
        (minor, made, markupPct, taxPct, pieces) => {
          const price = priceFor(
            { minor, pieces: made },
            { markupPct, taxPct, breaks: [{ from: 7, pct: 3 }] },
            pieces,
          );
          expect(price.netMinor).toBe(price.costMinor + price.markupMinor - price.breakMinor);
          expect(price.totalMinor).toBe(price.netMinor + price.taxMinor);
          expect(price.eachMinor * pieces).toBeGreaterThanOrEqual(price.totalMinor);
          expect(price.eachMinor * pieces - price.totalMinor).toBeLessThan(pieces);
        },
      ),
      { seed: 19, numRuns: 200 },
    );
    for (const wrong of [0, -1, 1.5, Number.NaN])
      expect(() => priceFor({ minor: 1, pieces: 1 }, {}, wrong)).toThrow(RangeError);
  });
});
