import type { Length } from '../../units';

/** The sides of a piece that something can be cut into. */
export const SIDES_OF_PIECE = [
  { value: 'upper', label: 'Upper face' },
  { value: 'lower', label: 'Lower face' },
  { value: 'near', label: 'Near edge' },
  { value: 'far', label: 'Far edge' },
  { value: 'left', label: 'Left end' },
  { value: 'right', label: 'Right end' },
] as const;
export type PieceSide = (typeof SIDES_OF_PIECE)[number]['value'];

/** From where a place is measured. */
export const FROM = [
  { value: 'low', label: 'The left or near edge' },
  { value: 'middle', label: 'The middle' },
  { value: 'high', label: 'The right or far edge' },
  { value: 'joint', label: 'A joint' },
  { value: 'feature', label: 'Another feature' },
] as const;

/** A place along one direction of a side: so far from an edge towards the other, or past the middle, a joint or another feature. */
export interface Place1 {
  from: (typeof FROM)[number]['value'];
  by: Length;
  /** The joint, counted from 1 from the left or near edge. */
  joint?: number;
  /** The other feature, by its id: its first place counts. */
  feature?: string;
}

/** Several alike in a row: from the first at a pitch, or so many between margins. */
export interface Row {
  along: 'u' | 'v';
  /** From one to the next; the first stands at the place, the last so that `keepOut` is left to the far side. */
  pitch?: Length;
  keepOut?: Length;
  /** Or so many, spread evenly from the place to a margin from the far side. */
  count?: number;
  margin?: Length;
  /** A second row, so far off, at every n-th of the first, halfway to the next. */
  second?: { off: Length; every: number };
}

/** What every feature has, whatever its kind. */
export interface FeatureBase {
  id: string;
  name?: string;
  side: PieceSide;
  /** Its middle along the side’s length, and across it: across the width of a face, up an edge or end. */
  u: Place1;
  v: Place1;
  row?: Row;
  /** The same again, mirrored about the middle: along, across, or both. */
  mirror?: 'u' | 'v' | 'both';
  /** The cutter, bit or drill of the kit that makes it. */
  bit?: string;
  /** A template or jig that guides it, with the bushing that runs in it. */
  guide?: Guide;
}

/** A bushing in a template or jig: for a router it runs along the template’s line, for a drill the drill runs in it. */
export interface Guide {
  outer: Length;
  inner: Length;
  /** How thick the template, or how long the bushing that holds the drill. */
  thick: Length;
}

/** The kinds of feature by their names, each with its settings. Open on purpose: each declares its own in kinds/. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled by the kinds
export interface FeatureKinds {}
export type FeatureKindName = keyof FeatureKinds;
/** A feature of any kind. */
export type Feature = FeatureKinds[FeatureKindName];
