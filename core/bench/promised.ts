import { rising } from '../units';
import { DateTime } from 'luxon';
import type { BuildDocument } from '../document';
import type { ScheduledTask } from './schedule';

/** A job with the day it is promised for, and the one on which it will be ready. */
export interface PromisedJob {
  job: string;
  /** As YYYY-MM-DD. */
  promised: string;
  /** When the last of its work and its waits is over, ms. */
  ready: number;
  /** Whole days between the two, by the shop's clock; less than nothing where it is late. */
  spareDays: number;
}

/**
 * How the jobs that were promised for a day stand on a calendar, the latest first: ready is when the last of a job's work and
 * waits on it is over. One with nothing left to do is not among them. Days are those of `zone`.
 */
export function promisedOf(
  jobs: readonly { id: string; build: Pick<BuildDocument, 'promised'> }[],
  tasks: readonly ScheduledTask[],
  zone: string,
): PromisedJob[] {
  const day = (text: string) => DateTime.fromISO(text, { zone: 'utc' });
  return jobs
    .flatMap(({ id, build: { promised } }) => {
      const own = tasks.filter(({ job }) => job === id);
      if (promised === undefined || own.length === 0) return [];
      const ready = Math.max(...own.map(({ to }) => to));
      const readyOn = DateTime.fromMillis(ready, { zone }).toISODate();
      // A day that no calendar has, such as 30 February, promises nothing.
      return readyOn && day(promised).isValid
        ? [{ job: id, promised, ready, spareDays: day(promised).diff(day(readyOn), 'days').days }]
        : [];
    })
    .toSorted(rising((a) => a.spareDays));
}
