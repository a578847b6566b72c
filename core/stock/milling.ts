import type { BoardStock } from '../document';
import { FACTORY_CORNER_MM, machinesThat, type ShopSnapshot, SURFACED_FACE_MM } from '../kit';
import { settingErrors, type Sources, type Tolerance, toleranceOf } from '../steps';
import { INCH } from '../units';

/** What a piece of a board loses before it is flat, straight and clean, mm. */
export interface MillingLoss {
  cup: number;
  bow: number;
  wind: number;
  crook: number;
  /** Both faces together, both edges together, both ends together. */
  faces: number;
  edges: number;
  ends: number;
}

/** What a board, or a piece of it, will really give. */
export interface MillingYield {
  length: number;
  width: number;
  thickness: number;
  loss: MillingLoss;
  tolerance: { length: Tolerance; width: Tolerance; thickness: Tolerance };
  /** Which of cup, bow, crook and wind nobody has measured: they count as none. */
  notLooked: (keyof NonNullable<BoardStock['warp']>)[];
}

/** Shares of a board's length and width, for a piece of it. */
interface Part {
  length: number;
  width: number;
}

/**
 * Thickness that warp costs a piece. A hollow of constant curvature shrinks with the square of the chord, so a piece
 * half as wide has a quarter of the cup (sagitta of a circular arc); wind shrinks with length times width. A plane
 * laid through a cupped or bowed piece loses the whole hollow between its two flat faces; through a twisted one half
 * of the rise, when the two high corners are shimmed to share it (least range of xy over a plane).
 */
export function warpLoss(board: BoardStock, part: Part): Pick<MillingLoss, 'cup' | 'bow' | 'wind' | 'crook'> {
  const l = Math.min(1, part.length / board.length.mm);
  const w = Math.min(1, part.width / board.width.mm);
  const { cup, bow, wind, crook } = board.warp ?? {};
  return {
    cup: (cup?.mm ?? 0) * w * w,
    bow: (bow?.mm ?? 0) * l * l,
    wind: ((wind?.mm ?? 0) / 2) * l * w,
    crook: (crook?.mm ?? 0) * l * l,
  };
}

/** What comes off each face to clean it, by how the board was sold. */
export const faceCleaning = (board: BoardStock, shop: ShopSnapshot): number =>
  board.sold === 'rough' || board.sold === 'reclaimed' || board.sold === undefined
    ? shop.allowances.millFace.mm
    : SURFACED_FACE_MM;

/** What comes off each edge, mm: the rounded corner of dressed lumber, or the shop's allowance. */
export const edgeCleaning = (board: BoardStock, shop: ShopSnapshot): number =>
  board.sold === 'dressed' ? FACTORY_CORNER_MM : shop.allowances.millEdge.mm;

/**
 * What a piece of a board gives once it is flat on both faces, equal amounts off each, straight and square on both
 * edges and cleaned at both ends; the whole board if no part is named. Never less than zero. Sizes in mm.
 */
export function millingYield(board: BoardStock, shop: ShopSnapshot, part?: Partial<Part>): MillingYield {
  const length = Math.min(board.length.mm, part?.length ?? board.length.mm);
  const width = Math.min(board.width.mm, part?.width ?? board.width.mm);
  const loss: MillingLoss = {
    ...warpLoss(board, { length, width }),
    faces: 2 * faceCleaning(board, shop),
    edges: 2 * edgeCleaning(board, shop),
    ends: 2 * shop.allowances.trimEnd.mm,
  };
  const tolerances = spreads(shop);
  return {
    length: Math.max(0, length - loss.ends),
    width: Math.max(0, width - loss.crook - loss.edges),
    thickness: Math.max(0, board.thickness.mm - loss.cup - loss.bow - loss.wind - loss.faces),
    loss,
    tolerance: tolerances,
    notLooked: (['cup', 'bow', 'crook', 'wind'] as const).filter((name) => !board.warp?.[name]),
  };
}

/** How far off: the tape's reading of the board, and the machine that takes it to size, added as independent errors. */
function spreads(shop: ShopSnapshot): MillingYield['tolerance'] {
  const planer = machinesThat(shop, 'mill')[0] ?? machinesThat(shop, 'flatten')[0];
  const saw = shop.saws[0];
  const sources: Sources = new Map();
  const tape = settingErrors(sources, 'tape', 'read with a tape', {
    likely: { mm: INCH / 64 },
    worst: { mm: INCH / 32 },
    basis: 'common practice',
  });
  const planed = planer ? settingErrors(sources, 'planer', planer.name, planer.setting) : {};
  const sawn = saw ? settingErrors(sources, 'saw', saw.name, saw.setting) : {};
  const of = (setting: typeof tape) => toleranceOf({ ...tape, ...setting }, sources);
  return { length: of(sawn), width: of(sawn), thickness: of(planed) };
}

/** Days a board should lie in the shop before it is milled: two weeks, four for construction lumber (common practice). */
export const waitDays = (board: BoardStock): number => (board.sold === 'dressed' ? 28 : 14);

/** How far above the shop's moisture a board may be and still count as settled, in % (common practice). */
const SETTLED_PCT = 1.5;

/** Whether a board has come to rest in the shop. */
export interface Acclimatised {
  ready: boolean;
  /** Days it lies here, and how many more it should; undefined where its arrival is not known. */
  days?: number;
  daysLeft?: number;
  /** How far its reading is above the shop's, %; undefined where nobody measured. */
  abovePct?: number;
}

const DAY_MS = 86_400_000;

/**
 * Whether a board has settled: by its moisture reading where there is one, else by days. `today` is `YYYY-MM-DD`.
 * Offcuts come from boards that lie here already. A board of which neither is known counts as ready.
 */
export function acclimatised(board: BoardStock, shop: ShopSnapshot, today: string): Acclimatised {
  const arrived = board.arrived ? Date.parse(board.arrived) : Number.NaN;
  const days = Number.isFinite(arrived)
    ? Math.max(0, Math.floor((Date.parse(today) - arrived) / DAY_MS))
    : undefined;
  const daysLeft = days === undefined ? undefined : Math.max(0, waitDays(board) - days);
  const abovePct = board.moisturePct === undefined ? undefined : board.moisturePct - shop.woodMoisturePct;
  const ready =
    board.sold === 'offcut' || (abovePct !== undefined ? abovePct <= SETTLED_PCT : (daysLeft ?? 0) === 0);
  return { ready, days, daysLeft, abovePct };
}
