import { type BuildDocument, sawIdOf, type Step } from '../document';
import type { Machine, Saw } from '../kit';
import { machineOfStep } from '../steps';

/** The machine or saw that a step is done on; undefined where it needs none, or the kit has it no more. */
export const toolOf = (step: Step, build: BuildDocument): Machine | Saw | undefined =>
  machineOfStep(step, build) ?? build.shop.saws.find(({ id }) => id === sawIdOf(step));
