import { describe, expect, it } from 'vitest';
import { jobRows, learned, randomOf, TRUTH } from './shop.fixture';

/* A simulated shop, as the method was judged by: what is true is known here, and what was learned of it must be near. */
const SHOPS = 30;
const off = (value: number, truth: number) => Math.abs(value / truth - 1);
/** The share that nine shops in ten stay below. */
const ninth = (values: readonly number[]) =>
  values.toSorted((a, b) => a - b)[Math.ceil(0.9 * values.length) - 1];

const shops = (jobs: number, gross: number) =>
  Array.from({ length: SHOPS }, (_, seed) => {
    const random = randomOf(seed + 1);
    return learned(Array.from({ length: jobs }, () => jobRows(random, gross)).flat());
  });

describe('a simulated shop that slips in one reading of twenty', () => {
  it('knows its kerf to 3 % and its flattening to 10 % after ten jobs, its spreads to 25 %', () => {
    const all = shops(10, 0.05);
    expect(ninth(all.map(({ kerf }) => off(kerf, TRUTH.kerf)))).toBeLessThan(0.03);
    expect(ninth(all.map(({ off: took }) => off(took, TRUTH.off)))).toBeLessThan(0.1);
    for (const spread of ['setting', 'flatten'] as const)
      expect(ninth(all.map((each) => off(each[spread], TRUTH[spread])))).toBeLessThan(0.25);
  });
  it('knows them to 1 % and 3 % after sixty, its spreads to 15 %', () => {
    const all = shops(60, 0.05);
    expect(ninth(all.map(({ kerf }) => off(kerf, TRUTH.kerf)))).toBeLessThan(0.01);
    expect(ninth(all.map(({ off: took }) => off(took, TRUTH.off)))).toBeLessThan(0.03);
    for (const spread of ['setting', 'flatten'] as const)
      expect(ninth(all.map((each) => off(each[spread], TRUTH[spread])))).toBeLessThan(0.15);
  });
  it('learns the same without its slips: means to 2 %, spreads to 15 %', () => {
    const [wild, clean] = [shops(10, 0.05), shops(10, 0)];
    const moved = (what: 'kerf' | 'off' | 'setting' | 'flatten') =>
      ninth(wild.map((each, i) => off(each[what], clean[i][what])));
    for (const mean of ['kerf', 'off'] as const) expect(moved(mean)).toBeLessThan(0.02);
    for (const spread of ['setting', 'flatten'] as const) expect(moved(spread)).toBeLessThan(0.15);
  });
});
