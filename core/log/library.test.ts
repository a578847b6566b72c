import {
  interquartileRange,
  linearRegression,
  mean,
  median,
  medianAbsoluteDeviation,
  sampleStandardDeviation,
} from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { estimate, type Row } from '.';
import { randomOf } from './shop.fixture';

/* Against a general statistics library: what the log makes of readings where common practice has nothing to say. */

/** Readings of one size, in mm; common practice is left out but for where the search for a spread begins. */
const learned = (values: readonly number[], eps?: number) => {
  const { means, spreads, weights } = estimate({
    rows: values.map((y): Row => ({ y, a: { m: 1 }, b: { s: 1 }, g2: 0 })),
    means: [{ id: 'm', practice: 0 }],
    spreads: [{ id: 's', practice: 0.2 }],
    phi: 0,
    ...(eps === undefined ? {} : { eps }),
  });
  return { location: means[0].value, se: means[0].se, spread: spreads[0].value, weights };
};

/** Readings about a truth of .4 mm that scatter by .15 mm, some of them off by many times that. */
const shop = (seed: number, many: number, gross: number) => {
  const { next, normal } = randomOf(seed);
  const clean: number[] = [];
  const read = Array.from({ length: many }, () => {
    const good = 0.4 + 0.15 * normal();
    const off = 10 * 0.15 * normal();
    if (next() < gross) return good + off;
    clean.push(good);
    return good;
  });
  return { clean, read };
};
const rms = (values: readonly number[]) => Math.sqrt(mean(values.map((each) => each ** 2)));

describe('location and spread', () => {
  it('are mean and sample standard deviation where nothing is gross', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { read } = shop(seed, 5 + seed, 0);
      const found = learned(read, 0);
      expect(found.location).toBeCloseTo(mean(read), 9);
      expect(found.spread).toBeCloseTo(sampleStandardDeviation(read), 6);
      expect(found.se).toBeCloseTo(sampleStandardDeviation(read) / Math.sqrt(read.length), 6);
    }
  });

  it('stay with the mean of the good readings where one in twenty is gross, nearer than the median of all', () => {
    const off = { ours: [] as number[], median: [] as number[], mean: [] as number[] };
    for (let seed = 1; seed <= 200; seed++) {
      const { clean, read } = shop(seed, 40, 0.05);
      off.ours.push(learned(read).location - mean(clean));
      off.median.push(median(read) - mean(clean));
      off.mean.push(mean(read) - mean(clean));
    }
    expect(rms(off.ours)).toBeLessThan(0.5 * rms(off.median));
    expect(rms(off.ours)).toBeLessThan(0.25 * rms(off.mean));
    // A bias of its own it has none: within two standard errors of 200 shops.
    expect(Math.abs(mean(off.ours))).toBeLessThan(2 * (rms(off.ours) / Math.sqrt(200)));
  });

  it('are those of median and quartiles of a large sample, and gross readings have no part in them', () => {
    const { read } = shop(7, 3000, 0.05);
    const { location, spread, weights } = learned(read);
    // Of a normal spread the median deviates by .6745 of it, and the middle half is 1.349 wide (Rousseeuw & Croux 1993).
    expect(location).toBeCloseTo(median(read), 2);
    expect(spread / (medianAbsoluteDeviation(read) / 0.6745)).toBeGreaterThan(0.93);
    expect(spread / (interquartileRange(read) / 1.349)).toBeLessThan(1.07);
    read.forEach((y, i) => {
      if (Math.abs(y - 0.4) > 5 * 0.15) expect(weights[i]).toBeLessThan(0.01);
    });
  });
});

it('two means that stand in one row are those of a straight line', () => {
  const { normal } = randomOf(3);
  const points = Array.from({ length: 30 }, (_, n) => [n, 1.2 - 3.05 * n + 0.2 * normal()]);
  const { m: slope, b: intercept } = linearRegression(points);
  const { means } = estimate({
    rows: points.map(([x, y]): Row => ({ y, a: { start: 1, kerf: x }, b: { s: 1 }, g2: 0 })),
    means: [
      { id: 'start', practice: 0 },
      { id: 'kerf', practice: 0 },
    ],
    spreads: [{ id: 's', practice: 0.2 }],
    phi: 0,
    eps: 0,
  });
  expect(means[0].value).toBeCloseTo(intercept, 9);
  expect(means[1].value).toBeCloseTo(slope, 9);
});
