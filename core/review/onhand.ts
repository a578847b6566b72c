import { heldFor } from '../bench';
import type { Finding, Step } from '../document';
import { missingWords, needAmount } from '../kit';
import type { ReviewContext } from './context';

/**
 * What an open step wants and the kit has too little of: hardware, bits, glue. A list of the kit that nobody entered is
 * unknown and says nothing; a machine that is missing stands on the ready list and no more.
 */
export function notOnHand(step: Step, { build, timeline }: ReviewContext): Finding[] {
  if (step.done) return [];
  return heldFor(step, build, timeline)
    .filter(({ need, short }) => short > 0 && need.what !== 'machine')
    .map((missing) => ({
      code: 'not-on-hand',
      step: step.id,
      severity: 'warning',
      message: [...missingWords(missing, build.shop), '. Buy it, or enter what there is in the Kit.'],
      numbers: { wanted: needAmount(missing.need) ?? 1, onHand: missing.have ?? 0, short: missing.short },
      fixes: [],
    }));
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A step wants hardware, a bit or glue that the kit has too little of. */
    'not-on-hand': true;
  }
}
