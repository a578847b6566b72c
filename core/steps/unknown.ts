import type { StepBase } from '../document';
import { stopAt } from './context';
import type { StepRoom } from './room';

/** A step of a kind that this Junta does not know, as a newer one wrote it. */
type UnknownStep = StepBase & { kind: string };

/**
 * The room of a step whose kind has none: it is kept as it was written and cannot be played, so that nothing after it is
 * computed from a guess.
 */
export const unknownRoom = (kind: string): StepRoom<UnknownStep> => ({
  kind,
  name: `Unknown step “${kind}”`,
  group: 'Wait',
  says: 'A step that this Junta does not know. It stays in the job as it was written.',
  fields: {},
  flow: {},
  begin: () => ({}),
  run: (step) =>
    stopAt(
      step,
      'unknown-step',
      [
        `“${kind}” is a kind of step that this Junta does not know. It is kept as it was written; this step and what follows it cannot be computed here.`,
      ],
      { numbers: { inputs: step.inputs.length } },
    ),
  operations: () => [],
  labour: { setUp: 0, each: 0 },
});

declare module '../document/finding' {
  interface FindingCodes {
    /** A kind of step that this Junta does not know; what follows it is not computed. */
    'unknown-step': true;
  }
}
