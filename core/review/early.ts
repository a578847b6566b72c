import { firstOf, makersOf, stepName, type Finding, type Step } from '../build';
import { adhesiveFor, gatesOf, glueUpOf, waitsToSurface } from '../glueup';
import { climateOf, glueTimes } from '../kit';
import type { ReviewContext } from './review';

const HOUR_MS = 3_600_000;
/** Noting a moment takes a moment: less than this is not early, h. */
const LEAST_H = 0.05;

/** A step that was done sooner after a glue-up than this shop waits: by how much. */
export function doneEarly(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const at = Date.parse(step.doneAt ?? '');
  if (!step.done || step.kind === 'glue' || !Number.isFinite(at)) return [];
  return step.inputs.flatMap((input) => {
    const glue = firstOf(makersOf(build, input), ({ kind }) => kind === 'glue');
    if (glue?.kind !== 'glue') return [];
    const clamped = Date.parse(glue.plan?.clamped ?? glue.doneAt ?? '');
    const glueUp = glueUpOf(build, timeline, glue.id);
    if (!Number.isFinite(clamped) || !glueUp) return [];
    const facts = adhesiveFor(glueUp, build.shop);
    const gates = gatesOf(facts && glueTimes(facts, climateOf(build.shop)), build.shop);
    const waitH = waitsToSurface(step.kind) ? gates.surfaceH : gates.unclampH;
    const afterH = (at - clamped) / HOUR_MS;
    const earlyH = waitH - afterH;
    if (earlyH < LEAST_H) return [];
    const text = (hours: number) => `${Number(Math.max(0, hours).toFixed(1))} h`;
    return [
      {
        code: 'done-early',
        step: step.id,
        severity: 'warning' as const,
        message: [
          `Done ${text(afterH)} after ${stepName(glue)} was clamped; this shop waits ${text(waitH)}: ${text(earlyH)} early. The joint may still be swollen with water, and sink or open later.`,
        ],
        numbers: { afterH, waitH, earlyH },
        fixes: [],
      },
    ];
  });
}
