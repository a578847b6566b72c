import type { StepBase } from '../../document';
import { passThrough, type StepRoom } from '../room';

/** Leaves pieces alone until wood or glue has come to rest. */
export interface RestStep extends StepBase {
  kind: 'rest';
  hours?: number;
}

/** Hours of rest where nobody said, a guess (common practice: overnight). */
const REST_H = 12;

/** The room of resting. */
export const rest: StepRoom<RestStep> = {
  kind: 'rest',
  name: 'Rest',
  group: 'Wait',
  says: 'Leaves pieces alone until wood or glue has come to rest.',
  fields: {
    hours: {
      is: 'number',
      least: 0,
      most: 8784,
      usual: REST_H,
      label: 'Hours of rest',
      optional: true,
      carried: true,
    },
  },
  flow: { waits: true },
  begin: () => ({}),
  run: passThrough,
  keepsOutline: true,
  operations: ({ hours }) => [
    {
      say: ['Leave it alone, with air on all sides.'],
      dial: { name: 'for', value: { minutes: (hours ?? REST_H) * 60 } },
    },
  ],
  labour: {
    setUp: 0,
    each: 0,
    waits: ({ hours }) => [{ of: 'rest', words: 'rests', hours: hours ?? REST_H }],
  },
};

declare module '../../document/step' {
  interface StepKinds {
    rest: RestStep;
  }
}
