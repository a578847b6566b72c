import type { BuildDocument } from './document';
import type { Assembly } from './slots';
import type { Step } from './step';
import type { Target } from './targets';

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

/** All steps that something came through, by all inputs, its maker among them, in the order of work. */
export function cameThrough(build: BuildDocument, output: string): Step[] {
  const wanted = new Set([output]);
  const out: Step[] = [];
  for (const step of build.steps.toReversed())
    if (wanted.has(step.output)) {
      out.unshift(step);
      for (const input of step.inputs) wanted.add(input);
    }
  return out;
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

/** The pieces wanted that something goes into, by whatever way, in the order of the list. */
export function targetsFrom(build: BuildDocument, output: string): Target[] {
  const given = new Set([output]);
  for (const step of build.steps) if (step.inputs.some((input) => given.has(input))) given.add(step.output);
  return build.targets.filter((target) => given.has(target.output));
}

/** How often a chain is gone through for a piece wanted: as many as are wanted over as many as come out at once. */
export const timesMade = (build: BuildDocument, target: Target | undefined): number =>
  Math.ceil((target?.quantity ?? 1) / (target?.atOnce ?? build.brief?.quantity ?? 1));

/** The piece wanted that a step works for: the only one, or the first that what it gives goes into. */
export const targetOfStep = (build: BuildDocument, step: Step | undefined): Target | undefined =>
  build.targets.length > 1 ? step && targetsFrom(build, step.output)[0] : build.targets[0];

/** How often an assembly's strips are needed: its own repeats times the pieces wanted of it, less those made together. */
export function copiesOf(build: BuildDocument, assembly: Assembly): number {
  const rip = build.steps.find((step) => (step as { assembly?: string }).assembly === assembly.id);
  return assembly.repeat * timesMade(build, targetOfStep(build, rip));
}
