/** A symmetric positive definite matrix of which only a band is not zero: row i holds columns i - half to i. */
export interface Band {
  size: number;
  half: number;
  /** Row after row, half + 1 numbers each; the last is the diagonal. */
  values: Float64Array;
}

/** An empty band matrix. */
export const bandOf = (size: number, half: number): Band => ({
  size,
  half,
  values: new Float64Array(size * (half + 1)),
});

/** Adds to the entry at row and column, whichever half it lies in; outside the band is an error of the caller. */
export function addTo({ half, values }: Band, row: number, column: number, value: number): void {
  const [i, j] = row >= column ? [row, column] : [column, row];
  values[i * (half + 1) + (j - i + half)] += value;
}

/** Boards so far from any real ones that their system of equations cannot be solved in floating point. */
export class NotSolvable extends Error {}

/** Cholesky's decomposition in place: the band becomes its lower factor. Throws `NotSolvable` where it is not positive definite. */
export function factorBand({ size, half, values }: Band): void {
  const w = half + 1;
  for (let i = 0; i < size; i++) {
    const first = Math.max(0, i - half);
    for (let j = first; j <= i; j++) {
      let sum = values[i * w + (j - i + half)];
      const from = Math.max(first, j - half);
      const a = i * w - i + half;
      const b = j * w - j + half;
      for (let k = from; k < j; k++) sum -= values[a + k] * values[b + k];
      if (i === j) {
        if (!(sum > 0)) throw new NotSolvable(`factorBand: not positive definite at row ${i}`);
        values[a + i] = Math.sqrt(sum);
      } else values[a + j] = sum / values[b + j];
    }
  }
}

/** Far from a load answers fade to numbers so small that processors slow down a hundredfold: they count as nothing. */
const NOTHING = 1e-150;

/** Solves with a factored band, in place; the right side is zero before row `first`. */
export function solveBand({ size, half, values }: Band, x: Float64Array, first = 0): void {
  const w = half + 1;
  for (let i = first; i < size; i++) {
    const a = i * w - i + half;
    let sum = x[i];
    for (let k = Math.max(first, i - half); k < i; k++) sum -= values[a + k] * x[k];
    x[i] = Math.abs(sum) < NOTHING ? 0 : sum / values[a + i];
  }
  for (let i = size - 1; i >= 0; i--) {
    const a = i * w - i + half;
    const value = x[i] / values[a + i];
    x[i] = value;
    for (let k = Math.max(0, i - half); k < i; k++) x[k] -= values[a + k] * value;
  }
}
