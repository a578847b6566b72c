import {
  attempt,
  DIMENSIONS,
  type Brief,
  type BuildDocument,
  isRefused,
  MOST_ASSEMBLIES,
  MOST_STEPS,
  MOST_TARGETS,
  Refusal,
  type Refused,
} from '../document';
import { shopForJob } from '../kit';
import { fit } from '../plan';
import { fromOneLength, makeEach } from './alike';
import { carryOver } from './carry';
import type { Family } from './family';
import { type KeptChain, keepChain } from './keepchain';
import { renamedStep } from '../steps';
import { freshTag } from './ids';
import { splitAgain } from './split';

/**
 * A job planned again with a changed brief: what a hand did to its chain, its strips and its glue-ups is done to the new
 * plan too, and what no longer has a place there is told by name. Leaves with a refusal where the brief cannot be met. A
 * job without a brief stays as it is.
 */
function planAgain(build: BuildDocument, change: Partial<Brief> = {}): KeptChain {
  if (!build.brief) return { build, lost: [] };
  const about = { name: build.name, use: build.use };
  const planned = fit({ ...build.brief, ...change }, build.shop, about);
  if (isRefused(planned)) throw new Refusal(planned.refused);
  // What its own brief gives untouched; the new plan where the kit has changed so that it gives none any more.
  const own = fit(build.brief, build.shop, about);
  const before = splitAgain(isRefused(own) ? planned : own, build);
  const kept = keepChain(splitAgain(planned, build), build, before);
  return { build: carryOver(kept.build, build, before), lost: kept.lost };
}

/**
 * Another pattern in the same job: its strips, steps and piece wanted, under ids that nothing here has. Only the first brief is
 * planned again; what comes in so is a hand's from then on. Leaves with a refusal where the brief cannot be met, or too
 * many steps, lay-ups or pieces would stand in one job.
 */
function addPlan(build: BuildDocument, brief: Brief, name: string): BuildDocument {
  const planned = fit(brief, build.shop, { name, use: name });
  if (isRefused(planned)) throw new Refusal(planned.refused);
  const steps = build.steps.length + planned.steps.length;
  if (steps > MOST_STEPS)
    throw new Refusal([`That would be ${steps} steps; a job holds at most ${MOST_STEPS}.`]);
  if (build.assemblies.length + planned.assemblies.length > MOST_ASSEMBLIES)
    throw new Refusal([
      `That would be ${build.assemblies.length + planned.assemblies.length} lay-ups; a job holds at most ${MOST_ASSEMBLIES}.`,
    ]);
  if (build.targets.length + planned.targets.length > MOST_TARGETS)
    throw new Refusal([`A job holds at most ${MOST_TARGETS} pieces of different kinds.`]);
  const tag = freshTag(build);
  const own = (id: string) => `${tag}-${id}`;
  // A job that was begun without a pattern wants one piece of nothing yet: this is it.
  const [only] = build.targets;
  const waits =
    build.targets.length === 1 &&
    build.steps.length === 0 &&
    only.quantity === 1 &&
    DIMENSIONS.every((dimension) => only[dimension].aim === 'free');
  return {
    ...build,
    targets: [
      ...(waits ? [] : build.targets),
      ...planned.targets.map((target) => ({
        ...target,
        id: own(target.id),
        output: own(target.output),
        purpose: name,
        // How many come out at once goes by this brief, not by the job's first.
        atOnce: brief.quantity ?? 1,
      })),
    ],
    assemblies: [
      ...build.assemblies,
      ...planned.assemblies.map((assembly) => ({
        ...assembly,
        id: own(assembly.id),
        name: `${name}: ${assembly.name.toLowerCase()}`.slice(0, 80),
        slots: assembly.slots.map((slot) => ({
          ...slot,
          id: own(slot.id),
          ...(slot.set === undefined ? {} : { set: own(slot.set) }),
        })),
      })),
    ],
    steps: [...build.steps, ...planned.steps.map((step) => renamedStep(step, own))],
  };
}

/** A job planned again, with what could not be kept; or why the brief cannot be met. */
export const plannedAgain = (build: BuildDocument, change?: Partial<Brief>): KeptChain | Refused =>
  attempt(() => planAgain(build, change));

/** What the job is, and planning it again. */
export const planning: Family<
  | 'rename'
  | 'promise'
  | 'addPlan'
  | 'setAim'
  | 'addTarget'
  | 'removeTarget'
  | 'setTarget'
  | 'makeEach'
  | 'fromOneLength'
  | 'replan'
  | 'useShop'
> = {
  rename: (build, { name }) => ({ ...build, name }),
  promise: ({ promised: _, ...build }, { day }) => ({ ...build, ...(day ? { promised: day } : {}) }),
  setAim: (build, { dimension, aim, target: id = build.targets[0]?.id }) => ({
    ...build,
    targets: build.targets.map((target) => (target.id === id ? { ...target, [dimension]: aim } : target)),
    brief: build.brief && id === build.targets[0]?.id ? { ...build.brief, [dimension]: aim } : build.brief,
  }),
  addTarget: (build, { purpose, output }) => {
    if (build.targets.length >= MOST_TARGETS)
      throw new Refusal([`A job holds at most ${MOST_TARGETS} pieces of different kinds.`]);
    let n = build.targets.length + 1;
    while (build.targets.some(({ id }) => id === `piece-${n}`)) n += 1;
    const free = { aim: 'free' as const };
    const own = output ?? `piece-${n}-out`;
    const target = {
      id: `piece-${n}`,
      purpose,
      quantity: 1,
      output: own,
      length: free,
      width: free,
      thickness: free,
    };
    return { ...build, targets: [...build.targets, target] };
  },
  removeTarget: (build, { target: id }) => {
    if (build.targets.length === 1) throw new Refusal(['A job is for one piece at least.']);
    return { ...build, targets: build.targets.filter((target) => target.id !== id) };
  },
  makeEach: (build, { target }) => makeEach(build, target),
  fromOneLength: (build, { target }) => fromOneLength(build, target),
  setTarget: (build, { target: id, change }) => ({
    ...build,
    targets: build.targets.map((target) => (target.id === id ? { ...target, ...change, id } : target)),
  }),
  addPlan: (build, { brief, name }) => addPlan(build, brief, name),
  replan: (build, { change }) => planAgain(build, change).build,
  useShop: (build, { shop }) => ({ ...build, shop: shopForJob(shop, build.brief?.allowances) }),
};
