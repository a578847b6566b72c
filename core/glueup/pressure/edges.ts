import { countNeeded } from '../../units';

/**
 * How an edge was found or is made. The depth is that of the gap between the two edges of a joint, mm: sprung is open
 * in the middle, crowned at the ends, wavy from valley to peak over and over.
 */
export interface EdgeShape {
  shape: 'straight' | 'sprung' | 'crowned' | 'wavy';
  depthMm: number;
  /** From peak to peak of a wave, mm. */
  waveMm?: number;
}

/** The gap of a joint before clamping, mm at x mm from its left end. */
export function gapOf(edge: EdgeShape, length: number): ((x: number) => number) | undefined {
  const depth = edge.depthMm;
  if (edge.shape === 'straight' || depth <= 0) return undefined;
  const off = (x: number) => (2 * x) / length - 1;
  if (edge.shape === 'sprung') return (x) => depth * (1 - off(x) ** 2);
  if (edge.shape === 'crowned') return (x) => depth * off(x) ** 2;
  const wave = edge.waveMm ?? 200;
  return (x) => (depth / 2) * (1 - Math.cos((2 * Math.PI * x) / wave));
}

/**
 * Plane strokes that bring a measured hollow (negative: a crown) of one edge to the wanted one, mm; stopped strokes in
 * the middle deepen it, strokes over the whole length take it back, one shaving each.
 */
export function strokesTo(
  measuredMm: number,
  wantedMm: number,
  shavingMm: number,
): { strokes: number; where: 'middle' | 'whole length' | 'none' } {
  const short = wantedMm - measuredMm;
  // Half a shaving off is as near as a plane comes.
  const strokes = Math.max(0, countNeeded(Math.abs(short) / shavingMm - 0.5));
  return { strokes, where: strokes === 0 ? 'none' : short > 0 ? 'middle' : 'whole length' };
}
