import { sumOf } from '../units';
/** A symmetric, positive definite matrix, whole. */
export type Matrix = readonly (readonly number[])[];

/**
 * The inverse of a symmetric, positive definite matrix, by Cholesky's decomposition (Golub and Van Loan, Matrix Computations, 4.2).
 * Throws where it is not positive definite: nothing was known of one of its directions.
 */
export function inverse(matrix: Matrix): number[][] {
  const n = matrix.length;
  const root = matrix.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i][j];
      for (let k = 0; k < j; k++) sum -= root[i][k] * root[j][k];
      if (i !== j) root[i][j] = sum / root[j][j];
      else if (sum > 0) root[i][i] = Math.sqrt(sum);
      else throw new Error(`inverse: not positive definite in direction ${i + 1} of ${n}`);
    }
  const out = matrix.map(() => new Array<number>(n).fill(0));
  for (let column = 0; column < n; column++) {
    const x = new Array<number>(n).fill(0);
    for (let i = 0; i < n; i++) {
      let sum = i === column ? 1 : 0;
      for (let k = 0; k < i; k++) sum -= root[i][k] * x[k];
      x[i] = sum / root[i][i];
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = x[i];
      for (let k = i + 1; k < n; k++) sum -= root[k][i] * x[k];
      x[i] = sum / root[i][i];
    }
    for (let i = 0; i < n; i++) out[i][column] = x[i];
  }
  return out;
}

/** A matrix times a column. */
export const times = (matrix: Matrix, column: readonly number[]): number[] =>
  matrix.map((row) => sumOf(row, (value, i) => value * column[i]));
