/** So many strips of one width, mm. */
export interface WidthCount {
  mm: number;
  count: number;
}

/** How many matched sets there are, and what the next one lacks. */
export interface MatchedSets {
  sets: number;
  /** Widths that stand in the way of the number wanted, with how many of each are missing. */
  missing: WidthCount[];
  /** Strips of no use to any set. */
  over: WidthCount[];
}

/** Widths nearer than this are one, mm: no fence is set finer. */
const SAME_MM = 0.05;

/** Strips counted by their widths, in the order they come. */
export function byWidth(widthsMm: readonly number[]): WidthCount[] {
  const counts: WidthCount[] = [];
  for (const mm of widthsMm) {
    const same = counts.find((each) => Math.abs(each.mm - mm) < SAME_MM);
    if (same) same.count += 1;
    else counts.push({ mm, count: 1 });
  }
  return counts;
}

/**
 * How many sets of some widths there are among strips, and which widths are missing for so many: a set with one strip
 * missing is no set. Wanted is one more than there are, if not given.
 */
export function matchedSets(
  haveMm: readonly number[],
  oneSetMm: readonly number[],
  wanted?: number,
): MatchedSets {
  const per = byWidth(oneSetMm);
  const have = byWidth(haveMm);
  const countOf = (mm: number) => have.find((each) => Math.abs(each.mm - mm) < SAME_MM)?.count ?? 0;
  const sets =
    per.length === 0 ? 0 : Math.min(...per.map(({ mm, count }) => Math.floor(countOf(mm) / count)));
  const asked = wanted ?? sets + 1;
  return {
    sets,
    missing: per
      .map(({ mm, count }) => ({ mm, count: asked * count - countOf(mm) }))
      .filter(({ count }) => count > 0),
    over: have
      .map(({ mm, count }) => {
        const own = per.find((each) => Math.abs(each.mm - mm) < SAME_MM)?.count ?? 0;
        return { mm, count: count - Math.min(sets, asked) * own };
      })
      .filter(({ count }) => count > 0),
  };
}
