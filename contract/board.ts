import * as yup from 'yup';
import { type BoardStock, FAULT_KINDS, MOST_FAULTS, MOST_GRADE, PRICE_PER, SOLD_AS } from '../core/document';
import { faultProblem } from '../core/stock/faults';
import { amount, exact, id, maybeOneOf, notNegative, optionalLength, size, text, version } from './lengths';

const place = () => amount().min(0).max(100_000);
const rectangle = { x: place(), y: place(), length: place(), width: place() };

const fault = exact({
  id: id(),
  kind: yup.string().oneOf(FAULT_KINDS).required(),
  face: yup
    .string()
    .oneOf(['up', 'down', 'both'] as const)
    .required(),
  ...rectangle,
}).required();

const warp = exact({
  cup: notNegative().optional().default(undefined),
  bow: notNegative().optional().default(undefined),
  crook: notNegative().optional().default(undefined),
  wind: notNegative().optional().default(undefined),
});

/** Money in minor units; a price without a currency is none. */
const price = exact({
  minor: amount().integer().min(0).max(1e12),
  currency: text(3)
    .matches(/^[A-Z]{3}$/, ({ path }) => `${path} must be a currency of three letters, such as EUR`)
    .required(),
  per: yup.string().oneOf(PRICE_PER).required(),
});

const taken = exact({
  label: text(40).defined(),
  of: text(120).optional(),
  slot: text(80).optional(),
  copy: yup.number().integer().min(0).max(100_000).optional(),
  ...rectangle,
  thickness: place(),
  leaf: yup.number().integer().min(0).max(200).optional(),
  leaves: yup.number().integer().min(1).max(200).optional(),
}).required();

const positive = (dimension: 'length' | 'width' | 'thickness') =>
  size(dimension).test(
    'positive',
    ({ path }) => `${path} must be more than zero`,
    (value) => value === undefined || value.mm > 0,
  );

const fields = {
  label: text(40).required(),
  species: id(),
  length: positive('length'),
  width: positive('width'),
  thickness: positive('thickness'),
  log: text(80).optional(),
  sold: maybeOneOf(...SOLD_AS),
  grade: text(MOST_GRADE).optional(),
  grain: maybeOneOf('flat', 'rift', 'quarter'),
  pith: maybeOneOf('above', 'below'),
  ringRadius: optionalLength(),
  fibre: maybeOneOf('straight', 'rising', 'falling'),
  goodFace: maybeOneOf('up', 'down'),
  sapEdge: maybeOneOf('near', 'far', 'both', 'none'),
  colour: text(7)
    .matches(/^#[0-9a-fA-F]{6}$/, ({ path }) => `${path} must be a colour such as #8a6a4f`)
    .optional(),
  price: price.default(undefined).optional(),
  moisturePct: yup.number().min(0).max(200).optional(),
  arrived: text(10)
    .matches(/^\d{4}-\d{2}-\d{2}$/, ({ path }) => `${path} must be a day such as 2026-03-31`)
    .optional(),
  warp: warp.default(undefined).optional(),
  faults: yup.array(fault).max(MOST_FAULTS).optional(),
};

/** Every fault lies on its board. */
const onBoard = (value: unknown, context: yup.TestContext): true | yup.ValidationError => {
  const board = value as BoardStock | undefined;
  // The shape is checked elsewhere: here only faults that are faults are looked at.
  if (!Array.isArray(board?.faults) || !(board.length?.mm > 0) || !(board.width?.mm > 0)) return true;
  for (const [i, f] of board.faults.entries()) {
    const reason = f && typeof f === 'object' ? faultProblem(f, board) : undefined;
    if (reason)
      return context.createError({
        path: `${context.path ? `${context.path}.` : ''}faults[${i}]`,
        message: reason,
      });
  }
  return true;
};

/** A board in a job: a snapshot of the rack's, with the places that others take. */
export const boardSchema = () =>
  exact({ id: id(), ...fields, taken: yup.array(taken).max(500).optional() })
    .test('on board', onBoard as never)
    .required();

/** A board for the rack, which gives it its id. */
export const newBoardSchema = () =>
  exact(fields)
    .test('on board', onBoard as never)
    .required();

/** Boards to be put on the rack together: all of them or none. */
export const newBoardsBody = exact({ boards: yup.array(newBoardSchema()).min(1).max(2000).required() });
/** A changed board, with the version it was made from. */
export const saveBoardBody = exact({ version: version(), board: newBoardSchema() });
/** Boards taken off the rack. `force` also takes boards that a job has reserved. */
export const removeBoardsBody = exact({
  ids: yup.array(id()).min(1).max(2000).required(),
  force: yup.boolean().required(),
});
/**
 * The boards that a job's plan takes. `freed` are those that only the plan before took: what else is reserved, by hand,
 * stays; without it the job keeps these boards and no other.
 */
export const reserveBody = {
  boards: yup.array(id()).max(500).required(),
  freed: yup.array(id()).max(500).optional(),
};

/** How a board came to be what it is. */
export interface BoardEvent {
  when: string;
  what: string;
  /** Who did it; unknown of what happened before this was noted. */
  by?: string;
}

/** A board on the rack. */
export interface RackBoard extends BoardStock {
  version: number;
  /** The job it is reserved for. */
  reserved?: { job: string; name: string };
  history: BoardEvent[];
}
export type NewBoard = Omit<BoardStock, 'id' | 'taken'>;
