import { describe, expect, it } from 'vitest';
import { type Brief, type BuildDocument, type Edit, type Finding, phraseText } from '../document';
import { mustEdit } from '../edit';
import { DEFAULT_CLAMPS, type GluePractice, type ShopSnapshot, typed } from '../kit';
import { fixed, shopWith as newShop, panelBrief, plannedFor } from '../plan/briefs.fixture';
import { run } from '../run';
import { review } from '.';

const shopWith = (more: Partial<ShopSnapshot> = {}, change: Partial<GluePractice> = {}): ShopSnapshot =>
  newShop(more, { hands: 2, ...change });
const top = (shop = shopWith(), change: Partial<Brief> = {}): BuildDocument =>
  plannedFor(panelBrief({ length: fixed('30'), woods: ['maple_sugar'], ...change }), shop);
const planGlue = (build: BuildDocument, change: Extract<Edit, { do: 'planGlue' }>['change']) =>
  mustEdit(build, { do: 'planGlue', step: 'glue', change });
const findings = (build: BuildDocument, today?: string): Finding[] => review(build, run(build), today);
const find = (build: BuildDocument, code: string, today?: string): Finding | undefined =>
  findings(build, today).find((finding) => finding.code === code);

/** It is there with its number in its words, and each of its fixes makes it go away. */
function expectFixable(build: BuildDocument, code: string, today?: string): Finding {
  const finding = find(build, code, today) as Finding;
  expect(finding, code).toBeDefined();
  expect(phraseText(finding.message, build.shop.display)).toMatch(/\d/);
  expect(finding.fixes.length, `${code} has fixes`).toBeGreaterThan(0);
  for (const fix of finding.fixes)
    expect(find(mustEdit(build, fix.edit), code, today), fix.label).toBeUndefined();
  return finding;
}

describe('a plain glue-up', () => {
  it('has nothing against it', () => {
    expect(findings(top())).toEqual([]);
  });
  it('that is done says nothing any more', () => {
    const build = top(shopWith({ clamps: [] }));
    expect(find(build, 'no-clamps')).toBeDefined();
    expect(findings(mustEdit(build, { do: 'setStep', step: 'glue', change: { done: true } }))).toEqual([]);
  });
});

describe('clamps', () => {
  it('none: says how many, how wide and how hard', () => {
    const finding = find(top(shopWith({ clamps: [] })), 'no-clamps');
    expect(find(top(shopWith({ clamps: [{ ...DEFAULT_CLAMPS[0], count: 0 }] })), 'no-clamps')).toBeDefined();
    expect(finding?.numbers.count).toBeGreaterThan(2);
    expect(finding?.numbers.force).toBeGreaterThan(0);
  });
  it('too short: names the opening wanted and the longest there is', () => {
    const finding = find(
      top(shopWith({ clamps: [{ ...DEFAULT_CLAMPS[3], opening: typed('8') }] })),
      'clamps-too-short',
    );
    expect(finding?.numbers.opening).toBeGreaterThan(finding?.numbers.longest ?? Infinity);
    const cauled = planGlue(top(shopWith({ clamps: [{ ...DEFAULT_CLAMPS[3], opening: typed('14') }] })), {
      edgeCaul: typed('3'),
    });
    expectFixable(cauled, 'clamps-too-short');
  });
  it('a face-glued skin names the usual ways to press a wide face, with the force it wants; an edge joint does not', () => {
    const few = shopWith({ clamps: [{ ...DEFAULT_CLAMPS[0], count: 2 }] });
    const skin = mustEdit(
      mustEdit(top(few), { do: 'setAllSlots', step: 'rip', change: { width: typed('16') } }),
      { do: 'setStep', step: 'glue', change: { along: 'thickness' } },
    );
    const text = (finding: Finding | undefined) => phraseText(finding?.message ?? [], few.display);
    expect(text(find(skin, 'too-few-clamps'))).toMatch(
      /Faces .* in wide .* (lbf|kN|N) .*cauls.*vacuum.*weights.*screws/,
    );
    expect(text(find(top(few), 'too-few-clamps'))).not.toContain('vacuum');
  });
  it('too few: counts them', () => {
    const finding = find(top(shopWith({ clamps: [{ ...DEFAULT_CLAMPS[0], count: 2 }] })), 'too-few-clamps');
    expect(finding?.numbers.wanted).toBe(
      (finding?.numbers.longEnough ?? 0) + (finding?.numbers.missing ?? 0),
    );
  });
  it('that dent: the pressure under the pad and what the wood bears, mended by a caul', () => {
    const clamps = [{ id: 'a', at: typed('15'), side: 'above' as const, forceN: 8000 }];
    const finding = expectFixable(
      planGlue(top(shopWith(), { woods: ['pine_ponderosa'] }), { clamps, edgeCaul: { mm: 0 } }),
      'clamps-dent',
    );
    expect(finding.numbers.pad).toBeGreaterThan(finding.numbers.strength);
  });
  it('on end-grain strips of 3 mm: cauls', () => {
    const block = top(shopWith(), {
      pattern: 'endGrain',
      chequer: true,
      thickness: fixed('1/2'),
      length: fixed('8'),
      width: fixed('8'),
      module: typed('1/4'),
      flattenWith: 'drum',
      woods: ['walnut_black', 'maple_sugar'],
    });
    const bare = mustEdit(block, { do: 'planGlue', step: 'glue-block', change: { edgeCaul: { mm: 0 } } });
    const finding = expectFixable(bare, 'thin-end-grain');
    expect(finding.numbers.thickness).toBeLessThan(finding.numbers.least);
  });
});

describe('edges', () => {
  it('crowned: wrong under both schools, with the strokes that mend it', () => {
    for (const edges of ['straight', 'sprung'] as const) {
      const build = planGlue(top(shopWith({}, { edges })), {
        edges: [{ joint: 2, shape: 'crowned', depth: { mm: 0.3 } }],
      });
      const finding = expectFixable(build, 'crowned-edge');
      expect(finding.numbers).toMatchObject({ joint: 2, open: 0.3 });
      expect(finding.numbers.strokes).toBe(edges === 'straight' ? 3 : 5);
    }
  });
});

describe('glue', () => {
  it('past its date or too cold, with a bottle that suits', () => {
    const adhesives = [
      { id: 'old', name: 'Old', class: 'pva_yellow', expires: '2026-05-31' },
      { id: 'new', name: 'New', class: 'pva_yellow' },
    ];
    const old = top(shopWith({ adhesives }));
    expect(find(old, 'adhesive-unsuited')).toBeUndefined();
    expect(expectFixable(old, 'adhesive-unsuited', '2026-06-01').fixes[0].label).toBe('Use New');
    const cold = find(
      top(shopWith({ adhesives, climate: { temperatureC: 6, humidityPct: 60 } })),
      'adhesive-unsuited',
    );
    expect(cold?.numbers).toMatchObject({ temperature: 6, least: 13 });
  });
  it('not enough of it, none at all, or unfit for food', () => {
    const short = find(
      top(shopWith({ adhesives: [{ id: 'a', name: 'A', class: 'pva_yellow', leftG: 5 }] })),
      'glue-short',
    );
    expect(short?.numbers.wanted).toBeGreaterThan(5);
    expect(find(top(shopWith({ adhesives: [] })), 'no-adhesive')).toBeDefined();
    const food = {
      ...top(shopWith({ adhesives: [{ id: 'a', name: 'A', class: 'urea_formaldehyde' }] })),
      uses: ['food' as const],
    };
    expect(find(food, 'adhesive-unsuited')).toBeDefined();
  });
  it('sets before the last clamp: the minutes of both, and ways that fit', () => {
    const slow = top(shopWith({}, { hands: 1 }), {
      width: fixed('12 1/2'),
      module: typed('1'),
      length: fixed('60'),
    });
    const finding = find(slow, 'slower-than-glue') as Finding;
    expect(finding.numbers.used).toBeGreaterThan(finding.numbers.has);
    expect(finding.fixes.length).toBeGreaterThan(0);
  });
  it('in an air nobody knows glue for is said, not computed with', () => {
    const damp = find(top(shopWith({ climate: { temperatureC: 20, humidityPct: 99 } })), 'climate-unknown');
    expect(damp?.numbers).toMatchObject({ humidity: 99 });
  });
});

describe('aids and loads', () => {
  it('wider than any planer without aids; an aid in the way of a trim', () => {
    const wide = planGlue(top(shopWith(), { width: fixed('20'), sections: 1, flattenWith: 'sled' }), {
      aids: { kind: 'none' },
    });
    const need = expectFixable(wide, 'aids-needed');
    expect(need.numbers.width).toBeGreaterThan(need.numbers.limit);
    const exposed = planGlue(top(), {
      aids: { kind: 'biscuits', places: [{ joint: 1, at: typed('1 3/8') }] },
    });
    expect(expectFixable(exposed, 'aid-exposed').numbers.cover).toBe(3);
  });
  it('heavier than the shop lifts', () => {
    const heavy = top(shopWith({}, { hands: 1, liftKg: 3 }));
    const finding = find(heavy, 'too-heavy') as Finding;
    expect(finding.numbers.mass).toBeGreaterThan(3);
    expect(finding.caution).toContain('two people');
  });
});
