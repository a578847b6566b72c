import type { BoardStock, GrainCut } from '../../document';
import { type Blank, boxBlank, inverse, type Rigid } from '../../solid';
import {
  type BoardMarks,
  chance,
  findSpecies,
  hash,
  lookOf,
  type MarkKind,
  materialOf,
  SHEET_RADIUS_MM,
  toneOf,
  type WoodMark,
} from '../../wood';

/** A whole number from a text, the same on every machine. */
export const seedOf = (text: string): number => {
  let h = 7;
  for (let i = 0; i < text.length; i++) h = hash(h, text.charCodeAt(i));
  return h % 9973;
};

const GRAIN_TURN: Record<GrainCut, [number, number]> = {
  flat: [-0.18, 0.18],
  rift: [0.6, 0.95],
  quarter: [1.38, 1.72],
};

/** Board frame to log frame, with the middle of the board's end at `radius` from the pith, turned by `turned`. */
const placed = (
  turned: number,
  { radius, width, thickness, z }: { radius: number; width: number; thickness: number; z: number },
): Rigid => {
  const c = Math.cos(turned);
  const s = Math.sin(turned);
  return [
    0,
    c,
    -s,
    (-c * width + s * thickness) / 2,
    0,
    s,
    c,
    radius - (s * width + c * thickness) / 2,
    1,
    0,
    0,
    z,
  ];
};

/** A layer thinner than this at a face was sanded away, mm. */
const SANDED_MM = 0.02;

/**
 * A sheet's own planes lie along its faces, as far up its "log" as rings are flat, and the same above its middle as below.
 * Of crosswise veneers the middle one lies so that both faces run along the sheet.
 */
function sheetPlace(seed: number, width: number, thickness: number, species: string): Rigid {
  const layerMm = findSpecies(species)?.layerMm ?? 0;
  const above = layerMm > 0 ? Math.floor((thickness / 2 - SANDED_MM) / layerMm + 0.5) : 0;
  const radius = SHEET_RADIUS_MM + (above % 2 === 1 ? layerMm : 0);
  return placed(0, { radius, width, thickness, z: 400 * chance(seed, 5) });
}

/** A piece of a wood, and how it was sawn; how is no question in a sheet. */
interface Sawn {
  species: string;
  grain?: GrainCut;
}

/**
 * Where in its log a board lay: the pith under the middle of its face (flat-sawn) or beside its edge (quartersawn),
 * at a distance that the seed decides. Wood whose log nobody has looked at is drawn from such a guess.
 */
export function placeInLog(seed: number, width: number, thickness: number, { species, grain }: Sawn): Rigid {
  if (materialOf(species).sheet) return sheetPlace(seed, width, thickness, species);
  const pick = chance(seed, 1);
  const cut: GrainCut = grain ?? (pick < 0.55 ? 'flat' : pick < 0.8 ? 'rift' : 'quarter');
  const [from, to] = GRAIN_TURN[cut];
  const turned = from + (to - from) * chance(seed, 2) + (chance(seed, 3) < 0.5 ? 0 : Math.PI);
  const radius = Math.hypot(width, thickness) / 2 + 25 + 90 * chance(seed, 4);
  return placed(turned, { radius, width, thickness, z: 400 * chance(seed, 5) });
}

/** Where in its log a real board lay: as looked at, and guessed from its seed where nobody looked. */
export function logOf(board: BoardStock): Rigid {
  const seed = seedOf(board.log ?? board.id) + seedOf(board.id);
  const [width, thickness] = [board.width.mm, board.thickness.mm];
  const guess = placeInLog(seed, width, thickness, {
    species: board.species,
    grain: board.grain ?? 'flat',
  });
  if ((!board.pith && !board.ringRadius) || materialOf(board.species).sheet) return guess;
  const [from, to] = GRAIN_TURN[board.grain ?? 'flat'];
  const within = from + (to - from) * chance(seed, 2);
  // The face's upward normal points away from a pith that lies below it.
  const below = board.pith ? board.pith === 'below' : chance(seed, 3) < 0.5;
  const least = Math.hypot(width, thickness) / 2;
  const radius = board.ringRadius ? Math.max(1, board.ringRadius.mm) : least + 25 + 90 * chance(seed, 4);
  return placed(within + (below ? 0 : Math.PI), { radius, width, thickness, z: 400 * chance(seed, 5) });
}

const MARKED: readonly MarkKind[] = ['knot', 'sapwood', 'stain', 'split', 'check'];

/** The faults that a picture shows, with the way from the log back to the board. */
function marksOf(board: BoardStock, toLog: Rigid): BoardMarks | undefined {
  const marks = (board.faults ?? []).flatMap(({ kind, face, x, y, length, width }): WoodMark[] => {
    const known = MARKED.find((name) => name === kind);
    return known ? [{ kind: known, face, x, y, length, width, thickness: board.thickness.mm }] : [];
  });
  return marks.length > 0 ? { toBoard: inverse(toLog), marks } : undefined;
}

/** A whole board as bought, in its own frame: x from the marked end, y from the near edge, z from the under face. */
export function boardBlank(board: BoardStock): Blank {
  const toLog = logOf(board);
  const marks = marksOf(board, toLog);
  const tone = toneOf(board.colour, lookOf(board.species));
  return boxBlank(
    [board.length.mm, board.width.mm, board.thickness.mm],
    toLog,
    {
      board: board.id,
      species: board.species,
      seed: seedOf(board.log ?? board.id),
      shade: seedOf(board.id),
      ...(tone ? { tone } : {}),
      ...(marks ? { marks } : {}),
    },
    board.id,
  );
}
