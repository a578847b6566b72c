/** What thinning looks at of a kept version. */
export interface Kept {
  id: string;
  /** When it was made, ms. */
  at: number;
  /** It lost a conflict. */
  aside: boolean;
  /** A maker marked it. */
  marked: boolean;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** Of versions older than this one a day is kept, of younger ones one an hour, of the last day all. */
const HOURLY_MS = 30 * DAY_MS;

/**
 * Ids of the versions that go: everything of the last day stays, then the last of each hour for 30 days, then the last
 * of each day. What a maker marked stays, and so does `current`. Versions put aside in a conflict are thinned by
 * themselves, so that one never goes because of a version that was stored. Days and hours are those of UTC.
 */
export function thinned(versions: readonly Kept[], now: number, current?: string): string[] {
  const seen = new Set<string>();
  return versions
    .toSorted((a, b) => b.at - a.at)
    .filter(({ id, at, aside, marked }) => {
      const age = now - at;
      if (marked || id === current || age < DAY_MS) return false;
      const span = age < HOURLY_MS ? HOUR_MS : DAY_MS;
      const bucket = `${aside} ${span} ${Math.floor(at / span)}`;
      if (seen.has(bucket)) return true;
      seen.add(bucket);
      return false;
    })
    .map(({ id }) => id);
}
