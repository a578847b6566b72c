const DAY = 24 * 60 * 60_000;

/** A moment of the shop's clock, as in “Sunday 29 November”. */
export const inZone = (ms: number, zone: string, parts: Intl.DateTimeFormatOptions): string =>
  new Date(ms).toLocaleDateString('en-GB', { timeZone: zone, ...parts }).replace(',', '');
/** The hour of a moment, as in “14:05”. */
export const clock = (ms: number, zone: string): string =>
  new Date(ms).toLocaleTimeString('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' });

/** A moment in words: today and tomorrow by name, others by their day. */
export function when(at: number, now: number, zone: string): string {
  // Days of the calendar: their dates count, whatever a clock was put forward or back in between.
  const dayNumber = (ms: number) =>
    Date.parse(new Date(ms).toLocaleDateString('sv', { timeZone: zone })) / DAY;
  const days = dayNumber(at) - dayNumber(now);
  const day =
    days === 0
      ? 'today'
      : days === 1
        ? 'tomorrow'
        : days === -1
          ? 'yesterday'
          : inZone(at, zone, { weekday: 'short', day: 'numeric', month: 'short' });
  return `${day} ${clock(at, zone)}`;
}
