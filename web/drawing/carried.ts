/** Where a strip lies in the drawing, px. */
export interface Lying {
  id: string;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Along which strips lie one after another: across the page, or down it. */
const along = (each: Lying, upright: boolean): { from: number; size: number } =>
  upright ? { from: each.left, size: each.width } : { from: each.top, size: each.height };

/**
 * The place over which a strip is that was carried by so many px along the row: that of the strip whose middle, as it lay before, is
 * nearest to its own. Of two as near, the earlier.
 */
export function placeOver(row: readonly Lying[], at: number, by: number, upright: boolean): number {
  const middle = (each: Lying) => along(each, upright).from + along(each, upright).size / 2;
  const own = middle(row[at]) + by;
  let nearest = at;
  for (const [i, each] of row.entries())
    if (Math.abs(middle(each) - own) < Math.abs(middle(row[nearest]) - own)) nearest = i;
  return nearest;
}

/**
 * How far each strip moves along the row while one of them is over another place, px: those in between make way by the size of the
 * carried one and the gap beside it; the carried one by what brings it to its place; all others stay.
 */
export function makingWay(row: readonly Lying[], at: number, over: number, upright: boolean): number[] {
  const [own, there] = [along(row[at], upright), along(row[over], upright)];
  const on = Math.sign(over - at);
  const gap =
    on === 0
      ? 0
      : on > 0
        ? along(row[at + 1], upright).from - own.from - own.size
        : own.from - along(row[at - 1], upright).from - along(row[at - 1], upright).size;
  return row.map((_, i) => {
    if (i === at) return on > 0 ? there.from + there.size - own.size - own.from : there.from - own.from;
    const between = on > 0 ? i > at && i <= over : i < at && i >= over;
    return between ? -on * (own.size + gap) : 0;
  });
}

/** The place beside one in the direction of a key, or the first or last, counted from 0; undefined for another key. It may lie before the first or after the last. */
export const beside = (key: string, at: number, count: number): number | undefined =>
  ({ ArrowUp: at - 1, ArrowLeft: at - 1, ArrowDown: at + 1, ArrowRight: at + 1, Home: 0, End: count - 1 })[
    key
  ];
