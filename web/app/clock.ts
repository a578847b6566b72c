/*
 * The clock of this device may be off; what is stamped goes by the server's, as far as it is known. A few seconds are the way of an
 * answer, and none.
 */

/** Less than this is no difference of clocks, ms. */
const LEAST_OFF_MS = 20_000;

let offMs = 0;

/** Notes what the server's clock showed when it answered, as the header `Date` says it. */
export function heardClock(date: string | null | undefined): void {
  const at = Date.parse(date ?? '');
  if (!Number.isFinite(at)) return;
  const off = at - Date.now();
  offMs = Math.abs(off) < LEAST_OFF_MS ? 0 : off;
}

/** The moment, ms, by the clock of the server. */
export const shopNow = (): number => Date.now() + offMs;

/** The same as an ISO time, as it is written down. */
export const shopTime = (): string => new Date(shopNow()).toISOString();
