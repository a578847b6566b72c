import type { AidKind } from '../kit';
import type { Length } from '../units';
import type { DimensionName } from './targets';

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
 * bench, if none is named), then moved by x, y, z. `spacer`
 * leaves a gap of that size before the part; what held it open is taken out again.
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
