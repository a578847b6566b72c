import { wrap } from 'comlink';
import type { PredictWorker } from '../workers/predict.worker';
import { today } from './day';
import { jobActions } from './job';
import { listener, openJobState, store, type RootState } from './store';

const worker = wrap<PredictWorker>(
  new Worker(new URL('../workers/predict.worker.ts', import.meta.url), { type: 'module' }),
);

let busy = false;
let asked = false;

/** Predicts the present build; while one prediction runs, only the newest wish is remembered. */
async function predict(): Promise<void> {
  if (busy) {
    asked = true;
    return;
  }
  busy = true;
  do {
    asked = false;
    const { build, step, id } = openJobState();
    if (!build) break;
    try {
      const outlook = await worker.outlook(build, step, today());
      if (openJobState().id === id) store.dispatch(jobActions.predicted(outlook));
    } catch (error) {
      // The last good drawing stays; the next edit is predicted again.
      store.dispatch(jobActions.notPredicted((error as Error).message));
    }
  } while (asked);
  busy = false;
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
