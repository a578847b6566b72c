import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { defaultShop, type ShopSnapshot } from '../kit';
import {
  bandAfter,
  type DatedRow,
  learn,
  type Loss,
  LOSS_KINDS,
  LOSSES,
  scoreOf,
  takeBack,
  takeOver,
  withBand,
} from '.';
import { randomOf } from './shop.fixture';

const shop: ShopSnapshot = {
  ...defaultShop('learn'),
  adhesives: [{ id: 'g', name: 'Yellow PVA', class: 'pva_yellow' }],
};
const NOW = Date.parse('2026-11-30T12:00:00Z');
const DAY = 86_400_000;
const KERF = shop.saws[0].kerf.mm;

/** Test cuts of a blade: jobs one a day, the last one yesterday. */
const cuts = (kerfs: readonly number[], change: Partial<DatedRow> = {}): DatedRow[] =>
  kerfs.map((kerf, i) => ({
    y: kerf - KERF,
    a: { 'kerf:table-full': 1 },
    b: {},
    g2: 0.0017,
    kind: 'kerf',
    used: { 'kerf:table-full': KERF },
    job: `job ${i}`,
    at: new Date(NOW - (kerfs.length - i) * DAY).toISOString(),
    ...change,
  }));
const lossOf = (losses: readonly Loss[], id: string): Loss => {
  const loss = losses.find((each) => each.id === id);
  if (!loss) throw new Error(`no ${id}`);
  return loss;
};
const kerfOf = (rows: readonly DatedRow[], with_ = shop) =>
  lossOf(learn(rows, with_, NOW).losses, 'kerf:table-full');

describe('what the log teaches of a shop', () => {
  it('is offered from six readings in three jobs on, where it matters, and told with its band', () => {
    const six = cuts([2.95, 2.97, 2.96, 2.94, 2.96, 2.95]);
    const kerf = kerfOf(six);
    // Common practice counts as six readings: half of the way after six.
    expect(Math.abs(kerf.now - (KERF + 2.955) / 2)).toBeLessThan(0.01);
    expect(kerf).toMatchObject({ was: KERF, readings: 6, jobs: 6, matters: true, takes: true, unit: 'mm' });
    expect(kerf.from).toBeLessThan(kerf.now);
    expect(kerf.to).toBeGreaterThan(kerf.now);
    expect(kerfOf(six.slice(0, 5)).matters).toBe(false);
    expect(kerfOf(six.map((row, i) => ({ ...row, job: `job ${i % 2}` }))).matters).toBe(false);
    expect(kerfOf(cuts([3.18, 3.17, 3.18, 3.17, 3.17, 3.18])).matters).toBe(false);
  });
  it('is taken over and taken back with one press each: the kit is then what it was', () => {
    const kerf = kerfOf(cuts([2.95, 2.97, 2.96, 2.94, 2.96, 2.95]));
    const found = { value: kerf.now, likely: kerf.to - kerf.now, readings: kerf.readings };
    const taken = takeOver(shop, kerf.id, found, '2026-11-30T12:00:00Z');
    expect(taken.saws[0]).toMatchObject({ kerf: { mm: kerf.now }, kerfOff: { basis: "this shop's log" } });
    expect(taken.learned).toMatchObject([{ id: kerf.id, was: KERF, is: kerf.now, readings: 6 }]);
    const back = takeBack(taken, kerf.id);
    expect(back).toEqual({
      ...shop,
      saws: shop.saws.map((saw, i) => (i === 0 ? { ...saw, kerf: { mm: KERF } } : saw)),
    });
  });
  it('changes no estimate by being taken over', () => {
    const rows = cuts([2.95, 2.97, 2.96, 2.94, 2.96, 2.95]);
    const before = kerfOf(rows);
    const taken = takeOver(shop, before.id, { value: before.now, likely: 0.05, readings: 6 }, 'now');
    const after = kerfOf(rows, taken);
    expect(after.now).toBeCloseTo(before.now, 9);
    expect(after).toMatchObject({ was: before.now, practice: KERF, matters: false, taken: { was: KERF } });
    // Jobs planned with it predict by it: their readings say the same.
    const planned = cuts([2.95, 2.96, 2.95]).map((row) => ({
      ...row,
      y: row.y + KERF - before.now,
      used: { 'kerf:table-full': before.now },
    }));
    expect(kerfOf([...rows, ...planned], taken).now).toBeCloseTo(
      kerfOf([...rows, ...cuts([2.95, 2.96, 2.95]).map((row, i) => ({ ...row, at: planned[i].at }))]).now,
      9,
    );
  });
  it.each(
    LOSS_KINDS.filter((kind) => 'put' in LOSSES[kind]),
  )('%s is put into the kit and back again', (kind) => {
    const of = {
      kerf: 'bandsaw',
      takeOff: 'flattenPanel',
      pace: 'rip',
      act: 'clamp',
      setting: 'planer',
      glue: 'g',
    }[kind as 'kerf'];
    const id = `${kind}:${of}`;
    const taken = takeOver(shop, id, { value: 2.5, likely: 0.1, readings: 9 }, 'now');
    expect(LOSSES[kind].standing(taken, of)?.value).toBeCloseTo(2.5, 9);
    const back = takeBack(taken, id);
    expect(LOSSES[kind].standing(back, of)?.value).toBe(LOSSES[kind].standing(shop, of)?.value);
    if (kind === 'glue') expect(back).toEqual(shop);
    expect(back.learned).toBeUndefined();
    expect(takeBack(back, id)).toBe(back);
  });
  it('leaves out a machine that was sold, and what is from before a blade was changed', () => {
    const rows = cuts([2.95, 2.97, 2.96, 2.94, 2.96, 2.95]);
    expect(learn(rows, { ...shop, saws: [] }, NOW).losses).toEqual([]);
    const renewed = { ...shop, renewed: [{ id: 'kerf:table-full', at: rows[4].at, from: 3 }] };
    expect(kerfOf(rows, renewed)).toMatchObject({ readings: 2, practice: 3 });
    expect(
      takeOver({ ...shop, saws: [] }, 'kerf:table-full', { value: 3, likely: 0.1, readings: 9 }, 'now')
        .learned,
    ).toBeUndefined();
  });
  it('asks about a blade that was changed, after ten jobs, from when and by how much; and not about one that stayed', () => {
    const { normal } = randomOf(7);
    const steady = Array.from({ length: 20 }, () => 3.1 + 0.04 * normal());
    expect(kerfOf(cuts(steady)).drift).toBeUndefined();
    const changed = [...steady.slice(0, 12), ...Array.from({ length: 9 }, () => 2.4 + 0.04 * normal())];
    const { drift } = kerfOf(cuts(changed));
    expect(drift).toMatchObject({ to: 'below' });
    expect(drift?.by).toBeCloseTo(-0.7, 1);
    expect(drift?.at).toBe(cuts(changed)[12].at);
    // Once it is said, the new one starts from what is on it, and nothing is asked any more.
    expect(drift?.level).toBeCloseTo(2.4, 1);
    const renewed = {
      ...shop,
      renewed: [{ id: 'kerf:table-full', at: drift?.at ?? '', from: drift?.level ?? 0 }],
    };
    const kerf = kerfOf(cuts(changed), renewed);
    expect(kerf.drift).toBeUndefined();
    expect(kerf.readings).toBe(9);
    expect(kerf.now).toBeCloseTo(2.4, 1);
  });
  it('tells woods apart that differ, and not those that do not', () => {
    const { normal } = randomOf(3);
    const takeOff = (of: string, off: number): DatedRow[] =>
      Array.from({ length: 12 }, (_, i) => ({
        y: -(off - shop.allowances.flattenPanel.mm) + 0.1 * normal(),
        a: { 'takeOff:flattenPanel': -1 },
        b: { 'setting:sled': 1 },
        g2: 0.002,
        used: { 'takeOff:flattenPanel': shop.allowances.flattenPanel.mm },
        job: `${of} ${i}`,
        at: new Date(NOW - i * DAY).toISOString(),
        wood: of,
      }));
    const differ = learn([...takeOff('maple_sugar', 2.9), ...takeOff('pine_white', 3.3)], shop, NOW).losses;
    const levels = lossOf(differ, 'takeOff:flattenPanel').levels.filter(({ by }) => by === 'wood');
    expect(levels.map(({ id }) => id)).toEqual(['maple_sugar', 'pine_white']);
    expect(levels[1].value - levels[0].value).toBeGreaterThan(0.3);
    const alike = learn([...takeOff('maple_sugar', 2.5), ...takeOff('pine_white', 2.5)], shop, NOW).losses;
    const [a, b] = lossOf(alike, 'takeOff:flattenPanel').levels;
    expect(Math.abs((b?.value ?? 0) - (a?.value ?? 0))).toBeLessThan(0.15);
  });
  it('offers a spread only where it differs by a fifth and more, surely', () => {
    const { normal } = randomOf(5);
    const settings = (times: number): DatedRow[] =>
      Array.from({ length: 40 }, (_, i) => ({
        y: (times * 0.2032 * normal()) / 1.6448536,
        a: { 'bias:table-full:fence': 1 },
        b: { 'setting:table-full': 1, 'piece:shop': 0.25 },
        g2: 0.001,
        used: {},
        job: `job ${i}`,
        at: new Date(NOW - i * DAY).toISOString(),
      }));
    const wide = lossOf(learn(settings(2), shop, NOW).losses, 'setting:table-full');
    expect(wide).toMatchObject({ is: 'spread', matters: true, takes: true });
    expect(wide.now).toBeGreaterThan(0.3);
    expect(lossOf(learn(settings(1), shop, NOW).losses, 'setting:table-full').matters).toBe(false);
    expect(lossOf(learn(settings(2), shop, NOW).losses, 'bias:table-full:fence').takes).toBe(false);
  });
  it('says nothing of nothing, and something finite of one reading, of readings alike, and of a gauge with a wrong zero', () => {
    expect(learn([], shop, NOW)).toEqual({ losses: [], weights: [] });
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -3000, max: 3000 }), { minLength: 1, maxLength: 12 }), (off) => {
        const { losses, weights } = learn(cuts(off.map((each) => KERF + each / 1000)), shop, NOW);
        for (const { now, from, to } of losses)
          expect([now, from, to].every((value) => Number.isFinite(value))).toBe(true);
        expect(weights.every((w) => w >= 0 && w <= 1)).toBe(true);
      }),
      { seed: 19, numRuns: 60 },
    );
    const alike = kerfOf(cuts([3, 3, 3, 3, 3, 3]));
    expect(alike.now).toBeGreaterThan(3);
    expect(alike.now).toBeLessThan(KERF);
    // All of them 10 mm too much: none is believed, and the kerf stays what it was.
    const wrongZero = kerfOf(cuts([13.1, 13.2, 13.1, 13.2, 13.1, 13.2]));
    expect(wrongZero).toMatchObject({ readings: 0, matters: false });
    expect(wrongZero.now).toBeCloseTo(KERF, 1);
  });
});

describe('how honest bands are', () => {
  const line = (i: number, off: number) => ({
    at: new Date(NOW + i * DAY).toISOString(),
    predicted: 40,
    measured: 40 + off,
    likely: 0.2,
  });
  it('is the share of readings within their band, slips left out, and what the bands must be widened by', () => {
    const score = scoreOf([
      ...Array.from({ length: 9 }, (_, i) => line(i, 0.1)),
      line(9, 0.25),
      line(10, 10),
    ]);
    expect(score).toMatchObject({ counted: 10, within: 9 });
    const narrow = scoreOf(Array.from({ length: 200 }, (_, i) => line(i, i % 3 === 0 ? 0.3 : 0.1)));
    expect(narrow.factor).toBeGreaterThan(1.3);
    expect(scoreOf([])).toEqual({ counted: 0, within: 0, factor: 1 });
  });
  it('makes the band follow, but not by little, by few, against its maker, or wider while something is off', () => {
    const score = { counted: 20, within: 15, factor: 1.234 };
    expect(bandAfter(score, {}, false)).toBe(1.23);
    expect(bandAfter({ ...score, counted: 19 }, {}, false)).toBeUndefined();
    expect(bandAfter(score, { band: 1.19 }, false)).toBeUndefined();
    expect(bandAfter(score, { bandHeld: true }, false)).toBeUndefined();
    expect(bandAfter(score, {}, true)).toBeUndefined();
    expect(bandAfter(score, { band: 1.5 }, true)).toBe(1.23);
    const kit = { name: 'shop', band: 1.5 };
    expect(withBand(kit, 1.23)).toEqual({ name: 'shop', band: 1.23 });
    expect(withBand(kit, 1)).toEqual({ name: 'shop' });
  });
});
