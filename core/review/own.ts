import type { Finding, Step } from '../document';
import { roomOf } from '../steps';
import type { ReviewContext } from './context';

/** What a step’s own room finds of it. */
export function ownFindings(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const entry = timeline.steps.find(({ id }) => id === step.id);
  return (entry && roomOf(step).findings?.(step, { build, entry })) ?? [];
}
