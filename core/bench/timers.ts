import type { BuildDocument } from '../document';
import { run } from '../run';
import { tasksOf } from './tasks';

/** A wait that began with work that was done: of which step, in words, and when it is over, ms. */
export interface Timer {
  /** What the calendar calls it: the step and what of it waits. */
  task: string;
  step: string;
  words: string;
  until: number;
}

/** What is over for longer rings no more, ms. */
const STALE_MS = 24 * 3_600_000;

/**
 * What of a job waits at a moment (ms), or was over in the day before it: by the same waits as the calendar. A job in which
 * nothing was done yet is not played for it.
 */
export function timersOf(build: BuildDocument, now: number): Timer[] {
  const begun = build.steps.some(({ doneAt, work }) => doneAt !== undefined || work !== undefined);
  if (!begun) return [];
  return tasksOf('', build, run(build)).flatMap(({ id, step, name, began, minutes }) => {
    const until = began === undefined ? Number.NaN : began + minutes * 60_000;
    return until > now - STALE_MS ? [{ task: id, step, words: name, until }] : [];
  });
}
