import { describe, expect, it } from 'vitest';
import {
  colourDifference,
  COMMON_NAMES,
  cssColour,
  density,
  findSpecies,
  labDifference,
  linearToByte,
  LOOKS,
  lookOf,
  noise,
  okLabToLinear,
  seasonalChange,
  SPECIES,
  speciesName,
  woodAt,
  type OkLab,
  type Sample,
} from '.';
import pairs from './ciede2000.data.json';

describe('reference data of woods', () => {
  it('covers at least 45 woods, each with a density, a certainty and a look', () => {
    expect(SPECIES.length).toBeGreaterThanOrEqual(45);
    for (const species of SPECIES) {
      expect(species.specificGravity12).toBeGreaterThan(0.1);
      expect(Object.keys(species.certainty).length).toBeGreaterThan(2);
      expect(Object.values(LOOKS)).toContain(lookOf(species.id));
    }
  });
  it('names each of them, and nothing else; a wood that is not known is called by its id', () => {
    expect(SPECIES.map(({ id }) => id).toSorted()).toEqual(Object.keys(COMMON_NAMES).toSorted());
    for (const { id, common } of SPECIES)
      expect([common.length > 2, speciesName(id)]).toEqual([true, common]);
    expect(speciesName('bog_oak')).toBe('bog_oak');
    expect(speciesName('constructor')).toBe('constructor');
  });
  it('coefficients agree with shrinkage by the handbook’s relation C = S/(3000 - 20 S) where the values are its own', () => {
    // Wood Handbook ch. 13: coefficient from shrinkage at 10 % mean moisture; from memory. Group entries and imports differ.
    const agreeing = SPECIES.filter(
      ({ shrinkageTangentialPct: s, coefficientTangential: c }) =>
        s && Math.abs(s / (3000 - 20 * s) - c) < 0.00002,
    );
    expect(agreeing.length / SPECIES.length).toBeGreaterThan(0.6);
  });
  it('density and seasonal change by the handbook', () => {
    const maple = findSpecies('maple_sugar');
    if (!maple) throw new Error();
    // Wood Handbook Table 4-6: G 0.50 at 12 % is 560 kg/m3, from memory
    expect(density({ ...maple, specificGravity12: 0.5 }, 12)).toBeCloseTo(560, 9);
    expect(seasonalChange(48, 0.00274, 4)).toBeCloseTo(0.526, 3);
    // Wood Handbook ch. 13, worked example: white fir 232 mm, 8 to 11 %, C 0.00245: 1.705 mm; from memory
    expect(seasonalChange(232, 0.00245, 3)).toBeCloseTo(1.705, 3);
  });
});

describe('colour', () => {
  it('differences agree with all published CIEDE2000 pairs (Sharma, Wu and Dalal 2005, from memory)', () => {
    expect(pairs.pairs).toHaveLength(34);
    for (const { lab1, lab2, dE00 } of pairs.pairs) expect(labDifference(lab1, lab2)).toBeCloseTo(dE00, 4);
  });
  it('says that walnut and maple differ and a wood does not differ from itself', () => {
    expect(colourDifference(LOOKS.walnut.early, LOOKS.maple.early)).toBeGreaterThan(25);
    expect(colourDifference(LOOKS.ash.early, LOOKS.ash.early)).toBeCloseTo(0, 9);
  });
  it('OKLab white, black and a grey come out as sRGB says', () => {
    const out = new Float64Array(3);
    const bytes = (lab: OkLab) => {
      okLabToLinear(...lab, out);
      return [...out].map(linearToByte);
    };
    expect(bytes([1, 0, 0])).toEqual([255, 255, 255]);
    expect(bytes([0, 0, 0])).toEqual([0, 0, 0]);
    expect(bytes([0.5999, 0, 0])[0]).toBeCloseTo(128, -1);
    expect(cssColour([0.5, 0.1, -0.1])).toBe('oklab(0.5 0.1 -0.1)');
  });
});

describe('figure', () => {
  const at = (x: number, y: number, z: number, look = LOOKS.walnut, change: Partial<Sample> = {}) => {
    const out = new Float64Array(3);
    woodAt(x, y, z, { look, seed: 5, shade: 2, nx: 0, ny: 1, nz: 0, px: 0.3, ...change }, out);
    return [...out];
  };
  it('is the same for the same place of the same log', () => {
    expect(at(12.3, 60.1, 400)).toEqual(at(12.3, 60.1, 400));
    expect(at(12.3, 60.1, 400)).not.toEqual(at(12.3, 60.1, 400, LOOKS.walnut, { seed: 6 }));
  });
  it('stays a colour everywhere, for every wood', () => {
    for (const look of Object.values(LOOKS))
      for (let i = 0; i < 300; i++) {
        const [L, a, b] = at(i * 0.83 - 100, ((i * 37) % 160) - 40, i * 9.1, look, {
          px: 0.1 + (i % 20) / 5,
        });
        expect(L).toBeGreaterThan(0.08);
        expect(L).toBeLessThan(1);
        expect(Math.hypot(a, b)).toBeLessThan(0.25);
      }
  });
  it('shows about as many rings along a radius as the wood has', () => {
    const pine = LOOKS.pine;
    let rises = 0;
    let dark = false;
    const middle = (pine.early[0] + pine.late[0]) / 2 - 0.02;
    for (let r = 60; r < 160; r += 0.1) {
      const now = at(0, r, 10, pine, { px: 0.05 })[0] < middle;
      if (now && !dark) rises++;
      dark = now;
    }
    expect(rises).toBeGreaterThan(100 / pine.ringMm / 1.7);
    expect(rises).toBeLessThan((100 / pine.ringMm) * 1.7);
  });
  it('has no seam where the turn around the pith closes', () => {
    for (const look of [LOOKS.beech, LOOKS.whiteOak, LOOKS.maple])
      for (let r = 20; r < 120; r += 7) {
        let jump = 0;
        for (let z = 0; z < 60; z += 3)
          jump += Math.abs(at(-r, 1e-6, z, look)[0] - at(-r, -1e-6, z, look)[0]);
        expect(jump / 20).toBeLessThan(0.004);
      }
  });
  it('fades to its mean when rings get finer than pixels', () => {
    const spreadAt = (px: number) => {
      const values = Array.from(
        { length: 200 },
        (_, i) => at(0, 60 + i * 0.37, 5, LOOKS.pine, { px, nx: 1, ny: 0 })[0],
      );
      return Math.max(...values) - Math.min(...values);
    };
    expect(spreadAt(12)).toBeLessThan(spreadAt(0.1) * 0.7);
  });
  it('is darker on end grain', () => {
    const mean = (change: Partial<Sample>) =>
      Array.from({ length: 100 }, (_, i) => at(i, 70, i * 3, LOOKS.maple, change)[0]).reduce(
        (a, b) => a + b,
      ) / 100;
    expect(mean({ nx: 0, ny: 0, nz: 1 })).toBeLessThan(mean({}) - 0.05);
  });
  it('its noise has zero mean and no value far out', () => {
    let sum = 0;
    let most = 0;
    for (let i = 0; i < 20000; i++) {
      const v = noise(i * 0.173, i * 0.0931, i * 0.0517, 4);
      sum += v;
      most = Math.max(most, Math.abs(v));
    }
    expect(Math.abs(sum / 20000)).toBeLessThan(0.03);
    expect(most).toBeLessThan(1.4);
    expect(most).toBeGreaterThan(0.5);
  });
});
