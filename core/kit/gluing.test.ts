import { describe, expect, it } from 'vitest';
import {
  adhesiveFacts,
  clampFactor,
  CLAMP_KINDS,
  defaultShop,
  equilibriumMoisture,
  glueAmount,
  glueTimes,
  isClimateKnown,
  openFactor,
  pickClamps,
  typed,
  vapourDeficitKPa,
  type ClampSet,
} from '.';
import table from './emc.data.json';

describe('equilibrium moisture', () => {
  it('meets the Wood Handbook’s Table 4-2 within 0.1 % (from memory)', () => {
    let checked = 0;
    for (const [fahrenheit, row] of Object.entries(table.byFahrenheit))
      row.forEach((wanted, i) => {
        const found = equilibriumMoisture({
          temperatureC: (Number(fahrenheit) - 32) / 1.8,
          humidityPct: table.humidityPct[i],
        });
        expect(Math.abs(found - wanted), `${fahrenheit} F, ${table.humidityPct[i]} %`).toBeLessThan(0.1);
        checked += 1;
      });
    expect(checked).toBe(190);
  });
  it('is refused where it was never fitted', () => {
    expect(() => equilibriumMoisture({ temperatureC: 60, humidityPct: 50 })).toThrow('60 C');
    expect(isClimateKnown({ temperatureC: 20, humidityPct: 99 })).toBe(false);
  });
  it('saturation pressure is that of steam tables: 2.339 kPa at 20 C (IAPWS, from memory)', () => {
    // Magnus' formula is good to about a third of a per cent.
    expect(vapourDeficitKPa({ temperatureC: 20, humidityPct: 0 }) / 2.339).toBeCloseTo(1, 2);
  });
});

describe('adhesives', () => {
  const yellow = adhesiveFacts({ id: 'y', name: 'y', class: 'pva_yellow' });
  it('take 358 to 477 g for 15 joints of 1.850 x 0.086 m at 150 to 200 g/m2', () => {
    const area = 15 * 1850 * 86;
    const given = { ...yellow, gPerM2: [150, 200] as [number, number], typicalGPerM2: 175 };
    const amount = glueAmount(given, area, { faces: 1, applicator: 'roller' });
    expect(Math.round(amount.leastG)).toBe(358);
    expect(Math.round(amount.mostG)).toBe(477);
    expect(amount.toTakeG).toBeGreaterThan(amount.typicalG);
  });
  it('take two fifths more on both faces, and fill less volume the denser they are', () => {
    const one = glueAmount(yellow, 1e6, { faces: 1, applicator: 'brush' });
    const both = glueAmount(yellow, 1e6, { faces: 2, applicator: 'brush' });
    expect(both.typicalG / one.typicalG).toBeCloseTo(1.4, 9);
    expect(one.toTakeMl).toBeCloseTo(one.toTakeG / yellow.kgPerL, 9);
  });
  it('stay open longer in cool, damp air and shorter in warm, dry air; the reference air changes nothing', () => {
    const at = (temperatureC: number, humidityPct: number) =>
      openFactor('drying', { temperatureC, humidityPct });
    expect(at(21, 50)).toBeCloseTo(1, 9);
    expect(at(12, 70)).toBeGreaterThan(1.5);
    expect(at(30, 20)).toBeLessThan(0.6);
    // Pot life halves for 10 C more (common practice).
    expect(openFactor('reaction', { temperatureC: 31, humidityPct: 50 })).toBeCloseTo(0.5, 9);
    expect(clampFactor({ temperatureC: 11, humidityPct: 50 })).toBeCloseTo(2, 9);
    expect(clampFactor({ temperatureC: 30, humidityPct: 50 })).toBe(1);
  });
  it('go by the label where it says something, and by the cautious end of the class elsewhere', () => {
    const labelled = adhesiveFacts({ id: 'x', name: 'x', class: 'pva_yellow', closedMin: 20, leastC: 5 });
    expect(labelled.closedMin).toEqual([20, 20]);
    expect(labelled.fromLabel).toEqual(['closedMin', 'leastC']);
    const times = glueTimes(labelled, { temperatureC: 21, humidityPct: 50 });
    expect([times.openMin, times.closedMin]).toEqual([3, 20]);
    expect(yellow.leastC).toBe(13);
  });
});

describe('the clamp rack', () => {
  const set = (id: string, count: number, opening: string, forceN = 3000): ClampSet => ({
    id,
    name: id,
    kind: 'parallel_jaw',
    count,
    opening: typed(opening),
    forceN,
    padLength: { mm: 40 },
    padWidth: { mm: 40 },
  });
  const rack = [set('long', 4, '40'), set('short', 3, '24'), set('tiny', 9, '6')];
  it('gives the shortest that are long enough first, and says what is missing', () => {
    const { picks, missing, longEnough } = pickClamps(rack, 9, 500);
    expect(picks.map(({ set: s, count }) => [s.id, count])).toEqual([
      ['short', 3],
      ['long', 4],
    ]);
    expect([missing, longEnough]).toEqual([2, 7]);
  });
  it('takes a clamp that opens to exactly what is wanted', () => {
    expect(pickClamps(rack, 1, 24 * 25.4).picks[0].set.id).toBe('short');
    expect(pickClamps(rack, 1, 24 * 25.4 + 0.1).picks[0].set.id).toBe('long');
    expect(pickClamps([], 2, 10)).toEqual({ picks: [], missing: 2, longEnough: 0 });
  });
  it('knows forces by hand that lie within what is stated', () => {
    for (const { statedN, handN, padMm } of CLAMP_KINDS) {
      expect(handN[0]).toBeLessThan(handN[1]);
      expect(handN[1]).toBeLessThanOrEqual(statedN[1]);
      expect(Math.min(...padMm)).toBeGreaterThan(0);
    }
  });
  it('is left out of a new shop, which then glues with a small shop’s', () => {
    expect(defaultShop('s').clamps).toBeUndefined();
  });
});
