import { type Assembly, type BuildDocument, makerOf, type Step, userOf } from '../document';
import { asGlueUp, isOf } from './find';
import type { GlueStep } from './glue/step';
import { roomOf, stepName } from './list';
import type { RipStep } from './rip/step';

/** Whether a step makes several pieces of one. */
export const divides = (step: Step): boolean => roomOf(step).flow.divides?.(step) ?? false;

/** The rip step whose strips a step works on or that it is itself; undefined past a slicing or where several meet. */
export function ripOf(build: BuildDocument, stepId: string): RipStep | undefined {
  let step = build.steps.find((candidate) => candidate.id === stepId);
  for (let depth = 0; step && depth < build.steps.length; depth++) {
    if (isOf(step, 'rip')) return step;
    if (divides(step) || step.inputs.length !== 1) return undefined;
    step = makerOf(build, step.inputs[0]);
  }
  return undefined;
}

/** The lay-up of strips a step belongs to. */
export function assemblyOf(build: BuildDocument, stepId: string): Assembly | undefined {
  const rip = ripOf(build, stepId);
  return rip && build.assemblies.find((assembly) => assembly.id === rip.assembly);
}

/**
 * The glue-up that joins the strips a step works on: the step itself, or the next one down the line. Where several
 * glue-ups share the strips, the one that lays the piece, or else the first.
 */
export function glueOf(build: BuildDocument, stepId: string, piece?: string): GlueStep | undefined {
  const rip = ripOf(build, stepId);
  const self = build.steps.find(({ id }) => id === stepId);
  if (!rip || asGlueUp(self)) return rip && asGlueUp(self);
  let step: Step | undefined = rip;
  for (let depth = 0; step && depth < build.steps.length; depth++) {
    if (isOf(step, 'glue')) return step;
    const output: string = step.output;
    const laying: Step | undefined = build.steps.find(
      (user) =>
        isOf(user, 'glue') &&
        user.inputs.includes(output) &&
        user.parts?.some((part) => part.piece === piece),
    );
    step = laying ?? userOf(build, output);
  }
  return undefined;
}

/**
 * What a step is called among the others of its job: its name, with the lay-up it belongs to where there are several, and
 * numbered where two would still be called alike.
 */
export function stepTitle(build: BuildDocument, step: Step): string {
  const plain = (each: Step) => {
    const section = build.assemblies.length > 1 ? assemblyOf(build, each.id)?.name : undefined;
    const name = stepName(each);
    return section && !name.toLowerCase().includes(section.toLowerCase()) ? `${name}, ${section}` : name;
  };
  const title = plain(step);
  const alike = build.steps.filter((each) => plain(each) === title);
  return alike.length > 1 ? `${title} ${alike.indexOf(step) + 1}` : title;
}
