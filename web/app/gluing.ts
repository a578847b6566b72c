import { type Remote, wrap } from 'comlink';
import type { ClampPlan, GlueUp, PlannedGlueUp, PressureAnswer } from '../../core/glueup';
import type { ShopSnapshot } from '../../core/kit';
import { glueUpAt } from '../../core/steps';
import type { GlueUpWorker } from '../workers/glueup.worker';
import { today } from './day';
import { jobActions } from './job';
import { listener } from './listener';
import { openJobState, type RootState, store } from './store';

const start = (): Remote<GlueUpWorker> =>
  wrap<GlueUpWorker>(new Worker(new URL('../workers/glueup.worker.ts', import.meta.url), { type: 'module' }));
/** One worker plans and answers quickly, the other solves: a long solution never holds up a drag. */
let planner: Remote<GlueUpWorker> | undefined;
let solver: Remote<GlueUpWorker> | undefined;

/** Runs the newest wish when the one before is done; wishes between are forgotten. */
function newest<T>(work: (wish: T) => Promise<void>): (wish: T) => void {
  let busy = false;
  let next: { wish: T } | undefined;
  return (wish) => {
    next = { wish };
    if (busy) return;
    busy = true;
    void (async () => {
      while (next) {
        const { wish: now } = next;
        next = undefined;
        try {
          await work(now);
        } catch (error) {
          store.dispatch(jobActions.notPredicted((error as Error).message));
        }
      }
      busy = false;
    })();
  };
}

const solve = newest<{ step: string; plan: PlannedGlueUp; shop: ShopSnapshot }>(
  async ({ step, plan, shop }) => {
    solver ??= start();
    if (plan.glueUp.askew) return;
    const answer = await solver.solve(plan.glueUp, plan.clamps, shop, false);
    const { planned } = openJobState();
    store.dispatch(jobActions.pressureFound({ step, answer, stale: planned?.plan !== plan }));
  },
);

const plan = newest<string>(async (step) => {
  planner ??= start();
  const { build } = openJobState();
  if (!build) return;
  const found = await planner.plan(build, step, today());
  store.dispatch(jobActions.gluePlanned({ step, ...(found ? { plan: found } : {}) }));
  if (!found || openJobState().glueView !== 'clamps') return;
  const quick = await planner.quick(found.glueUp, found.clamps, build.shop);
  if (quick) store.dispatch(jobActions.pressureFound({ step, answer: quick, stale: false }));
  const kept = openJobState().planned?.plan;
  if (kept) solve({ step, plan: kept, shop: build.shop });
});

/** The quick picture while a clamp is dragged. */
export const previewPressure = async (
  glueUp: GlueUp,
  clamps: ClampPlan,
  shop: ShopSnapshot,
): Promise<PressureAnswer | undefined> => {
  planner ??= start();
  return planner.quick(glueUp, clamps, shop);
};

/** The best even layout of as many clamps, asked for by hand: it takes the solver a while. */
export const bestLayout = async (
  given: PlannedGlueUp,
  shop: ShopSnapshot,
): Promise<PressureAnswer['best']> => {
  solver ??= start();
  return (await solver.solve(given.glueUp, given.clamps, shop, true)).best;
};

/** Plans the shown glue-up whenever it, the build or what is looked at changes. */
export function startPlanningGlue(): void {
  listener.startListening({
    predicate: (_action, now, before) => {
      const [a, b] = [(now as RootState).job, (before as RootState).job];
      return a.build !== b.build || a.step !== b.step || a.glueView !== b.glueView;
    },
    effect: () => {
      const { build, step, glueView } = openJobState();
      const shown = build && step ? glueUpAt(build, step) : undefined;
      if (shown && glueView !== 'layUp') plan(shown.id);
    },
  });
}
