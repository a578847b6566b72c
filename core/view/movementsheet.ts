import { rising } from '../units';
import type { BuildDocument } from '../document';
import {
  type Cell,
  cellCentre,
  dot,
  extents,
  grainOf,
  growthAlong,
  movePoint,
  toOrigin,
  unit,
} from '../solid';
import {
  type Fact,
  fitReports,
  fittingName,
  isOf,
  movesOf,
  type Moves,
  strainFrom,
  type Swing,
  swingOf,
  type Timeline,
} from '../steps';
import { speciesName, strainsOf } from '../wood';

/** One board of a panel through the year, as a line across its middle meets it. */
export interface BoardMoves {
  wood: string;
  mm: number;
  /** How far its rings stand from flat, degrees: 0 flat-sawn, 90 quarter-sawn; none where its grain stands across the line. */
  ringDegrees?: number;
  moves: Moves;
}

/** A joint between two boards: the step that a thumb feels on each face when the year is at its worst. */
export interface JointMoves {
  joint: number;
  stepMm: number;
}

/** A piece through a year at its place. */
export interface MovementSheet {
  swing: Swing;
  step: string;
  /** Length, width and thickness when it is fitted, mm. */
  size: readonly [number, number, number];
  /** How far each goes out and in over the year. */
  moves: readonly [Moves, Moves, Moves];
  /** Its width month by month, January first, mm. */
  widths: number[];
  /** How far the width would go if every board were flat-sawn: rings that nobody looked at are a guess. */
  atMost: Moves;
  boards: BoardMoves[];
  joints: JointMoves[];
  fittings: { step: string; id: string; name: string; facts: Fact[]; problems: number }[];
}

/** Where a line across the width at the middle of a piece goes into and out of its cells, in their order. */
function crossed(cells: readonly Cell[], size: readonly [number, number, number]) {
  return cells
    .map((cell) => {
      const lo = [0, 1, 2].map((k) => Math.min(...cell.vertices.map((v) => v[k])));
      const hi = [0, 1, 2].map((k) => Math.max(...cell.vertices.map((v) => v[k])));
      return { cell, lo, hi };
    })
    .filter(({ lo, hi }) => [0, 2].every((k) => lo[k] <= size[k] * 0.49 && hi[k] >= size[k] * 0.49))
    .toSorted(rising((a) => a.lo[1]));
}

/** How far rings stand from flat at the middle of a cell, degrees. */
function ringsOf(cell: Cell): number | undefined {
  if (Math.abs(grainOf(cell)[1]) > 0.9) return undefined;
  const [x, y] = movePoint(cell.toLog, cellCentre(cell));
  const long = Math.hypot(x, y) || 1;
  const m = cell.toLog;
  // The radius, turned back into the piece’s frame: how much of it lies across the width.
  const across = (x * m[1] + y * m[5]) / long;
  const up = (x * m[2] + y * m[6]) / long;
  return (Math.atan2(Math.abs(across), Math.abs(up)) * 180) / Math.PI;
}

/** The finished piece, or the last that could be made, through a year; nothing where none comes out. */
export function movementSheet(build: BuildDocument, timeline: Timeline): MovementSheet | undefined {
  const entry = timeline.finished ?? timeline.steps.at(-1);
  const [piece] = entry?.pieces ?? [];
  if (!entry || !piece) return undefined;
  const blank = toOrigin(piece.blank);
  const swing = swingOf(build);
  const size = extents(blank);
  const { fitted, relation } = swing;
  const growth = (pct: number) => growthAlong(blank.cells, 1, strainFrom(1, fitted, pct, relation)).greatest;
  const row = crossed(blank.cells, size);
  const own = row.map(({ cell, lo, hi }) => ({
    cell,
    mm: hi[1] - lo[1],
    moves: movesOf({ cells: [cell] }, 1, swing),
  }));
  const thick = (cell: Cell, pct: number) => strainFrom(2, fitted, pct, relation)(cell) * size[2];
  const flat = (pct: number) =>
    growthAlong(blank.cells, 1, (cell) => {
      const along = dot(grainOf(cell), unit(1)) ** 2;
      const strains = strainsOf(cell.origin.species, fitted, pct, relation);
      return along * strains.along + (1 - along) * strains.tangential;
    });
  const ends = [flat(swing.dry), flat(swing.damp)];
  return {
    swing,
    step: entry.id,
    size,
    moves: [movesOf(blank, 0, swing), movesOf(blank, 1, swing), movesOf(blank, 2, swing)],
    widths: swing.months.map((pct) => size[1] + growth(pct)),
    atMost: {
      out: Math.max(0, ...ends.map(({ greatest }) => greatest)),
      in: Math.max(0, ...ends.map(({ least }) => -least)),
    },
    boards: own.map(({ cell, mm, moves }) => {
      const ringDegrees = ringsOf(cell);
      return {
        wood: speciesName(cell.origin.species),
        mm,
        moves,
        ...(ringDegrees === undefined ? {} : { ringDegrees }),
      };
    }),
    joints: own.slice(1).map(({ cell }, i) => ({
      joint: i + 1,
      stepMm: Math.max(
        ...[swing.dry, swing.damp].map((pct) => Math.abs(thick(cell, pct) - thick(own[i].cell, pct)) / 2),
      ),
    })),
    fittings: build.steps.flatMap((step) => {
      const played = timeline.steps.find(({ id }) => id === step.id);
      if (!isOf(step, 'fit') || !played) return [];
      return fitReports(step, { build, entry: played }).map(({ fitting, report }) => ({
        step: step.id,
        id: fitting.id,
        name: fittingName(fitting),
        facts: report.facts,
        problems: report.problems.length,
      }));
    }),
  };
}
