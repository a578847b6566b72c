import { tooMuch } from '../../contract/bounds';
import { checkBuild } from '../../contract/build';
import { mutated, randomFrom } from '../../contract/mutate.fixture';
import { schedule, tasksOf, type ShopRoom } from '../../core/bench';
import { PATTERNS, fit, run, type BuildDocument } from '../../core/build';
import { predict } from '../../core/exchange';
import { assemblySheets, layUpOf, plannedGlueUp, pressureOf, pressureQuickly } from '../../core/glueup';
import { clampsOf, gluingOf } from '../../core/kit';
import { outlook } from '../../core/review';
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

/** Everything the interface computes of a job, as its workers do; `deep` also what they do only when asked. */
export function playAll(build: BuildDocument, deep: boolean): void {
  const timeline = run(build);
  outlook(build, build.steps.at(-1)?.id, TODAY);
  predict(build);
  assemblySheets(build, timeline);
  schedule(tasksOf('job', build, timeline), NOW, roomOf(build));
  for (const step of build.steps.filter(({ kind }) => kind === 'glue').slice(0, 3)) {
    layUpOf(build, timeline, step.id);
    const planned = plannedGlueUp(build, timeline, step.id, TODAY);
    if (!planned || planned.glueUp.askew) continue;
    if (planned.glueUp.courses.length <= MOST_QUICK)
      pressureQuickly(planned.glueUp, planned.clamps, build.shop);
    if (deep) pressureOf(planned.glueUp, planned.clamps, build.shop, {});
  }
  if (deep) solveNow(problemFor([build], build.boards).problem, EFFORT.quick / 20);
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
              return [fit({ ...brief, pattern: id }, demoShop, { name: id, use: '' })];
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
    const checked = checkBuild(JSON.parse(text));
    if (!checked.ok) return { accepted: false, ms: took() };
    playAll(checked.build, i % 40 === 0);
    return { accepted: true, ms: took() };
  } catch (error) {
    return { accepted: true, ms: took(), thrown: (error as Error).stack?.slice(0, 600) ?? String(error) };
  }
}
