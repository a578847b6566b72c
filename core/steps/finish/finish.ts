import type { StepBase } from '../../document';
import { counted } from '../../units';
import { passThrough, type StepRoom } from '../room';

/** Puts on coats and lets each dry. */
export interface FinishStep extends StepBase {
  kind: 'finish';
  hours?: number;
  coats?: number;
}

/** Minutes to put on a coat and hours it dries, rough guesses (common practice). */
const COAT_MIN = 20;
const COAT_WAIT_H = 12;
const coatsOf = (coats: number | undefined): number => Math.max(1, coats ?? 1);

/** The room of finishing. */
export const finish: StepRoom<FinishStep> = {
  kind: 'finish',
  name: 'Finish',
  group: 'Surface',
  says: 'Puts on coats and lets each dry.',
  fields: {
    hours: {
      is: 'number',
      least: 0,
      most: 8784,
      usual: COAT_WAIT_H,
      label: 'Hours each coat dries',
      optional: true,
      carried: true,
    },
    coats: {
      is: 'number',
      least: 0,
      most: 50,
      label: 'Coats',
      usual: 1,
      card: { least: 1, most: 50, whole: true },
      optional: true,
      carried: true,
    },
  },
  flow: { waits: true },
  begin: () => ({}),
  // How much goes with the finish and the wood: some of it must be there.
  needs: () => [{ what: 'supply', kind: 'finish' }],
  run: passThrough,
  keepsOutline: true,
  labour: {
    setUp: 0,
    each: 0,
    fixed: ({ coats }) => COAT_MIN * coatsOf(coats),
    waits: ({ coats, hours }) => [
      {
        of: 'coat',
        words: `${counted(coatsOf(coats), 'coat')} ${coatsOf(coats) === 1 ? 'dries' : 'dry'}`,
        hours: coatsOf(coats) * (hours ?? COAT_WAIT_H),
      },
    ],
  },
  caution:
    'Rags soaked in oil can catch fire by themselves: spread them out or keep them under water. The label comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    finish: FinishStep;
  }
}
