import type { Finding } from '../../document';
import { type Axis, type Blank, compensatedSum, contacts } from '../../solid';
import { keyOf, upwards } from '../../units';
import type { WorkPiece } from '../timeline';
import { overlapOf } from './overlap';
import type { GlueStep } from './step';

/** A part as it is laid. */
interface LaidPiece {
  work: WorkPiece;
}

/** What the joints of a glue-up come to. */
export interface Glued {
  areaMm2: number;
  joints: number;
  /** The first part that no glue ties to the first one, counted from 1. */
  alone?: number;
}

/** The first part that no chain of joints ties to the first one, counted from 1; undefined where all hang together. */
function firstAlone(count: number, pairs: readonly (readonly [number, number])[]): number | undefined {
  const to = Array.from({ length: count }, (_, i) => i);
  const root = (i: number): number => {
    let at = i;
    while (to[at] !== at) at = to[at] = to[to[at]];
    return at;
  };
  for (const [a, b] of pairs) to[Math.max(root(a), root(b))] = Math.min(root(a), root(b));
  const at = to.findIndex((_, i) => root(i) !== 0);
  return at < 0 ? undefined : at + 1;
}

/** A part that no chain of joints ties to the first. */
export const apart = (step: GlueStep, parts: number, alone: number): Finding => ({
  code: 'parts-apart',
  step: step.id,
  severity: 'warning',
  message: [
    'Part ',
    { count: alone },
    ' of ',
    { count: parts },
    ' is tied to the first by no joint: nothing holds them together. Close the gap, or lay in a part that reaches over it.',
  ],
  numbers: { part: alone, parts },
  fixes: [],
});

/**
 * Area glued between different parts, mm2, and how many pairs of parts meet. Of parts butted along one axis only faces
 * across it can meet, so only they are compared.
 */
export function glueOf(blank: Blank, owner: readonly number[], axis?: Axis): Glued {
  const met = contacts(blank, axis).filter((c) => owner[c.a] !== owner[c.b]);
  const pairs = new Set(met.map(({ a, b }) => keyOf([owner[a], owner[b]].sort(upwards))));
  const count = owner.length > 0 ? owner[owner.length - 1] + 1 : 0;
  const alone = firstAlone(
    count,
    met.map(({ a, b }) => [owner[a], owner[b]]),
  );
  return {
    areaMm2: compensatedSum(met.map((c) => c.areaMm2)),
    joints: pairs.size,
    ...(alone === undefined ? {} : { alone }),
  };
}

/** Parts that would have to be in one place at once: said with the volume, since no clamp closes such a joint. */
export function overlaps(step: GlueStep, parts: readonly LaidPiece[], blank: Blank): Finding[] {
  let at = 0;
  const placed = parts.map(({ work }) => {
    const { length } = work.blank.cells;
    at += length;
    return { cells: blank.cells.slice(at - length, at) };
  });
  const worst = overlapOf(placed);
  if (!worst) return [];
  return [
    {
      code: 'parts-overlap',
      step: step.id,
      severity: 'warning' as const,
      message: [
        `Parts ${worst.a + 1} and ${worst.b + 1} would lie in one another by `,
        { mm3: worst.volumeMm3 },
        ': as placed they cannot be glued.',
      ],
      numbers: { first: worst.a + 1, second: worst.b + 1, volume: worst.volumeMm3 },
      fixes: [],
    },
  ];
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** A part of a glue-up is tied to the first by no joint. */
    'parts-apart': true;
    /** Parts would have to be in one place at once. */
    'parts-overlap': true;
  }
}
