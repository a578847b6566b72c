import type { BuildDocument, Phrase } from '../document';
import type { TimelineStep } from './timeline';

/** Whether what was asked is met; with little to spare; or not. */
export type FactState = 'met' | 'close' | 'broken';

/** One thing that is known of a step: what it is called, what it comes to, and whether that will do. */
export interface Fact {
  name: string;
  says: Phrase[];
  state?: FactState;
  /** Of which fitting, void or place it is told: shown there, and not with what is told of the step. */
  of?: string;
}

/** A step as it was played, for what is known of it. */
export interface Played {
  build: BuildDocument;
  entry: TimelineStep;
}
