import { sumOf } from '../units';
import { type Person, presentFor, type WorkHours } from '../kit';
import { placeWork, type Span } from './hours';
import type { Task } from './tasks';

/** A task with its place on the calendar. */
export interface ScheduledTask extends Task {
  from: number;
  to: number;
  /** Work that goes over several stretches. */
  spans: Span[];
  /** Why it is not where the maker wanted it, or later than the work before it would allow. */
  why?: 'before' | 'clamps' | 'bench';
}

/** What the shop has: its hours, who works there and when, how many of each clamp, and how many glue-ups find room at once. */
export interface ShopRoom {
  hours: WorkHours;
  zone: string;
  /** Who works there; nobody in particular, if missing. */
  people?: readonly Person[];
  clamps: Record<string, number>;
  benches: number;
}

interface Held extends Span {
  clamps: Record<string, number>;
}

/** The first moment from `from` on at which a glue-up of so many milliseconds finds its clamps and a bench. */
function whenFree(
  from: number,
  long: number,
  { wants, held, room }: { wants: Record<string, number>; held: readonly Held[]; room: ShopRoom },
) {
  let at = from;
  let why: ScheduledTask['why'];
  // Each turn moves it past the end of something held.
  for (let turns = 0; turns <= held.length; turns++) {
    const until = at + long;
    const during = held.filter((each) => each.from < until && each.to > at);
    // The tightest moment is the start of some glue-up inside, or the start itself.
    const moments = [at, ...during.map((each) => each.from).filter((t) => t > at)];
    const short = moments.some((t) => {
      const now = during.filter((each) => each.from <= t && each.to > t);
      if (now.length >= room.benches) {
        why = 'bench';
        return true;
      }
      return Object.entries(wants).some(([set, count]) => {
        const used = sumOf(now.flatMap((each) => each.clamps[set] ?? []));
        // More than the rack has at all is a finding of the plan; it does not stop the calendar for ever.
        const over = used > 0 && used + count > (room.clamps[set] ?? 0);
        if (over) why = 'clamps';
        return over;
      });
    });
    if (!short) return { at, why };
    const next = Math.min(...during.map(({ to }) => to).filter((t) => t > at));
    // A shop without a bench: nothing that ends would make room.
    if (!Number.isFinite(next)) return { at, why };
    at = next;
  }
  return { at, why };
}

/**
 * Places tasks one after the other in their order, each as early as it can be: after what it works on and not before
 * its wished beginning, while somebody is there who may do it and one piece of work at a time, with clamps and a bench free from the
 * start of a glue-up until it is unclamped. Waits pass by night and on days off. The same tasks give the same calendar.
 */
export function schedule(tasks: readonly Task[], now: number, room: ShopRoom): ScheduledTask[] {
  const out: ScheduledTask[] = [];
  const busy: Span[] = [];
  const held: Held[] = [];
  const ends = new Map<string, number>();
  const key = (task: Pick<Task, 'job'>, id: string) => `${task.job}/${id}`;
  for (const [i, task] of tasks.entries()) {
    if (task.began !== undefined) {
      const span = { from: task.began, to: task.began + task.minutes * 60_000 };
      ends.set(key(task, task.id), span.to);
      // What is over leaves the calendar; clamps are held until then.
      if (span.to <= now) continue;
      if (task.clamps) held.push({ ...span, clamps: task.clamps });
      out.push({ ...task, ...span, spans: [span] });
      continue;
    }
    const ready = Math.max(now, ...task.after.map((id) => ends.get(key(task, id)) ?? now));
    const wish = task.begin ?? -Infinity;
    const earliest = Math.max(ready, wish);
    let why: ScheduledTask['why'] = wish < ready && Number.isFinite(wish) ? 'before' : undefined;
    let spans: Span[];
    const hours = presentFor(room.hours, room.people ?? [], task.tool);
    if (task.kind === 'work') {
      const clamps = tasks
        .slice(i + 1)
        .find(({ job, step, kind }) => job === task.job && step === task.step && kind === 'clamps');
      spans = placeWork(earliest, task.minutes, {
        whole: task.whole,
        hours,
        zone: room.zone,
        busy,
      });
      if (clamps) {
        const long = (task.minutes + clamps.minutes) * 60_000;
        // Each turn moves it past the end of something held: so many turns are enough.
        for (let turns = 0; turns <= 2 * held.length + 1; turns++) {
          const free = whenFree(spans[0].from, long, { wants: clamps.clamps ?? {}, held, room });
          why ??= free.why;
          if (free.at <= spans[0].from) break;
          spans = placeWork(free.at, task.minutes, {
            whole: task.whole,
            hours,
            zone: room.zone,
            busy,
          });
        }
        held.push({
          from: spans[0].from,
          to: spans[spans.length - 1].to + clamps.minutes * 60_000,
          clamps: clamps.clamps ?? {},
        });
      }
      busy.push(...spans);
    } else spans = [{ from: earliest, to: earliest + task.minutes * 60_000 }];
    const to = spans[spans.length - 1].to;
    ends.set(key(task, task.id), to);
    out.push({ ...task, from: spans[0].from, to, spans, ...(why ? { why } : {}) });
  }
  return out;
}
