import type { BuildDocument } from '../document';
import { DEFAULT_AIR, equilibriumMoisture, moistureOf, yearOf } from '../kit';
import { across, type Axis, type Blank, type Cell, growthAlong, strainAlong, splitBlank } from '../solid';
import { type MovementRelation, strainsOf } from '../wood';

/** Moisture of a piece's wood through the year at its place, %. */
export interface Swing {
  /** When it is fitted. */
  fitted: number;
  /** In the driest and the dampest month. */
  dry: number;
  damp: number;
  /** Month by month, January first. */
  months: number[];
  relation: MovementRelation;
  /** Nobody told where it will stand. */
  assumed: boolean;
}

/** The moisture of a piece's wood through the year: where it was told to stand, a heated house if nowhere. */
export function swingOf({ place, shop }: Pick<BuildDocument, 'place' | 'shop'>): Swing {
  const room = place ?? DEFAULT_AIR;
  const air = place?.months ?? yearOf(room);
  const months = moistureOf(air);
  const ends = place?.months ? months : [room.dry, room.damp].map(equilibriumMoisture);
  return {
    fitted: place?.fittedPct ?? shop.woodMoisturePct,
    dry: Math.min(...ends),
    damp: Math.max(...ends),
    months,
    relation: place?.relation ?? 'coefficient',
    assumed: place === undefined,
  };
}

/** How wood grows along an axis from one moisture to another, %, as a share of its size. */
export const strainFrom =
  (axis: Axis, fromPct: number, toPct: number, relation: MovementRelation) =>
  (cell: Cell): number =>
    strainAlong(cell, axis, strainsOf(cell.origin.species, fromPct, toPct, relation));

/** How far a piece goes out and in from its size when it was fitted, mm: both zero or more. */
export interface Moves {
  out: number;
  in: number;
}

/** How far a piece, or what of it lies between two places, moves along an axis over the year: on the line where it is most. */
export function movesOf(
  blank: Blank,
  axis: Axis,
  { fitted, dry, damp, relation }: Pick<Swing, 'fitted' | 'dry' | 'damp' | 'relation'>,
  within?: readonly [number, number],
): Moves {
  // A board that a stretch cuts through moves by the rings of that part of it alone.
  const part = within
    ? within.reduce((left, at, i) => splitBlank(left, across(axis, at))[1 - i], blank)
    : blank;
  const to = [dry, damp].map((pct) => growthAlong(part.cells, axis, strainFrom(axis, fitted, pct, relation)));
  return {
    out: Math.max(0, ...to.map(({ greatest }) => greatest)),
    in: Math.max(0, ...to.map(({ least }) => -least)),
  };
}
