import { describe, expect, it } from 'vitest';
import { suspectOf } from '.';

const of = (measured: number) => suspectOf({ predicted: 40, measured, likely: 0.3 });

describe('a reading that can hardly be true', () => {
  it('is one that lies farther off than 3.5375 standard deviations, and no other', () => {
    const edge = (3.53750622 * 0.3) / 1.6448536269514722;
    expect(of(40 + edge - 1e-6)).toBeUndefined();
    expect(of(40 - edge - 1e-6)?.z).toBeCloseTo(3.5375, 4);
    expect(suspectOf({ predicted: 40, measured: 90, likely: 0 })).toBeUndefined();
  });
  it.each([
    [40.1 * 25.4, /meant in millimetres/],
    [39.9 / 25.4, /meant in inches/],
    [401, /too far right/],
    [4.01, /too far left/],
    [50.1, /a centimetre too much/],
    [29.9, /a centimetre too little/],
    [65.4, /an inch too much/],
    [14.7, /an inch too little/],
  ])('%d mm for 40 says what was meant', (measured, words) => {
    const found = of(measured);
    expect(found?.slip).toMatch(words);
    expect(found?.meantMm).toBeCloseTo(40, 0);
  });
  it('suggests nothing where nothing fits', () => {
    expect(of(47)).toEqual({ z: expect.closeTo(38.38, 1) });
  });
});
