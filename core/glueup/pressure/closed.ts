import { sumOf } from '../../units';
import type { PlaneElastic } from '../../wood';

/*
 * Closed forms of plane elasticity for glue lines: tests of the solver, and quick answers. x runs along the grain and
 * the glue line, y across; pressure is positive. Sources: stress function of an orthotropic plane (Lekhnitskii,
 * Anisotropic Plates), Flamant's half-plane (Timoshenko and Goodier, Theory of Elasticity), Timoshenko's beam.
 */

/**
 * Roots l1 > l2 of an orthotropic plane: l^2 = (s +- sqrt(s^2 - 4 p))/2 with s = Ex/G - 2 nu and p = Ex/Ey. Isotropic:
 * both 1. Where they meet or would be complex (rare in wood) they are set 1e-3 apart, so that the forms below hold.
 */
export function roots({ Ex, Ey, G, nu }: PlaneElastic): [number, number] {
  const s = Ex / G - 2 * nu;
  const p = Ex / Ey;
  const apart = Math.sqrt(Math.max(0, s * s - 4 * p));
  const l1 = Math.sqrt((s + apart) / 2);
  const l2 = Math.sqrt((s - apart) / 2);
  return l1 - l2 > 1e-3 ? [l1, l2] : [(l1 + l2) / 2 + 5e-4, (l1 + l2) / 2 - 5e-4];
}

/** Pressure (MPa) at x along a line `depth` mm under a point force (N) on a half-plane `thickness` mm thick. */
export function halfPlane(
  x: number,
  {
    depth,
    force,
    thickness,
    roots: [l1, l2],
  }: { depth: number; force: number; thickness: number; roots: readonly [number, number] },
): number {
  const over = force * l1 * l2 * (l1 + l2) * depth ** 3;
  return over / (Math.PI * thickness * (x * x + (l1 * depth) ** 2) * (x * x + (l2 * depth) ** 2));
}

/** Share of a harmonic load that reaches the line between two equal boards; kappa is its wave number times the width. */
export function transfer(kappa: number, [l1, l2]: readonly [number, number]): number {
  if (kappa < 1e-9) return 1;
  // Hyperbolic functions divided by their greatest growth, so that nothing overflows.
  const sinhOver = (a: number, b: number) => (Math.exp(-b * kappa) - Math.exp(-(2 * a + b) * kappa)) / 2;
  const [e1, e2] = [Math.exp(-2 * l1 * kappa), Math.exp(-2 * l2 * kappa)];
  const over = l2 * sinhOver(l2, l1) - l1 * sinhOver(l1, l2);
  return over / ((l2 * (1 - e2) * (1 + e1) - l1 * (1 - e1) * (1 + e2)) / 4);
}

const sinc = (x: number): number => (Math.abs(x) < 1e-9 ? 1 : Math.sin(x) / x);

/**
 * Pressure over its mean at x between two equal boards under clamps in an endless row: spacing, board width and pad in
 * mm, a clamp at x = 0. No lift-off: below zero it says that the line would open.
 */
export function rowPressure(
  x: number,
  { spacing, width, pad, r }: { spacing: number; width: number; pad: number; r: readonly [number, number] },
): number {
  let sum = 1;
  for (let n = 1; n < 400; n++) {
    const k = (2 * Math.PI * n) / spacing;
    const share = transfer(k * width, r);
    sum += 2 * share * sinc((k * pad) / 2) * Math.cos(k * x);
    if (Math.abs(share) < 1e-12) break;
  }
  return sum;
}

/** How far a board's edge gives under a harmonic pressure, mm per MPa: loaded alike on both edges, and oppositely. */
export function edgeCompliance(
  wave: number,
  width: number,
  wood: PlaneElastic,
): { same: number; opposite: number } {
  const [l1, l2] = roots(wood);
  const q = (wave * width) / 2;
  const a = (l1 * l2 * (l1 * l1 - l2 * l2)) / wood.Ex;
  const [s1, c1, s2, c2] = [Math.sinh(l1 * q), Math.cosh(l1 * q), Math.sinh(l2 * q), Math.cosh(l2 * q)];
  return {
    same: (a * s1 * s2) / (l1 * s1 * c2 - l2 * s2 * c1),
    opposite: (a * c1 * c2) / (l1 * c1 * s2 - l2 * c2 * s1),
  };
}

/** Pressure it takes to press a board's wavy edge flat, MPa per mm of amplitude, at a wavelength in mm. */
export function closingStiffness(wavelength: number, width: number, wood: PlaneElastic): number {
  const wave = (2 * Math.PI) / wavelength;
  const { same, opposite } = edgeCompliance(wave, width, wood);
  return (2 * wave) / (same + opposite);
}

/**
 * Pressure that only closes a wave between two boards, MPa: `amplitude` is half of peak to valley of the gap, mm. Two
 * springs in a row: each board gives by its own share.
 */
export const pressureToClose = (
  amplitude: number,
  wavelength: number,
  a: { width: number; wood: PlaneElastic },
  b: { width: number; wood: PlaneElastic },
): number =>
  amplitude /
  (1 / closingStiffness(wavelength, a.width, a.wood) + 1 / closingStiffness(wavelength, b.width, b.wood));

/**
 * Force of one clamp in the middle that just closes a hollow along the whole length between two boards, N (Timoshenko's
 * beam, shear coefficient 5/6): hollow, length, widths and thickness in mm.
 */
export function forceToClose(
  hollow: number,
  length: number,
  thickness: number,
  boards: readonly { width: number; wood: PlaneElastic }[],
): number {
  const give = boards.map(({ width, wood }) => {
    const inertia = (thickness * width ** 3) / 12;
    return length ** 3 / (48 * wood.Ex * inertia) + length / (4 * (5 / 6) * wood.G * width * thickness);
  });
  return hollow / sumOf(give);
}

/**
 * Pressure of one harmonic on every glue line of a panel, for a unit harmonic at both outer edges. Mirrors the ends, so
 * it holds from about one and a half board widths inwards. Boards from one edge to the other.
 */
export function harmonicLines(
  wave: number,
  boards: readonly { width: number; wood: PlaneElastic }[],
): number[] {
  const parts = boards.map(({ width, wood }) => edgeCompliance(wave, width, wood));
  const lines = boards.length - 1;
  const diag = Array.from(
    { length: lines },
    (_, i) => parts[i].same + parts[i].opposite + parts[i + 1].same + parts[i + 1].opposite,
  );
  const off = parts.map(({ same, opposite }) => same - opposite);
  const right = Array.from(
    { length: lines },
    (_, i) => -(i === 0 ? off[0] : 0) - (i === lines - 1 ? off[boards.length - 1] : 0),
  );
  // Three diagonals, by elimination.
  for (let i = 1; i < lines; i++) {
    const m = off[i] / diag[i - 1];
    diag[i] -= m * off[i];
    right[i] -= m * right[i - 1];
  }
  const p = Array.from({ length: lines }, () => 0);
  for (let i = lines - 1; i >= 0; i--)
    p[i] = (right[i] - (i + 1 < lines ? off[i + 1] * p[i + 1] : 0)) / diag[i];
  return p;
}
