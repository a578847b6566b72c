import type { BuildDocument, Edit, Failure, Phrase } from '../document';
import { run } from '../run';
import type { Timeline } from '../steps';
import type { Where } from './where';

/** One thing that might be done: what it is called, what it means in a sentence, and what it does to the job. */
export interface Attempt {
  label: Phrase[];
  says: Phrase[];
  edits: Edit[];
  /** Only where nothing is missed then. */
  whole?: true;
}

/** A job in which something failed, before and after what is true of it whatever is done. */
export interface Trouble {
  told: Failure;
  /** As it was before. */
  where: Where;
  /** As it is now. */
  struck: BuildDocument;
  timeline: Timeline;
  /** The step is not done yet: what it has not come to can still be made otherwise. */
  open: boolean;
}

/** A way to go on: the tries that it makes of a trouble, the best first; of those the first that serves is offered. */
export type Remedy = (trouble: Trouble) => Attempt[];

/** The job as it is once what failed is true, played. */
export const troubleOf = (
  told: Failure,
  where: Where,
  { struck, open }: { struck: BuildDocument; open: boolean },
): Trouble => ({
  told,
  where,
  struck,
  open,
  timeline: run(struck, where.timeline),
});
