import type { Length } from '../units';
import type { FaceGrade, GrainCut } from './board';

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

/** A group of strips that are glued up together, made `repeat` times. */
export interface Assembly {
  id: string;
  name: string;
  repeat: number;
  slots: Slot[];
}

/** The most lay-ups one job may hold. */
export const MOST_ASSEMBLIES = 50;

/** The most strips one lay-up may hold: more is a slip or an attack. */
export const MOST_STRIPS = 500;
