import { sumOf, upwards } from '../units';
/** The mean of some numbers; there is at least one. */
export const mean = (values: readonly number[]): number => sumOf(values) / values.length;

/** The number in their middle, or the mean of the two there; there is at least one. */
export function median(values: readonly number[]): number {
  const sorted = values.toSorted(upwards);
  return (sorted[Math.floor((sorted.length - 1) / 2)] + sorted[Math.ceil((sorted.length - 1) / 2)]) / 2;
}
