import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heldIn, isMeant, type Mark, MARK_KINDS, MARKS, megabytes, moved, notAPhoto } from '.';

const share = fc.integer({ min: 0, max: 1000 }).map((value) => value / 1000);
const marks = fc.record<Mark>({
  kind: fc.constantFrom(...MARK_KINDS),
  x1: share,
  y1: share,
  x2: share,
  y2: share,
});
const SIDES = { widthPx: 2000, heightPx: 1000 };
const numbers = (path: string) => [...path.matchAll(/-?\d+(\.\d+)?/g)].map(([text]) => Number(text));

describe('a mark on a photo', () => {
  it('is drawn in the photo’s own pixels', () => {
    const mark: Mark = { kind: 'line', x1: 0.25, y1: 0.5, x2: 0.75, y2: 0.5 };
    expect(MARKS.line.path(mark, SIDES)).toBe('M500 500L1500 500');
    // A circle is round whatever the photo's shape: from its middle to its rim, in pixels and not in shares.
    expect(MARKS.circle.path({ ...mark, kind: 'circle', y2: 0.5, x2: 0.35 }, SIDES)).toBe(
      'M300 500a200 200 0 1 0 400 0a200 200 0 1 0 -400 0',
    );
    // The head of an arrow lies at its second point, with both barbs 70 px behind it at 180/7 degrees.
    const arrow = numbers(MARKS.arrow.path({ ...mark, kind: 'arrow' }, SIDES));
    expect(arrow.slice(0, 4)).toEqual([500, 500, 1500, 500]);
    const [x, y] = arrow.slice(4, 6);
    expect(Math.hypot(1500 - x, 500 - y)).toBeCloseTo(70, 0);
    expect(Math.atan2(Math.abs(500 - y), 1500 - x)).toBeCloseTo(Math.PI / 7, 2);
    expect(arrow.slice(8, 10)).toEqual([x, 1000 - y]);
  });
  it('moved as a whole never leaves the photo and keeps its shape; its end alone leaves the beginning where it is', () => {
    fc.assert(
      fc.property(
        marks,
        fc.integer({ min: -1500, max: 1500 }),
        fc.integer({ min: -1500, max: 1500 }),
        (mark, x, y) => {
          const next = moved(mark, x / 1000, y / 1000, false);
          for (const value of [next.x1, next.y1, next.x2, next.y2]) {
            expect(value).toBeGreaterThanOrEqual(0);
            expect(value).toBeLessThanOrEqual(1);
          }
          expect(next.x2 - next.x1).toBeCloseTo(mark.x2 - mark.x1, 3);
          expect(next.y2 - next.y1).toBeCloseTo(mark.y2 - mark.y1, 3);
          const end = moved(mark, x / 1000, y / 1000, true);
          expect([end.x1, end.y1]).toEqual([mark.x1, mark.y1]);
          expect(end).toEqual(heldIn(end));
        },
      ),
      { seed: 18, numRuns: 400 },
    );
  });
  it('that is a touch of the finger was not meant: a hundredth of the longer side is', () => {
    const stroke = (px: number): Mark => ({ kind: 'arrow', x1: 0.5, y1: 0.5, x2: 0.5 + px / 2000, y2: 0.5 });
    expect(isMeant(stroke(19), SIDES)).toBe(false);
    expect(isMeant(stroke(20), SIDES)).toBe(true);
  });
});

describe('a file, before it is read', () => {
  it('is told from a photo by what is known of it', () => {
    expect(notAPhoto({ type: 'image/jpeg', size: 0 })).toMatch(/0 bytes/);
    expect(notAPhoto({ type: 'image/jpeg', size: 12 * 1024 * 1024 })).toBeUndefined();
    expect(notAPhoto({ type: 'image/jpeg', size: 12 * 1024 * 1024 + 1 })).toMatch(/the most is 12 MB/);
    expect(notAPhoto({ type: 'image/svg+xml', size: 100 })).toMatch(/image\/svg\+xml.*JPEG, PNG and WebP/);
    expect(notAPhoto({ type: 'image/heic', size: 100 })).toMatch(/image\/heic/);
    // A browser that does not know what it is leaves it to the server.
    expect(notAPhoto({ type: '', size: 100 })).toBeUndefined();
  });
  it('has its size in words', () => {
    expect([0, 130_000, 5_400_000, 14_700_000, 2_097_152_000].map(megabytes)).toEqual([
      '0.0 MB',
      '0.1 MB',
      '5.1 MB',
      '14 MB',
      '2,000 MB',
    ]);
  });
});
