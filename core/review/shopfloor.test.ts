import { describe, expect, it } from 'vitest';
import { type Brief, type BuildDocument, type Edit, type Finding, phraseText } from '../document';
import { mustEdit } from '../edit';
import { defaultShop, type ShopSnapshot, typed } from '../kit';
import { mustFit, startingBrief } from '../plan';
import { CHEQUER, fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { review } from '.';
import { expectMended } from './mended.fixture';
import { findingsOf } from './review';

const find = (build: BuildDocument) => findingsOf(build, run(build));
const found = (build: BuildDocument): Finding[] => review(build, run(build));
const of = (build: BuildDocument, code: string, step?: string) =>
  found(build).find((finding) => finding.code === code && (step === undefined || finding.step === step));
const words = (finding: Finding | undefined, build: BuildDocument) =>
  finding ? phraseText(finding.message, build.shop.display) : '';
const edited = (build: BuildDocument, ...edits: Edit[]) => edits.reduce(mustEdit, build);
const panel = (change: Partial<Brief> = {}, shop: ShopSnapshot = shopWith({}, { hands: 2 })) =>
  plannedFor(panelBrief(change), shop);
const set = (step: string, change: Record<string, unknown>): Edit => ({ do: 'setStep', step, change });

describe('what flattening leaves', () => {
  const glued = panel({ sections: 1 });
  it('a hollow noted after the clamps wants twice as much off: 1/16 takes 1/8 in all, which is there; 3/32 is not', () => {
    const hollow = (text: string) =>
      edited(glued, { do: 'planGlue', step: 'glue', change: { hollow: typed(text) } });
    expect(of(hollow('1/16'), 'hollow-deeper-than-flattening')).toBeUndefined();
    const deep = hollow('3/32');
    const finding = expectMended(deep, 'hollow-deeper-than-flattening');
    // 2 x 3/32 = 3/16, and 1/8 comes off: 1/16 short, and 7/8 would be 13/16.
    expect(finding.numbers.short).toBeCloseTo(25.4 / 16, 6);
    expect(finding.numbers.thickness).toBeCloseTo((13 / 16) * 25.4, 6);
    expect(words(finding, deep)).toContain('1/16 in more is needed');
  });
  it('a step at a joint wants its own height off', () => {
    const step = (text: string) =>
      edited(glued, { do: 'planGlue', step: 'glue', change: { joints: [{ joint: 2, step: typed(text) }] } });
    expect(of(step('1/8'), 'hollow-deeper-than-flattening')).toBeUndefined();
    expect(words(of(step('5/32'), 'hollow-deeper-than-flattening'), glued)).toContain(
      'A step at joint 2 of 5/32 in',
    );
  });
  it('a thin leaf among thick ones that flattening does not reach', () => {
    const shop = defaultShop('leaves');
    const match = mustFit(startingBrief('match', shop, { module: typed('1 1/2') }), shop, {
      name: 'm',
      use: '',
    });
    const before = run(match).steps.find(({ id }) => id === 'resaw')?.pieces ?? [];
    expect(of(match, 'flattening-misses')).toBeUndefined();
    const thin = edited(match, {
      do: 'measure',
      step: 'resaw',
      dimension: 'thickness',
      piece: before[0].id,
      measured: { mm: 7 },
    });
    const finding = of(thin, 'flattening-misses');
    expect(finding?.numbers.depth).toBeGreaterThan(finding?.numbers.off ?? Infinity);
  });
  it('a block of many slices is flattened by a little without a word: its slices are of one thickness', () => {
    const shop = defaultShop('slices');
    const block = mustFit(startingBrief('endGrain', shop, { module: typed('3/4') }), shop, {
      name: 'b',
      use: '',
    });
    const flat = block.steps.filter(({ kind }) => kind === 'flatten').at(-1)?.id ?? '';
    const cells = run(block).steps.find(({ id }) => id === flat)?.pieces[0].blank.cells.length;
    expect(cells).toBeGreaterThan(120);
    const little = edited(block, set(flat, { top: { mm: 0.3 }, bottom: { mm: 0.3 } }));
    expect(of(little, 'flattening-misses')).toBeUndefined();
  });
  it('all off one face: the piece cups, and half off each does not', () => {
    const one = edited(glued, set('flatten', { top: typed('1/8'), bottom: typed('0') }));
    const finding = expectMended(one, 'one-face-only');
    expect(finding.numbers.off).toBeCloseTo(25.4 / 8, 9);
    expect(finding.fixes[0].label).toBe('Half off each face');
  });
  it('end caps lie across the feed of a planer: another machine', () => {
    const shop = defaultShop('caps');
    const capped = mustFit(
      startingBrief('framed', shop, {
        length: fixed('24'),
        width: fixed('10'),
        thickness: fixed('7/8'),
        measures: { corners: 'caps' },
      }),
      shop,
      { name: 'caps', use: '' },
    );
    const last = capped.steps.findLast(({ kind }) => kind === 'flatten')?.id ?? '';
    const planed = edited(capped, { do: 'useMachine', step: last, machine: 'planer' });
    const finding = expectMended(planed, 'cross-grain-in-planer', last);
    expect(finding.numbers.strips).toBe(2);
    // Caps lie across the whole width, 10 in and what is trimmed off both edges.
    expect(finding.numbers.length / 25.4).toBeGreaterThan(9.99);
    expect(finding.numbers.length / 25.4).toBeLessThan(11);
    expect(finding.caution).toContain('manual comes first');
  });
  it('a lamination wider than its planer is split on its joints, and each section passes', () => {
    const shop = shopWith();
    const wide = mustFit(
      startingBrief('lamination', shop, {
        width: fixed('20'),
        thickness: fixed('2'),
        module: typed('1'),
        measures: { lay: 'edge' },
      }),
      shop,
      { name: 'l', use: '' },
    );
    const planed = edited(wide, { do: 'useMachine', step: 'flatten', machine: 'planer' });
    const finding = expectMended(planed, 'wider-than-machine', 'flatten');
    const split = finding.fixes.find(({ label }) => label.startsWith('Split into'));
    expect(split?.label).toMatch(/^Split into 11 \+ 10 and flatten each/);
    const after = mustEdit(planed, split?.edit as Edit);
    expect(run(after).finished?.greatest[1]).toBeCloseTo(20 * 25.4, 6);
  });
  it('a carrier board counts: thinner wood passes on it, and planer and carrier together must fit', () => {
    const thin = panel({ thickness: fixed('3/16') });
    const finding = expectMended(thin, 'thinner-than-machine', 'flatten');
    expect(finding.fixes[0].label).toBe('On a carrier board of 3/4 in');
    expect(
      of(edited(thin, set('flatten', { carrier: typed('1') })), 'thinner-than-machine', 'flatten'),
    ).toBeUndefined();
    const high = of(edited(thin, set('flatten', { carrier: typed('6') })), 'thicker-than-machine');
    expect(high?.numbers.thickness).toBeCloseTo((6 + 5 / 16) * 25.4, 6);
  });
});

describe('what a saw can carry', () => {
  it('a panel wider than its crosscut and its rip, and one too heavy to carry over it', () => {
    const wide = panel({ width: fixed('30'), length: fixed('60'), flattenWith: 'sled' });
    expect(expectMended(wide, 'wider-than-crosscut').numbers).toMatchObject({ most: 24 * 25.4 });
    // From the fence to the blade: 30 3/8 less what comes off that edge.
    expect(expectMended(wide, 'wider-than-rip').numbers.width).toBeGreaterThan(30 * 25.4);
    const heavy = panel(
      {
        width: fixed('23'),
        length: fixed('120'),
        thickness: fixed('1 3/4'),
        flattenWith: 'sled',
        woods: ['oak_white'],
      },
      shopWith({}, { hands: 1 }),
    );
    expect(expectMended(heavy, 'too-heavy-to-carry-over').numbers.limit).toBe(25);
    expect(of(panel(), 'wider-than-crosscut')).toBeUndefined();
  });
  it('a kit from before these were asked for has no such limit', () => {
    const shop = shopWith();
    const old = { ...shop, saws: shop.saws.map(({ crosscut: _c, rip: _r, ...saw }) => saw) };
    expect(
      of(panel({ width: fixed('30'), flattenWith: 'sled' }, old), 'wider-than-crosscut'),
    ).toBeUndefined();
  });
  it('a cut thinner than the saw may be off by', () => {
    const sliver = edited(panel(), set('trim', { near: { mm: 0.1 }, far: { mm: 0.1 } }));
    const finding = of(sliver, 'cut-below-tolerance');
    expect(finding?.numbers.cut).toBeCloseTo(0.1, 9);
    expect(finding?.numbers.likely).toBeCloseTo(0.008 * 25.4, 9);
  });
  it('narrow rips carry their caution below the shop’s own width, 3/8 in where it has none', () => {
    const narrow = (text: string, shop: ShopSnapshot = shopWith()) =>
      find(
        edited(panel({}, shop), {
          do: 'setSlot',
          step: 'rip',
          strip: 'strip-1',
          change: { width: typed(text) },
        }),
      ).find(({ code }) => code === 'thin-strip');
    expect(narrow('3/8')).toBeUndefined();
    expect(narrow('11/32')?.caution).toContain('manual comes first');
    expect(narrow('11/32', shopWith({ narrowRip: typed('1/4') }))).toBeUndefined();
  });
});

describe('clamps and edges', () => {
  it('an edge marked sprung that is not hollow', () => {
    for (const depth of [0, -0.2]) {
      const build = edited(panel(), {
        do: 'planGlue',
        step: 'glue',
        change: { edges: [{ joint: 1, shape: 'sprung', depth: { mm: depth } }] },
      });
      expect(expectMended(build, 'sprung-without-hollow').numbers).toMatchObject({ joint: 1, open: depth });
    }
  });
  it('all clamps above: every other one goes to the other face', () => {
    const placed = [6, 18, 30].map((at, i) => ({
      id: `c${i}`,
      at: typed(String(at)),
      side: 'above' as const,
      forceN: 3000,
    }));
    const build = edited(panel(), { do: 'planGlue', step: 'glue', change: { clamps: placed } });
    expect(expectMended(build, 'clamps-one-side').numbers).toEqual({ clamps: 3, above: 3 });
  });
  it('a joint that stays open under clamps put at one end', () => {
    const placed = [2, 4].map((at, i) => ({
      id: `c${i}`,
      at: typed(String(at)),
      side: i ? ('below' as const) : ('above' as const),
      forceN: 3000,
    }));
    const build = edited(panel(), { do: 'planGlue', step: 'glue', change: { clamps: placed } });
    const finding = of(build, 'joint-open');
    expect(finding?.numbers.open).toBeGreaterThan(25);
    expect(finding?.fixes.map(({ label }) => label)).toContain('Let Junta place the clamps');
  });
});

describe('seams and stripes', () => {
  const shop = defaultShop('stripes');
  const stagger = (narrow: string) =>
    mustFit(startingBrief('stagger', shop, { measures: { hold: 'given', narrow: typed(narrow) } }), shop, {
      name: 's',
      use: '',
    });
  it('a stagger of less than a tenth of a strip is said, half a strip is best', () => {
    const field = mustFit(startingBrief('stagger', shop), shop, { name: 's', use: '' });
    expect(find(field).some(({ code }) => code === 'seams-nearly-meet')).toBe(false);
    // Seams stand apart by the narrow strip modulo the strip: strips of 1 1/4 and a narrow one of 1/16 give 1/16.
    const close = find(stagger('1/16')).find(({ code }) => code === 'seams-nearly-meet');
    expect(close?.numbers.offset).toBeLessThan(0.1 * (close?.numbers.strip ?? 0));
    expect(close?.numbers.offset).toBeGreaterThan(0);
  });
  it('stripes of two mitred legs meet, or it is said how far they miss, at which strip; and their order', () => {
    const corner = (change: Partial<Brief> = {}) =>
      mustFit(
        startingBrief('corner', shop, { woods: ['ash_white', 'walnut_black', 'cherry_black'], ...change }),
        shop,
        {
          name: 'c',
          use: '',
        },
      );
    const plain = corner();
    const codes = (build: BuildDocument) => find(build).map(({ code }) => code);
    const off = codes(plain).filter((code) => code === 'stripes-do-not-meet' || code === 'mirror-order');
    const rip = plain.steps.filter(({ kind }) => kind === 'rip')[1].id;
    const slots = plain.assemblies[1].slots;
    if (off.includes('mirror-order')) throw new Error('the pattern lays its own legs in the wrong order');
    expect(off).toEqual([]);
    const wider = edited(
      plain,
      { do: 'setSlot', step: rip, strip: slots[0].id, change: { width: { mm: slots[0].width.mm + 5 } } },
      { do: 'setSlot', step: rip, strip: slots[1].id, change: { width: { mm: slots[1].width.mm - 5 } } },
    );
    const finding = find(wider).find(({ code }) => code === 'stripes-do-not-meet');
    // On a mitre of 45 degrees 5 mm across a leg are 5 x the root of 2 along the joint.
    expect(finding?.numbers.apart).toBeCloseTo(5 * Math.SQRT2, 3);
    // Strips are counted along the joint, here from the edge away from the first.
    expect(finding?.numbers.strip).toBe(slots.length - 1);
    const turned = edited(plain, {
      do: 'many',
      edits: slots.map((slot, i) => ({
        do: 'setSlot' as const,
        step: rip,
        strip: slot.id,
        change: { species: slots[slots.length - 1 - i].species },
      })),
    });
    const same = slots.every((slot, i) => slot.species === slots[slots.length - 1 - i].species);
    if (!same) expect(codes(turned)).toContain('mirror-order');
  });
});

describe('several alike', () => {
  it('say whether each is glued up by itself, and why; or how many panels they share', () => {
    const four = panel({ quantity: 4 });
    const each = find(four).find(({ code }) => code === 'alike');
    expect(words(each, four)).toContain('4 pieces alike are glued up one by one');
    expect(each?.numbers.pieces).toBe(4);
    const long = panel({ quantity: 4, measures: { alike: 'long' } });
    expect(
      words(
        find(long).find(({ code }) => code === 'alike'),
        long,
      ),
    ).toContain('cut from one edge-glued panel');
    const blocks = plannedFor(panelBrief({ ...CHEQUER, quantity: 3 }), shopWith());
    expect(find(blocks).find(({ code }) => code === 'alike')?.numbers).toMatchObject({ pieces: 3 });
    expect(find(panel()).some(({ code }) => code === 'alike')).toBe(false);
  });
  it('a wall of face bricks does not warn of its own mortar strips', () => {
    const shop = shopWith();
    const wall = mustFit(
      startingBrief('bricks', shop, {
        measures: { grain: 'face', mortar: typed('1/4'), height: typed('1') },
      }),
      shop,
      { name: 'w', use: '' },
    );
    expect(find(wall).map(({ code }) => code)).not.toContain('ragged-ends');
    const short = edited(wall, {
      do: 'setSlot',
      step: 'rip',
      strip: 'strip-1',
      change: { length: { mm: 300 } },
    });
    expect(run(short).problems.length + find(short).length).toBeGreaterThan(0);
  });
});

describe('asked for, and done otherwise', () => {
  it('a machine other than the one asked for is said with the number, before the job is made', () => {
    const lamination = plannedFor(
      startingBrief('lamination', shopWith(), { width: fixed('16'), flattenWith: 'planer' }),
      shopWith(),
    );
    const finding = of(lamination, 'other-machine');
    expect(finding?.numbers.width).toBeGreaterThan(13 * 25.4);
    expect(words(finding, lamination)).toMatch(
      /instead of Planer: Planer takes 13 in and the piece is 16 \S+ in wide/,
    );
    expect(of(panel(), 'other-machine')).toBeUndefined();
    expect(of(plannedFor(panelBrief(CHEQUER), shopWith()), 'other-machine')).toBeUndefined();
  });
  it('a kit whose planer is gone: what mills the strips is said, and a job planned for it stops with ways out', () => {
    const shop = shopWith();
    const gone = { ...shop, machines: shop.machines.filter(({ kind }) => kind !== 'planer') };
    const planned = plannedFor(panelBrief({ flattenWith: 'sled' }), gone);
    expect(words(of(planned, 'no-planer'), planned)).toContain('The kit has no planer');
    const lost = edited(panel(), { do: 'useShop', shop: gone });
    const stop = of(lost, 'no-such-machine');
    expect(stop?.severity).toBe('stop');
    expect(stop?.fixes.length).toBeGreaterThan(0);
  });
  it('a saw other than the one asked for, for a board that stands higher than that cuts', () => {
    const shop = defaultShop('saws');
    const match = mustFit(startingBrief('match', shop), shop, { name: 'm', use: '' });
    expect(of(match, 'other-saw')?.numbers).toMatchObject({ most: 3 * 25.4 });
    const tall = { ...shop, saws: shop.saws.map((saw) => ({ ...saw, depth: typed('12') })) };
    expect(
      of(mustFit(startingBrief('match', tall), tall, { name: 'm', use: '' }), 'other-saw'),
    ).toBeUndefined();
  });
  it('matched leaves come from the board that is on the rack, or it is said how thick one is needed', () => {
    const shop = defaultShop('board');
    const leafOf = (module: string) =>
      run(
        mustFit(startingBrief('match', shop, { module: typed(module) }), shop, { name: 'm', use: '' }),
      ).steps.find(({ id }) => id === 'resaw')?.greatest[2];
    // 1 1/2 less 1/8 of milling and 1/16 of kerf, shared by two.
    expect(leafOf('1 1/2')).toBeCloseTo(((1.5 - 0.125 - 0.0625) / 2) * 25.4, 6);
    expect(leafOf('1 3/4')).toBeCloseTo(((1.75 - 0.125 - 0.0625) / 2) * 25.4, 6);
    expect(() => leafOf('1')).toThrow(/take a board 1 1\/16 in thick; the one on the rack is 1 in/);
  });
});

describe('a top that is thicker than the saw cuts', () => {
  const thick = (mm: number) => {
    const usual = shopWith({}, { hands: 2 });
    const saws = usual.saws.map((saw) => ({ ...saw, depth: { mm: 55 } }));
    const own = { ...usual, saws, display: { ...usual.display, system: 'mm' as const } };
    return panel({ thickness: { aim: 'fixed', value: { mm } } }, own);
  };
  it('of 90 is cut from both faces with 20 to spare where the saw reaches 55; of 120, 10 are left', () => {
    const meets = of(thick(90), 'saw-cannot-reach', 'trim');
    expect(meets?.numbers.meets).toBeCloseTo(20, 6);
    expect(words(meets, thick(90))).toContain('Two cuts, one from each face, meet with 20 mm to spare.');
    const left = of(thick(120), 'saw-cannot-reach', 'trim');
    expect(left?.numbers.meets).toBeCloseTo(-10, 6);
    expect(words(left, thick(120))).toContain('leave 10 mm in the middle, to be sawn by hand.');
  });
});
