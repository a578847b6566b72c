import { type Blank, bounds, type Bounds } from './blank';

/**
 * How deep the lowest place of a face across the thickness lies below its highest, mm: of the upper face, or of the lower one. What
 * another part lies over, seen at its middle, is no place of the face.
 */
export function lowestOpen({ cells }: Blank, top: boolean): number {
  const boxes = cells.map((cell) => bounds({ cells: [cell] }));
  const [high, low] = [
    Math.max(...boxes.map(({ max }) => max[2])),
    Math.min(...boxes.map(({ min }) => min[2])),
  ];
  // A cell below another one has no face of its own there.
  const covered = (own: Bounds) =>
    boxes.some((other) => {
      const over = top ? other.min[2] >= own.max[2] - 1e-6 : other.max[2] <= own.min[2] + 1e-6;
      const mid = [0, 1].map((a) => (own.min[a] + own.max[a]) / 2);
      return over && other !== own && mid.every((mm, a) => mm > other.min[a] && mm < other.max[a]);
    });
  return boxes
    .map((own): [Bounds, number] => [own, top ? high - own.max[2] : own.min[2] - low])
    .reduce((most, [own, depth]) => (depth > most && !covered(own) ? depth : most), 0);
}
