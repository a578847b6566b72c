import { describe, expect, it } from 'vitest';
import { compressionFromGravity, elasticOf, planeOf } from './elastic';
import { isSolid, SPECIES } from './species';

/* Wood Handbook Tables 5-1, 5-2 and 5-3 as recalled a second time for the pressure model (from memory). */
const RECALLED: readonly [string, number, number, number, number, number, number, number, number][] = [
  // bending modulus GPa, ET, ER, GLR, GLT over EL, nu LR, nu LT, compression across the grain MPa
  ['cherry_black', 10.3, 0.086, 0.197, 0.147, 0.097, 0.392, 0.428, 4.8],
  ['maple_sugar', 12.6, 0.065, 0.132, 0.111, 0.063, 0.424, 0.476, 10.1],
  ['walnut_black', 11.6, 0.056, 0.106, 0.085, 0.062, 0.495, 0.632, 7.0],
  ['yellow_poplar', 10.9, 0.043, 0.092, 0.075, 0.069, 0.318, 0.392, 3.4],
  ['ash_white', 12.0, 0.08, 0.125, 0.109, 0.077, 0.371, 0.44, 8.0],
  ['pine_ponderosa', 8.9, 0.083, 0.122, 0.138, 0.115, 0.337, 0.4, 4.0],
];

describe('elastic values', () => {
  it.each(
    RECALLED,
  )('of %s agree with a second recollection', (id, moe, ET, ER, GLR, GLT, nuLR, nuLT, compression) => {
    const found = elasticOf(id);
    expect(found.own).toBe(true);
    expect(found.EL / (1100 * moe)).toBeCloseTo(1, 1.5);
    expect([found.ratios.ET, found.ratios.ER, found.ratios.GLR, found.ratios.GLT]).toEqual([
      ET,
      ER,
      GLR,
      GLT,
    ]);
    expect([found.ratios.nuLR, found.ratios.nuLT]).toEqual([nuLR, nuLT]);
    expect(found.compressionMPa).toBeCloseTo(compression, 1);
    expect(found.compressionFrom).toBe('table');
  });
  it('of every wood are those of a real body, and say whose row they come from', () => {
    for (const { id } of SPECIES) {
      const { own, from, EL, ratios, compressionMPa } = elasticOf(id);
      expect(own).toBe(from === id);
      expect(ratios.ET).toBeLessThanOrEqual(isSolid(id) ? 0.5 : 1);
      expect(ratios.ER).toBeLessThanOrEqual(isSolid(id) ? 0.5 : 1);
      // Stiffer towards the bark than along the rings, or nearly alike, in all woods of the tables.
      if (isSolid(id)) expect(ratios.ER).toBeGreaterThan(0.95 * ratios.ET);
      expect(EL).toBeGreaterThan(isSolid(id) ? 5000 : 2500);
      expect(compressionMPa).toBeGreaterThan(1);
      for (const sawn of ['flat', 'quarter'] as const)
        for (const grain of ['along', 'upright', 'across'] as const) {
          const { Ex, Ey, G, nu } = planeOf(id, sawn, grain);
          expect(Math.min(Ex, Ey, G)).toBeGreaterThan(0);
          // Positive strain energy: nu_xy nu_yx below one.
          expect((nu * nu * Ey) / Ex).toBeLessThan(1);
        }
    }
  });
  it('turned a quarter change places, with the contraction that energy asks for', () => {
    const along = planeOf('maple_sugar', 'flat', 'along');
    const across = planeOf('maple_sugar', 'flat', 'across');
    expect([across.Ex, across.Ey, across.G]).toEqual([along.Ey, along.Ex, along.G]);
    expect(across.nu / across.Ex).toBeCloseTo(along.nu / along.Ex, 12);
  });
  it('across the grain grow with density, hardwoods and softwoods by their own regression', () => {
    expect(compressionFromGravity(0.7, 'hardwood')).toBeGreaterThan(compressionFromGravity(0.4, 'hardwood'));
    expect(compressionFromGravity(0.5, 'softwood')).toBeCloseTo(16.5 * 0.5 ** 1.57, 9);
  });
});
