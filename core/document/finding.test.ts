import { describe, expect, it } from 'vitest';
import { typed } from '../kit';
import { aimText } from '../plan';
import type { Display } from '../units';
import { displayOf, type Phrase, phraseText } from './finding';

const inch: Display = { system: 'inch', fraction: 32 };

const metric: Display = { system: 'mm', fraction: 0 };

describe('the sizes of a message', () => {
  it('are shown as the shop reads them', () => {
    const phrase: Phrase[] = ['It is ', { mm: 34.925 }, ', not ', { mm: 38.1 }, '.'];
    expect(phraseText(phrase, inch)).toBe('It is 1 3/8 in, not 1 1/2 in.');
    expect(displayOf(phrase, inch)).toBe(inch);
  });
  it('in decimals, all of them, where two that differ would be shown as one, or something as nothing', () => {
    const alike: Phrase[] = ['comes out at ', { mm: 9.4 }, ', asked for ', { mm: 9.525 }];
    expect(phraseText(alike, inch)).toBe('comes out at 0.3701 in, asked for 0.375 in');
    const short: Phrase[] = ['Short by ', { mm: 0.2 }, ' of ', { mm: 9.525 }];
    expect(phraseText(short, inch)).toBe('Short by 0.0079 in of 0.375 in');
    expect(phraseText(short, metric)).toBe('Short by 0.2 mm of 9.5 mm');
    expect(phraseText([{ mm: 0.02 }], metric)).toBe('0.02 mm');
  });
  it('one size twice is one size, and nothing at all stays nothing', () => {
    expect(displayOf([{ mm: 9.525 }, { mm: 9.525 }], inch)).toBe(inch);
    expect(displayOf([{ mm: 0 }, { mm: 9.525 }], inch)).toBe(inch);
  });
  it('that were typed come back as typed: a tenth of an inch is not 3/32', () => {
    expect(phraseText(['asked for: ', typed('0.1')], inch)).toBe('asked for: 0.1 in');
    expect(aimText({ aim: 'fixed', value: typed('0.1') }, inch)).toBe('0.1 in');
    expect(aimText({ aim: 'atLeast', value: typed('2 1/3') }, inch)).toBe('at least 2 1/3 in');
  });
});
