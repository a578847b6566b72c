import type { AidKind, Applicator, ClampSchool, Tightening } from '../kit';
import type { Length } from '../units';

/** What a piece is for, as far as its glue must know. */
export type GlueUse = 'food' | 'wet' | 'outdoors' | 'oily' | 'dark' | 'thin' | 'slow';

export const GLUE_USES: readonly { id: GlueUse; name: string }[] = [
  { id: 'food', name: 'Food' },
  { id: 'wet', name: 'Gets wet' },
  { id: 'outdoors', name: 'Outdoors' },
  { id: 'oily', name: 'Oily or dense wood' },
  { id: 'dark', name: 'Dark wood' },
  { id: 'thin', name: 'Thin leaves' },
  { id: 'slow', name: 'Slow glue-up' },
];

/** A clamp put where a hand wants it: along the joints from the left end, above or below the piece. */
export interface PlacedClamp {
  id: string;
  at: Length;
  side: 'above' | 'below';
  forceN: number;
  /** Which of the shop's clamps; the plan picks one if missing. */
  set?: string;
}

/** How the edges of a joint were found or are made; depth of the gap between both. Joints count from 1 at the far edge. */
export interface JointEdge {
  joint: number;
  shape: 'straight' | 'sprung' | 'crowned' | 'wavy';
  depth: Length;
  wave?: Length;
}

/** How the two edges of a joint are planed: each by itself; folded together, or with faces opposed, so that errors of the fence cancel. */
export type EdgePairing = 'single' | 'folded' | 'opposed';

/** What came out at a joint. */
export interface JointRecord {
  joint: number;
  squeezeOut?: 'even' | 'lean' | 'open' | 'heavy';
  step?: Length;
}

/** Aids put by hand, and stretches they must keep clear of for a reason Junta cannot see. */
export interface AidPlan {
  kind: AidKind;
  places?: { joint: number; at: Length }[];
  keepOut?: KeptClear[];
  /** A size of its own instead of the usual ones of its kind. */
  own?: OwnAidSize;
}

/** What aids must keep clear of: a stretch along the joints; of one joint only, or between two heights over the lower face. */
export interface KeptClear {
  from: Length;
  to: Length;
  why: string;
  joint?: number;
  low?: Length;
  high?: Length;
}

/** An aid as the maker has it: how thick its hole is, how far it goes into each strip, how long it is along the joint, and where. */
export interface OwnAidSize {
  thick: Length;
  into: Length;
  along: Length;
  pitch?: Length;
  /** Middle of the first, from the left end of the joint. */
  first?: Length;
  /** How many on each joint. */
  count?: number;
}

/** One act of a glue-up, as it was timed. */
export const PACE_ACTS = ['spread', 'aid', 'place', 'align', 'caul', 'clamp'] as const;
export type PaceAct = (typeof PACE_ACTS)[number];

export interface TimedLap {
  act: PaceAct;
  seconds: number;
}

/** How one glue-up is done, where the maker chose something; everything else follows the shop's practice. */
export interface GluePlan {
  adhesive?: string;
  applicator?: Applicator;
  faces?: 1 | 2;
  hands?: 1 | 2;
  school?: ClampSchool;
  tightening?: Tightening;
  /** Pressure wanted instead of the shop's, MPa. */
  wantedMPa?: number;
  clamps?: PlacedClamp[];
  /** Height of the cauls between the pads and the edges; none at zero. */
  edgeCaul?: Length;
  /** Pairs of cauls across the faces. */
  crossCauls?: number;
  edges?: JointEdge[];
  /** Which edges were paired, joint by joint; as the shop does if missing. */
  pairs?: { joint: number; how: EdgePairing }[];
  aids?: AidPlan;
  rehearsal?: { at: string; laps: TimedLap[]; whole: boolean };
  /** When the last clamp was tight, as an ISO time. */
  clamped?: string;
  storage?: 'edge' | 'stickers';
  joints?: JointRecord[];
  /** Light under a straightedge across it, after the clamps. */
  hollow?: Length;
}
