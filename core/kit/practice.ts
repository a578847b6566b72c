import type { Length } from '../units';
import type { Applicator, CaulStock } from './adhesives';

/** How clamps are spaced: pressure fans out at 45 degrees, a measured reach in board widths, or an elastic calculation. */
export type ClampSchool = 'fan' | 'reach' | 'elastic';
export const CLAMP_SCHOOLS: readonly { id: ClampSchool; name: string; why: string; known: string }[] = [
  {
    id: 'fan',
    name: '45 degrees',
    why: 'Pressure fans out at 45 degrees from each pad: spacing twice the way to the first joint. Sound, and cautious.',
    known:
      'Common practice. The elastic calculation finds at least 0.81 of the mean pressure everywhere at this spacing.',
  },
  {
    id: 'reach',
    name: 'Measured reach',
    why: 'On one rig pressure was measured about 2 board widths out in hardwood and 1.4 in softwood: fewer clamps.',
    known:
      'One experiment: 2 is a lower bound from one rig, and 1.4 for pine is uncertain by 0.2. Elasticity does not explain the difference.',
  },
  {
    id: 'elastic',
    name: 'Elastic',
    why: 'Boards computed as elastic bodies that touch or lift off: the pressure at every place of every joint.',
    known:
      'Elastic ratios unverified. Not known: denting, creep, squeeze-out, friction, bow out of the plane, jaws that tilt.',
  },
];

/** In which order clamps are tightened. */
export type Tightening = 'middle' | 'rounds' | 'ends';

/** What keeps faces flush. */
export type AidKind = 'none' | 'cauls' | 'biscuits' | 'dowels' | 'looseTenons' | 'splines';
/** The kinds of aid as they are chosen, why one would, and the step between neighbours that is usual with it, mm: a guess until it is measured. */
export const AID_KINDS: readonly { id: AidKind; name: string; why: string; flushMm: number }[] = [
  { id: 'none', name: 'None', why: 'strips are pushed flush by hand, joint by joint', flushMm: 0.5 },
  { id: 'cauls', name: 'Cauls', why: 'battens across both faces; nothing is cut', flushMm: 0.2 },
  { id: 'biscuits', name: 'Biscuits', why: 'quick slots; they swell, so wait before planing', flushMm: 0.3 },
  { id: 'dowels', name: 'Dowels', why: 'exact, and unforgiving of a hole off its place', flushMm: 0.15 },
  { id: 'looseTenons', name: 'Loose tenons', why: 'exact and strong; needs its machine', flushMm: 0.15 },
  {
    id: 'splines',
    name: 'Splines',
    why: 'one groove end to end; shows at a trimmed end unless stopped',
    flushMm: 0.2,
  },
];

/** What is done with a panel wider than the planer. */
export type WideWay = 'sections' | 'sled' | 'pairs' | 'paid';

/** Minutes this shop takes; of one pair of hands. */
export interface Pace {
  /** Turning to each joint, before any spreading. */
  jointMin: number;
  /** Share of the applicators' spreading times this shop needs. */
  spreading: number;
  /** Laying one part in place. */
  placeMin: number;
  /** Getting one joint flush; with biscuits, dowels, tenons or splines, fitting them. */
  alignMin: number;
  aidMin: number;
  clampMin: number;
  caulMin: number;
  /** How often it was timed; zero for Junta's own guess. */
  timed: number;
}

/** When the shop works: weekdays 1 (Monday) to 7, hours of the day, and the zone its clock runs in. */
export interface WorkHours {
  days: number[];
  from: number;
  to: number;
  /** IANA name; the reader's own zone if missing. */
  zone?: string;
}

/** What a paid wide machine costs: days until the piece is back, its price, its width. */
export interface PaidMachine {
  maxWidth: Length;
  days: number;
  priceMinor: number;
}

/** Where makers disagree about glue-ups (common practice has all of these): which way this shop goes. */
export interface GluePractice {
  school: ClampSchool;
  /** Board widths that pressure reaches under the measured school. */
  reachHard: number;
  reachSoft: number;
  /** Firm, by the wood's density; or just even squeeze-out. */
  pressure: 'firm' | 'even';
  /** No clamps farther apart than this, whatever a school allows. */
  mostSpacing: Length;
  tightening: Tightening;
  faces: 'alternate' | 'oneSide';
  edges: 'straight' | 'sprung';
  /** How edges are planed where a joint says nothing: one by one if missing. */
  pairing?: 'single' | 'folded' | 'opposed';
  /** Depth of a sprung joint's gap, both edges together. */
  hollow: Length;
  /** One shaving of the plane. */
  shaving: Length;
  aids: AidKind;
  spreadFaces: 1 | 2;
  applicator: Applicator;
  squeezeOut: 'wet' | 'rubbery' | 'hard';
  unclamp: 'label' | 'overnight';
  /** Before the surfaces are machined, hours. */
  surfaceWaitH: number;
  wide: WideWay;
  cauls: CaulStock;
  pace: Pace;
  /** Pairs of hands at a glue-up, and what one pair lifts alone, kg. */
  hands: 1 | 2;
  liftKg: number;
  /** Glue-ups that find room on the benches at once. */
  benches: number;
  hours: WorkHours;
  paid?: PaidMachine;
}

const mm = (value: number): Length => ({ mm: value });
const inch = (text: string, value: number): Length => ({ mm: value * 25.4, typed: { text, system: 'inch' } });

/** A shop that has not chosen: the cautious way each time (common practice). Minutes are a guess until they are timed. */
export const DEFAULT_GLUE_PRACTICE: GluePractice = {
  school: 'fan',
  reachHard: 2,
  reachSoft: 1.4,
  pressure: 'even',
  mostSpacing: inch('12', 12),
  tightening: 'middle',
  faces: 'alternate',
  edges: 'straight',
  hollow: mm(0.2),
  shaving: mm(0.05),
  aids: 'cauls',
  spreadFaces: 1,
  applicator: 'roller',
  squeezeOut: 'rubbery',
  unclamp: 'label',
  surfaceWaitH: 24,
  wide: 'sections',
  cauls: {
    height: inch('1 3/4', 1.75),
    width: inch('1', 1),
    count: 6,
    species: 'maple_sugar',
    protection: 'tape',
  },
  pace: {
    jointMin: 0.1,
    spreading: 1,
    placeMin: 0.2,
    alignMin: 0.25,
    aidMin: 0.1,
    clampMin: 0.35,
    caulMin: 0.4,
    timed: 0,
  },
  hands: 1,
  liftKg: 25,
  benches: 2,
  hours: { days: [1, 2, 3, 4, 5], from: 8, to: 17 },
};
