import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Display, lengthsText, parseLengths } from '.';

const inch: Display = { system: 'inch', fraction: 32 };
const metric: Display = { system: 'mm', fraction: 0 };
const read = (text: string, display = inch) => {
  const parsed = parseLengths(text, display);
  return parsed.ok ? parsed.lengths.map(({ mm }) => Number(mm.toFixed(9))) : parsed.reason;
};

describe('lengths in one line', () => {
  it('are read as a maker writes them, those alike counted', () => {
    expect(read('1 1/2, 3 x 1 3/8, 2')).toEqual([38.1, 34.925, 34.925, 34.925, 50.8]);
    expect(read('2×1/2; 1')).toEqual([12.7, 12.7, 25.4]);
    expect(read('45, 38, 30\n24', metric)).toEqual([45, 38, 30, 24]);
    expect(read('12,5; 3 x 20', metric)).toEqual([12.5, 20, 20, 20]);
    expect(read('20 mm, 1', inch)).toEqual([20, 25.4]);
  });
  it('of a set that comes several times are written out', () => {
    expect(read('2 x (45, 38), 24', metric)).toEqual([45, 38, 45, 38, 24]);
    expect(read('2 x (1/2, 2 x 1)')).toEqual([12.7, 25.4, 25.4, 12.7, 25.4, 25.4]);
    expect(read('2 x (45, 38', metric)).toContain('both brackets');
    expect(read('900 x (45)', metric)).toContain('both brackets');
  });
  it('that cannot be read say which of them', () => {
    expect(read('')).toContain('such as 1 1/2');
    expect(read('1, zwei, 3')).toContain('“zwei”');
    expect(read('1, 0 x 2')).toContain('nothing');
    expect(read('501 x 1')).toContain('at most 500');
    expect(read('1, -2')).toContain('negative');
  });
  it('are written so that they read back the same', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(inch, metric),
        fc.array(fc.integer({ min: 1, max: 3000 }), { minLength: 1, maxLength: 20 }),
        (display, list) => {
          const lengths = list.map((n) => ({ mm: display.system === 'inch' ? (n * 25.4) / 32 : n }));
          const back = parseLengths(lengthsText(lengths, display), display);
          expect(back.ok && back.lengths.map(({ mm }) => mm)).toEqual(
            lengths.map(({ mm }) => expect.closeTo(mm, 9)),
          );
        },
      ),
      { seed: 20261128 },
    );
  });
});
