import { describe, expect, it } from 'vitest';
import type { BoardStock } from '../document';
import { defaultShop } from '../kit';
import { faceCleaning } from './milling';
import { laneLies } from './pack';
import { leavesFrom, type WantedStrip } from './problem';

const mm = (n: number) => ({ mm: n });
const shop = defaultShop('net');
const rules = {
  ...{ crosscutKerf: 3, ripKerf: 3, resawKerf: 2, resaw: true, resawReach: 0 },
  ...{
    endTrim: 0,
    edgeTrim: 0,
    remnant: 25,
    leastOffcutLength: 300,
    leastOffcutWidth: 30,
    offcutWorth: 0.75,
  },
};
const board = (thickness: number, cup: number): BoardStock =>
  ({
    ...{ id: 'b', label: '1', species: 'maple_sugar', sold: 'surfaced' },
    ...{ length: mm(1000), width: mm(200), thickness: mm(thickness), warp: { cup: mm(cup) } },
  }) as BoardStock;

describe('leaves and what stays at the fence', () => {
  it('warp comes out of the whole width’s block before it is resawn', () => {
    const strip = {
      ...{ species: 'maple_sugar', length: 1000, width: 200, thickness: 10, milledThickness: 8 },
    } as WantedStrip;
    const leaves = (thickness: number, cup: number) =>
      leavesFrom(strip, board(thickness, cup), { rules, shop } as never);
    // Three leaves of 10 and two kerfs of 2 are 34: exactly what is left of 36 once a hollow of 2 is planed out.
    expect([leaves(34, 0), leaves(33.9, 0)]).toEqual([3, 2]);
    expect([leaves(36, 2), leaves(35.9, 2), leaves(34, 2)]).toEqual([3, 2, 2]);
    // A saw that reaches just through the strip resaws it; one that does not gives the strip as it is.
    const reaching = (resawReach: number) =>
      leavesFrom(strip, board(34, 0), { rules: { ...rules, resawReach }, shop } as never);
    expect([reaching(200), reaching(199.9)]).toEqual([3, 1]);
  });
  it('the last rip leaves its remnant and its own kerf at the fence', () => {
    const solver = { width: 200, yMax: 200, index: 0 } as never;
    const lies = (y: number) =>
      laneLies(solver, { x: 0, y, length: 500, width: 50 } as never, [], rules as never);
    // 200 less 25 in hand less the kerf of 3: the lane may end at 172.
    expect([lies(122), lies(122.01), lies(125)]).toEqual([true, false, false]);
    const whole = laneLies(solver, { x: 0, y: 0, length: 500, width: 200 } as never, [], rules as never);
    expect(whole).toBe(true);
  });
});

it('whatever a board has of cup, bow and wind comes off before strips are taken; rough faces lose both', () => {
  const strip = {
    ...{ species: 'maple_sugar', length: 1000, width: 200, thickness: 10, milledThickness: 8 },
  } as WantedStrip;
  const leaves = (warp: object, thickness: number, more: object = {}) =>
    leavesFrom(strip, { ...board(thickness, 0), warp, ...more } as BoardStock, { rules, shop } as never);
  // A plane through a twisted board loses half of the rise.
  for (const warp of [{ cup: mm(2) }, { bow: mm(2) }, { wind: mm(4) }])
    expect([leaves(warp, 36), leaves(warp, 35.9)], JSON.stringify(warp)).toEqual([3, 2]);
  const all = { cup: mm(1), bow: mm(2), wind: mm(6) };
  expect([leaves(all, 40), leaves(all, 39.9)]).toEqual([3, 2]);
  // A strip is 8 when milled: so much must be left once warp and both cleaned faces are off a board of 12.
  for (const sold of ['surfaced', 'rough'] as const) {
    const spare = 12 - 8 - 2 * faceCleaning({ ...board(12, 0), sold }, shop);
    for (const name of ['cup', 'bow'])
      expect(
        [-0.05, 0.05].map((more) => leaves({ [name]: mm(spare + more) }, 12, { sold })),
        `${sold}, ${name}`,
      ).toEqual([1, 0]);
  }
  const other = { ...strip, grain: 'quarter' } as WantedStrip;
  const flat = { ...board(20, 0), grain: 'flat' } as BoardStock;
  expect(leavesFrom(other, flat, { rules, shop } as never)).toBe(0);
});
