import type { LinePressure } from './contact';

/** A stretch of a line that is open or lean, mm from the left end. */
export interface Stretch {
  from: number;
  to: number;
  state: 'open' | 'lean';
}

/** What a maker would say of a line, and the numbers behind it. */
export interface LineReading {
  words: 'even' | 'a little uneven' | 'uneven' | 'open';
  stretches: Stretch[];
  /** Least and greatest over mean; zero where there is no pressure at all. */
  leastOverMean: number;
  greatestOverMean: number;
  meanMPa: number;
  leastMPa: number;
  /** Per cent of the length below the wanted pressure. */
  belowPct: number;
  openMm: number;
}

/** Least over mean from which squeeze-out looks even, and a little uneven: Junta's words, no standard has them. */
export const EVEN = 0.75;
const FAIR = 0.45;
/** A stretch counts as lean below this share of the wanted pressure. */
const LEAN = 0.5;

/** Reads a line against the pressure wanted, MPa. */
export function readLine({ x, pressure, gap }: LinePressure, wantedMPa: number): LineReading {
  const n = x.length;
  const length = x[n - 1] - x[0];
  const weight = (i: number) => (i === 0 || i === n - 1 ? 0.5 : 1) / (n - 1);
  let [mean, below, open] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    mean += pressure[i] * weight(i);
    if (pressure[i] < wantedMPa * (1 - 1e-9)) below += weight(i);
    if (pressure[i] <= 0) open += weight(i);
  }
  const least = Math.min(...pressure);
  const greatest = Math.max(...pressure);
  const over = mean > 0 ? least / mean : 0;
  const stretches = stretchesOf({ x, pressure, gap }, wantedMPa);
  return {
    words: open > 0 ? 'open' : over >= EVEN ? 'even' : over >= FAIR ? 'a little uneven' : 'uneven',
    stretches,
    leastOverMean: over,
    greatestOverMean: mean > 0 ? greatest / mean : 0,
    meanMPa: mean,
    leastMPa: least,
    belowPct: below * 100,
    openMm: open * length,
  };
}

function stretchesOf({ x, pressure }: LinePressure, wantedMPa: number): Stretch[] {
  const n = x.length;
  const state = (i: number): Stretch['state'] | undefined =>
    pressure[i] <= 0 ? 'open' : pressure[i] < wantedMPa * LEAN ? 'lean' : undefined;
  const edge = (i: number) => (i <= 0 ? x[0] : i >= n ? x[n - 1] : (x[i - 1] + x[i]) / 2);
  const out: Stretch[] = [];
  for (let i = 0; i < n; ) {
    const is = state(i);
    let k = i;
    while (k < n && state(k) === is) k += 1;
    if (is) out.push({ from: edge(i), to: edge(k), state: is });
    i = k;
  }
  return out;
}

/** Where a stretch lies, in words; `ends` are the names of the ends at zero and at the full length. */
export const placeOf = (
  { from, to }: Stretch,
  length: number,
  ends: readonly [string, string] = ['left', 'right'],
): string =>
  from <= length * 1e-6 && to >= length * (1 - 1e-6)
    ? 'along the whole joint'
    : from <= length * 1e-6
      ? `at the ${ends[0]} end`
      : to >= length * (1 - 1e-6)
        ? `at the ${ends[1]} end`
        : 'between';
