import type { Brief } from './brief';
import type { AidKind, ShopSnapshot } from '../kit';
import type { Turn } from '../solid';
import type { Length } from '../units';
import type { BoardStock, FaceGrade, GrainCut } from './board';
import type { GluePlan, GlueUse } from './glueplan';

/** What is wanted of one dimension. `value` is missing only where the dimension is free. */
export interface Aim {
  aim: 'fixed' | 'atLeast' | 'atMost' | 'free';
  value?: Length;
}
export type DimensionName = 'length' | 'width' | 'thickness';
export const DIMENSIONS: readonly DimensionName[] = ['length', 'width', 'thickness'];

/** One piece wanted: on which output it is measured, and what each dimension must be. */
export interface Target {
  id: string;
  purpose: string;
  quantity: number;
  output: string;
  length: Aim;
  width: Aim;
  thickness: Aim;
  /** How far off is still right; the setting step's half if missing. */
  tolerance?: Length;
}

/** A place in a lay-up for one strip: its wood and the section it is ripped to. */
export interface Slot {
  id: string;
  species: string;
  length: Length;
  width: Length;
  thickness: Length;
  grain?: GrainCut;
  /** What its upper and its under face must be; an upper face shows and an under face is hidden if missing. */
  grade?: FaceGrade;
  gradeBelow?: FaceGrade;
  /** Strips of one set come from one board: a book match, a bundle, a run of colour. */
  set?: string;
  side?: 'up' | 'down';
  /** How the fibres run along its near edge, from its left end on; for a strip from no known board. */
  fibre?: 'straight' | 'rising' | 'falling';
  /** Which edges show sapwood, likewise. */
  sapEdge?: 'near' | 'far' | 'both' | 'none';
  /** The real wood that fills the slot; without it the strip is drawn from wood not yet chosen. */
  strip?: StripSource;
}

/** Where a strip comes from. With `at` its place on the board is known: the breakdown wrote it there, or a hand. */
export interface StripSource {
  board?: string;
  seed?: number;
  /** Its least corner, mm from the marked end and the near edge. */
  at?: { x: number; y: number };
  /** Which of how many leaves resawn from that place, from the under face up. */
  leaf?: number;
  leaves?: number;
  /** The board's under face becomes the strip's upper one. */
  faceDown?: boolean;
  /** Put there by hand: the breakdown is solved around it. */
  locked?: boolean;
  /** Left out of the breakdown by hand: this strip comes from elsewhere. */
  excluded?: boolean;
}

/** What the breakdown aims at. */
export type Goal = 'leastWaste' | 'fewestBoards' | 'cheapest' | 'offcutsFirst' | 'keepWide' | 'colour';
export const GOALS: readonly Goal[] = [
  'leastWaste',
  'fewestBoards',
  'cheapest',
  'offcutsFirst',
  'keepWide',
  'colour',
];

/** How boards are broken down into this job's strips. */
export interface BreakdownSettings {
  goal: Goal;
  crosscutSaw: string;
  ripSaw: string;
  resawSaw: string;
  /** Whether a thicker board may be resawn into leaves. */
  resaw: boolean;
  /** Rough strips are cut longer and wider by this. */
  extraLength: Length;
  extraWidth: Length;
  /** Cleaned off each end and each edge of a board before anything else. */
  endTrim: Length;
  edgeTrim: Length;
  /** Width that must stay in hand at the fence after the last rip; zero where none need stay. */
  remnant: Length;
  /** The least offcut worth keeping. */
  leastOffcutLength: Length;
  leastOffcutWidth: Length;
  /** What an offcut worth keeping counts, in % of the same wood in a whole board. */
  offcutWorthPct: number;
}

/** A group of strips that are glued up together, made `repeat` times. */
export interface Assembly {
  id: string;
  name: string;
  repeat: number;
  slots: Slot[];
}

/** One part laid into a glue-up, in order. */
export interface LaidPart {
  piece: string;
  endForEnd?: boolean;
  rollOver?: boolean;
  /** A quarter turn about the upright axis, against the clock seen from above. */
  quarter?: boolean;
  place?: LaidPlace;
  sacrificial?: boolean;
  /** Stays where it lies when Junta proposes an order. */
  locked?: boolean;
}

/**
 * Where a part lies, apart from butting. `offset` shifts a butted part along its joint. With `x`, `y` or `z` the part
 * is not butted at all: turned by the angle about an axis through its own least corner (the thickness, so flat on the
 * bench, if none is named), then moved by x, y, z. `spacer` is held in the documents and taken out again.
 */
export interface LaidPlace {
  offset?: Length;
  angleDegrees?: number;
  spacer?: Length;
  about?: DimensionName;
  x?: Length;
  y?: Length;
  z?: Length;
}

/** Parts of a glue-up: every n-th from `first` on (1 is the first part), with exceptions. */
export interface PartRule {
  every: number;
  first: number;
  /** Parts that do the opposite of what the rule says, counted from 1. */
  except: number[];
  /** Parts in a row: the rule then begins one part later in each following row, as in a chequer of tiles. */
  rowOf?: number;
}

/** Which parts of a glue-up are turned. */
export interface TurnRule extends PartRule {
  turn: 'endForEnd' | 'rollOver' | 'quarter';
}

/** Which parts of a glue-up are shifted along their joint, and by how much. */
export interface ShiftRule extends PartRule {
  by: Length;
  /** Each further part is shifted by as much again, and begins anew past this. */
  wrap?: Length;
}

/** Parts laid in rows: how many in each row, and along which dimension the rows lie beside one another. */
export interface Rows {
  counts: number[];
  across: DimensionName;
}

/** How a contact is joined, where it is not simply glued all over. */
export interface ContactNote {
  between: [string, string];
  how: 'glued' | 'in part' | 'dry' | 'fastened';
  clearance?: Length;
}

/** What does a trim or an edge: a saw, or a plane that leaves no kerf. */
export type Cutter = { saw: string } | { machine: string };

interface StepBase {
  id: string;
  name?: string;
  inputs: string[];
  output: string;
  done?: boolean;
  /** When it was done, as an ISO time: what waits after it counts from then. Unknown if missing. */
  doneAt?: string;
  note?: string;
  marks?: string[];
  photos?: string[];
  /** Pieces made here that were spoilt: they leave the work as offcuts. */
  spoilt?: string[];
  /** When the maker means to begin it, as an ISO time; as early as it can be if missing. */
  begin?: string;
}

/** Strips ripped from their boards at one fence setting for each width, or each set by itself. */
export interface RipStep extends StepBase {
  kind: 'rip';
  assembly: string;
  saw: string;
  fence: 'shared' | 'separate';
}
/** Faces and edges of strips cleaned; amounts are per face and per edge. */
export interface MillStep extends StepBase {
  kind: 'mill';
  machine: string;
  face: Length;
  edge: Length;
}
/**
 * Lay up and glue along an axis. Without `parts` all inputs are laid in their own order. Where a later step takes
 * the same input, only the parts named are taken here.
 */
export interface GlueStep extends StepBase {
  kind: 'glue';
  along: DimensionName;
  parts?: LaidPart[];
  turns?: TurnRule;
  shifts?: ShiftRule;
  rows?: Rows;
  /** That many blanks alike: the parts are shared out to them in order. One if missing. */
  blanks?: number;
  /** How it was split into glue-ups of its own, where it was: planned again, it is split so again. */
  split?: Split;
  /** What is pencilled across the lay-up. */
  mark?: LayUpMark;
  contacts?: ContactNote[];
  /** How it is glued and clamped, where the maker chose. */
  plan?: GluePlan;
}
/**
 * How sections are made true before they are joined: flattened on one machine, their meeting edges jointed on another,
 * and the joined piece flattened on a third. Ids of machines of the kit.
 */
export interface Machining {
  sections: string;
  edges: string;
  joined: string;
}
/** How a glue-up is split. */
export interface Split {
  /** Joints it is cut at, 1 between the first and the second part. */
  joints: number[];
  /** Sections go through their machines before they are joined; glued as they are if missing. */
  machining?: Machining;
  /** What keeps the faces flush in the last glue-up; as the shop does if missing. */
  aids?: AidKind;
}
/** A cabinetmaker's triangle across the parts, or a number on each. */
export type LayUpMark = 'triangle' | 'numbers';
/** Flatten both faces: what comes off the upper and the lower one. */
export interface FlattenStep extends StepBase {
  kind: 'flatten';
  machine: string;
  top: Length;
  bottom: Length;
  carrier?: Length;
}
/** Joint the edges that will be glued: what comes off the near and the far edge. */
export interface JointStep extends StepBase {
  kind: 'joint';
  machine: string;
  near: Length;
  far: Length;
}
/** Cut across into equal slices against a stop, after cutting off the head. */
export interface SliceStep extends StepBase {
  kind: 'slice';
  saw: string;
  head: Length;
  thickness: Length;
  count: number;
  /** What must stay in hand after the last slice; nothing if missing. */
  hold?: Length;
}
/** A named turn of every piece. */
export interface TurnStep extends StepBase {
  kind: 'turn';
  turn: Turn;
}
/** Ends and edges cut to size: amounts at the start and end of the length, and at the near and far edge. */
export interface TrimStep extends StepBase {
  kind: 'trim';
  cutter: Cutter;
  /** One side is meant to lose more than the other: what stands over there is no part of the pattern. */
  uneven?: boolean;
  start: Length;
  end: Length;
  near: Length;
  far: Length;
}
/** Pieces cut to a length, measured from their start. */
export interface CrosscutStep extends StepBase {
  kind: 'crosscut';
  saw: string;
  length: Length;
}
/**
 * Cuts at an angle. `mitre`: the saw stands upright and crosses the face at the angle to the length. `bevel`: the
 * blade leans along the length. `ripBevel`: the blade leans across the width, for rhombus sticks. Slices are cut
 * against a stop, `thickness` across the cut; the first begins `head` past the corner, and its kerf falls before it.
 * Mitred slices are laid with the cut along the length. With `ends` only those ends are cut, to a point on the long edge.
 */
export interface ObliqueStep extends StepBase {
  kind: 'oblique';
  saw: string;
  tilt: 'mitre' | 'bevel' | 'ripBevel';
  angleDegrees: number;
  head: Length;
  thickness: Length;
  count: number;
  ends?: 'start' | 'end' | 'both';
  long?: 'near' | 'far';
}
/** Saws every piece through its thickness into leaves alike, the lowest first. */
export interface ResawStep extends StepBase {
  kind: 'resaw';
  saw: string;
  leaves: number;
}
/** Saws every piece to an outline without hollows, seen from above or from the near edge; x from its left end. */
export interface ShapeStep extends StepBase {
  kind: 'shape';
  saw?: string;
  seen?: 'face' | 'edge';
  outline?: { x: Length; y: Length }[];
  settings?: Record<string, unknown>;
}
/** Steps that change no size. */
export interface RestStep extends StepBase {
  kind: 'rest' | 'finish';
  hours?: number;
  coats?: number;
}
/** Steps the document can hold and `run` does not carry out yet: they become a finding. */
export interface PlannedStep extends StepBase {
  kind: 'surface' | 'outside';
  settings?: Record<string, unknown>;
  /** Outside work: days until it is back. */
  days?: number;
}

export type Step =
  | RipStep
  | MillStep
  | GlueStep
  | FlattenStep
  | JointStep
  | SliceStep
  | TurnStep
  | TrimStep
  | CrosscutStep
  | ObliqueStep
  | ResawStep
  | ShapeStep
  | RestStep
  | PlannedStep;
export type StepKind = Step['kind'];

/** A size taken at a step with rule or caliper. */
export interface Reading {
  id: string;
  step: string;
  piece?: string;
  dimension: DimensionName;
  measured: Length;
  taken?: string;
}

/** The build: what is done, never what results. */
export interface BuildDocument {
  format: 'junta-build';
  version: 1;
  name: string;
  use: string;
  targets: Target[];
  boards: BoardStock[];
  assemblies: Assembly[];
  steps: Step[];
  readings: Reading[];
  shop: ShopSnapshot;
  brief?: Brief;
  /** What its glue must stand; guessed from the use and the woods if missing. */
  uses?: GlueUse[];
  /** How its strips come out of boards, once that has been planned. */
  breakdown?: BreakdownSettings;
}

/** The most strips one lay-up may hold: more is a slip or an attack. */
export const MOST_STRIPS = 500;

/** Boards are seldom sold longer, mm: 16 feet (common practice). */
export const LONGEST_BOARD_MM = 4876.8;

/** The version this Junta reads and writes. */
export const FORMAT_VERSION = 1;

/** The trade's name for a kind of step. */
export const STEP_NAMES: Record<StepKind, string> = {
  rip: 'Rip',
  mill: 'Mill',
  glue: 'Glue-up',
  flatten: 'Flatten',
  joint: 'Joint edges',
  slice: 'Slice',
  turn: 'Turn',
  trim: 'Trim',
  crosscut: 'Crosscut',
  rest: 'Rest',
  finish: 'Finish',
  resaw: 'Resaw',
  oblique: 'Oblique cut',
  shape: 'Shape',
  surface: 'Surface',
  outside: 'Outside work',
};
const TURN_NAMES: Record<Turn, string> = {
  standOnEnd: 'Stand on end',
  tipOnEdge: 'Tip on edge',
  endForEnd: 'End for end',
  rollOver: 'Roll over',
};

/** What a turn does to the sizes of a piece. */
export const TURN_WORDS: Record<Turn, string> = {
  standOnEnd: 'length and thickness change places',
  tipOnEdge: 'width and thickness change places',
  endForEnd: 'no size changes',
  rollOver: 'no size changes',
};

/** What a step is called: its own name, or its kind's. */
export const stepName = (step: Step): string =>
  step.name ?? (step.kind === 'turn' ? TURN_NAMES[step.turn] : STEP_NAMES[step.kind]);
