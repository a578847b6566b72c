import { describe, expect, it } from 'vitest';
import { board, problem, strip } from './cases.fixture';
import { byLength, orderUnits } from './recreate';
import { begin } from './search';

/** Random numbers in a given order. */
const dealt = (...numbers: number[]) => {
  let i = 0;
  return () => numbers[i++ % numbers.length];
};

describe('the orders in which strips are laid in', () => {
  // Long and narrow, short and wide, of the greatest area; the last is like the first.
  const sizes = [
    [900, 50],
    [400, 200],
    [800, 150],
    [900, 50],
  ] as const;
  const strips = sizes.map(([length, width], i) => strip(`s${i}`, length, width));
  const search = begin(problem(strips, [board('b', 3000, 400)]));
  const units = strips.map((_, i) => [i]);
  const order = (...random: number[]) => orderUnits(search, units, dealt(...random)).flat();

  it('the longest first, of those alike the one wanted first', () => {
    expect(byLength(search, units.toReversed()).flat()).toEqual([0, 3, 2, 1]);
    expect(order(0.2)).toEqual([0, 3, 2, 1]);
  });
  it('of those of one length the widest first', () => {
    const wide = begin(problem([strip('a', 500, 40), strip('b', 500, 90)], [board('b', 3000, 400)]));
    expect(byLength(wide, [[0], [1]])).toEqual([[1], [0]]);
    expect(orderUnits(wide, [[0], [1]], dealt(0.2))).toEqual([[1], [0]]);
  });
  it('the largest first, give or take a fifth', () => {
    // Areas 45, 80, 120 and 45 thousand mm2; the second draws the most of chance, the third the least: 96 and 96 meet.
    expect(order(0.4, 0.5, 0.5, 0.5, 0.5)).toEqual([2, 1, 0, 3]);
    expect(order(0.4, 0.5, 1, 0.01, 0.5)).toEqual([2, 1, 0, 3]);
    expect(order(0.4, 0.5, 1, -0.01, 0.5)).toEqual([1, 2, 0, 3]);
    expect(order(0.4, 0.4, 0.5, 0.5, 0.5)).toEqual([2, 1, 3, 0]);
  });
  it('the widest first, of one width the longest', () => {
    expect(order(0.7)).toEqual([1, 2, 0, 3]);
    const long = begin(problem([strip('a', 300, 40), strip('b', 500, 40)], [board('b', 3000, 400)]));
    expect(orderUnits(long, [[0], [1]], dealt(0.7))).toEqual([[1], [0]]);
  });
  it('by chance alone', () => {
    expect(order(0.9, 0.1, 0.4, 0.2, 0.3)).toEqual([1, 3, 2, 0]);
  });
  it('a set counts with its longest strip and all its widths', () => {
    const set = begin(
      problem(
        [strip('a', 300, 40, 25, { set: 'x' }), strip('b', 700, 40, 25, { set: 'x' }), strip('c', 600, 70)],
        [board('b', 3000, 400)],
      ),
    );
    expect(byLength(set, set.units)).toEqual([[0, 1], [2]]);
    expect(orderUnits(set, set.units.toReversed(), dealt(0.7))).toEqual([[0, 1], [2]]);
  });
});
