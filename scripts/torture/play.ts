import { tooMuch } from '../../contract/bounds';
import { readDocument } from '../../contract/read';
import { mutated, randomFrom } from '../../contract/mutate.fixture';
import { schedule, type ShopRoom, tasksOf } from '../../core/bench';
import { type Brief, type BuildDocument, attempt } from '../../core/document';
import { predict } from '../../core/exchange';
import { plannedGlueUp, pressureOf, pressureQuickly } from '../../core/glueup';
import { clampsOf, gluingOf } from '../../core/kit';
import { glueSheets, layUpOf } from '../../core/layup';
import { fit, PATTERNS, mustFit } from '../../core/plan';
import { outlook } from '../../core/review';
import { run } from '../../core/run';
import { EFFORT, problemFor, solveNow } from '../../core/stock';
import { demoJobs } from '../../demo/jobs';
import { demoShop } from '../../demo/shop';

const NOW = Date.UTC(2027, 2, 1, 8);
const TODAY = '2027-03-01';
/** The quick model of pressure is for few boards (glueup.worker.ts). */
const MOST_QUICK = 14;

const roomOf = (build: BuildDocument): ShopRoom => {
  const practice = gluingOf(build.shop);
  return {
    hours: practice.hours,
    zone: practice.hours.zone ?? 'UTC',
    benches: practice.benches,
    clamps: Object.fromEntries(clampsOf(build.shop).map(({ id, count }) => [id, count])),
  };
};

/** Plans a brief again; that it cannot be made is an answer, anything thrown is not. */
const planned = (brief: Brief, { shop, name, use }: BuildDocument): void =>
  void fit(brief, shop, { name, use });

/** Breaks its boards down; that there are too many strips is an answer. */
function solved(build: BuildDocument): void {
  attempt(() => solveNow(problemFor([build], build.boards).problem, EFFORT.quick / 20));
}

/**
 * Everything the interface computes of a job, as its workers do; `deep` also what they do only when asked. Gives the
 * time of the longest single computation, ms: each is a request of its own.
 */
export function playAll(build: BuildDocument, deep: boolean): number {
  let longest = 0;
  const timed = <T>(work: () => T): T => {
    const start = performance.now();
    const result = work();
    longest = Math.max(longest, performance.now() - start);
    return result;
  };
  const timeline = timed(() => run(build));
  const { brief } = build;
  if (brief) timed(() => planned(brief, build));
  timed(() => outlook(build, build.steps.at(-1)?.id, TODAY));
  timed(() => predict(build));
  timed(() => glueSheets(build, timeline));
  timed(() => schedule(tasksOf('job', build, timeline), NOW, roomOf(build)));
  for (const step of build.steps.filter(({ kind }) => kind === 'glue').slice(0, 3)) {
    timed(() => layUpOf(build, timeline, step.id));
    const planned = timed(() => plannedGlueUp(build, timeline, step.id, TODAY));
    if (!planned || planned.glueUp.askew) continue;
    if (planned.glueUp.courses.length <= MOST_QUICK)
      timed(() => pressureQuickly(planned.glueUp, planned.clamps, build.shop));
    if (deep) timed(() => pressureOf(planned.glueUp, planned.clamps, build.shop, {}));
  }
  if (deep) timed(() => solved(build));
  return longest;
}

let sources: BuildDocument[] | undefined;
/** What is mutated: the demo's jobs, with the whole kit, and one job of every pattern. */
export function sourceDocuments(): readonly BuildDocument[] {
  sources ??= [
    ...demoJobs.map((job) => ({ ...job, shop: demoShop })),
    ...demoJobs.flatMap(({ brief }) =>
      brief
        ? PATTERNS.flatMap(({ id }) => {
            try {
              return [mustFit({ ...brief, pattern: id }, demoShop, { name: id, use: '' })];
            } catch {
              // Not every brief suits every pattern.
              return [];
            }
          })
        : [],
    ),
  ].map((job) => JSON.parse(JSON.stringify(job)) as BuildDocument);
  return sources;
}

/** How one mutated document fared. */
export interface Fared {
  accepted: boolean;
  ms: number;
  /** What was thrown at it, which should be nothing. */
  thrown?: string;
}

/** The document that a seed and a number make. */
export const documentOf = (seed: number, i: number): BuildDocument => {
  const all = sourceDocuments();
  return mutated(all[i % all.length], randomFrom(seed * 1_000_003 + i));
};

/** Takes a mutated document through the contract and, where it is accepted, through the whole core. */
export function fare(seed: number, i: number): Fared {
  const text = JSON.stringify(documentOf(seed, i));
  const start = performance.now();
  const took = () => performance.now() - start;
  try {
    if (tooMuch(new TextEncoder().encode(text))) return { accepted: false, ms: took() };
    const checked = readDocument(JSON.parse(text));
    if (!checked.ok) return { accepted: false, ms: took() };
    return { accepted: true, ms: playAll(checked.build, i % 40 === 0) };
  } catch (error) {
    return { accepted: true, ms: took(), thrown: (error as Error).stack?.slice(0, 600) ?? String(error) };
  }
}
