import { countObtainable } from '../units';

/** What a board gives when it is resawn into leaves of one thickness. */
export interface Leaves {
  leaves: number;
  /** Neighbours in the board that open as a book: each leaf in one pair only. */
  pairs: number;
  /** What is left of the thickness after the last cut, mm. */
  restMm: number;
}

/**
 * Leaves from a thickness, all mm: n leaves need n thicknesses and n - 1 kerfs, so floor((T + k) / (t + k)). `faceMm` comes
 * off each face of the board before. None where a size is not more than zero.
 */
export function leavesOf({
  thicknessMm,
  leafMm,
  kerfMm,
  faceMm = 0,
}: {
  thicknessMm: number;
  leafMm: number;
  kerfMm: number;
  faceMm?: number;
}): Leaves {
  const block = thicknessMm - 2 * faceMm;
  if (!(block > 0 && leafMm > 0 && kerfMm >= 0)) return { leaves: 0, pairs: 0, restMm: Math.max(0, block) };
  const leaves = Math.max(0, countObtainable((block + kerfMm) / (leafMm + kerfMm)));
  const used = leaves * leafMm + Math.max(0, leaves - 1) * kerfMm;
  return { leaves, pairs: Math.floor(leaves / 2), restMm: Math.max(0, block - used) };
}
