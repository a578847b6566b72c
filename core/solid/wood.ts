import { sumOf } from '../units';
import { type Cell, solidVolume } from './cell';
import { hollowVolume } from './hollow/volume';

/** Volume of a cell's wood, mm3: what is within its faces, less what is hollow there. */
export function cellVolume(cell: Cell): number {
  cell.mm3 ??=
    solidVolume(cell) - (cell.hollows ? sumOf(cell.hollows, (hollow) => hollowVolume(hollow, cell)) : 0);
  return cell.mm3;
}
