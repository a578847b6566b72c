import type { StepBase } from '../../document';
import { AWAY_DAYS } from '../../kit';
import type { StepRoom } from '../room';
import { counted } from '../../units';

/** Goes out to another shop and comes back; sizes pass through. */
export interface OutsideStep extends StepBase {
  kind: 'outside';
  settings?: Record<string, unknown>;
  /** Days until it is back; a week if missing. */
  days?: number;
}

/** The room of outside work. */
export const outside: StepRoom<OutsideStep> = {
  kind: 'outside',
  name: 'Outside work',
  group: 'Wait',
  says: 'Goes out to another shop and comes back; sizes pass through.',
  fields: {
    settings: { is: 'plain', optional: true },
    days: {
      is: 'number',
      least: 0,
      most: 365,
      usual: AWAY_DAYS,
      label: 'Days until it is back',
      optional: true,
      carried: true,
    },
  },
  flow: { waits: true },
  begin: () => ({}),
  run: undefined,
  keepsOutline: true,
  operations: ({ days }) => [
    {
      say: ['Send it out, with what is to be done written on it.'],
      dial: { name: 'back in about', value: counted(days ?? AWAY_DAYS, 'day') },
    },
  ],
  labour: {
    setUp: 0,
    each: 0,
    waits: ({ days }) => [{ of: 'outside', words: 'away', hours: (days ?? AWAY_DAYS) * 24 }],
  },
};

declare module '../../document/step' {
  interface StepKinds {
    outside: OutsideStep;
  }
}
