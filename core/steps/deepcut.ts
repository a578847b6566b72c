import { countNeeded } from '../units';

/** One cut through a thick piece: from which face, how deep, and whether anything guides the saw. */
export interface DeepCut {
  from: 'upper' | 'lower';
  deepMm: number;
  guided: boolean;
}

/** The ways through a piece, the simplest first. */
export const CUT_WAYS = [
  { value: 'one', label: 'In one cut' },
  { value: 'both', label: 'From both faces' },
  { value: 'third', label: 'From both faces, and a third cut without the guide' },
  { value: 'hand', label: 'From both faces, the rest by hand' },
] as const;
export type CutWay = (typeof CUT_WAYS)[number]['value'];

/** The settings of a step that squares pieces: how it comes through, and where the square stands. */
export const SQUARED_FIELDS = {
  way: {
    is: 'choice',
    options: CUT_WAYS,
    label: 'Through the thickness',
    group: 'How it is cut',
    optional: true,
    carried: true,
  },
  square: {
    is: 'choice',
    options: [
      { value: 'near', label: 'Near edge' },
      { value: 'far', label: 'Far edge' },
    ],
    label: 'The square stands on',
    group: 'How it is cut',
    optional: true,
    carried: true,
  },
} as const;

/** Cuts of one way, and how much they have to spare; what they leave between them is below zero, mm. */
export interface CutsThrough {
  cuts: DeepCut[];
  overMm: number;
}

/**
 * How far a saw comes through a piece, mm: guided from one face or both, and once more, free and deeper, in the kerf of the
 * upper one. `freeMm` is how deep it cuts without its guide, no less than with it.
 */
export function cutsThrough(
  way: CutWay,
  thickMm: number,
  { guidedMm, freeMm }: { guidedMm: number; freeMm: number },
): CutsThrough {
  const free = Math.max(guidedMm, freeMm);
  const upper: DeepCut = { from: 'upper', deepMm: Math.min(guidedMm, thickMm), guided: true };
  if (way === 'one') return { cuts: [upper], overMm: guidedMm - thickMm };
  const lower: DeepCut = { from: 'lower', deepMm: Math.min(guidedMm, thickMm), guided: true };
  if (way === 'third')
    return {
      cuts: [lower, upper, { from: 'upper', deepMm: Math.min(free, thickMm), guided: false }],
      overMm: guidedMm + free - thickMm,
    };
  return { cuts: [upper, lower], overMm: 2 * guidedMm - thickMm };
}

/** The simplest way that comes through; by hand where none does. A saw without a limit comes through at once. */
export function wayThrough(thickMm: number, reach: { guidedMm: number; freeMm: number }): CutWay {
  if (!(reach.guidedMm > 0)) return 'one';
  return (
    (['one', 'both', 'third'] as const).find((way) => cutsThrough(way, thickMm, reach).overMm >= -1e-6) ??
    'hand'
  );
}

/** Resawing from both edges at a saw with a fence, the rest on another: heights of the blade, cuts, and what is left standing, mm. */
export function resawFromEdges(
  highMm: number,
  deepMm: number,
  raiseMm: number,
): { heights: number; cuts: number; leftMm: number } {
  const deep = Math.min(deepMm, highMm / 2);
  const heights = raiseMm > 0 ? countNeeded(deep / raiseMm) : 1;
  return { heights, cuts: 2 * heights, leftMm: highMm - 2 * deep };
}
