import type { BuildDocument } from '../document';
import { usesOf } from '../glueup';
import { FINISH_KINDS } from '../kit';
import { isEndGrain, type Timeline } from '../steps';

/** How a finish is looked after, by how it goes onto the wood; common practice. */
const BY_FINISH: Record<(typeof FINISH_KINDS)[keyof typeof FINISH_KINDS]['goes'], string> = {
  soaks:
    'Oil it again when it looks dry and pale: wipe on a thin coat, wait, and wipe off all that stays on top.',
  thin: 'Wipe it with a damp cloth. Where it wears thin, rub it down lightly and wipe on one more coat.',
  film: 'Wipe it with a damp cloth, never with scouring powder. A film that is cut through lets water in: have it mended soon.',
  poured: 'Keep hot pots off it, and wipe it with a damp cloth. Scratches are polished out.',
};

/**
 * How the finished piece is looked after, a sentence each: by its finish, its use and how its grain lies. Common practice; what stands on
 * the tin of the finish comes first.
 */
export function careOf(build: BuildDocument, timeline: Timeline): string[] {
  const finishes = build.steps.flatMap((step) => {
    if (step.kind !== 'finish' || step.off || !step.finish || step.finish === 'unsaid') return [];
    return [FINISH_KINDS[step.finish]];
  });
  const food =
    usesOf(build, []).uses.includes('food') ||
    build.steps.some((step) => step.kind === 'finish' && (step.use === 'served' || step.use === 'cut'));
  const end = timeline.finished !== undefined && isEndGrain(timeline.finished.pieces);
  const last = finishes.at(-1);
  return [
    ...(food
      ? [
          'Wash it by hand in warm water, dry it at once, and stand it on edge so that air reaches both faces. It must not lie in water, and not go into a dishwasher.',
        ]
      : ['Dust it with a dry cloth. Wipe up water at once.']),
    ...(end
      ? ['End grain drinks: it wants oil more often than a board of long grain, both faces alike.']
      : []),
    ...(last ? [BY_FINISH[last.goes]] : ['It has no finish that was written down here.']),
    ...(last?.heats
      ? [
          'Rags with this oil on them can heat up and burn by themselves: spread them flat to dry outdoors, or keep them under water in a closed tin.',
        ]
      : []),
    'Keep it away from heaters and strong sun. Wood moves across its grain with the air of the year: that is no fault.',
  ];
}
