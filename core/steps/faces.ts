import { blankVolume, cellVolume, extents, grainOf } from '../solid';
import { isSolid } from '../wood';
import type { WorkPiece } from './timeline';

/** The places of a piece that are sanded and finished. */
export type FacePlace = 'upper' | 'lower' | 'edges' | 'ends';
export const FACE_PLACES: readonly { place: FacePlace; name: string; axis: 0 | 1 | 2 }[] = [
  { place: 'upper', name: 'Upper face', axis: 2 },
  { place: 'lower', name: 'Lower face', axis: 2 },
  { place: 'edges', name: 'Edges', axis: 1 },
  { place: 'ends', name: 'Ends', axis: 0 },
];

/** How large a place is, and how much of it is end grain. */
export interface FaceArea {
  mm2: number;
  endGrain: number;
}

/** A side shows end grain where fibres stand nearer to it than to any other: cosine of 45 degrees, squared. */
const STANDS = 0.5;

/**
 * Area of every place of pieces, mm2, and the share of it that is end grain. Faces count what is open in them: as much as their
 * wood is worth at its thickness; edges and ends run round its box, both of them together.
 */
export function faceAreas(pieces: readonly WorkPiece[]): Record<FacePlace, FaceArea> {
  const sum = Object.fromEntries(FACE_PLACES.map(({ place }) => [place, { mm2: 0, ends: 0 }])) as Record<
    FacePlace,
    { mm2: number; ends: number }
  >;
  for (const { blank } of pieces) {
    const [l, w, t] = extents(blank);
    const mm3 = blankVolume(blank);
    if (!(mm3 > 0 && t > 0)) continue;
    const area = { upper: mm3 / t, lower: mm3 / t, edges: 2 * l * t, ends: 2 * w * t };
    const standing = ([0, 1, 2] as const).map(
      (axis) =>
        blank.cells.reduce(
          (all, cell) =>
            isSolid(cell.origin.species) && grainOf(cell)[axis] ** 2 > STANDS ? all + cellVolume(cell) : all,
          0,
        ) / mm3,
    );
    for (const { place, axis } of FACE_PLACES) {
      sum[place].mm2 += area[place];
      sum[place].ends += area[place] * standing[axis];
    }
  }
  return Object.fromEntries(
    FACE_PLACES.map(({ place }) => [
      place,
      { mm2: sum[place].mm2, endGrain: sum[place].mm2 > 0 ? sum[place].ends / sum[place].mm2 : 0 },
    ]),
  ) as Record<FacePlace, FaceArea>;
}

/** Whether the faces of pieces show more end grain than long grain. */
export const isEndGrain = (pieces: readonly WorkPiece[]): boolean => faceAreas(pieces).upper.endGrain > 0.5;
