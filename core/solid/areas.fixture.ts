import { sumOf } from '../units';
import { type Cell, cross, dot, type Face, subtract, type Vec3 } from '.';

/** Area of a face in mm2. */
export function faceArea(cell: Cell, face: Face): number {
  const [base] = face.loop;
  const corners = face.loop.map((i) => subtract(cell.vertices[i], cell.vertices[base]));
  return sumOf(corners, (b, i) => dot(cross(corners.at(i - 1) as Vec3, b), face.normal)) / 2;
}
