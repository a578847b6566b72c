import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  actsTogether,
  driftAfter,
  estimate,
  factorAfter,
  freshness,
  goodChance,
  halfBand,
  hasDrifted,
  levelsOf,
  LIKELY_SD,
  NO_DRIFT,
  type Row,
  yieldOf,
} from '.';
import { inverse } from './matrix';

const one = (y: number, g2 = 0): Row => ({ y, a: { m: 1 }, b: { s: 1 }, g2 });
const close = (value: number, wanted: number, digits = 8) => expect(value).toBeCloseTo(wanted, digits);

/* Check values worked out by two other programs, which agreed to 1e-11; they came with the method. */
describe('what a shop really loses', () => {
  it('gives a reading the chance that it is good', () => {
    for (const [z, wanted] of [
      [0, 0.99796334],
      [2, 0.98543419],
      [3, 0.85061152],
      [4, 0.15115195],
      [3.53750622, 0.5],
    ])
      close(goodChance(z ** 2), wanted, 7);
  });
  it('learns a take-off from six readings, one of them gross', () => {
    const { means, spreads, weights } = estimate({
      rows: [0.5, 0.3, 0.45, 0.35, 0.4, 3].map((y) => one(y, 0.0034666667)),
      means: [{ id: 'm', practice: 1.5, tau: 1 }],
      spreads: [{ id: 's', practice: 0.25 / 1.6448536 }],
    });
    close(means[0].value, 1.68128133);
    close(means[0].se, 0.05648907);
    close(spreads[0].value, 0.17764857);
    expect(weights[5]).toBeLessThan(0.01);
    expect(Math.min(...weights.slice(0, 5))).toBeGreaterThan(0.9);
  });
  it('tells a kerf from the bias of a stop, each by its own rows', () => {
    const { means, spreads } = estimate({
      rows: [
        { y: 1.2, a: { kerf: -11, stop: -10 }, b: {}, g2: 0.3 },
        { y: 0.05, a: { stop: 1 }, b: { s: 1 }, g2: 0.0025 },
      ],
      means: [
        { id: 'kerf', practice: 3.2, tau: 0.25 },
        { id: 'stop', practice: 0, tau: 0.3 },
      ],
      spreads: [{ id: 's', practice: 0.203 / 1.6448536 }],
    });
    close(means[0].value, 3.18715329);
    close(means[1].value, -0.02050444);
    close(spreads[0].value, 0.12005726);
  });
  it('counts common practice as six average readings, of means and, as ten degrees of freedom, of spreads', () => {
    const { means, spreads } = estimate({
      rows: [0.4, 0.6, 0.5].map((y) => one(y)),
      means: [{ id: 'm', practice: 1.5 }],
      spreads: [{ id: 's', practice: 0.15 }],
      eps: 0,
    });
    close(means[0].value, 1.66666667);
    close(spreads[0].value, 0.21367708);
  });
  it('learns a spread alone from ratios without a mean', () => {
    const { spreads } = estimate({
      rows: [1.5, 1.5, 1.5].map((y) => ({ y, a: {}, b: { s: 1 }, g2: 0 })),
      means: [],
      spreads: [{ id: 's', practice: 1 }],
      eps: 0,
    });
    close(spreads[0].value, 1.1351042);
  });
  it('takes a kerf out of a board, ten slices and the tail', () => {
    const kerf = (700 - 523 - 143.5) / 11;
    close(kerf, 3.04545455);
    const [tape, caliper, step, piece] = [0.25, 0.03, 0.1, 0.08 / 1.6448536];
    const [n, m] = [10, 3];
    const ofMean = caliper ** 2 / m + step ** 2 / 12;
    const g2 = n ** 2 * ofMean + 2 * (tape ** 2 + step ** 2 / 12);
    const b = n - m + m * (1 - n / m) ** 2;
    close(Math.sqrt(g2 + b * piece ** 2) / 11, 0.04939262);
    const { means } = estimate({
      rows: [{ y: -(kerf - 3.2) * 11, a: { kerf: -11 }, b: { piece: b }, g2 }],
      means: [{ id: 'kerf', practice: 3.2 }],
      spreads: [{ id: 'piece', practice: piece }],
      eps: 0,
    });
    close(means[0].value, 3.17792208);
  });
  it('learns a pace from laps, in logarithms', () => {
    const { means, spreads } = estimate({
      rows: [4, 5, 9].map((taken) => one(Math.log(taken / 4))),
      means: [{ id: 'm', practice: 0 }],
      spreads: [{ id: 's', practice: 0.4 }],
    });
    const [{ value, se }] = means;
    close(Math.exp(value), 1.12101544);
    close(spreads[0].value, 0.40795258);
    const half = halfBand(spreads[0].value ** 2 + se ** 2);
    close(4 * Math.exp(value - half), 2.21036867);
    close(4 * Math.exp(value + half), 9.0965865);
  });
});

describe('what follows from it', () => {
  it('adds acts alike up to a band, the day shared by all', () => {
    const { mean, from, to } = actsTogether({
      count: 20,
      minutes: 1.5,
      m: 0.2,
      act: 0.3,
      day: 0.15,
      se2: 0.0016,
    });
    close(mean, 38.7622712, 6);
    close(from, 28.9251808, 6);
    close(to, 50.4777595, 6);
  });
  it('pulls machines, woods and seasons towards each other as far as their readings are few', () => {
    const { q, between2, apart2, levels } = levelsOf(
      [
        { id: 'a', readings: 3, mean: 2.2 },
        { id: 'b', readings: 12, mean: 1.95 },
        { id: 'c', readings: 40, mean: 1.7 },
      ],
      0.25,
    );
    close(q, 18.1090909, 7);
    close(between2, 0.04353381);
    close(apart2, 0.02492794);
    [2.06668453, 1.94259736, 1.71221945].forEach((wanted, i) => close(levels[i].value, wanted));
    // Means alike lie apart by nothing; one alone is what it says, pulled by nobody.
    expect(levelsOf([{ id: 'a', readings: 4, mean: 2 }], 0.25).levels[0].value).toBeCloseTo(2, 12);
  });
  it('notices that a blade or a scale has changed, on the seventh reading of these and not before', () => {
    let drift = NO_DRIFT;
    const sums = [0.2, 1.5, 2.8, -0.4, 3.6, 2.2, 2].map((z) => {
      drift = driftAfter(drift, z);
      return [Number(drift.above.toFixed(9)), hasDrifted(drift)];
    });
    expect(sums).toEqual([
      [0, undefined],
      [0.75, undefined],
      [2.8, undefined],
      [1.65, undefined],
      [3.9, undefined],
      [5.35, undefined],
      [6.6, 'above'],
    ]);
    let low = NO_DRIFT;
    for (let i = 0; i < 4; i++) low = driftAfter(low, -9);
    expect(hasDrifted(low)).toBe('below');
  });
  it('gives the yield of a grade', () => {
    const boards = [
      { all: 0.8, good: 0.5 },
      { all: 1.2, good: 0.9 },
      { all: 1, good: 0.8 },
    ];
    close(yieldOf(boards, 0.7), 0.71111111);
    expect(yieldOf([], 0.7)).toBe(0.7);
  });
  it('widens the band that readings miss, and holds it between 0.7 and 2', () => {
    expect(factorAfter(1, 1)).toBeCloseTo(Math.exp(0.045), 12);
    expect(factorAfter(1, 0)).toBeCloseTo(Math.exp(-0.005), 12);
    // Where one in ten misses it stays where it is.
    let [still, wide, narrow] = [1, 1, 1];
    for (let i = 0; i < 300; i++) {
      still = factorAfter(still, 0.1);
      wide = factorAfter(wide, 1);
      narrow = factorAfter(narrow, 0);
    }
    expect([still, wide, narrow]).toEqual([expect.closeTo(1, 12), 2, 0.7]);
    close(halfBand(0.04, 1.5), 1.5 * LIKELY_SD * 0.2, 12);
  });
});

describe('as it should be, whatever was read', () => {
  const readings = fc.array(fc.integer({ min: -400, max: 400 }), { minLength: 1, maxLength: 40 });
  it('is the conjugate answer of textbooks where there is one source, no gauge and no gross error', () => {
    fc.assert(
      fc.property(readings, fc.integer({ min: 150, max: 900 }), (all, s0) => {
        const practice = s0 / 1000;
        const ys = all.map((y) => y / 1000);
        const n = ys.length;
        const { means, spreads } = estimate({
          rows: ys.map((y) => one(y)),
          means: [{ id: 'm', practice: 1.5 }],
          spreads: [{ id: 's', practice }],
          eps: 0,
        });
        // Normal mean, practice as six readings (Gelman et al., Bayesian Data Analysis, 2.5): six of 0 and n of y.
        const d = ys.reduce((sum, y) => sum + y, 0) / (6 + n);
        expect(means[0].value).toBeCloseTo(1.5 + d, 9);
        const s2 =
          (10 * practice ** 2 + ys.reduce((sum, y) => sum + (y - d) ** 2, 0)) / (10 + n - n / (6 + n));
        const held = Math.min(25 * practice ** 2, Math.max(0.04 * practice ** 2, s2));
        expect(spreads[0].value ** 2).toBeCloseTo(held, 9);
        expect(means[0].se).toBeCloseTo(Math.sqrt(held / (6 + n)), 6);
      }),
      { seed: 19, numRuns: 150 },
    );
  });
  it('moves by at most a third of the way to what three readings alone say', () => {
    fc.assert(
      fc.property(
        fc.tuple(
          fc.integer({ min: -900, max: 900 }),
          fc.integer({ min: -900, max: 900 }),
          fc.integer({ min: -900, max: 900 }),
        ),
        (all) => {
          const ys = all.map((y) => y / 1000);
          const alone = ys.reduce((sum, y) => sum + y, 0) / 3;
          const { means } = estimate({
            rows: ys.map((y) => one(y, 0.002)),
            means: [{ id: 'm', practice: 0, tau: 1 }],
            spreads: [{ id: 's', practice: 0.3 }],
            eps: 0,
          });
          expect(Math.abs(means[0].value)).toBeLessThanOrEqual(Math.abs(alone) / 3 + 1e-9);
        },
      ),
      { seed: 19, numRuns: 150 },
    );
  });
  it('lets half of a reading go in a year, and none of one that is dated ahead', () => {
    const WEEK = 7 * 86_400_000;
    expect(freshness(0)).toBe(1);
    expect(freshness(52 * WEEK)).toBeCloseTo(0.5, 12);
    expect(freshness(104 * WEEK)).toBeCloseTo(0.25, 12);
    expect(freshness(-9 * WEEK)).toBe(1);
  });
  it('does not ask in which order readings came, and forgets those of long ago', () => {
    const rows = [0.5, 0.1, 0.3, -0.2, 0.4, 2.5].map((y) => one(y, 0.001));
    const ask = (list: readonly Row[]) =>
      estimate({
        rows: list,
        means: [{ id: 'm', practice: 1, tau: 1 }],
        spreads: [{ id: 's', practice: 0.2 }],
      });
    const there = ask(rows);
    const back = ask(rows.toReversed());
    expect(back.means[0].value).toBeCloseTo(there.means[0].value, 10);
    expect(back.spreads[0].value).toBeCloseTo(there.spreads[0].value, 10);
    const faded = ask(rows.map((row) => ({ ...row, f: 1e-9 })));
    expect(faded.means[0].value).toBeCloseTo(1, 6);
    expect(ask([]).means[0]).toEqual({ id: 'm', value: 1, se: 1 });
  });
  it('is taught no spread by a gauge that is coarser than it', () => {
    const coarse = estimate({
      rows: [0.5, -0.5, 0.5, -0.5].map((y) => one(y, 0.09)),
      means: [{ id: 'm', practice: 0 }],
      spreads: [{ id: 's', practice: 0.05 }],
    });
    expect(coarse.spreads[0].value).toBeCloseTo(0.05, 9);
  });
  it('stands on a matrix that is inverted rightly, and refuses one that says nothing of a direction', () => {
    const matrix = [
      [4, 2, 0.6],
      [2, 5, 1],
      [0.6, 1, 3],
    ];
    const back = inverse(matrix);
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++)
        expect(matrix[i].reduce((sum, value, k) => sum + value * back[k][j], 0)).toBeCloseTo(
          i === j ? 1 : 0,
          12,
        );
    expect(() =>
      inverse([
        [1, 1],
        [1, 1],
      ]),
    ).toThrow(/direction 2 of 2/);
  });
});
