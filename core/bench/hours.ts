import { rising } from '../units';
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

/** Hours of the shop, or of one who works there. */
type Hours = Pick<WorkHours, 'days' | 'from' | 'to'>;

/** Stretches that touch or overlap, as one each, in their order. */
function joined(spans: readonly Span[]): Span[] {
  const out: Span[] = [];
  for (const span of spans.toSorted(rising((a) => a.from))) {
    const last = out.at(-1);
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else out.push({ ...span });
  }
  return out;
}

/**
 * Working stretches from a moment on, in their order, in the clock of the shop's own zone, summer time and all: when anybody of several
 * is there.
 */
export function* workingSpans(from: number, hours: readonly Hours[], zone: string): Generator<Span> {
  let day = DateTime.fromMillis(from, { zone }).startOf('day');
  for (let n = 0; n < MOST_DAYS; n++, day = day.plus({ days: 1 })) {
    const today = hours
      .filter(({ days }) => days.includes(day.weekday))
      .map((each) => ({ from: Math.max(from, at(day, each.from)), to: at(day, each.to) }));
    yield* joined(today.filter((span) => span.to > span.from));
  }
}

/** What is left of stretches when busy ones are taken out. */
function* freeSpans(spans: Iterable<Span>, busy: readonly Span[]): Generator<Span> {
  const sorted = busy.toSorted(rising((a) => a.from));
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
 * than a working day is spread all the same. Throws where nobody is ever there.
 */
export function placeWork(
  from: number,
  minutes: number,
  {
    whole,
    hours,
    zone,
    busy,
  }: { whole: boolean; hours: readonly Hours[]; zone: string; busy: readonly Span[] },
): Span[] {
  const need = minutes * MINUTE;
  if (need <= 0) return [{ from, to: from }];
  const day = Math.max(0, ...hours.map((each) => each.to - each.from)) * 60 * MINUTE;
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

/** The days of a week, the first of them Monday. */
export const DAY_NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

const clockText = (hour: number): string =>
  `${Math.floor(hour)}:${String(Math.round((hour % 1) * 60)).padStart(2, '0')}`;

/** Hours in words, as in “Mon Tue, 8:00 to 16:30”. */
export const hoursText = ({ days, from, to }: Hours): string =>
  `${days.map((day) => DAY_NAMES[day - 1]).join(' ')}, ${clockText(from)} to ${clockText(to)}`;
