import { describe, expect, it } from 'vitest';
import { type Bit, defaultShop, held, heldWords, missingWords, type Need, summed, topRpmOf, typed } from '.';

const shop = defaultShop('s');
const dowels: Need = { what: 'supply', kind: 'dowel', size: '8 x 30', amount: 40 };
const withDowels = (onHand: number, size?: string) => ({
  ...shop,
  supplies: [
    {
      id: 'd',
      name: 'Dowels',
      kind: 'dowel' as const,
      ...(size ? { size } : {}),
      onHand,
      priceMinor: 6,
      currency: 'EUR',
    },
  ],
});

describe('a need held against a kit', () => {
  it('a list that nobody entered is unknown, an empty one is empty', () => {
    expect(held(dowels, shop)).toEqual({ need: dowels, short: 0 });
    expect(heldWords(held(dowels, shop), shop).join('')).toBe(
      'Dowels 8 x 30: 40, look whether it is there: the kit does not say',
    );
    expect(held(dowels, { ...shop, supplies: [] })).toMatchObject({ have: 0, short: 40 });
  });
  it.each([
    [39, 1],
    [40, 0],
    [41, 0],
    [0, 40],
  ])('%i on hand of 40: %i short, and what they cost', (onHand, short) => {
    const found = held(dowels, withDowels(onHand, '8 x 30'));
    expect(found).toMatchObject({ have: onHand, short });
    expect(found.cost).toEqual(short > 0 ? { minor: short * 6, currency: 'EUR' } : undefined);
  });
  it('another size is no help; one that nobody sized may be', () => {
    expect(held(dowels, withDowels(100, '6 x 30')).short).toBe(40);
    expect(held(dowels, withDowels(100)).short).toBe(0);
  });
  it('a bit of the kind, of the diameter, with a shank that the collet holds', () => {
    const drill: Bit = { id: 'b', name: '8', kind: 'bradPoint', diameter: { mm: 8 }, shank: { mm: 8 } };
    const kit = { ...shop, bits: [drill] };
    const short = (need: Need) => held(need, kit).short;
    expect(short({ what: 'bit', kind: 'bradPoint', diameterMm: 8 })).toBe(0);
    expect(short({ what: 'bit', kind: 'bradPoint', diameterMm: 6 })).toBe(1);
    expect(short({ what: 'bit', kind: 'forstner', diameterMm: 8 })).toBe(1);
    expect(short({ what: 'bit', kind: 'bradPoint', shankMm: 6.35 })).toBe(1);
    expect(short({ what: 'bit', kind: 'bradPoint', shankMm: 8 })).toBe(0);
  });
  it('machines by what they do, glue by the bottle', () => {
    expect(held({ what: 'machine', work: 'mortise' }, shop)).toMatchObject({ have: 0, short: 1 });
    expect(missingWords(held({ what: 'machine', work: 'mortise' }, shop), shop).join('')).toBe(
      'A machine that cuts mortises for loose tenons: none in the kit',
    );
    expect(held({ what: 'machine', work: 'flatten' }, shop).short).toBe(0);
    const glue: Need = { what: 'glue', adhesive: 'y', grams: 120 };
    const bottle = (leftG?: number) => ({
      ...shop,
      adhesives: [
        { id: 'y', name: 'Yellow', class: 'pva_yellow', ...(leftG === undefined ? {} : { leftG }) },
      ],
    });
    expect(held(glue, bottle())).toEqual({ need: glue, short: 0 });
    expect(held(glue, bottle(100))).toMatchObject({ have: 100, short: 20 });
  });
  it('some of a thing is there or it is not', () => {
    const finish: Need = { what: 'supply', kind: 'finish' };
    expect(held(finish, { ...shop, supplies: [] }).short).toBe(1);
    expect(
      held(finish, { ...shop, supplies: [{ id: 'o', name: 'Oil', kind: 'finish', onHand: 5 }] }).short,
    ).toBe(0);
  });
  it('needs alike count together: a shelf is not counted twice', () => {
    const [sum, ...others] = summed([
      dowels,
      { what: 'machine', work: 'slot' },
      dowels,
      { what: 'machine', work: 'slot' },
    ]);
    expect(sum).toEqual({ ...dowels, amount: 80 });
    expect(others).toEqual([{ what: 'machine', work: 'slot' }]);
    expect(summed([dowels, { ...dowels, size: '6 x 30' }])).toHaveLength(2);
  });
});

describe('the top speed of a bit', () => {
  // Common practice, from memory: by diameter, and a width between two steps takes the lower speed.
  it.each([
    ['1', 24_000],
    ['1 1/8', 18_000],
    ['2', 18_000],
    ['2 1/4', 16_000],
    ['3 1/2', 12_000],
    ['3 5/8', 10_000],
  ])('%s in: %i', (text, rpm) => {
    expect(topRpmOf({ id: 'b', name: 'b', kind: 'surfacing', diameter: typed(text) })).toBe(rpm);
  });
  it('as marked on it, first; drills have none that goes by width', () => {
    expect(topRpmOf({ id: 'b', name: 'b', kind: 'cove', diameter: typed('1'), topRpm: 9000 })).toBe(9000);
    expect(topRpmOf({ id: 'b', name: 'b', kind: 'forstner', diameter: typed('1') })).toBeUndefined();
  });
});
