import type { Length } from '../units';
import type { BuildDocument } from './document';
import type { Slot } from './slots';
import type { Step } from './step';
import { DIMENSIONS, type DimensionName } from './targets';

/** What a list of jobs shows of a job, without its build. */
export interface JobGist {
  /** The first piece that is wanted; null where a size is free, or nothing is wanted yet. */
  size: Record<DimensionName, Length | null> | null;
  /** Woods, in the order in which they are first used. */
  woods: string[];
  /** Steps that are not left out, and how many of them are done. */
  steps: number;
  done: number;
  /** Boards were chosen for it, or a time to begin was set. */
  planned: boolean;
  /** The earliest time at which something is meant to begin or was begun, as an ISO time. */
  begins?: string;
}

/** The gist of a build. */
export function gistOf({ targets, assemblies, steps, boards }: BuildDocument): JobGist {
  const active = steps.filter(({ off }) => !off);
  const begins = active
    .flatMap(({ begin, work }) => [begin ?? [], work?.[0]?.from ?? []].flat())
    .toSorted()[0];
  const had = active.flatMap((step) => ('species' in step ? [step.species] : []));
  const woods = [...assemblies.flatMap(({ slots }) => slots.map(({ species }) => species)), ...had];
  const [target] = targets;
  return {
    size: target
      ? (Object.fromEntries(DIMENSIONS.map((d) => [d, target[d].value ?? null])) as JobGist['size'])
      : null,
    woods: [...new Set(woods)],
    steps: active.length,
    done: active.filter(({ done }) => done).length,
    planned: boards.length > 0 || begins !== undefined,
    ...(begins === undefined ? {} : { begins }),
  };
}

/** Where a job stands, each with what it means, in the order of the work. */
export const JOB_STATES = {
  idea: { name: 'idea', says: 'no boards chosen, no time set' },
  planned: { name: 'planned', says: 'boards are chosen, or a time to begin is set' },
  made: { name: 'being made', says: 'a step is done, or the time to begin has come' },
  done: { name: 'done', says: 'every step is done' },
  away: { name: 'put away', says: 'laid aside; not in the calendar, not on Today' },
} as const;
export type JobState = keyof typeof JOB_STATES;

/** Where a job stands at a moment (ms), by its ticks, its times and whether it was put away. */
export function jobState({ steps, done, planned, begins }: JobGist, away: boolean, now: number): JobState {
  if (away) return 'away';
  if (steps > 0 && done >= steps) return 'done';
  if (done > 0 || (begins !== undefined && Date.parse(begins) <= now)) return 'made';
  return planned ? 'planned' : 'idea';
}

/** A slot with wood that looks the same, and comes from no board. */
function unplaced({ strip, ...slot }: Slot): Slot {
  if (!strip) return slot;
  const { seed, excluded } = strip;
  return { ...slot, strip: { ...(seed === undefined ? {} : { seed }), ...(excluded ? { excluded } : {}) } };
}

/** A step without what was written down of its glue-up: how it was rehearsed, when it was clamped, what its joints showed. */
function unrecorded(step: Step): Step {
  if (step.kind !== 'glue' || !step.plan) return step;
  const { rehearsal: _r, clamped: _c, joints: _j, hollow: _h, ...plan } = step.plan;
  return { ...step, plan };
}

/** The same work once more, from its beginning: without ticks, times, readings and boards of the first one. */
export function duplicateOf(build: BuildDocument, name: string): BuildDocument {
  return {
    ...build,
    name,
    boards: [],
    readings: [],
    failures: undefined,
    promised: undefined,
    earlier: undefined,
    checks: undefined,
    assemblies: build.assemblies.map((assembly) => ({
      ...assembly,
      slots: assembly.slots.map(unplaced),
    })),
    steps: build.steps.map(
      ({
        done: _d,
        doneAt: _a,
        begin: _b,
        spoilt: _s,
        photos: _p,
        operations: _o,
        work: _w,
        early: _e,
        ...step
      }) => unrecorded(step as Step),
    ),
  };
}

/** A name that none of `taken` has: “Shelf, copy”, then “Shelf, copy 2”. At most `most` characters. */
export function copyName(name: string, taken: readonly string[], most = 120): string {
  const known = new Set(taken);
  const root = name.replace(/, copy( \d+)?$/, '');
  for (let n = 1; ; n++) {
    const tail = n === 1 ? ', copy' : `, copy ${n}`;
    const next = `${root.slice(0, most - tail.length).trimEnd()}${tail}`;
    if (!known.has(next)) return next;
  }
}
