/* Pieces, places and reports that the tests of fittings share. */
import type { PlaceOfUse } from '../../document';
import { equilibriumMoisture } from '../../kit';
import { boxCell, type Rigid, type Vec3 } from '../../solid';
import { build } from '../steps.fixture';
import type { WorkPiece } from '../timeline';
import { type Fitting, fitPlaceOf, fittingKindOf } from '.';

/** A piece of white oak, flat-sawn all through: its pith far below. */
export const oak = (size: Vec3): WorkPiece => {
  const toLog: Rigid = [0, 1, 0, -size[1] / 2, 0, 0, 1, 1e7, 1, 0, 0, 0];
  const blank = {
    cells: [boxCell(size, toLog, { board: 'b', species: 'oak_white', seed: 1, shade: 1 }, 'b')],
  };
  return { id: 'p', blank, errors: [{}, {}, {}] } as unknown as WorkPiece;
};

/** Humidity at 20 degrees at which wood comes to a moisture, % (bisection: equilibrium rises with humidity). */
function humidityFor(pct: number): number {
  let [low, high] = [1, 94];
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    if (equilibriumMoisture({ temperatureC: 20, humidityPct: mid }) < pct) low = mid;
    else high = mid;
  }
  return low;
}
export const between = (dry: number, damp: number, fittedPct: number): PlaceOfUse => ({
  dry: { temperatureC: 20, humidityPct: humidityFor(dry) },
  damp: { temperatureC: 20, humidityPct: humidityFor(damp) },
  fittedPct,
});
export const base = build([], []);
export const placed = (place: PlaceOfUse) => ({ place, shop: base.shop });
export const mm = (n: number) => ({ mm: n });
export const report = (fitting: object, piece: WorkPiece, place: PlaceOfUse) => {
  const own = { id: 'f', ...fitting } as Fitting;
  return fittingKindOf(own).report(own, fitPlaceOf(piece, placed(place)));
};
