import type { Length } from '../units';

/** Boards are seldom sold longer, mm: 16 feet (common practice). */
export const LONGEST_BOARD_MM = 4876.8;

export type GrainCut = 'flat' | 'rift' | 'quarter';

/** How a board was sold; decides what its thickness and width are worth. */
export type SoldAs = 'rough' | 'surfaced' | 'dressed' | 'offcut' | 'reclaimed';

export const SOLD_AS: readonly SoldAs[] = ['rough', 'surfaced', 'dressed', 'offcut', 'reclaimed'];

/** What can be wrong with a place on a board. */
export type FaultKind = 'knot' | 'split' | 'check' | 'chip' | 'wane' | 'sapwood' | 'pith' | 'nail' | 'stain';

export const FAULT_KINDS: readonly FaultKind[] = [
  'knot',
  'split',
  'check',
  'chip',
  'wane',
  'sapwood',
  'pith',
  'nail',
  'stain',
];

/**
 * A fault and the rectangle to keep clear of, in mm: x along the length from the marked end, y across the width from
 * the near edge, seen from the upper face whichever face it is on.
 */
export interface Fault {
  id: string;
  kind: FaultKind;
  face: 'up' | 'down' | 'both';
  x: number;
  y: number;
  length: number;
  width: number;
}

/** The largest number of faults one board can carry. */
export const MOST_FAULTS = 200;

/** How far a board is from flat and straight: each the greatest gap, over the whole board. */
export interface Warp {
  /** Hollow across the width. */
  cup?: Length;
  /** Hollow along the length, on the face. */
  bow?: Length;
  /** Hollow along the length, on the edge. */
  crook?: Length;
  /** Rise of one corner when the other three touch. */
  wind?: Length;
}

/** What a price is for. */
export type PricePer = 'board' | 'boardFoot' | 'metre' | 'cubicMetre';

export const PRICE_PER: readonly PricePer[] = ['board', 'boardFoot', 'metre', 'cubicMetre'];

/** Money in minor units (cents), with its currency (ISO 4217 code). */
export interface Price {
  minor: number;
  currency: string;
  per: PricePer;
}

/** A place on a board that another piece or job takes, so that it is neither used here nor counted as lost here. */
export interface TakenPlace {
  label: string;
  /** Name of the job it belongs to, if another; its slot there, and which copy of the piece, from 0. */
  of?: string;
  slot?: string;
  copy?: number;
  x: number;
  y: number;
  length: number;
  width: number;
  thickness: number;
  leaf?: number;
  leaves?: number;
}

/**
 * A real board that strips are cut from. Every field that is missing was not looked at: readings that need it rest on
 * the species' average and say so.
 */
export interface BoardStock {
  id: string;
  /** The number on its end. */
  label: string;
  species: string;
  length: Length;
  width: Length;
  thickness: Length;
  /** Boards of one log share their figure. */
  log?: string;
  sold?: SoldAs;
  /** The grade that it was sold as, in the seller's words. */
  grade?: string;
  grain?: GrainCut;
  /** On which side of the upper face the pith lies. */
  pith?: 'above' | 'below';
  /** Radius of the rings at the middle of the board's end. */
  ringRadius?: Length;
  /** How the fibres run along the near edge, from the marked end on. */
  fibre?: 'straight' | 'rising' | 'falling';
  goodFace?: 'up' | 'down';
  sapEdge?: 'near' | 'far' | 'both' | 'none';
  /** Colour of the planed face, `#rrggbb`. */
  colour?: string;
  price?: Price;
  moisturePct?: number;
  /** Day it came into the shop, `YYYY-MM-DD`. */
  arrived?: string;
  warp?: Warp;
  faults?: Fault[];
  taken?: TakenPlace[];
}

/** The longest name of a grade, in characters. */
export const MOST_GRADE = 30;

/** Every field of a board. One that is added does not compile until it stands here. */
const BOARD_FIELDS: Record<keyof BoardStock, true> = {
  id: true,
  label: true,
  species: true,
  length: true,
  width: true,
  thickness: true,
  log: true,
  sold: true,
  grade: true,
  grain: true,
  pith: true,
  ringRadius: true,
  fibre: true,
  goodFace: true,
  sapEdge: true,
  colour: true,
  price: true,
  moisturePct: true,
  arrived: true,
  warp: true,
  faults: true,
  taken: true,
};

/** A board alone, without what a rack knows of it beside, and without the places that others take. */
export const bareBoard = ({ taken: _taken, ...board }: BoardStock): BoardStock =>
  Object.fromEntries(
    Object.entries(board).filter(
      ([field, value]) => Object.hasOwn(BOARD_FIELDS, field) && value !== undefined,
    ),
  ) as unknown as BoardStock;

/** What a strip's face must be: free of everything, fit to be seen, or out of sight. */
export type FaceGrade = 'clear' | 'show' | 'hidden';

export const FACE_GRADES: readonly FaceGrade[] = ['clear', 'show', 'hidden'];

/*
 * What each grade forbids; common practice, the maker's eye comes first. A hidden face may carry what is only looks;
 * splits, wane and nails go: they let go, leave a gap at the joint, or meet a knife.
 */
const FORBIDDEN: Record<FaceGrade, readonly FaultKind[]> = {
  clear: FAULT_KINDS,
  show: ['knot', 'split', 'check', 'chip', 'wane', 'pith', 'nail', 'stain'],
  hidden: ['split', 'wane', 'nail'],
};

/** Whether a face of that grade must not carry the fault. */
export const forbids = (grade: FaceGrade, kind: FaultKind): boolean => FORBIDDEN[grade].includes(kind);

/** Faults that go through the board, whichever face they were drawn on. */
const THROUGH: readonly FaultKind[] = ['split', 'wane', 'nail', 'pith'];

/** Whether a fault shows on both faces. */
export const isThrough = ({ kind, face }: Pick<Fault, 'kind' | 'face'>): boolean =>
  face === 'both' || THROUGH.includes(kind);

/** What a strip's two faces must be, and which face of the board becomes its upper one. */
export interface FaceGrades {
  up: FaceGrade;
  down: FaceGrade;
}

/** Whether a strip whose faces have these grades must keep clear of a fault. */
export function mustAvoid(fault: Fault, grades: FaceGrades, faceDown: boolean): boolean {
  if (isThrough(fault)) return forbids(grades.up, fault.kind) || forbids(grades.down, fault.kind);
  const strips = (fault.face === 'up') !== faceDown ? grades.up : grades.down;
  return forbids(strips, fault.kind);
}

/** Parts of one board's area that overlap by less than this, in mm, only touch. */
export const TOUCH_MM = 1e-6;

/** Whether what is so long or wide has room there, mm: what only touches both sides has. */
export const hasRoom = (mm: number, roomMm: number): boolean => mm <= roomMm + TOUCH_MM;

/** Whether two rectangles share more than an edge. */
export const overlap = (
  a: { x: number; y: number; length: number; width: number },
  b: { x: number; y: number; length: number; width: number },
): boolean =>
  a.x < b.x + b.length - TOUCH_MM &&
  b.x < a.x + a.length - TOUCH_MM &&
  a.y < b.y + b.width - TOUCH_MM &&
  b.y < a.y + a.width - TOUCH_MM;
