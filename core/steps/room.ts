import type { DimensionName, Finding, StepBase } from '../document';
import type { AllowanceName, Machine, Need, Work } from '../kit';
import { emptyLedger } from '../solid';
import type { Own, Place } from './begin';
import type { Outcome, RunContext } from './context';
import type { Fact, Played } from './fact';
import type { Fields } from './field';
import type { Operation } from './operation';
import type { WorkPiece } from './timeline';

/** The groups of the menu of steps, in the order of the work. */
export const STEP_GROUPS = [
  'Stock',
  'Plane',
  'Glue',
  'Saw',
  'Shape',
  'Turn',
  'Surface',
  'Assemble',
  'Wait',
] as const;
export type StepGroup = (typeof STEP_GROUPS)[number];

/** What a step takes away, for the line under the stick: from what, and how much in mm. */
export interface Took {
  from: string;
  mm: number;
}

/** What a step takes off the two sides of one dimension: `min` off the near edge, the left end or the lower face; mm. */
export interface TakesOff {
  dimension: DimensionName;
  min: number;
  max: number;
  sides: string;
  /** The size it takes from must have it over: what that is called, as in “Trimming the edges”. */
  margin?: string;
  /** What the shop allows for it, and instead where the faces show end grain. */
  allowance?: AllowanceName;
  ofEndGrain?: AllowanceName;
  /** The settings that say so. */
  settings: readonly [min: string, max: string];
  /** The size to reach, mm, where one is set: it decides what comes off. */
  to?: { mm: number; rest?: Rest };
  /** The settings of the size to reach, and of the side that gives the rest. */
  reach?: { to: string; rest?: string };
}

/** Which side gives what is left once a size is to be reached: half each; or one of them, the other as it is set. */
export type Rest = 'both' | 'min' | 'max';

/** How pieces go through a step. */
export interface Flow<S> {
  /** It begins a line: its pieces come from boards. */
  source?: true;
  /** Several pieces become one. */
  joins?: true;
  /** One piece becomes several. */
  divides?: (step: S) => boolean;
  /** Sizes change places, wood stays. */
  turns?: true;
  /** Nothing is done: time passes. */
  waits?: true;
}

/** How a cut goes through the wood. */
export interface Sawing<S> {
  /** What the saw must be able to do. */
  work: (step: S) => readonly Work[];
  /** The dimension that the blade goes through. */
  through: (step: S) => DimensionName;
  /** What a size is set by; a stop, if missing. */
  setBy?: 'fence' | 'trim';
  /** The blade's depth is held against it. */
  reach?: true;
  /** How much of a right angle the blade keeps, as a sine: 1 where it stands upright. */
  upright?: (step: S) => number;
  /** It squares a piece: cut by cut, from an edge that the square stands on. */
  squares?: true;
  /** The piece is carried over the saw, across it or along its fence; boards are not. */
  carried?: { across: (step: S) => boolean; along?: (step: S) => number | undefined };
  /** What the saw cuts as the reader is told, as in “The board to resaw stands … high”; the piece and how thick it is, if missing. */
  words?: { before: string; after: string; caution?: string; when?: (step: S) => boolean };
}

/** How a piece goes over a machine. */
export interface Machining<S> {
  /** What the machine must be able to do. */
  work: Work;
  /** Its faces or its edges: what the machine's width and thickness are held against. */
  over: 'faces' | 'edges' | 'both';
  /** It goes over the machine at all. */
  any: (step: S) => boolean;
  /** What comes off each side in passes, mm. */
  sides: (step: S) => readonly number[];
}

/** A stretch of waiting that a step brings, h. */
export interface Wait {
  /** What of the step, for its id in the calendar. */
  of: 'rest' | 'coat' | 'cure' | 'outside';
  words: string;
  hours: number;
}

/** One of several rounds of a step: what is done, and how long it then waits. */
export interface Round {
  of: Wait['of'];
  words: string;
  minutes: number;
  hours: number;
}

/** Time a step asks of hands: so many minutes to set up, for each piece, and for each pass over a machine. */
export interface Labour<S> {
  setUp: number;
  each: number;
  pass?: number;
  /** Minutes for each piece besides, for what is put on and taken off again. */
  more?: (step: S) => number;
  /** Minutes instead of these, whatever comes in. */
  fixed?: (step: S) => number;
  /** Minutes by the pieces there are, instead of these; as above where it does not say. */
  minutes?: (step: S, pieces: readonly WorkPiece[]) => number | undefined;
  /** Work that comes again and again with a wait after each: coats, pours. In the place of one stretch of work. */
  rounds?: (step: S) => readonly Round[];
  /** What waits after it by itself. */
  waits?: (step: S) => Wait[];
}

/** A step as it was played, for what it wants at hand. */
export interface Handled {
  machine?: Machine;
  /** Pieces as they leave it. */
  pieces: readonly WorkPiece[];
}

/** A step as it stands in its job, for the line under its name. */
export interface Seen {
  /** Pieces it gives; undefined where it was not played. */
  count?: number;
  /** Parts it lays. */
  parts?: number;
  /** Strips of its lay-up. */
  strips: number;
  machine?: string;
}

/**
 * All that Junta knows of one kind of step. Everything else is read from here: the document's schema, the card, the table in
 * docs/format.md, what planning again keeps, minutes on the calendar, limits of machines and saws, the menu.
 */
export interface StepRoom<S extends StepBase & { kind: string }> {
  kind: S['kind'];
  /** The trade's name for it. */
  name: string;
  /** Where it stands in the menu. */
  group: StepGroup;
  /** What it does, in one sentence. */
  says: string;
  /** What one such step is called, where its settings say more than the kind. */
  title?: (step: S) => string;
  /** What it does here, in a few words. */
  subtitle?: (step: S, seen: Seen) => string;
  fields: Fields<S>;
  flow: Flow<S>;
  /**
   * The settings it is put into a chain with: what is sensible for the pieces that lie there, with this shop's tools. Leaves
   * with a refusal where it cannot be put in there, with the number that says so.
   */
  begin: (at: Place) => Own<S>;
  /** Carries it out on what comes in. Undefined where Junta holds it and does not compute it yet: pieces pass through. */
  run: ((step: S, inputs: readonly WorkPiece[], context: RunContext) => Outcome) | undefined;
  /** Whether this one is only held, though its kind is computed. */
  held?: (step: S) => boolean;
  /** Of an input that later steps take too: only these pieces. All that is there, if undefined. */
  takes?: (step: S) => string[] | undefined;
  /** What of it is kept and not computed yet, in words. */
  notYet?: (step: S) => string | undefined;
  /** Lists in its settings whose members have ids of their own. */
  ownIds?: (step: S) => Record<string, readonly { id: string }[]>;
  takesOff?: (step: S) => TakesOff[];
  /** The line under the stick; what it takes off, if missing. `cut` is how many came of each blank. */
  took?: (step: S, kerfMm: number, cut?: number) => Took[];
  /**
   * The step with the setting that explains a reading: predicted less measured is `over`, mm. Undefined where none
   * does, and the difference is booked as unexplained.
   */
  explains?: (step: S, dimension: DimensionName, over: number, measured: number) => S | undefined;
  /** What it does goes by other steps of the job too: places from an edge that is trimmed later, an outline sawn before. */
  looksAround?: true;
  /** The outline that was sawn before stays what it is. */
  keepsOutline?: true;
  sawing?: Sawing<S>;
  machining?: Machining<S>;
  /** It cuts into joints: glue must have lost its water before; other steps wait for the clamps alone. */
  needsSettled?: true;
  labour: Labour<S>;
  /** Pieces alike that it cuts: how many of one blank, what they are called, the size that was set, mm. */
  gives?: (step: S) => { count: number; words: string; mm: number; fromPanel?: boolean } | undefined;
  /** Where pieces can be taken hold of one by one: what they are called. */
  each?: { name: string; measured?: DimensionName };
  /** What it wants at hand besides wood, machine and saw; what the machine itself wants for this work comes of itself. */
  needs?: (step: S, seen: Handled) => Need[];
  /** What hands do, one thing after the other, at the bench. */
  operations: (step: S, played: Played) => readonly Operation[];
  /** What is known of it once it was played, in words with numbers. */
  facts?: (step: S, played: Played) => Fact[];
  /** What of it will not do, with ways out that are played forward before they are offered. */
  findings?: (step: S, played: Played) => Finding[];
  /** The usual caution, where hands come near a blade or a cutter. */
  caution?: string;
}

/** A step that changes no size: what comes in goes out. */
export const passThrough = (_step: unknown, inputs: readonly WorkPiece[]): Outcome => ({
  pieces: [...inputs],
  lost: emptyLedger(),
});
