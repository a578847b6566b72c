import { type BuildDocument, DIMENSIONS } from '../document';
import { aimText, meetsAim } from '../plan';
import type { Timeline } from '../steps';

/** How far a prediction may lie from a fixed size and still be called right, when nothing is said. */
export const targetTolerance = (build: BuildDocument, target = build.targets[0]): number =>
  target?.tolerance?.mm ?? Math.max(0.01, build.shop.settingStep.mm / 4);

/** Target against prediction on each dimension. */
export interface Comparison {
  dimension: (typeof DIMENSIONS)[number];
  asked: string;
  predictedMm: number;
  differenceMm: number;
  fits: boolean;
}

/** Compares a piece with what was asked of it, the first one if none is said; undefined until it comes out. */
export function compareTarget(
  build: BuildDocument,
  timeline: Timeline,
  target = build.targets[0],
): Comparison[] | undefined {
  const finished =
    target === build.targets[0]
      ? timeline.finished
      : timeline.wanted.find((each) => each.target === target?.id)?.step;
  if (!target || !finished) return undefined;
  return DIMENSIONS.map((dimension, a) => {
    const aim = target[dimension];
    const [least, greatest] = [finished.least[a], finished.greatest[a]];
    const off = (mm: number) => Math.abs(mm - (aim.value?.mm ?? mm));
    // Of several alike, the one that is farthest off.
    const size = off(least) > off(greatest) ? least : greatest;
    return {
      dimension,
      asked: aimText(aim, build.shop.display),
      predictedMm: size,
      differenceMm: aim.value ? size - aim.value.mm : 0,
      fits: meetsAim(aim, size, targetTolerance(build, target)),
    };
  });
}
