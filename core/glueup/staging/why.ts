import { makerOf, stepName, userOf, type BuildDocument, type Phrase, type Step } from '../../build';
import type { GlueUp } from '../glueup';

const divides = (step: Step | undefined): boolean =>
  step?.kind === 'slice' || step?.kind === 'resaw' || (step?.kind === 'oblique' && !step.ends);

/** The first step up or down the line for which something holds; turns, flattening and the like are passed. */
function along(
  build: BuildDocument,
  from: Step | undefined,
  next: (step: Step) => Step | undefined,
  holds: (step: Step) => boolean,
): Step | undefined {
  let step = from;
  for (let guard = 0; step && guard < build.steps.length; guard++) {
    if (holds(step)) return step;
    if (step.kind === 'glue' || step.kind === 'rip') return undefined;
    step = next(step);
  }
  return undefined;
}

/** Why this glue-up is a stage of its own; empty where it is the only one of its job. */
export function whyOwnStage(build: BuildDocument, { step }: GlueUp): Phrase[][] {
  const out: Phrase[][] = [];
  if (build.steps.filter(({ kind }) => kind === 'glue').length < 2) return out;
  const up = (each: Step) => makerOf(build, each.inputs[0] ?? '');
  const down = (each: Step) => userOf(build, each.output);
  const cut = along(build, up(step), up, divides);
  if (cut)
    out.push([
      `Its parts exist only after “${stepName(cut)}”: the pattern is made of what an earlier glue-up was cut into.`,
    ]);
  const later = along(build, down(step), down, (each) => divides(each) || each.kind === 'glue');
  if (later && divides(later))
    out.push([`It must be whole and flat before “${stepName(later)}” cuts the pattern out of it.`]);
  if (later?.kind === 'glue' && !cut)
    out.push([
      `A section by itself: fewer joints at once stay flush and within the glue’s time; “${stepName(later)}” joins it.`,
    ]);
  const sections = step.inputs
    .map((input) => makerOf(build, input))
    .filter((maker) => maker && maker.kind !== 'rip' && maker.kind !== 'mill');
  if (!cut && sections.length > 1)
    out.push([
      `It joins ${sections.length} pieces that were glued up before: ${sections.length === 2 ? 'only one joint is' : `only ${sections.length - 1} joints are`} left for now.`,
    ]);
  return out;
}
