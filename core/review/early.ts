import type { Finding, Step } from '../document';
import { adhesiveFor, gatesOf, glueUpOf } from '../glueup';
import { climateOf, glueTimes } from '../kit';
import { gluedBefore, roomOf, stepName } from '../steps';
import type { ReviewContext } from './context';

const HOUR_MS = 3_600_000;
/** Noting a moment takes a moment: less than this is not early, h. */
const LEAST_H = 0.05;

/** A step that was done sooner after a glue-up than this shop waits: by how much. */
export function doneEarly(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const at = Date.parse(step.doneAt ?? '');
  if (!step.done || roomOf(step).flow.joins || !Number.isFinite(at)) return [];
  return step.inputs.flatMap((input) => {
    const glue = gluedBefore(build, input);
    if (!glue) return [];
    const clamped = Date.parse(glue.plan?.clamped ?? glue.doneAt ?? '');
    const glueUp = glueUpOf(build, timeline, glue.id);
    if (!Number.isFinite(clamped) || !glueUp) return [];
    const facts = adhesiveFor(glueUp, build.shop);
    const gates = gatesOf(facts && glueTimes(facts, climateOf(build.shop)), build.shop);
    const waitH = roomOf(step).needsSettled ? gates.surfaceH : gates.unclampH;
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

declare module '../document/finding' {
  interface FindingCodes {
    /** A step was done sooner after a glue-up than the shop waits. */
    'done-early': true;
  }
}
