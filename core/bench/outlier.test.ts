import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { outlierOf } from './outlier';

const inch = { system: 'inch' } as const;
const mm = { system: 'mm' } as const;

describe('a reading that must be asked about', () => {
  it('is one typed in the other unit', () => {
    // A panel of half an inch, 12.7 mm, read off a scale in millimetres and typed into a shop of inches.
    expect(outlierOf(12.7 * 25.4, { predictedMm: 12.7, worstMm: 0.2 }, inch)).toMatchObject({
      cause: 'millimetres',
      meantMm: 12.7,
    });
    // 0.5 typed into a shop of millimetres, with an inch caliper in hand.
    expect(outlierOf(0.5, { predictedMm: 12.7, worstMm: 0.2 }, mm)).toMatchObject({
      cause: 'inches',
      meantMm: 12.7,
    });
  });
  it('is one of a gauge that was switched to the other unit, whatever the shop reads', () => {
    for (const display of [inch, mm]) {
      expect(outlierOf(1.75, { predictedMm: 1.75 * 25.4, worstMm: 0.1 }, display)).toMatchObject({
        cause: 'inches',
        meantMm: 1.75 * 25.4,
      });
      expect(outlierOf(44.45 * 25.4, { predictedMm: 44.45, worstMm: 0.1 }, display)).toMatchObject({
        cause: 'millimetres',
        meantMm: 44.45,
      });
    }
  });
  it('is one misread by whole inches, in a shop that reads inches', () => {
    const panel = { predictedMm: 20 * 25.4, worstMm: 0.5 };
    expect(outlierOf(19 * 25.4 + 0.4, panel, inch)).toMatchObject({ cause: 'inch' });
    expect(outlierOf(19 * 25.4 + 0.4, panel, inch)?.meantMm).toBeCloseTo(20 * 25.4 + 0.4, 9);
    expect(outlierOf(19 * 25.4, panel, mm)?.cause).toBe('far');
  });
  it('is one with a slipped point, and one that nothing explains', () => {
    expect(outlierOf(254, { predictedMm: 25.4, worstMm: 0.1 }, mm)).toMatchObject({
      cause: 'point',
      meantMm: 25.4,
    });
    expect(outlierOf(40, { predictedMm: 25.4, worstMm: 0.1 }, mm)).toEqual({
      cause: 'far',
      offMm: 40 - 25.4,
    });
  });
  it('is none within four times the worst error, 1 mm or 2 % of it', () => {
    expect(outlierOf(26.4, { predictedMm: 25.4, worstMm: 0.05 }, mm)).toBeUndefined();
    expect(outlierOf(26.41, { predictedMm: 25.4, worstMm: 0.05 }, mm)).toBeDefined();
    expect(outlierOf(28.4, { predictedMm: 25.4, worstMm: 0.8 }, mm)).toBeUndefined();
    expect(outlierOf(1019, { predictedMm: 1000, worstMm: 0.8 }, mm)).toBeUndefined();
  });
  it('names what was meant only where that would raise no question', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400_000 }),
        fc.integer({ min: 10, max: 300_000 }),
        fc.constantFrom(inch, mm),
        (read, planned, display) => {
          const at = { predictedMm: planned / 100, worstMm: 0.2 };
          const outlier = outlierOf(read / 100, at, display);
          if (outlier?.meantMm !== undefined) expect(outlierOf(outlier.meantMm, at, display)).toBeUndefined();
          if (!outlier)
            expect(Math.abs(read - planned) / 100).toBeLessThanOrEqual(
              Math.max(1, 0.02 * at.predictedMm) + 1e-9,
            );
        },
      ),
      { seed: 18, numRuns: 2000 },
    );
  });
});
