import type { Display } from './display';

/** Quantities that are typed as bare numbers in a field, in the reader's own unit. */
interface Dialled {
  unit: string;
  /** From the unit that is stored (N, MPa, degrees Celsius) and back. */
  shown: (stored: number) => number;
  stored: (shown: number) => number;
}

/** Kilograms in a pound and grams in an ounce, and a square foot in square metres, exact. */
const LB = 0.45359237;
const OZ = 28.349523125;
const SQUARE_FOOT = 0.09290304;

/** Newtons in a pound-force and megapascals in a pound per square inch, of the international pound, 1959. */
const LBF = 4.4482216152605;
const PSI = 0.006894757293168;

const scaled = (unit: string, by: number, places: number): Dialled => ({
  unit,
  shown: (stored) => Number((stored / by).toFixed(places)),
  stored: (shown) => shown * by,
});

const DIALLED = {
  force: { inch: scaled('lbf', LBF, 0), mm: scaled('N', 1, 0) },
  pressure: { inch: scaled('psi', PSI, 2), mm: scaled('MPa', 1, 2) },
  mass: { inch: scaled('lb', LB, 1), mm: scaled('kg', 1, 1) },
  smallMass: { inch: scaled('oz', OZ, 1), mm: scaled('g', 1, 0) },
  spread: { inch: scaled('oz/ft²', OZ / SQUARE_FOOT, 2), mm: scaled('g/m²', 1, 0) },
  stiffness: { inch: scaled('million psi', PSI * 1000, 2), mm: scaled('GPa', 1, 1) },
  temperature: {
    inch: {
      unit: '°F',
      shown: (c: number) => Math.round(c * 1.8 + 32),
      stored: (f: number) => (f - 32) / 1.8,
    },
    mm: scaled('°C', 1, 0),
  },
} as const satisfies Record<string, Record<Display['system'], Dialled>>;

/**
 * How a force (N), a pressure (MPa), a mass (kg), a small one (g), a spread of glue (g/m²), a stiffness (GPa) or a temperature (°C)
 * is typed and shown in the reader's system.
 */
export const dialled = (what: keyof typeof DIALLED, { system }: Display): Dialled => DIALLED[what][system];
