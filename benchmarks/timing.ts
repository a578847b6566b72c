/** A line of the report. */
export interface Row {
  what: string;
  measured: string;
  wanted: string;
  met: boolean;
}

/**
 * Time of a call in ms when the machine is quiet: the fastest tenth of many calls, on both sides of a comparison, since
 * a shared machine slows short and long calls unequally. The first calls warm up and do not count.
 */
export function quietMs(call: () => void, forMs = 1500): number {
  for (let i = 0; i < 3; i++) call();
  const times: number[] = [];
  const end = performance.now() + forMs;
  while (performance.now() < end || times.length < 5) {
    const start = performance.now();
    call();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 10)];
}
