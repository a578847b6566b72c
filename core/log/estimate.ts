import { sumOf } from '../units';
import { median } from './average';
import { inverse, times } from './matrix';

/*
 * What a shop's losses and spreads really are, out of what was read in it: linear, with normal errors, each round in closed form, and
 * readings that cannot well be true weighted out. Nothing outside the shop teaches it; common practice counts as six average readings.
 * The method and its numbers were worked out for Junta by simulation, and two programs agreed on its check values to 1e-11; its parts are
 * standard: conjugate normal means, a mixture with wide errors (Box and Tiao 1968), iterated weights.
 */

/** One number that a reading says, less what was predicted of it just before, mm (or the logarithm of a ratio). */
export interface Row {
  y: number;
  /** What each mean has in it, by its id: so many kerfs, so many joints. */
  a: Readonly<Record<string, number>>;
  /** What the square of each spread has in it, by its id. */
  b: Readonly<Record<string, number>>;
  /** What the gauge and the rounding add, squared. */
  g2: number;
  /** How much of it is left with age, 0 to 1; all of it if missing. */
  f?: number;
  /** `y` is the variance of several alike, with so many degrees of freedom: it teaches spreads alone. */
  df?: number;
  /** Rows of one kind are alike: a poor gauge is told from them. */
  kind?: string;
}

/** A mean that is asked for: what common practice says, and what keeps poor gauges from teaching it (`tau`, in its own unit; no limit if missing). */
export interface MeanAsked {
  id: string;
  practice: number;
  tau?: number;
}
/** A spread that is asked for, with its standard deviation by common practice. */
export interface SpreadAsked {
  id: string;
  practice: number;
}

export interface Question {
  rows: readonly Row[];
  means: readonly MeanAsked[];
  spreads: readonly SpreadAsked[];
  /** How much of common practice is left, 0 to 1: it fades like readings, from the sixth one on. */
  phi?: number;
  /** The share of gross errors, and how much wider they are. */
  eps?: number;
}

/** A mean as the shop has it, with its standard error. */
export interface MeanFound {
  id: string;
  value: number;
  se: number;
}
/** A spread as the shop has it: its standard deviation, and the degrees of freedom it is known by, common practice among them. */
export interface SpreadFound {
  id: string;
  value: number;
  nu: number;
}
export interface Answer {
  means: MeanFound[];
  spreads: SpreadFound[];
  /** The chance of each row that it is no gross error. */
  weights: number[];
  /** Between every two means, in their order. */
  covariance: number[][];
}

/** Common practice counts as so many average readings. */
export const PRACTICE_READINGS = 6;
/** And for a spread as so many degrees of freedom. */
export const PRACTICE_DF = 10;
/** Farther off than this, in standard deviations, a reading is more likely gross than good (`goodChance` is one half). */
export const ASKED_SD = 3.53750622;
export const GROSS = { eps: 0.02, wide: 10 } as const;
/** A spread is held between these shares of common practice. */
const HELD = { least: 0.2, most: 5 };
const MOST_ROUNDS = 200;
const SAME = 1e-12;
/** The first rounds look with wide eyes: so many times the variance. Spreads are not freed yet there, or 1 mm errors are accepted for ever. */
const WIDE_FIRST = [16, 4] as const;
/** A poor gauge is told from so many rows of a kind. */
const KIND_ROWS = 6;
/** The standard deviation by the median of absolute deviations, of normal numbers (Rousseeuw and Croux 1993). */
const MAD_SD = 1.482602218505602;

/** The chance that a reading is a good one, by how far off it lies in standard deviations, squared. Half at 3.5375. */
export const goodChance = (z2: number, eps: number = GROSS.eps): number =>
  eps === 0 ? 1 : 1 / (1 + (eps / ((1 - eps) * GROSS.wide)) * Math.exp(((1 - 1 / GROSS.wide ** 2) * z2) / 2));

/** Means and spreads as the rows say, with what common practice is worth. Rows of no known mean and no known spread say nothing. */
export function estimate({ rows, means, spreads, phi = 1, eps = GROSS.eps }: Question): Answer {
  const A = rows.map(({ a }) => means.map(({ id }) => a[id] ?? 0));
  const B = rows.map(({ b }) => spreads.map(({ id }) => b[id] ?? 0));
  const df = rows.map((row) => row.df ?? 1);
  const f = rows.map((row) => row.f ?? 1);
  const s02 = spreads.map(({ practice }) => practice ** 2);
  const teaches = teachers(rows, B, s02);
  let d = means.map(() => 0);
  let s2 = [...s02];
  let S: number[][] = [];
  let w: number[] = [];
  let Mi: number[][] = [];
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const wide = WIDE_FIRST[round] ?? 1;
    const v = rows.map(({ g2 }, i) => sumOf(B[i], (b, k) => b * s2[k]) + g2);
    const e = rows.map(({ y, df: of }, i) => (of ? 0 : y - dot(A[i], d)));
    w = rows.map((row, i) => {
      const square = row.df ? Math.max(0, row.df * row.y - (row.df - 1) * v[i]) : e[i] ** 2;
      return v[i] > 0 ? goodChance(square / (v[i] * wide), eps) : 1;
    });
    const said = rows.map((row, i) => (row.df || v[i] <= 0 ? 0 : (f[i] * w[i]) / v[i]));
    ({ S, d } = meansOf(rows, { A, said, f, w, means, phi }));
    if (round < WIDE_FIRST.length) continue;
    const q = rows.map((row, i) =>
      row.df ? row.y : (row.y - dot(A[i], d)) ** 2 + dot(A[i], times(S, A[i])),
    );
    const share = rows.map((_, i) => (teaches[i] && v[i] > 0 ? (f[i] * df[i] * w[i]) / (2 * v[i] ** 2) : 0));
    const M = spreads.map((_, k) =>
      spreads.map(
        (__, l) =>
          sumOf(share, (each, i) => each * B[i][k] * B[i][l]) +
          (k === l ? (phi * PRACTICE_DF) / (2 * s2[k] ** 2) : 0),
      ),
    );
    Mi = spreads.length > 0 ? inverse(M) : [];
    const next = times(
      Mi,
      spreads.map(
        (_, k) =>
          sumOf(share, (each, i) => each * B[i][k] * (q[i] - rows[i].g2)) +
          (phi * PRACTICE_DF * s02[k]) / (2 * s2[k] ** 2),
      ),
    ).map((value, k) => Math.min(HELD.most ** 2 * s02[k], Math.max(HELD.least ** 2 * s02[k], value)));
    const moved = Math.max(0, ...next.map((value, k) => Math.abs(value - s2[k])));
    s2 = next;
    if (moved < SAME && round > WIDE_FIRST.length) break;
  }
  return {
    means: means.map(({ id, practice }, j) => ({ id, value: practice + d[j], se: Math.sqrt(S[j][j]) })),
    spreads: spreads.map(({ id }, k) => ({
      id,
      value: Math.sqrt(s2[k]),
      nu: (2 * s2[k] ** 2) / Mi[k][k],
    })),
    weights: w,
    covariance: S,
  };
}

const dot = (x: readonly number[], y: readonly number[]): number => sumOf(x, (each, i) => each * y[i]);

/** The means, less common practice, and how surely they are known: common practice is worth six readings of the average row that tells of each. */
function meansOf(
  rows: readonly Row[],
  {
    A,
    said,
    f,
    w,
    means,
    phi,
  }: {
    A: readonly (readonly number[])[];
    said: readonly number[];
    f: readonly number[];
    w: readonly number[];
    means: readonly MeanAsked[];
    phi: number;
  },
): { S: number[][]; d: number[] } {
  const L = means.map(({ tau }, j) => {
    const own = rows.flatMap((_, i) => (A[i][j] !== 0 && said[i] > 0 ? [i] : []));
    const weight = sumOf(own, (i) => f[i] * w[i]);
    const info = weight > 0 ? sumOf(own, (i) => said[i] * A[i][j] ** 2) / weight : 0;
    return phi * Math.max(PRACTICE_READINGS * info, tau === undefined ? 0 : 1 / tau ** 2);
  });
  const precision = means.map((_, j) =>
    means.map((__, k) => sumOf(said, (each, i) => each * A[i][j] * A[i][k]) + (j === k ? L[j] : 0)),
  );
  if (means.length === 0) return { S: [], d: [] };
  const S = inverse(precision);
  const d = times(
    S,
    means.map((_, j) => sumOf(said, (each, i) => each * A[i][j] * rows[i].y)),
  );
  return { S, d };
}

/** Which rows teach spreads: those whose gauge is finer than what it looks for, or than half of what rows of its kind scatter by. */
function teachers(
  rows: readonly Row[],
  B: readonly (readonly number[])[],
  s02: readonly number[],
): boolean[] {
  const byKind = new Map<string, number[]>();
  for (const { kind, y, df } of rows)
    if (kind !== undefined && !df) byKind.set(kind, [...(byKind.get(kind) ?? []), y]);
  const scatter = new Map(
    [...byKind].map(([kind, all]) => {
      const middle = median(all);
      return [
        kind,
        all.length >= KIND_ROWS ? (MAD_SD * median(all.map((y) => Math.abs(y - middle)))) ** 2 / 2 : 0,
      ] as const;
    }),
  );
  return rows.map(
    ({ g2, kind }, i) =>
      B[i].some((b) => b > 0) && g2 <= Math.max(dot(B[i], s02), (kind && scatter.get(kind)) || 0),
  );
}
