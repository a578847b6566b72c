import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  areaText,
  exactText,
  inputText,
  lengthText,
  massText,
  parseLength,
  asShare,
  clamped,
  roundToStep,
  roundUpToStep,
  smallMassText,
  fluidText,
  isOnMark,
  temperatureText,
  volumeText,
  woodText,
  type Display,
  type LengthSystem,
} from '.';

const inch = (fraction: Display['fraction'] = 32): Display => ({ system: 'inch', fraction });
const metric: Display = { system: 'mm', fraction: 0 };
const mmOf = (text: string, system: LengthSystem = 'inch') => {
  const parsed = parseLength(text, system);
  return parsed.ok ? parsed.length.mm : Number.NaN;
};
const reasonOf = (text: string, system: LengthSystem = 'inch') => {
  const parsed = parseLength(text, system);
  return parsed.ok ? undefined : parsed.reason;
};

describe('lengths as makers write them', () => {
  it.each([
    ['1 3/8', 34.925],
    ['1-3/8"', 34.925],
    ['1 - 3/8 in', 34.925],
    ['35 mm', 35],
    ['4/4', 25.4],
    ['8/4', 50.8],
    ['3\' 6 1/2"', 1079.5],
    ["3'", 914.4],
    ['3 ft 6', 1066.8],
    ['0.8125', 20.6375],
    ['.5', 12.7],
    ['2,5 cm', 25],
    ['1½', 38.1],
    ['⅞', 22.225],
    ['1⁄3', 25.4 / 3],
    ['12″', 304.8],
    ['1.2 m', 1200],
    ['  7 inches ', 177.8],
  ])('%s', (text, mm) => expect(mmOf(text)).toBeCloseTo(mm, 9));

  it('reads a bare number in the shop’s system and a fraction always in inches', () => {
    expect(mmOf('35', 'mm')).toBe(35);
    expect(mmOf('35', 'inch')).toBe(889);
    expect(mmOf('1 3/8', 'mm')).toBeCloseTo(34.925, 9);
    expect(mmOf('4/4', 'mm')).toBe(25.4);
    expect(mmOf('1/2 mm', 'inch')).toBe(0.5);
  });
  it.each([
    ['', 'type a length'],
    ['0', 'more than zero'],
    ['-3', 'negative'],
    ['1 3/0', 'divides by zero'],
    ['abc', 'not a number'],
    ['1 2 3', 'not a number'],
    ['1/2/3', 'not a number'],
    ['5000 m', 'longer than 328 ft'],
    ['mm', 'missing'],
    ['1e9', 'not a number'],
    ['NaN', 'not a number'],
    ['3\' x"', 'not a number'],
  ])('answers “%s” with the reason', (text, words) => expect(reasonOf(text)).toContain(words));
  it('keeps to a field’s limits', () => {
    expect(parseLength('0', 'mm', { minMm: 0 })).toMatchObject({ ok: true });
    expect(parseLength('12', 'mm', { maxMm: 10 })).toEqual({ ok: false, reason: 'the most here is 10 mm' });
    expect(parseLength('2', 'mm', { minMm: 3 })).toEqual({ ok: false, reason: 'the least here is 3 mm' });
    expect(parseLength('12', 'inch', { maxMm: 254 })).toEqual({
      ok: false,
      reason: 'the most here is 10 in',
    });
    expect(parseLength('1/2', 'inch', { minMm: 19.05 })).toEqual({
      ok: false,
      reason: 'the least here is 0.75 in',
    });
    expect(parseLength('5000 m', 'mm')).toEqual({ ok: false, reason: 'this is longer than 100 m' });
  });
  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom('inch' as const, 'mm' as const), (text, system) => {
        const parsed = parseLength(text, system);
        if (parsed.ok) expect(parsed.length.mm).toBeGreaterThan(0);
        else expect(parsed.reason.length).toBeGreaterThan(3);
      }),
      { seed: 20278 },
    );
  });
});

describe('lengths as the shop reads them', () => {
  it.each([
    [34.925, inch(), '1 3/8 in'],
    [34.925, metric, '34.9 mm'],
    [25.4 * 1.510416667, inch(), '1 1/2 in'],
    [25.4 * 1.510416667, inch(64), '1 33/64 in'],
    [25.4 * 0.8125, inch(0), '0.8125 in'],
    [0.1, inch(16), '0 in'],
    [-3.175, inch(), '−1/8 in'],
    [25.4 - 1e-12, inch(), '1 in'],
    [450, metric, '450 mm'],
    [37.54, metric, '37.5 mm'],
    [273.05, metric, '273.1 mm'],
    [273.04999999, metric, '273.1 mm'],
  ])('%d mm', (mm, display, text) => expect(lengthText(mm, display)).toBe(text));

  it('come back exactly as typed after any switching', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 99 }),
        fc.integer({ min: 1, max: 63 }),
        fc.constantFrom(2, 3, 4, 8, 16, 32, 64),
        (whole, top, bottom) => {
          const text = `${whole ? `${whole} ` : ''}${top}/${bottom}`;
          const parsed = parseLength(text, 'inch');
          if (!parsed.ok) throw new Error(parsed.reason);
          expect(inputText(parsed.length, inch(16))).toBe(text);
          expect(inputText(parsed.length, metric)).toBe(
            lengthText(parsed.length.mm, metric).replace(' mm', ''),
          );
          expect(inputText(parsed.length, inch(0))).toBe(text);
        },
      ),
      { seed: 20279 },
    );
  });
  it('typed in the other system are shown converted, and the exact value is at hand', () => {
    const parsed = parseLength('35 mm', 'inch');
    if (!parsed.ok) throw new Error();
    expect(inputText(parsed.length, inch())).toBe('1 3/8');
    expect(inputText(parsed.length, metric)).toBe('35');
    expect(exactText(35)).toBe('1.377953 in = 35 mm');
  });
  it('never show a sixty-fourth more or less than half a step away', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 5000, noNaN: true }),
        fc.constantFrom(16 as const, 32 as const, 64 as const),
        (mm, fraction) => {
          const shown = parseLength(lengthText(mm, inch(fraction)), 'inch', { minMm: 0 });
          if (!shown.ok) throw new Error(shown.reason);
          expect(Math.abs(shown.length.mm - mm)).toBeLessThanOrEqual(25.4 / fraction / 2 + 1e-9);
        },
      ),
      { seed: 20280 },
    );
  });
});

describe('other quantities go along', () => {
  it('area, volume, mass, temperature', () => {
    expect([areaText(645.16, inch()), areaText(64516, metric)]).toEqual(['1 in²', '645.2 cm²']);
    expect([volumeText(16387.064, inch()), volumeText(16387.064, metric)]).toEqual(['1 in³', '16 cm³']);
    expect([massText(0.45359237, inch()), massText(2, metric)]).toEqual(['1.0 lb', '2.0 kg']); // pound: 0.45359237 kg exactly, international yard and pound agreement 1959
    expect([temperatureText(20, inch()), temperatureText(20, metric)]).toEqual(['68 °F', '20 °C']);
  });
  it('wood as it is sold: a board foot is 144 cubic inches, 2,359.737 cm³', () => {
    expect([woodText(8, inch()), woodText(8, metric)]).toEqual(['8.0 bd ft', '0.0189 m³']);
    expect(woodText(1000, metric)).toBe('2.3597 m³');
    expect(woodText(0.01, inch())).toBe('0.01 bd ft');
  });
  it('what is there is never shown as nothing', () => {
    expect([0.004, 0.04, 0.4, 4, 40].map((g) => smallMassText(g, metric))).toEqual([
      '0.004 g',
      '0.04 g',
      '0.4 g',
      '4 g',
      '40 g',
    ]);
    expect([1, 100].map((g) => smallMassText(g, inch()))).toEqual(['0.04 oz', '3.5 oz']);
    expect([25.4 * 0.875, 25.4 * 0.859375].map((mm) => isOnMark(mm, inch(32)))).toEqual([true, false]);
    expect([27.3, 27.25].map((mm) => isOnMark(mm, metric))).toEqual([true, false]);
    // A US fluid ounce is 1/128 of a gallon of 231 cubic inches: 29.5735 ml.
    expect(fluidText((231 * 16.387064) / 128, inch())).toBe('1.0 fl oz');
    expect(fluidText(24.6, metric)).toBe('25 ml');
    expect([0, 1, 1e-3].map((mm3) => volumeText(mm3, metric))).toEqual([
      '0 cm³',
      '0.001 cm³',
      'less than 0.0001 cm³',
    ]);
    expect(massText(0.01, inch())).toBe('0.02 lb');
  });
  it('settings round up to the shop’s step, whole ones stay', () => {
    expect(roundUpToStep(25.4 * 1.5104, 25.4 / 32)).toBeCloseTo(25.4 * (1 + 17 / 32), 9);
    expect(roundUpToStep(37.5, 0.1)).toBe(37.5);
    expect(roundUpToStep(37.51, 0.1)).toBeCloseTo(37.6, 9);
    expect(roundUpToStep(1.234, 0)).toBe(1.234);
    expect(roundToStep(37.54, 0.1)).toBe(37.5);
    expect(roundToStep(37.56, 0.1)).toBe(37.6);
    expect(roundToStep(1.234, 0)).toBe(1.234);
  });
  it('takes a minus where a place may lie on the other side, typed or as it is shown, and nowhere else', () => {
    for (const text of ['-12 1/2', '−12 1/2', '- 12.5'])
      expect(parseLength(text, 'inch', { minMm: -1000 })).toMatchObject({ ok: true, length: { mm: -317.5 } });
    expect(parseLength('-12 1/2', 'inch')).toEqual({ ok: false, reason: 'a length cannot be negative' });
    expect(parseLength('-50', 'inch', { minMm: -1000 }).ok).toBe(false);
  });
});

it('a number is kept between two others, at either bound as within', () => {
  expect([-1, 0, 0.4, 2, 3].map((value) => clamped(value, 0, 2))).toEqual([0, 0, 0.4, 2, 2]);
  expect(clamped(1, 3, 2)).toBe(2);
  expect([-1e-12, 0.3, 1 + 1e-12].map(asShare)).toEqual([0, 0.3, 1]);
});
