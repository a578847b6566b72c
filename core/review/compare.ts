import { aimText, DIMENSIONS, meetsAim, type BuildDocument, type Timeline } from '../build';

/** How far a prediction may lie from a fixed size and still be called right, when nothing is said. */
export const targetTolerance = (build: BuildDocument): number =>
  build.targets[0]?.tolerance?.mm ?? Math.max(0.01, build.shop.settingStep.mm / 4);

/** Target against prediction on each dimension. */
export interface Comparison {
  dimension: (typeof DIMENSIONS)[number];
  asked: string;
  predictedMm: number;
  differenceMm: number;
  fits: boolean;
}

/** Compares the finished piece with what was asked; undefined until there is a finished piece. */
export function compareTarget(build: BuildDocument, timeline: Timeline): Comparison[] | undefined {
  const target = build.targets[0];
  const size = timeline.finished?.greatest;
  if (!target || !size) return undefined;
  return DIMENSIONS.map((dimension, a) => {
    const aim = target[dimension];
    return {
      dimension,
      asked: aimText(aim, build.shop.display),
      predictedMm: size[a],
      differenceMm: aim.value ? size[a] - aim.value.mm : 0,
      fits: meetsAim(aim, size[a], targetTolerance(build)),
    };
  });
}
