import { expect, it } from 'vitest';
import { strainsBetween, strainsOf } from './movement';

it('agrees with the handbook’s worked example: white fir 232 mm wide, flat-grained, 8 to 11 %: 1.705 mm', () => {
  // Wood Handbook, chapter 13, text after equation 13-2: coefficient 0.00245.
  const fir = { coefficientRadial: 0.00112, coefficientTangential: 0.00245 };
  expect(232 * strainsBetween(fir, 8, 11).tangential).toBeCloseTo(1.705, 3);
  expect(9.15 * strainsBetween(fir, 8, 11).tangential).toBeCloseTo(0.06725, 5);
});

it('by total shrinkage, oak 820 wide from 6 to 10 % moves 12.533, 5 % more than by its coefficient', () => {
  // Wood Handbook, equation 13-3, S 10.5 (Table 4-3), from memory.
  expect(820 * strainsOf('oak_white', 6, 10, 'shrinkage').tangential).toBeCloseTo(12.533, 3);
  expect(820 * strainsOf('oak_white', 6, 10).tangential).toBeCloseTo(11.972, 3);
});

it('stops at fibre saturation, goes back as it came, and keeps metals still', () => {
  expect(strainsOf('oak_white', 28, 40)).toEqual(strainsOf('oak_white', 28, 30));
  expect(strainsOf('oak_white', 8, 12).radial).toBeCloseTo(-strainsOf('oak_white', 12, 8).radial, 12);
  expect(strainsOf('nobody_knows', 8, 12).tangential).toBeGreaterThan(0);
});
