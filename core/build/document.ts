import type { ShopSnapshot } from '../kit';
import type { Turn } from '../solid';
import type { Length } from '../units';
import type { BoardStock, FaceGrade, GrainCut } from './board';

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
  /** Placed rather than butted: offset along the joint, corner angle, a spacer taken out again. */
  place?: { offset?: Length; angleDegrees?: number; spacer?: Length };
  sacrificial?: boolean;
}

/** Which parts of a glue-up are turned: every n-th from `first` on (1 is the first part), with exceptions. */
export interface TurnRule {
  turn: 'endForEnd' | 'rollOver';
  every: number;
  first: number;
  /** Parts that do the opposite of what the rule says, counted from 1. */
  except: number[];
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
  note?: string;
  marks?: string[];
  photos?: string[];
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
/** Lay up and glue along an axis. Without `parts` all inputs are laid in their own order. */
export interface GlueStep extends StepBase {
  kind: 'glue';
  along: DimensionName;
  parts?: LaidPart[];
  turns?: TurnRule;
  contacts?: ContactNote[];
}
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
/** Steps that change no size. */
export interface RestStep extends StepBase {
  kind: 'rest' | 'finish';
  hours?: number;
  coats?: number;
}
/** Steps the document can hold and `run` does not carry out yet: they become a finding. */
export interface PlannedStep extends StepBase {
  kind: 'resaw' | 'oblique' | 'shape' | 'surface' | 'outside';
  settings?: Record<string, unknown>;
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

/** What the build was planned from, so that it can be planned again in another size. */
export interface Brief {
  pattern: 'panel' | 'endGrain';
  length: Aim;
  width: Aim;
  thickness: Aim;
  woods: string[];
  /** Strip width of a panel, side of a square of a block. */
  module: Length;
  saw: string;
  flattenWith: string;
  trimWith: Cutter;
  /** Every other slice end for end. */
  chequer: boolean;
  extraSlices: number;
  /** Panels only: glued as this many sections, 0 for as many as the machine needs. */
  sections: number;
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
  /** How its strips come out of boards, once that has been planned. */
  breakdown?: BreakdownSettings;
}

/** The most strips one lay-up may hold: more is a slip or an attack. */
export const MOST_STRIPS = 500;

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

/** What a step is called: its own name, or its kind's. */
export const stepName = (step: Step): string =>
  step.name ?? (step.kind === 'turn' ? TURN_NAMES[step.turn] : STEP_NAMES[step.kind]);
