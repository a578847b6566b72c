import type { BuildDocument, Step } from '../document';
import { adhesiveFor, aidNeeds, amountFor, bottleFor, glueUpOf, layAids } from '../glueup';
import { type Held, held, limitOf, machineFacts, type Need, summed } from '../kit';
import { asGlueUp, machineOfStep, roomOf, type Timeline } from '../steps';

/** What one step wants at hand besides wood, saw, machine and clamps. */
export function needsOf(step: Step, build: BuildDocument, timeline: Timeline): Need[] {
  const entry = timeline.steps.find(({ id }) => id === step.id);
  if (!entry) return [];
  const { needs, machining } = roomOf(step);
  const machine = machineOfStep(step, build);
  const out: Need[] = [...(needs?.(step, { pieces: entry.pieces, ...(machine ? { machine } : {}) }) ?? [])];
  const bit = machine && machining && machineFacts(machine).bits?.[machining.work];
  if (bit) {
    const collet = limitOf(machine, 'collet');
    out.push({ what: 'bit', kind: bit, ...(collet > 0 ? { shankMm: collet } : {}) });
  }
  return [...out, ...gluing(step, build, timeline)];
}

/** What a glue-up lets into its joints, what that is cut with, and the glue. */
function gluing(step: Step, build: BuildDocument, timeline: Timeline): Need[] {
  const glueUp = asGlueUp(step) && glueUpOf(build, timeline, step.id);
  if (!glueUp || glueUp.lines.length === 0) return [];
  const bottle = bottleFor(glueUp, build.shop);
  const facts = adhesiveFor(glueUp, build.shop);
  return [
    ...aidNeeds(layAids(build, timeline, glueUp)),
    ...(bottle && facts
      ? [
          {
            what: 'glue' as const,
            adhesive: bottle.id,
            grams: amountFor(glueUp, facts, build.shop).toTakeG,
          },
        ]
      : []),
  ];
}

/** The same, held against the kit of the job. */
export const heldFor = (step: Step, build: BuildDocument, timeline: Timeline): Held[] =>
  summed(needsOf(step, build, timeline)).map((need) => held(need, build.shop));

/** What the open steps of a job want and its kit has not: to buy, borrow or enter in the kit. Needs alike count together. */
export const toBuy = (build: BuildDocument, timeline: Timeline): Held[] =>
  summed(build.steps.filter(({ done }) => !done).flatMap((step) => needsOf(step, build, timeline)))
    .map((need) => held(need, build.shop))
    .filter(({ short }) => short > 0);
