import { describe, expect, it } from 'vitest';
import { dialled } from '.';

const inch = { system: 'inch', fraction: 32 } as const;
const mm = { system: 'mm', fraction: 0 } as const;

describe('numbers in a field, in the reader’s unit', () => {
  // International pound, 1959: 1 lbf = 4.4482216 N, 1 psi = 6894.757 Pa; water freezes at 32 °F and boils at 212 °F.
  it.each([
    ['force', 4448.2216, 1000, 'lbf', 4448],
    ['pressure', 1.0342136, 150, 'psi', 1.03],
    // International pound and foot, 1959: 1 lb = 0.45359237 kg, 1 oz = 28.349523125 g, 1 ft² = 0.09290304 m².
    ['mass', 45.359237, 100, 'lb', 45.4],
    ['smallMass', 283.49523125, 10, 'oz', 283],
    ['spread', 183.09, 0.6, 'oz/ft²', 183],
    ['stiffness', 13.789514, 2, 'million psi', 13.8],
    ['temperature', 0, 32, '°F', 0],
    ['temperature', 100, 212, '°F', 100],
  ] as const)('%s of %d', (what, stored, shown, unit, metric) => {
    const field = dialled(what, inch);
    expect(field.unit).toBe(unit);
    expect(field.shown(stored)).toBe(shown);
    expect(field.stored(shown)).toBeCloseTo(stored, 2);
    expect(dialled(what, mm).shown(stored)).toBe(metric);
    expect(dialled(what, mm).stored(metric)).toBe(metric);
  });
  it('what is typed comes back as typed', () => {
    for (const what of [
      'force',
      'pressure',
      'mass',
      'smallMass',
      'spread',
      'stiffness',
      'temperature',
    ] as const)
      for (const display of [inch, mm])
        for (const typed of [1, 40, 117, 300]) {
          const { shown, stored } = dialled(what, display);
          expect(shown(stored(typed))).toBe(typed);
        }
  });
});
