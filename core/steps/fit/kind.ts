import type { Edit, FindingCode, Phrase } from '../../document';
import type { Axis, Vec3 } from '../../solid';
import type { ChoiceField, Field, LengthField } from '../field';
import type { Fact } from '../fact';
import type { Moves, Swing } from '../swing';
import type { FittingBase } from './model';

/** A piece as something is fitted to it. */
export interface FitPlace {
  /** Length, width and thickness, mm. */
  size: Vec3;
  swing: Swing;
  /** How far it moves along an axis over the year, or what of it lies between two places. */
  moves: (axis: Axis, within?: readonly [number, number]) => Moves;
  /** A size as this shop sets it, rounded up: no slot, gap or relief is cut too small. */
  up: (mm: number) => number;
}

/** What can be wrong with a fitting. */
export const FIT_CODES = [
  'held-across-grain',
  'relief-short',
  'slot-short',
  'gap-short',
  'does-not-fit',
  'edges-waited',
] as const satisfies FindingCode[];

/** A change of a fitting, or of the job, that may mend what will not do. */
export interface FitFix<F> {
  label: string;
  change?: Partial<F>;
  edit?: Edit;
}

/** What will not do about a fitting, with its number and changes that may mend it. */
export interface FitProblem<F> {
  code: (typeof FIT_CODES)[number];
  severity: 'warning' | 'stop';
  message: Phrase[];
  numbers: Record<string, number>;
  fixes: FitFix<F>[];
}

/** A fitting held against a year of movement. */
export interface FitReport<F> {
  facts: Fact[];
  problems: FitProblem<F>[];
}

/** A field of a fitting: what a step’s field is, with its words. */
export type FittingField<T> = Field<T> & {
  label: string;
  optional?: true;
  /** Asked for only where it matters. */
  when?: (fitting: never) => boolean;
};
type OwnName<F extends FittingBase> = Exclude<keyof F, keyof FittingBase | 'kind'>;
/** One field for each setting of a kind: one that is missing, superfluous or of another type does not compile. */
export type FittingFields<F extends FittingBase> = {
  [K in OwnName<F>]-?: FittingField<NonNullable<F[K]>> &
    (Record<never, never> extends Pick<F, K> ? { optional: true } : { optional?: never });
};

/** All that Junta knows of one kind of fitting. */
export interface FittingKind<F extends FittingBase & { kind: string }> {
  kind: F['kind'];
  /** The trade’s name for it. */
  name: string;
  /** What it is, in one sentence. */
  says: string;
  fields: FittingFields<F>;
  /** Settings it begins with, on a piece. */
  begin: (at: FitPlace) => Omit<F, keyof FittingBase | 'kind'>;
  report: (fitting: F, at: FitPlace) => FitReport<F>;
}

/** A length that is asked for, mm. */
export const fitLength = (label: string, most = 5000, least = 0): LengthField & { label: string } => ({
  is: 'length',
  least,
  most,
  label,
});

/** Where a piece is held, from where it moves. */
export type HeldAt = 'middle' | 'near' | 'far' | 'all';
export const HELD_AT: ChoiceField<HeldAt> & { label: string } = {
  is: 'choice',
  label: 'Glued or fixed',
  options: [
    { value: 'middle', label: 'In the middle only' },
    { value: 'near', label: 'At the near edge only' },
    { value: 'far', label: 'At the far edge only' },
    { value: 'all', label: 'All along' },
  ],
};

/** Less movement than this is taken up by wood and glue, mm (common practice). */
export const TAKEN_UP_MM = 1;

/** The stretch of the width from where it is held to the side that is farther from it; both halves of a piece held in its middle. */
export function stretches(held: HeldAt, widthMm: number): (readonly [number, number])[] {
  return held === 'middle' || held === 'all'
    ? [
        [0, widthMm / 2],
        [widthMm / 2, widthMm],
      ]
    : [[0, widthMm]];
}

/** How far the free side of a piece goes from where it is held: the half that moves most, where it is held in the middle. */
export function sideMoves(held: HeldAt, { size, moves }: FitPlace): Moves {
  const each = stretches(held, size[1]).map((within) => moves(1, within));
  return { out: Math.max(...each.map(({ out }) => out)), in: Math.max(...each.map((m) => m.in)) };
}

/** How far a place so far from where it is held moves: on the side that moves more. */
export function placeMoves(held: HeldAt, fromHeldMm: number, { size, moves }: FitPlace): Moves {
  const w = size[1];
  const pin = held === 'near' ? 0 : held === 'far' ? w : w / 2;
  const each = (held === 'near' ? [1] : held === 'far' ? [-1] : [1, -1]).map((way) => {
    const to = Math.min(w, Math.max(0, pin + way * fromHeldMm));
    return moves(1, [Math.min(pin, to), Math.max(pin, to)]);
  });
  return { out: Math.max(...each.map(({ out }) => out)), in: Math.max(...each.map((m) => m.in)) };
}

/** The finding of wood that is held fast across its grain. */
export const heldFast = <F>(
  who: string,
  { out, in: inwards }: Moves,
  fixes: FitProblem<F>['fixes'],
): FitProblem<F> => ({
  code: 'held-across-grain',
  severity: 'warning',
  message: [
    `${who} is fixed all along, across the grain: over the year the wood wants to go `,
    { mm: out },
    ' out and ',
    { mm: inwards },
    ' in, and is held. It cracks or bows; hold it in one place and let it slide in the others.',
  ],
  numbers: { out, in: inwards },
  fixes,
});

/** What a slot must be for a bolt or pin that moves in it, with the movement each way. */
export const slotFor = (boltMm: number, { out, in: inwards }: Moves, spareMm: number): number =>
  boltMm + out + inwards + spareMm;

declare module '../../document/finding' {
  interface FindingCodes {
    /** Something is fixed all along to wood that moves across it. */
    'held-across-grain': true;
    /** Room left for movement, at the end of a groove or a tenon, that is less than it takes. */
    'relief-short': true;
    /** A slot, or a fixing that swings, that is shorter than the movement. */
    'slot-short': true;
    /** A gap that closes in the damp months, or a piece that leaves its groove in the dry ones. */
    'gap-short': true;
    /** A piece that grows shorter or wider than what it must fit. */
    'does-not-fit': true;
    /** Edges that waited since they were jointed. */
    'edges-waited': true;
  }
}
