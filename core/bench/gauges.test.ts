import { describe, expect, it } from 'vitest';
import { parseLength } from '../units';
import { randomFrom } from '../review/scenarios.fixture';
import {
  GAUGE_KIND_NAMES,
  GAUGE_UNIT_NAMES,
  GAUGE_UNITS,
  GAUGES,
  inBase,
  notOfGauge,
  type Simulated,
  simulatedReading,
  wedgeText,
} from '.';

const still: Simulated = { true: 19.05, noise: 0, drift: 0, wrongOneIn: 0, unit: 'mm' };

describe('units of gauges', () => {
  it.each([
    ['in', 1, 25.4],
    ['lb', 1, 0.45359237],
    ['g', 250, 0.25],
    ['F', 32, 0],
    ['F', 212, 100],
    ['C', 21, 21],
  ] as const)('%s: %d is %d of its base (international yard and pound, 1959; ice and boiling point)', (unit, value, base) => {
    expect(inBase({ value, unit })).toBeCloseTo(base, 9);
  });
  it('each gauge speaks only in units of what it measures, the usual one first in its base', () => {
    for (const kind of GAUGE_KIND_NAMES) {
      const { units, of, least, most, step } = GAUGES[kind];
      for (const unit of units) expect(GAUGE_UNITS[unit].of).toBe(of);
      expect(GAUGE_UNITS[units[0]]).toMatchObject({ times: 1, plus: 0 });
      expect(most).toBeGreaterThan(least);
      expect(step).toBeGreaterThan(0);
    }
    expect(GAUGE_UNIT_NAMES.length).toBe(new Set(GAUGE_UNIT_NAMES).size);
  });
});

describe('a reading that no such gauge can have read', () => {
  it.each([
    ['caliper', 12.7, 'mm', undefined],
    ['caliper', 300, 'mm', undefined],
    ['caliper', 300.1, 'mm', 'lies outside'],
    ['caliper', -0.1, 'mm', 'lies outside'],
    ['caliper', 12, 'in', 'lies outside'],
    ['caliper', 11.8, 'in', undefined],
    ['caliper', 5, 'kg', 'not in kg'],
    ['moisture', 8, 'pct', undefined],
    ['moisture', 0, 'pct', 'lies outside'],
    ['angle', 90, 'deg', undefined],
    ['scale', 5000, 'g', undefined],
    ['climate', -4, 'F', undefined],
    ['climate', -5, 'F', 'lies outside'],
  ] as const)('%s %d %s: %s', (kind, value, unit, words) => {
    const reason = notOfGauge({ gauge: 'g', kind, value, unit });
    if (words === undefined) expect(reason).toBeUndefined();
    else expect(reason).toContain(words);
  });
  it('is none that is no number', () => {
    expect(notOfGauge({ gauge: 'g', kind: 'caliper', value: Number.NaN, unit: 'mm' })).toContain(
      'lies outside',
    );
  });
});

describe('a simulated gauge', () => {
  it('without scatter reads what is true, to its own step, in each unit', () => {
    const random = randomFrom(1);
    expect(simulatedReading('c', 'caliper', still, 0, random)).toEqual({
      gauge: 'c',
      kind: 'caliper',
      value: 19.05,
      unit: 'mm',
    });
    expect(simulatedReading('c', 'caliper', { ...still, unit: 'in' }, 0, random).value).toBeCloseTo(0.75, 4);
    expect(simulatedReading('c', 'caliper', { ...still, true: 19.0549 }, 0, random).value).toBe(19.05);
  });
  it('scatters about the true value by what is set, and drifts by what is set', () => {
    const random = randomFrom(2);
    const n = 4000;
    const values = Array.from(
      { length: n },
      (_, i) => simulatedReading('c', 'caliper', { ...still, true: 150, noise: 0.5 }, i, random).value,
    );
    const mean = values.reduce((a, b) => a + b, 0) / n;
    const deviation = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / n);
    // Three standard errors of a mean and of a deviation.
    expect(Math.abs(mean - 150)).toBeLessThan((3 * 0.5) / Math.sqrt(n));
    expect(Math.abs(deviation - 0.5)).toBeLessThan((3 * 0.5) / Math.sqrt(2 * n));
    expect(
      simulatedReading('c', 'caliper', { ...still, true: 100, drift: 0.1 }, 10, random).value,
    ).toBeCloseTo(101, 9);
  });
  it('comes in the wrong unit one time in so many, and never reads what it cannot', () => {
    const random = randomFrom(3);
    const units = Array.from(
      { length: 12 },
      (_, i) => simulatedReading('c', 'caliper', { ...still, true: 8, wrongOneIn: 4 }, i, random).unit,
    );
    expect(units.flatMap((unit, i) => (unit === 'in' ? [i] : []))).toEqual([3, 7, 11]);
    for (const kind of GAUGE_KIND_NAMES)
      for (let i = 0; i < 300; i++) {
        const { least, most, units: own } = GAUGES[kind];
        const how = {
          true: least + (most - least) * random(),
          noise: (most - least) / 3,
          drift: 0,
          wrongOneIn: 2,
          unit: own[i % own.length],
        };
        expect(notOfGauge(simulatedReading('g', kind, how, i, random))).toBeUndefined();
      }
  });
  it('types what a field for lengths reads, whatever the shop measures in', () => {
    for (const system of ['inch', 'mm'] as const)
      for (const [value, unit, mm] of [
        [12.7, 'mm', 12.7],
        [0.5, 'in', 12.7],
      ] as const) {
        const parsed = parseLength(wedgeText({ value, unit }), system);
        expect(parsed.ok && parsed.length.mm).toBeCloseTo(mm, 9);
      }
  });
});
