import { type JobGist, type JobState, JOB_STATES, jobState } from '../document';
import { plainText } from '../units';

/** A job as a list knows it. */
export interface ListedJob {
  id: string;
  name: string;
  use: string;
  changed: string;
  tags: readonly string[];
  putAway?: string | undefined;
  gist?: JobGist | undefined;
}

/** In which order jobs stand. */
export const JOB_ORDERS = {
  changed: { name: 'last changed' },
  name: { name: 'name' },
  state: { name: 'state' },
  left: { name: 'steps left' },
} as const;
export type JobOrder = keyof typeof JOB_ORDERS;

/** Which jobs are looked for, and in which order they stand. */
export interface JobQuery {
  /** Words that all stand in its name, its use, its tags or its woods; capitals and accents do not matter. */
  words: string;
  /** Only these states; without any, all but those put away. */
  states: readonly JobState[];
  /** Only jobs with all of these tags. */
  tags: readonly string[];
  order: JobOrder;
}

export const NO_QUERY: JobQuery = { words: '', states: [], tags: [], order: 'changed' };

/** Where a listed job stands at a moment; one whose build cannot be read is an idea. */
export const stateOf = ({ gist, putAway }: ListedJob, now: number): JobState =>
  gist ? jobState(gist, putAway !== undefined, now) : putAway === undefined ? 'idea' : 'away';

const STATE_ORDER = Object.keys(JOB_STATES);
const left = ({ gist }: ListedJob): number => (gist ? gist.steps - gist.done : 0);
const byText = new Intl.Collator('en', { numeric: true, sensitivity: 'base' }).compare;
const latest = (a: ListedJob, b: ListedJob) => (a.changed < b.changed ? 1 : a.changed > b.changed ? -1 : 0);

/** The jobs that are looked for, in their order; the last changed first among equals. `woodName` reads a species. */
export function listedJobs<J extends ListedJob>(
  jobs: readonly J[],
  { words, states, tags, order }: JobQuery,
  { now, woodName }: { now: number; woodName: (species: string) => string },
): J[] {
  const wanted = plainText(words).split(/\s+/).filter(Boolean);
  const has = (job: J): boolean => {
    if (wanted.length === 0) return true;
    const text = plainText(
      [job.name, job.use, ...job.tags, ...(job.gist?.woods ?? []).map(woodName)].join(' '),
    );
    return wanted.every((word) => text.includes(word));
  };
  const compare: Record<JobOrder, (a: J, b: J) => number> = {
    changed: latest,
    name: (a, b) => byText(a.name, b.name),
    state: (a, b) => STATE_ORDER.indexOf(stateOf(a, now)) - STATE_ORDER.indexOf(stateOf(b, now)),
    left: (a, b) => left(a) - left(b),
  };
  return jobs
    .filter((job) => {
      const state = stateOf(job, now);
      const inStates = states.length > 0 ? states.includes(state) : state !== 'away';
      return inStates && tags.every((tag) => job.tags.includes(tag)) && has(job);
    })
    .toSorted((a, b) => compare[order](a, b) || latest(a, b));
}

/** How many jobs stand in each state, and every tag with how many have it, by name. */
export function jobCounts(jobs: readonly ListedJob[], now: number) {
  const states = Object.fromEntries(STATE_ORDER.map((state) => [state, 0])) as Record<JobState, number>;
  const tags = new Map<string, number>();
  for (const job of jobs) {
    states[stateOf(job, now)] += 1;
    for (const tag of job.tags) tags.set(tag, (tags.get(tag) ?? 0) + 1);
  }
  return { states, tags: [...tags].toSorted(([a], [b]) => byText(a, b)) };
}

/** Tags as they are typed, with commas between them: each once, cut to what one may be. */
export const readTags = (typed: string, { most, longest }: { most: number; longest: number }): string[] =>
  [
    ...new Set(
      typed
        .split(',')
        .map((tag) => tag.trim().slice(0, longest))
        .filter(Boolean),
    ),
  ].slice(0, most);
