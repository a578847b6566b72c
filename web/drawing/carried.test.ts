import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Lying, makingWay, placeOver } from './carried';

/** Strips one after another with the same gap between them, down the page or across it. */
const rowOf = (sizes: readonly number[], gap: number, upright: boolean): Lying[] => {
  let at = 7;
  return sizes.map((size, i) => {
    const lying = upright
      ? { id: String(i), left: at, top: 3, width: size, height: 400 }
      : { id: String(i), left: 3, top: at, width: 400, height: size };
    at += size + gap;
    return lying;
  });
};
const start = (each: Lying, upright: boolean) => (upright ? each.left : each.top);

const rows = fc.record({
  sizes: fc.array(fc.integer({ min: 8, max: 90 }), { minLength: 2, maxLength: 40 }),
  gap: fc.integer({ min: 0, max: 6 }),
  upright: fc.boolean(),
  at: fc.nat(1000),
  over: fc.nat(1000),
});

describe('a strip that is carried', () => {
  it('leaves all strips where they lie once it is laid down there: in the new order, with the same gaps', () => {
    fc.assert(
      fc.property(rows, ({ sizes, gap, upright, at: drawnAt, over: drawnOver }) => {
        const [at, over] = [drawnAt % sizes.length, drawnOver % sizes.length];
        const row = rowOf(sizes, gap, upright);
        const by = makingWay(row, at, over, upright);
        const order = row.map((_, i) => i).filter((i) => i !== at);
        order.splice(over, 0, at);
        const laid = rowOf(
          order.map((i) => sizes[i]),
          gap,
          upright,
        );
        expect(order.map((i) => start(row[i], upright) + by[i])).toEqual(
          laid.map((each) => start(each, upright)),
        );
      }),
      { seed: 41 },
    );
  });

  it('is over the place that it is brought to, and over its own while it is hardly moved', () => {
    fc.assert(
      fc.property(
        fc.record({
          count: fc.integer({ min: 2, max: 40 }),
          size: fc.integer({ min: 8, max: 60 }),
          at: fc.nat(1000),
          over: fc.nat(1000),
          upright: fc.boolean(),
        }),
        ({ count, size, at: drawnAt, over: drawnOver, upright }) => {
          const [at, over] = [drawnAt % count, drawnOver % count];
          const row = rowOf(Array<number>(count).fill(size), 0, upright);
          expect(placeOver(row, at, makingWay(row, at, over, upright)[at], upright)).toBe(over);
          expect(placeOver(row, at, size * 0.49, upright)).toBe(at);
          expect(placeOver(row, at, -size * 0.49, upright)).toBe(at);
          expect(placeOver(row, at, 1e6, upright)).toBe(count - 1);
          expect(placeOver(row, at, -1e6, upright)).toBe(0);
        },
      ),
      { seed: 42 },
    );
  });
});
