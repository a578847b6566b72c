import { expose } from 'comlink';
import type { BuildDocument } from '../../core/document';
import {
  type ClampPlan,
  type GlueUp,
  plannedGlueUp,
  type PlannedGlueUp,
  type Pressed,
  type PressureAnswer,
  pressureOf,
  pressureQuickly,
} from '../../core/glueup';
import type { ShopSnapshot } from '../../core/kit';
import { run } from '../../core/run';

/** More boards than this are left to the solver: the quick model slows down with their square. */
const MOST_QUICK = 14;

let last: { stack: string; pressed: Pressed } | undefined;
const stackOf = ({ lengthMm, courses }: GlueUp, plan: ClampPlan): string =>
  JSON.stringify([lengthMm, plan.edgeCaulMm, courses.map(({ from, to, species }) => [from, to, species])]);

const worker = {
  /** Plans one glue-up of a build; nothing for a step that is none. */
  plan: (build: BuildDocument, step: string, today: string): PlannedGlueUp | undefined =>
    plannedGlueUp(build, run(build), step, today),
  /** A picture in milliseconds while something is dragged; nothing where it would take longer than a frame. */
  quick: (glueUp: GlueUp, plan: ClampPlan, shop: ShopSnapshot): PressureAnswer | undefined =>
    glueUp.courses.length > MOST_QUICK || glueUp.askew ? undefined : pressureQuickly(glueUp, plan, shop),
  /** The solver's answer, starting from its last one where only clamps changed. */
  solve(glueUp: GlueUp, plan: ClampPlan, shop: ShopSnapshot, best: boolean): PressureAnswer {
    const stack = stackOf(glueUp, plan);
    const start = last?.stack === stack ? last.pressed : undefined;
    const { pressed, ...answer } = pressureOf(glueUp, plan, shop, { ...(start ? { start } : {}), best });
    last = { stack, pressed };
    return answer;
  },
};
export type GlueUpWorker = typeof worker;
expose(worker);
