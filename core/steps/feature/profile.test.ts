import { describe, expect, it } from 'vitest';
import { areaOf } from '../../curve';
import { cornerSection, PROFILES, profileLine, type ProfileName, profileWidth } from './profile';

const NAMES = Object.keys(PROFILES) as ProfileName[];
/** Areas of the profiles over the square of their size: plane geometry. */
const AREA: Record<ProfileName, number> = {
  roundOver: 1 - Math.PI / 4,
  chamfer: 1 / 2,
  cove: Math.PI / 4,
  rabbet: 1,
  ogee: 1 / 2,
};
/** What a profile takes off a metre of edge, by the midpoint rule over its depth, mm2. */
const cutOf = (of: { profile: ProfileName; size: number; step?: number }): number => {
  const depth = of.size + (of.step ?? 0);
  const parts = 20_000;
  let sum = 0;
  for (let i = 0; i < parts; i++) sum += profileWidth(of, ((i + 0.5) / parts) * depth);
  return (sum * depth) / parts;
};

describe.each(NAMES)('a profile: %s', (profile) => {
  it('takes off what plane geometry says, with and without a step at the face', () => {
    for (const size of [3, 12.7]) {
      expect(cutOf({ profile, size }) / (AREA[profile] * size ** 2)).toBeCloseTo(1, 4);
      const stepped = AREA[profile] * size ** 2 + 2 * size;
      expect(cutOf({ profile, size, step: 2 }) / stepped).toBeCloseTo(1, 4);
    }
  });
  it('down a corner it is the same section', () => {
    expect(Math.abs(areaOf([cornerSection({ profile, size: 10 })]))).toBeCloseTo(100 * AREA[profile], 9);
  });
  it('is as wide as its size at the face, never widens below, and is nothing past its foot', () => {
    const of = { profile, size: 8, step: 1.5 };
    expect(profileWidth(of, 0)).toBe(8);
    expect(profileWidth(of, 9.5 + 1e-6)).toBe(0);
    const widths = Array.from({ length: 96 }, (_, i) => profileWidth(of, i / 10));
    for (const [i, width] of widths.entries()) {
      expect(width).toBeGreaterThanOrEqual(0);
      if (i > 0) expect(width).toBeLessThanOrEqual(widths[i - 1] + 1e-9);
    }
  });
  it('is drawn from the face to its foot', () => {
    const line = profileLine({ profile, size: 8, step: 1.5 });
    expect(line[0]).toEqual({ x: 8, y: 0 });
    expect(line.at(-1)?.x).toBeCloseTo(0, 9);
    expect(line.at(-1)?.y).toBeCloseTo(9.5, 9);
    for (const { x, y } of line.slice(1, -1))
      expect(x).toBeCloseTo(profileWidth({ profile, size: 8, step: 1.5 }, y), 9);
  });
});
