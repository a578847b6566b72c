import { type BuildDocument, makersOf, type StepBase } from '../../document';
import type { EdgeFeature } from '../feature/kinds/edge';
import type { FeatureStep } from '../feature/feature';
import type { Fact } from '../fact';

/** The shaped edges that a step finds on its pieces, those of the nearest step first. */
export function laidBefore(build: BuildDocument, step: StepBase): EdgeFeature[] {
  return step.inputs
    .flatMap((input) => [...makersOf(build, input)])
    .filter((each): each is FeatureStep => each.kind === 'feature' && !each.off)
    .flatMap(({ features }) => features.filter((each): each is EdgeFeature => each.kind === 'edge'));
}

/** A profile that keeps less than this share of its depth looks another one (common practice). */
const LEAST_KEPT = 0.5;

/** What sanding leaves of the profiles along the edges: each face that is sanded takes off their depth. */
export const softened = (edges: readonly EdgeFeature[], faceMm: number, alsoEdges: boolean): Fact[] =>
  edges
    .filter(({ side, which }) => (side === 'upper' || side === 'lower') && which !== 'corners')
    .map(({ name, profile, size }) => {
      const kept = Math.max(0, size.mm - faceMm - (alsoEdges ? faceMm : 0));
      return {
        name: name ?? `Edge, ${profile === 'roundOver' ? 'round-over' : profile}`,
        says: ['keeps ', { mm: kept }, ' of ', size],
        state: kept < LEAST_KEPT * size.mm ? 'close' : 'met',
      };
    });
