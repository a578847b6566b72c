import type { BuildDocument } from '../document';
import { AID_KINDS, gluingOf } from '../kit';
import type { Timeline } from '../steps';
import { edgeAngles } from './edgeangle';
import { glueUpOf } from './glueup';

/** How uneven a glue-up is expected to come out of its clamps, before anybody measured it. */
export interface ExpectedForm {
  /** Step between neighbours, by what keeps them flush, and how far their thickness is off, mm. */
  stepMm: number;
  /** What keeps them flush, in words. */
  by: string;
  /** Hollow across, from the angle of its edges, mm. */
  hollowMm: number;
}

/** What is expected of a glue-up's faces; undefined where it has no joints beside one another. */
export function expectedForm(
  build: BuildDocument,
  timeline: Timeline,
  glueId: string,
): ExpectedForm | undefined {
  const glueUp = glueUpOf(build, timeline, glueId);
  const entry = timeline.steps.find(({ id }) => id === glueId);
  if (!glueUp || !entry || glueUp.lines.length === 0 || glueUp.axes.depth !== 2) return undefined;
  const kind = glueUp.step.plan?.aids?.kind ?? gluingOf(build.shop).aids;
  const aid = AID_KINDS.find(({ id }) => id === kind) ?? AID_KINDS[0];
  return {
    stepMm: aid.flushMm + entry.tolerance[2].likelyMm,
    by: aid.id === 'none' ? 'no aids' : aid.name.toLowerCase(),
    hollowMm: edgeAngles(build, glueUp)?.hollowMm ?? 0,
  };
}
