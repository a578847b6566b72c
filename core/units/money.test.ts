import { describe, expect, it } from 'vitest';
import { fromMinor, minorDigits, moneyText, toMinor } from '.';

describe('money', () => {
  it('has the figures of its currency (ISO 4217, table A.1)', () => {
    expect(['EUR', 'USD', 'JPY', 'KRW', 'KWD', 'XQQ', 'no'].map(minorDigits)).toEqual([2, 2, 0, 0, 3, 2, 2]);
    expect(moneyText(1250, 'EUR')).toBe('12.50 EUR');
    expect(moneyText(1250, 'JPY')).toBe('1,250 JPY');
    expect(moneyText(1250, 'KWD')).toBe('1.250 KWD');
  });
  it('comes back as it was typed', () => {
    for (const [amount, currency] of [
      [4.35, 'EUR'],
      [1200, 'JPY'],
      [0.007, 'KWD'],
    ] as const)
      expect(fromMinor(toMinor(amount, currency), currency)).toBe(amount);
  });
});
