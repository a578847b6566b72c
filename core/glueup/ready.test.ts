import { describe, expect, it } from 'vitest';
import { type BuildDocument, phraseText } from '../document';
import { mustEdit } from '../edit';
import { adhesiveFacts, DEFAULT_CLAMPS, glueTimes, typed } from '../kit';
import { fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { gatesOf } from './adhesive';
import { plannedGlueUp, type PlannedGlueUp } from './planned';

const metric = { system: 'mm', fraction: 0 } as const;
const planOf = (build: BuildDocument): PlannedGlueUp =>
  plannedGlueUp(build, run(build), 'glue', '2027-01-01') as PlannedGlueUp;
const words = (plan: PlannedGlueUp): string =>
  plan.ready.map((item) => phraseText(item.words, metric)).join('\n');
const panel = (shop = shopWith()) => plannedFor(panelBrief({ module: typed('7/8') }), shop);

describe('what must lie ready', () => {
  it('names the clamps with what they are opened to, the cauls, the glue in grams and the order', () => {
    const plan = planOf(panel());
    const all = words(plan);
    expect(all).toMatch(/\d+ parallel-jaw clamps, short, opened to \d+/);
    expect(all).toMatch(/2 cauls for the edges, taped, 44.[45] mm high/);
    expect(all).toMatch(/Water-resistant PVA, \d+ g/);
    expect(all).toContain('Tighten middle first, then outwards by turns');
    expect(new Set(plan.ready.map(({ id }) => id)).size).toBe(plan.ready.length);
    // Opened wide enough to slip over the piece with its cauls.
    expect(plan.clamps.openingMm).toBeCloseTo(plan.glueUp.widthMm + 2 * plan.clamps.edgeCaulMm, 9);
  });
  it('says what is missing, who helps, and which caution applies', () => {
    const few = planOf(panel(shopWith({ clamps: [{ ...DEFAULT_CLAMPS[0], count: 1 }] })));
    expect(words(few)).toContain(`${few.clamps.missing} clamps more`);
    const two = planOf(panel(shopWith({}, { hands: 2 })));
    expect(words(two)).toContain('who spreads and who lays');
    const epoxy = planOf(mustEdit(panel(), { do: 'planGlue', step: 'glue', change: { adhesive: 'epoxy' } }));
    expect(epoxy.ready.filter(({ caution }) => caution).length).toBeGreaterThan(0);
    expect(words(epoxy)).toContain('gloves');
  });
  it.each([
    ['biscuits', 'biscuit', '56 x 23', 'A machine that cuts biscuit slots: none in the kit'],
    ['dowels', 'dowel', '8 x 30', 'Brad-point drill, 8 mm: none in the kit'],
    ['looseTenons', 'looseTenon', '5 x 30', 'A machine that cuts mortises for loose tenons: none in the kit'],
  ] as const)('%s that are short, and what makes room for them', (kind, supply, size, tool) => {
    const of = (onHand: number) => {
      const shop = shopWith({
        bits: [],
        supplies: [{ id: 's', name: 'on the shelf', kind: supply, size, onHand }],
      });
      return planOf(mustEdit(panel(shop), { do: 'planGlue', step: 'glue', change: { aids: { kind } } }));
    };
    const short = of(2);
    const wanted = short.aids.aids.length;
    expect(short.aids.size?.trade).toBe(size);
    expect(words(short)).toContain(`${size}: 2 on hand, ${wanted - 2} missing`);
    expect(words(short)).toContain(tool);
    expect(short.ready.filter(({ id }) => id.startsWith('short-')).every(({ caution }) => caution)).toBe(
      true,
    );
    expect(words(of(wanted))).not.toContain('missing');
  });
  it('follows the practice: waxed, wiped wet, aids tried dry', () => {
    const shop = shopWith(
      {},
      {
        squeezeOut: 'wet',
        cauls: { height: typed('2'), width: typed('1'), count: 6, species: 'maple_sugar', protection: 'wax' },
      },
    );
    const wet = planOf(panel(shop));
    expect(words(wet)).toContain('waxed');
    expect(words(wet)).toContain('a dry cloth');
    const aided = planOf(
      mustEdit(plannedFor(panelBrief({ thickness: fixed('1') }), shop), {
        do: 'planGlue',
        step: 'glue',
        change: { aids: { kind: 'dowels' } },
      }),
    );
    expect(words(aided)).toMatch(/\d+ × dowel 8 x 30, tried dry/);
  });
});

describe('the gates after the clamps', () => {
  const times = (celsius: number) =>
    glueTimes(adhesiveFacts({ id: 'y', name: 'y', class: 'pva_yellow' }), {
      temperatureC: celsius,
      humidityPct: 50,
    });
  it('open one after the other: scrape, unclamp, surface', () => {
    for (const squeezeOut of ['wet', 'rubbery', 'hard'] as const)
      for (const unclamp of ['label', 'overnight'] as const) {
        const gates = gatesOf(times(21), shopWith({}, { squeezeOut, unclamp }));
        expect(gates.scrapeH).toBeLessThanOrEqual(gates.unclampH);
        expect(gates.unclampH).toBeLessThanOrEqual(gates.surfaceH);
        expect(gates.unclampH).toBe(unclamp === 'label' ? 1 : 12);
      }
  });
  it('open later in the cold, and machining never before the clamps are off', () => {
    expect(gatesOf(times(11), shopWith()).unclampH).toBeCloseTo(2, 9);
    expect(gatesOf(times(21), shopWith({}, { surfaceWaitH: 0.5 })).surfaceH).toBe(1);
    expect(gatesOf(undefined, shopWith()).unclampH).toBe(1);
  });
});
