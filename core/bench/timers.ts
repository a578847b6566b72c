import type { BuildDocument } from '../document';
import { run } from '../run';
import { scrapesOf, tasksOf } from './tasks';

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
 * What of a job waits at a moment (ms), or was over in the day before it: by the same waits as the calendar, and when squeeze-out is
 * ready to be scraped, which is in no calendar since it binds nothing. A job in which
 * nothing was done yet is not played for it.
 */
export function timersOf(build: BuildDocument, now: number): Timer[] {
  const begun = build.steps.some(({ doneAt, work }) => doneAt !== undefined || work !== undefined);
  if (!begun) return [];
  const timeline = run(build);
  const waits = tasksOf('', build, timeline).flatMap(({ id, step, name, began, minutes }) =>
    began === undefined ? [] : [{ task: id, step, words: name, until: began + minutes * 60_000 }],
  );
  const scrapes = scrapesOf(build, timeline).map(({ step, name, began, hours }) => ({
    task: `${step}:scrape`,
    step,
    words: `${name}: glue sets before it is scraped`,
    until: began + hours * 3_600_000,
  }));
  return [...waits, ...scrapes].filter(({ until }) => until > now - STALE_MS);
}
