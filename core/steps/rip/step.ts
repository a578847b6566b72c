import type { StepBase } from '../../document';

/** Strips ripped from their boards at one fence setting for each width, or each set by itself. */
export interface RipStep extends StepBase {
  kind: 'rip';
  assembly: string;
  saw: string;
  fence: 'shared' | 'separate';
}

declare module '../../document/step' {
  interface StepKinds {
    rip: RipStep;
  }
}
