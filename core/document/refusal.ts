import type { Display } from '../units';
import { type Phrase, phraseText } from './finding';

/** Why something cannot be planned or changed: a value with its numbers, read in the reader's units. */
export interface Refused {
  refused: Phrase[];
}

/**
 * How a refusal leaves the middle of a plan or a layout. Whoever asks for one makes it a value (`attempt`), as planning
 * (`fit`) and editing (`applyEdit`) do for all who ask them.
 */
export class Refusal extends Error {
  constructor(readonly refused: Phrase[]) {
    super(refused.map((part) => (typeof part === 'string' ? part : Object.values(part)[0])).join(''));
  }
}

/** What is made, or why it is refused. An error that is no refusal is a fault of the program and passes through. */
export function attempt<T>(make: () => T): T | Refused {
  try {
    return make();
  } catch (error) {
    if (error instanceof Refusal) return { refused: error.refused };
    throw error;
  }
}

/** Whether a thing is why it was not made. */
export const isRefused = (made: object): made is Refused => 'refused' in made;

/** What is made, where a refusal would be a fault of the program itself: throws it in words. */
export function must<T extends object>(made: T | Refused, display: Display): T {
  if (isRefused(made)) throw new Error(phraseText(made.refused, display));
  return made;
}
