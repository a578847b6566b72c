import { type BuildDocument, makerOf, type Phrase, type Step, userOf } from '../../document';
import { areStrips, asGlueUp, divides, glueUps, roomOf, stepName } from '../../steps';
import type { GlueUp } from '../glueup';

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
    const { joins, source } = roomOf(step).flow;
    if (joins || source) return undefined;
    step = next(step);
  }
  return undefined;
}

/** Why this glue-up is a stage of its own; empty where it is the only one of its job. */
export function whyOwnStage(build: BuildDocument, { step }: GlueUp): Phrase[][] {
  const out: Phrase[][] = [];
  if (glueUps(build).length < 2) return out;
  const up = (each: Step) => makerOf(build, each.inputs[0] ?? '');
  const down = (each: Step) => userOf(build, each.output);
  const cut = along(build, up(step), up, divides);
  if (cut)
    out.push([
      `Its parts exist only after “${stepName(cut)}”: the pattern is made of what an earlier glue-up was cut into.`,
    ]);
  const later = along(build, down(step), down, (each) => divides(each) || asGlueUp(each) !== undefined);
  if (later && divides(later))
    out.push([`It must be whole and flat before “${stepName(later)}” cuts the pattern out of it.`]);
  if (asGlueUp(later) && later && !cut)
    out.push([
      `A section by itself: fewer joints at once stay flush and within the glue’s time; “${stepName(later)}” joins it.`,
    ]);
  const sections = step.inputs
    .map((input) => makerOf(build, input))
    .filter((maker) => maker && !areStrips(maker));
  if (!cut && sections.length > 1)
    out.push([
      `It joins ${sections.length} pieces that were glued up before: ${sections.length === 2 ? 'only one joint is' : `only ${sections.length - 1} joints are`} left for now.`,
    ]);
  return out;
}
