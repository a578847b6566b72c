import { type Loop, type Region, boxOf, placed } from '../curve';
import { type BuildDocument, makerOf, type Step } from '../document';
import { isOf } from './find';
import { roomOf } from './list';
import { drawnOutline } from './shape/outline';

/** The outline that a step saws, its box at the origin as the piece lies after it; undefined where it saws none seen from above. */
export function sawnOutline(step: Step): Region | undefined {
  if (!isOf(step, 'shape') || !step.outline || step.seen === 'edge') return undefined;
  const loop: Loop | undefined = drawnOutline(step);
  if (!loop) return undefined;
  const { x0, y0 } = boxOf([loop]);
  return placed([loop], { x: -x0, y: -y0 });
}

/** The outline that the pieces entering a step were sawn to, as long as nothing since has changed it. */
export function outlineBefore(build: BuildDocument, step: Step): Region | undefined {
  let at = step.inputs.length === 1 ? makerOf(build, step.inputs[0]) : undefined;
  for (let guard = 0; at && guard < build.steps.length; guard++) {
    const own = at.off ? undefined : sawnOutline(at);
    if (own) return own;
    if (!at.off && !roomOf(at).keepsOutline) return undefined;
    at = at.inputs.length === 1 ? makerOf(build, at.inputs[0]) : undefined;
  }
  return undefined;
}
