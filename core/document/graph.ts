import type { BuildDocument } from './document';
import type { Assembly } from './slots';
import type { Step } from './step';

/** The step that makes an output. */
export const makerOf = (build: BuildDocument, output: string): Step | undefined =>
  build.steps.find((step) => step.output === output);

/** All steps that use an output, in the order of work. */
export const usersOfOutput = (build: BuildDocument, output: string): Step[] =>
  build.steps.filter((step) => step.inputs.includes(output));

/** The step that uses an output next, if any. */
export const userOf = (build: BuildDocument, output: string): Step | undefined =>
  build.steps.find((step) => step.inputs.includes(output));

/**
 * The steps that something came through, the nearest first, by the first input of each. Ends after as many as the
 * document has: steps that wait for each other lead nowhere.
 */
export function* makersOf(build: BuildDocument, output: string): Generator<Step> {
  let at = makerOf(build, output);
  for (let n = 0; at && n < build.steps.length; n++) {
    yield at;
    at = makerOf(build, at.inputs[0] ?? '');
  }
}

/** The steps that something goes through from here, the next first; ends likewise. */
export function* usersOf(build: BuildDocument, output: string): Generator<Step> {
  let at = userOf(build, output);
  for (let n = 0; at && n < build.steps.length; n++) {
    yield at;
    at = userOf(build, at.output);
  }
}

/** The first step of a way that is wanted. */
export function firstOf(way: Iterable<Step>, wanted: (step: Step) => boolean): Step | undefined {
  for (const step of way) if (wanted(step)) return step;
  return undefined;
}

/** How often an assembly's strips are needed: its own repeats times the pieces wanted, less those made together. */
export const copiesOf = (build: BuildDocument, assembly: Assembly): number =>
  assembly.repeat * Math.ceil((build.targets[0]?.quantity ?? 1) / (build.brief?.quantity ?? 1));
