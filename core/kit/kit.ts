import type { Display, Length } from '../units';
import type { Adhesive } from './adhesives';
import type { ClampSet } from './clamps';
import type { Bit } from './bits';
import type { Climate } from './climate';
import type { OwnLadder } from './ladders';
import type { Learned, Renewed, StepPace } from './learned';
import type { Machine, Saw } from './machines';
import type { Person } from './people';
import type { GluePractice } from './practice';
import type { Rates } from './rates';
import type { OwnRule } from './rules';
import type { Supply } from './supplies';

/** What the shop adds so that enough is left to take off again. Amounts are per face, edge or end. */
export interface Allowances {
  /** Rough strip to milled strip, each face and each edge. */
  millFace: Length;
  millEdge: Length;
  /** Glued panel to flat panel, both faces together; end-grain block likewise. */
  flattenPanel: Length;
  flattenBlock: Length;
  /** Each end and each edge of the glued piece. */
  trimEnd: Length;
  trimEdge: Length;
  /** Lost from each edge when sections are jointed before they are joined. */
  jointEdge: Length;
  /** Cut off before the first slice, and left in hand after the last. */
  sliceHead: Length;
  sliceTail: Length;
}
export type AllowanceName = keyof Allowances;

/** Sheets that are printed on. */
export type Paper = 'a4' | 'letter';

/** The shop values a build is planned with. Travels inside the build, so that a file alone is enough to predict. */
export interface ShopSnapshot {
  name: string;
  display: Display;
  /** Prices are entered in this, by its ISO 4217 code; until it is said, with each price. */
  currency?: string;
  /** What is printed on; what is usual with the units, if missing. */
  paper?: Paper;
  /** Stands under the shop's name on what is printed. */
  address?: string;
  /** Settings are dialled or measured to this. */
  settingStep: Length;
  saws: Saw[];
  machines: Machine[];
  allowances: Allowances;
  /** In a job that allows for something of its own: what the shop allows there. */
  shopAllowances?: Partial<Allowances>;
  /** A step between neighbours that a thumb can feel and a maker would point out. */
  noticeableStep: Length;
  /** Strips narrower than this are ripped with care; 3/8 in if missing. */
  narrowRip?: Length;
  /** Moisture that wood comes to in this shop, %. */
  woodMoisturePct: number;
  /** Which school the shop follows where makers disagree; the defaults where it has not chosen. */
  practice?: Practice;
  /** Lay-ups kept to be used again. */
  layUps?: LayUpRule[];
  /** Clamps, bottles of glue, the air, and how this shop glues; a small shop's where it has not said. */
  clamps?: ClampSet[];
  adhesives?: Adhesive[];
  climate?: Climate;
  gluing?: GluePractice;
  /** Ladders of grits of its own; the usual ones if missing. */
  ladders?: OwnLadder[];
  /** Cutters, bits and drills, hardware and consumables; nobody said what there is if missing. */
  bits?: Bit[];
  supplies?: Supply[];
  /** Who works in the shop. Only the shop has them: they stand in no job, and so in no file. */
  people?: Person[];
  /** How many times as long as planned its steps take, and how much wider its sizes scatter than its spreads say; 1 if missing. */
  paces?: StepPace[];
  band?: number;
  /** The band stays as it is; it follows the readings if missing. Only the shop has it. */
  bandHeld?: boolean;
  /** What things cost here. Only the shop has it: it stands in no job, and so in no file. */
  rates?: Rates;
  /** Rules of its own, which become findings. */
  rules?: OwnRule[];
  /** What was taken over from the log, and what was renewed since. Only the shop has it, like its people. */
  learned?: Learned[];
  renewed?: Renewed[];
}

/** Where makers disagree about a lay-up (common practice has both): which way this shop goes. */
export interface Practice {
  /** Growth rings: turned up and down in turn, or the best faces up however they lie. */
  rings: 'alternate' | 'bestFaces';
  /** What goes first where it cannot be both: all planing one way, or figure that hides the joint. */
  first: 'planing' | 'figure';
  /** End grain under a planer's knives: never, if missing; or in the finest passes, with a chamfer or backing that outlasts them. */
  endGrain?: 'never' | 'light';
}

/** A lay-up as a rule: woods and shares of the width, and how each strip is turned. */
export interface LayUpRule {
  id: string;
  name: string;
  strips: { species: string; share: number; endForEnd?: boolean; rollOver?: boolean }[];
}
