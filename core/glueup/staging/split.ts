import { countObtainable, sumOf } from '../../units';

/**
 * Splits strips into runs that each stay within a limit, as few as can be and as even as can be, the larger ones
 * first; never through a strip. Widths and limit in one unit. Undefined where one strip alone is too wide.
 */
export function splitStrips(widths: readonly number[], limit: number): number[] | undefined {
  const fits = (run: readonly number[]) => countObtainable(limit / sumOf(run)) >= 1;
  if (!widths.every((w) => fits([w]))) return undefined;
  // First fit along the order gives the fewest; shared out evenly they are kept where that fits too.
  const fewest = greedyCounts(widths, fits);
  const even = evenCounts(widths.length, fewest.length);
  return runsOf(widths, even).every(fits) ? even : fewest;
}

/** Counts as even as can be, the larger first: 16 in 3 are 6, 5 and 5. */
export const evenCounts = (count: number, sections: number): number[] =>
  Array.from({ length: sections }, (_, i) => Math.floor(count / sections) + (i < count % sections ? 1 : 0));

function greedyCounts(widths: readonly number[], fits: (run: readonly number[]) => boolean): number[] {
  const counts: number[] = [];
  let run: number[] = [];
  for (const width of widths) {
    if (run.length > 0 && !fits([...run, width])) {
      counts.push(run.length);
      run = [];
    }
    run.push(width);
  }
  return run.length > 0 ? [...counts, run.length] : counts;
}

/** Strips dealt into runs by their counts. */
export function runsOf<T>(items: readonly T[], counts: readonly number[]): T[][] {
  let at = 0;
  return counts.map((count) => items.slice(at, (at += count)));
}

/** The joints a split falls on, counted from 1. */
export const jointsOf = (counts: readonly number[]): number[] =>
  counts.slice(0, -1).map((_, i) => sumOf(counts.slice(0, i + 1)));
