import { describe, expect, it } from 'vitest';
import { DRESSED_SIZES, soldSize } from '.';

const inches = (text: string) => {
  const sold = soldSize(text);
  return sold && [...[sold.thicknessMm, sold.widthMm].map((mm) => Number((mm / 25.4).toFixed(9))), sold.by];
};

describe('sizes lumber is sold by', () => {
  it('nominal names are the real sizes of the standard', () => {
    // American Softwood Lumber Standard PS 20, Table 3, dry sizes, from memory.
    expect(inches('2x4')).toEqual([1.5, 3.5, 'nominal']);
    expect(inches('2 X 8')).toEqual([1.5, 7.25, 'nominal']);
    expect(inches('1×6')).toEqual([0.75, 5.5, 'nominal']);
    for (const { name } of DRESSED_SIZES) expect(soldSize(name)?.by, name).toBe('nominal');
  });
  it('millimetres are real sizes, whichever side is told first', () => {
    expect(soldSize('45 x 95')).toEqual({ thicknessMm: 45, widthMm: 95, by: 'real' });
    expect(soldSize('95x45 mm')).toEqual({ thicknessMm: 45, widthMm: 95, by: 'real' });
    expect(soldSize('18,5 * 120')).toEqual({ thicknessMm: 18.5, widthMm: 120, by: 'real' });
  });
  it('anything else is none', () => {
    for (const text of ['', '8/4', '45', '3x3x3', '0 x 95', '2 x 5.5 in', '7 x 9', 'x', '-2x4'])
      expect(soldSize(text), text).toBeUndefined();
  });
});
