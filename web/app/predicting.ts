import { wrap } from 'comlink';
import type { BenchStep } from '../../core/bench';
import type { ClearingSearch, WishName } from '../../core/clearing';
import type { FailureSheet, Plan } from '../../core/recovery';
import type { FlattenWay } from '../../core/review';
import type { ChainMenu, ChainPlace, FeatureSheet, MovementSheet } from '../../core/view';
import type { BuildDocument, Failure, Finding } from '../../core/document';
import type { PredictWorker } from '../workers/predict.worker';
import type { Display } from '../../core/units';
import type { Fitting, FittingKindName } from '../../core/steps';
import { today } from './day';
import { jobActions } from './job';
import { listener } from './listener';
import { openJobState, type RootState, store } from './store';

const worker = wrap<PredictWorker>(
  new Worker(new URL('../workers/predict.worker.ts', import.meta.url), { type: 'module' }),
);

/** What could be put in at a place of the chain, each kind played forward beside the screen. */
export const stepsAt = (build: BuildDocument, place: ChainPlace): Promise<ChainMenu> =>
  worker.stepsAt(build, place);

/** The ways to flatten what a step flattens, played forward beside the screen. */
export const flattenWays = (build: BuildDocument, step: string): Promise<FlattenWay[]> =>
  worker.flattenWays(build, step);

/** The features of a step as they lie on what enters it, computed beside the screen. */
export const featuresOf = (build: BuildDocument, step: string): Promise<FeatureSheet | undefined> =>
  worker.features(build, step);

/** The piece through a year at its place, computed beside the screen. */
export const movementOf = (build: BuildDocument): Promise<MovementSheet | undefined> =>
  worker.movement(build);

/** A step as it is worked on at the bench, computed beside the screen. */
export const benchStepOf = (build: BuildDocument, step: string): Promise<BenchStep | undefined> =>
  worker.atBench(build, step);

/** What can fail at a step, computed beside the screen. */
export const failureAt = (build: BuildDocument, step: string): Promise<FailureSheet | undefined> =>
  worker.failure(build, step);

/** The ways to go on after a failure, each played forward beside the screen. */
export const plansAfter = (
  build: BuildDocument,
  told: Failure,
  { zone, display }: { zone: string; display: Display },
): Promise<Plan[]> =>
  // In words as the shop reads now, whatever it read when the job was planned.
  worker.plans({ ...build, shop: { ...build.shop, display } }, told, {
    now: Date.now(),
    today: today(),
    zone,
  });

/** A fitting as it begins on what a step gives, computed beside the screen. */
export const fittingBegun = (
  build: BuildDocument,
  step: string,
  kind: FittingKindName,
  id: string,
): Promise<Fitting | undefined> => worker.fitting(build, step, kind, id);

/** Layouts in which an opening clears the aids of all joints, looked for beside the screen. */
export const clearingsOf = (
  build: BuildDocument,
  at: { step: string; feature: string },
  wishes: { may: readonly WishName[]; limitMm: number },
): Promise<ClearingSearch | undefined> => worker.clearings(build, at, wishes);

let busy = false;
/** The build whose ways out were played last, and what was found. */
let played: { build: BuildDocument; found: Finding[] } | undefined;
let asked = false;

/** Predicts the present build; while one prediction runs, only the newest wish is remembered. */
async function predict(): Promise<void> {
  if (busy) {
    asked = true;
    void worker.forget();
    return;
  }
  busy = true;
  do {
    asked = false;
    const { build, step, id } = openJobState();
    if (!build) break;
    try {
      const outlook = await worker.outlook(build, step, today());
      // The same build at another step: its ways out are known.
      const findings = played?.build === build ? played.found : undefined;
      if (openJobState().id === id)
        store.dispatch(jobActions.predicted(findings ? { ...outlook, findings } : outlook));
      if (!findings && outlook.findings.length > 0 && !asked) void offer(build);
    } catch (error) {
      // The last good drawing stays; the next edit is predicted again.
      store.dispatch(jobActions.notPredicted((error as Error).message));
    }
  } while (asked);
  busy = false;
}

/** Looks for ways out of what was found; they are shown once each has been played forward. */
async function offer(build: BuildDocument): Promise<void> {
  const found = await worker.offers(build, today()).catch(() => undefined);
  if (!found || openJobState().build !== build) return;
  played = { build, found };
  store.dispatch(jobActions.offered(found));
}

/** Starts predicting whenever the build or the chosen step changes. */
export function startPredicting(): void {
  listener.startListening({
    predicate: (_action, now, before) => {
      const [a, b] = [(now as RootState).job, (before as RootState).job];
      return a.build !== b.build || a.step !== b.step;
    },
    effect: () => void predict(),
  });
}
