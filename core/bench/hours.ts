import { DateTime } from 'luxon';
import type { WorkHours } from '../kit';

/** A stretch of time, milliseconds since 1970. */
export interface Span {
  from: number;
  to: number;
}

const MINUTE = 60_000;
/** Nobody plans farther ahead than this, days. */
const MOST_DAYS = 3700;

const at = (day: DateTime, hour: number): number =>
  day
    .startOf('day')
    .set({ hour: Math.floor(hour) % 24, minute: Math.round((hour % 1) * 60) })
    .plus({ days: hour >= 24 ? 1 : 0 })
    .toMillis();

/** The shop's working stretches from a moment on, one a day, in the clock of its own zone: summer time and all. */
export function* workingSpans(from: number, hours: WorkHours, zone: string): Generator<Span> {
  let day = DateTime.fromMillis(from, { zone }).startOf('day');
  for (let n = 0; n < MOST_DAYS; n++, day = day.plus({ days: 1 })) {
    if (!hours.days.includes(day.weekday)) continue;
    const span = { from: Math.max(from, at(day, hours.from)), to: at(day, hours.to) };
    if (span.to > span.from) yield span;
  }
}

/** What is left of stretches when busy ones are taken out. */
function* freeSpans(spans: Iterable<Span>, busy: readonly Span[]): Generator<Span> {
  const sorted = busy.toSorted((a, b) => a.from - b.from);
  for (const span of spans) {
    let start = span.from;
    for (const taken of sorted) {
      if (taken.to <= start || taken.from >= span.to) continue;
      if (taken.from > start) yield { from: start, to: taken.from };
      start = Math.max(start, taken.to);
    }
    if (start < span.to) yield { from: start, to: span.to };
  }
}

/**
 * Where work of some minutes goes from a moment on: in one stretch, or spread over the free ones. One that is longer
 * than a working day is spread all the same. Throws where the shop never works.
 */
export function placeWork(
  from: number,
  minutes: number,
  { whole, hours, zone, busy }: { whole: boolean; hours: WorkHours; zone: string; busy: readonly Span[] },
): Span[] {
  const need = minutes * MINUTE;
  if (need <= 0) return [{ from, to: from }];
  const day = (hours.to - hours.from) * 60 * MINUTE;
  const asOne = whole && need <= day;
  const out: Span[] = [];
  let left = need;
  for (const span of freeSpans(workingSpans(from, hours, zone), busy)) {
    const room = span.to - span.from;
    if (asOne) {
      if (room >= need) return [{ from: span.from, to: span.from + need }];
      continue;
    }
    const take = Math.min(room, left);
    out.push({ from: span.from, to: span.from + take });
    left -= take;
    if (left <= 0) return out;
  }
  throw new Error('placeWork: the shop’s hours leave no room in ten years');
}
