import { falling, inTurn, rising, sumOf, upwards } from '../units';
import { type BoardStock, type FaceGrades, type Fault, mustAvoid, TOUCH_MM } from '../document';

/** A rectangle on a board, mm. */
export interface Area {
  x: number;
  y: number;
  length: number;
  width: number;
}

/** Of a rectangle, mm2. */
export const areaOf = ({ length, width }: Pick<Area, 'length' | 'width'>): number => length * width;

/** What is wrong with a fault's place on its board, in words; undefined if nothing is. */
export function faultProblem(fault: Fault, board: Pick<BoardStock, 'length' | 'width'>): string | undefined {
  const [l, w] = [board.length.mm, board.width.mm];
  if (!(fault.length > 0 && fault.width > 0)) return `the ${fault.kind} has no size`;
  if (fault.x < -TOUCH_MM || fault.x + fault.length > l + TOUCH_MM)
    return `the ${fault.kind} reaches from ${Math.round(fault.x)} to ${Math.round(fault.x + fault.length)} mm, but the board is ${Math.round(l)} mm long`;
  if (fault.y < -TOUCH_MM || fault.y + fault.width > w + TOUCH_MM)
    return `the ${fault.kind} reaches from ${Math.round(fault.y)} to ${Math.round(fault.y + fault.width)} mm, but the board is ${Math.round(w)} mm wide`;
  return undefined;
}

/** Cuts a fault to its board; undefined where nothing of it lies there. */
export function clipFault(fault: Fault, board: Pick<BoardStock, 'length' | 'width'>): Fault | undefined {
  const x = Math.max(0, fault.x);
  const y = Math.max(0, fault.y);
  const length = Math.min(board.length.mm, fault.x + fault.length) - x;
  const width = Math.min(board.width.mm, fault.y + fault.width) - y;
  return length > TOUCH_MM && width > TOUCH_MM ? { ...fault, x, y, length, width } : undefined;
}

/** Faults a strip must keep clear of, by its grades and the way it lies. */
export const forbidden = (board: BoardStock, grades: FaceGrades, faceDown: boolean): Fault[] =>
  (board.faults ?? []).filter((fault) => mustAvoid(fault, grades, faceDown));

/**
 * Every greatest rectangle of a board that holds none of the given faults, the largest first: none can grow to any
 * side. Between each pair of limits along the length the free stretches of width are read off.
 */
export function clearAreas(
  board: Pick<BoardStock, 'length' | 'width'>,
  faults: readonly Area[],
  least: { length: number; width: number } = { length: 1, width: 1 },
): Area[] {
  const [l, w] = [board.length.mm, board.width.mm];
  const starts = [0, ...faults.map((f) => f.x + f.length)].filter((x) => x < l - TOUCH_MM);
  const ends = [l, ...faults.map((f) => f.x)].filter((x) => x > TOUCH_MM);
  const found: Area[] = [];
  for (const from of new Set(starts))
    for (const to of new Set(ends)) {
      if (to - from < least.length) continue;
      const inside = faults
        .filter((f) => f.x < to - TOUCH_MM && f.x + f.length > from + TOUCH_MM)
        .toSorted(rising((a) => a.y));
      let y = 0;
      for (const { y: begin, width } of [...inside, { y: w, width: 0 }]) {
        if (begin - y >= least.width) found.push({ x: from, y, length: to - from, width: begin - y });
        y = Math.max(y, begin + width);
      }
    }
  const holds = (a: Area, b: Area) =>
    a !== b &&
    a.x <= b.x + TOUCH_MM &&
    a.y <= b.y + TOUCH_MM &&
    a.x + a.length >= b.x + b.length - TOUCH_MM &&
    a.y + a.width >= b.y + b.width - TOUCH_MM;
  return found
    .filter((area, i) => !found.some((other, j) => holds(other, area) && (!holds(area, other) || j < i)))
    .toSorted(
      inTurn(
        falling((area: Area) => areaOf(area)),
        rising(({ x }) => x),
        rising(({ y }) => y),
      ),
    );
}

/** Share of a board's area that is free of faults a show face forbids, on its better side. */
export function clearShare(board: BoardStock): number {
  const area = board.length.mm * board.width.mm;
  const sides = (['up', 'down'] as const).map((face) => {
    const faults = forbidden(board, { up: 'show', down: 'hidden' }, face === 'down');
    return 1 - coveredArea(faults) / area;
  });
  return Math.max(...sides);
}

/** Area that rectangles cover together, counted once where they overlap. */
export function coveredArea(areas: readonly Area[]): number {
  const xs = [...new Set(areas.flatMap((a) => [a.x, a.x + a.length]))].toSorted(upwards);
  return sumOf(xs, (to, i) => {
    const from = xs[i - 1] ?? to;
    const inside = areas.filter((a) => a.x < to && a.x + a.length > from).toSorted(rising((a) => a.y));
    let [top, covered] = [-Infinity, 0];
    for (const { y, width } of inside) {
      covered += Math.max(0, y + width - Math.max(y, top));
      top = Math.max(top, y + width);
    }
    return covered * (to - from);
  });
}
