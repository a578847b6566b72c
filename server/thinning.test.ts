import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { thinned, type Kept } from './thinning';

const HOUR = 3_600_000;
const NOW = Date.UTC(2027, 5, 15, 12);
const ago = (hours: number, id: string, more: Partial<Kept> = {}): Kept => ({
  id,
  at: NOW - hours * HOUR,
  aside: false,
  marked: false,
  ...more,
});

describe('thinning kept versions', () => {
  it('keeps all of the last day, then the last of each hour for 30 days, then the last of each day', () => {
    const versions = [
      ...[0, 0.1, 0.2, 23.9].map((h, i) => ago(h, `day-${i}`)),
      ...[48, 48.2, 48.4, 50].map((h, i) => ago(h, `hour-${i}`)),
      ...[24 * 40 + 1, 24 * 40 + 5, 24 * 41 + 3].map((h, i) => ago(h, `old-${i}`)),
    ];
    expect(thinned(versions, NOW)).toEqual(['hour-2', 'old-1']);
  });
  it('passes over what is marked and what is the newest, and counts versions put aside by themselves', () => {
    const versions = [
      ago(1000, 'a'),
      ago(1000.1, 'marked', { marked: true }),
      ago(1000.2, 'aside', { aside: true }),
      ago(1000.3, 'newest'),
      ago(1000.4, 'goes'),
    ];
    expect(thinned(versions, NOW, 'newest')).toEqual(['goes']);
  });
  it('done twice does no more; never empties a day; bounds what is kept by the days and hours there are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 24 * 200, noNaN: true }), { maxLength: 300 }),
        (hours) => {
          const versions = hours.map((h, i) => ago(h, String(i)));
          const gone = new Set(thinned(versions, NOW));
          const left = versions.filter(({ id }) => !gone.has(id));
          expect(thinned(left, NOW)).toEqual([]);
          const days = (all: Kept[]) => new Set(all.map(({ at }) => Math.floor(at / (24 * HOUR))));
          expect(days(left)).toEqual(days(versions));
          const old = left.filter(({ at }) => NOW - at >= 30 * 24 * HOUR);
          expect(old.length).toBeLessThanOrEqual(171);
          expect(left.length).toBeLessThanOrEqual(
            171 + 30 * 24 + versions.filter(({ at }) => NOW - at < 24 * HOUR).length,
          );
        },
      ),
      { seed: 9, numRuns: 200 },
    );
  });
});
