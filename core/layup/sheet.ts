import { sumOf } from '../units';
import type { BuildDocument } from '../document';
import { planClamps } from '../glueup';
import { layAids } from '../glueup/aids';
import { glueUpOf } from '../glueup/glueup';
import { gluingOf } from '../kit';
import { type Axis, extents, type Vec3 } from '../solid';
import { type GlueStep, type Laid, stepTitle, type Timeline } from '../steps';

/** A face of one piece of wood as the sheet draws it: corners in mm from the drawing's lower left. */
export interface DrawnFace {
  species: string;
  points: [number, number][];
}

/** One part of a glue-up with its number and what is done to it. */
export interface SheetPart {
  nth: number;
  piece: string;
  /** In the trade's words: end for end, rolled over, a quarter turn; empty where it lies as it came. */
  turned: string[];
  /** Shifted along its joint against the first part, mm. */
  shifted: number;
  size: Vec3;
  /** Its box on the drawing, mm: left, bottom, right, top. */
  box: [number, number, number, number];
  species: string[];
}

/** What keeps the faces flush, where it goes: as boxes on the drawing, and in words by joint. All mm. */
export interface SheetAids {
  /** The kind and the size, as in “biscuit 56 x 23”; empty where there is none. */
  name: string;
  /** Left, bottom, right, top on the drawing; a caul reaches across. */
  boxes: [number, number, number, number][];
  /** For each joint, or for all cauls together, the places from the left end. */
  places: { joint?: number; at: number[] }[];
}

/** The sheet of one glue-up: its drawing to scale. */
export interface GlueSheet {
  step: GlueStep;
  name: string;
  /** Drawn from above, or from the near edge where parts lie one on another. */
  seen: 'face' | 'edge';
  size: Vec3;
  /** Of how many blanks alike. */
  blanks: number;
  faces: DrawnFace[];
  parts: SheetPart[];
  aids: SheetAids;
  joints: number;
  areaMm2: number;
  tolerance: { likelyMm: number }[];
}

const turnWords = ({ endForEnd, rollOver, quarter }: Laid): string[] => [
  ...(endForEnd ? ['end for end'] : []),
  ...(rollOver ? ['rolled over'] : []),
  ...(quarter ? ['a quarter turn'] : []),
];

/** Aids and cauls of a glue-up on its drawing, seen along the axes u and v. */
function aidsOn(build: BuildDocument, timeline: Timeline, step: GlueStep, [u, v]: [Axis, Axis]): SheetAids {
  const none: SheetAids = { name: '', boxes: [], places: [] };
  const glueUp = glueUpOf(build, timeline, step.id);
  if (!glueUp || glueUp.askew || glueUp.lines.length === 0) return none;
  const { run, press } = glueUp.axes;
  if (![u, v].includes(run) || ![u, v].includes(press)) return none;
  const box = (at: number, along: number, line: number, into: number): [number, number, number, number] => {
    const [r, p] = [
      [at - along / 2, at + along / 2],
      [line - into, line + into],
    ];
    return u === run ? [r[0], p[0], r[1], p[1]] : [p[0], r[0], p[1], r[1]];
  };
  const layout = layAids(build, timeline, glueUp);
  if (layout.kind === 'cauls' && step.along !== 'thickness') {
    const { crossCauls } = planClamps(glueUp, build.shop);
    const { width } = gluingOf(build.shop).cauls;
    if (crossCauls.pairs === 0) return none;
    return {
      name: `${crossCauls.pairs} ${crossCauls.pairs === 1 ? 'pair' : 'pairs'} of cauls across`,
      boxes: crossCauls.at.map((at) => box(at, width.mm, glueUp.widthMm / 2, glueUp.widthMm / 2)),
      places: [{ at: crossCauls.at }],
    };
  }
  const { size } = layout;
  if (!size || layout.aids.length === 0) return none;
  const lines = new Map(glueUp.lines.map(({ joint, at }) => [joint, at]));
  return {
    name: size.name,
    boxes: layout.aids.map((aid) => box(aid.at, aid.along, lines.get(aid.joint) ?? 0, size.into)),
    places: glueUp.lines
      .map(({ joint }) => ({
        joint,
        at: layout.aids.filter((aid) => aid.joint === joint).map(({ at }) => at),
      }))
      .filter(({ at }) => at.length > 0),
  };
}

/** One sheet for every glue-up that could be played, in the order of the work. */
export function glueSheets(build: BuildDocument, timeline: Timeline): GlueSheet[] {
  return build.steps.flatMap((step): GlueSheet[] => {
    const entry = timeline.steps.find(({ id }) => id === step.id);
    const blank = entry?.pieces[0]?.blank;
    if (step.kind !== 'glue' || !entry?.laid || !blank) return [];
    const seen = step.along === 'thickness' || step.rows?.across === 'thickness' ? 'edge' : 'face';
    const [u, v]: [Axis, Axis] = seen === 'face' ? [0, 1] : [0, 2];
    const faces = blank.cells.flatMap((cell) =>
      cell.faces
        .filter(({ normal }) => (seen === 'face' ? normal[2] > 0.7 : normal[1] < -0.7))
        .map(({ loop }) => ({
          species: cell.origin.species,
          points: loop.map((i): [number, number] => [cell.vertices[i][u], cell.vertices[i][v]]),
        })),
    );
    const first = entry.laid[0];
    const aside = step.along === 'length' ? 1 : 0;
    const placed = step.parts?.some(({ place }) => place?.x !== undefined || place?.about !== undefined);
    const parts = entry.laid.map((laid, i): SheetPart => {
      const size = [0, 1, 2].map((a) => laid.max[a] - laid.min[a]) as unknown as Vec3;
      const inside = blank.cells.filter(({ vertices }) =>
        [0, 1, 2].every((a) => {
          const mid = sumOf(vertices, (w) => w[a]) / vertices.length;
          return mid >= laid.min[a] - 1e-6 && mid <= laid.max[a] + 1e-6;
        }),
      );
      return {
        nth: i + 1,
        piece: laid.piece,
        turned: turnWords(laid),
        shifted: step.rows || placed ? 0 : laid.min[aside] - first.min[aside],
        size,
        box: [laid.min[u], laid.min[v], laid.max[u], laid.max[v]],
        species: [...new Set(inside.map(({ origin }) => origin.species))],
      };
    });
    return [
      {
        step,
        name: stepTitle(build, step),
        seen,
        size: extents(blank),
        blanks: entry.pieces.length,
        faces,
        parts,
        aids: aidsOn(build, timeline, step, [u, v]),
        joints: entry.glue?.joints ?? 0,
        areaMm2: entry.glue?.areaMm2 ?? 0,
        tolerance: [...entry.tolerance],
      },
    ];
  });
}

/** Scales a drawing may be printed at, one to so many. */
const SCALES = [1, 2, 2.5, 4, 5, 10, 20, 50];

/** The largest usual scale at which a size fits a room, both mm; one to this many. */
export const scaleFor = (size: readonly [number, number], room: readonly [number, number]): number =>
  SCALES.find((scale) => size[0] / scale <= room[0] && size[1] / scale <= room[1]) ?? 100;
