import type { Finding, Step } from '../document';
import { toOrigin } from '../solid';
import {
  asFeatures,
  featureName,
  fitPlaceOf,
  laidOn,
  laterTrims,
  outlineBefore,
  TAKEN_UP_MM,
} from '../steps';
import type { ReviewContext } from './context';

/** Metal let into the wood across its grain: the wood moves under it, and it does not. */
export function rigidInlays(step: Step, { build, before }: ReviewContext): Finding[] {
  const features = asFeatures(step);
  const [piece] = before(step);
  if (!features || !piece || !features.features.some(({ kind }) => kind === 'inlay')) return [];
  const at = fitPlaceOf({ ...piece, blank: toOrigin(piece.blank) }, build);
  const laid = laidOn(features, piece, {
    laterTrims: (output, size) => laterTrims(build, output, size),
    outlineBefore: (own) => outlineBefore(build, own),
  });
  return laid.flatMap(({ feature, spots }): Finding[] => {
    if (feature.kind !== 'inlay' || feature.of !== 'metal') return [];
    if (feature.side !== 'upper' && feature.side !== 'lower') return [];
    const axis = feature.runs === 'across' ? 1 : 0;
    const half = feature.length.mm / 2;
    const moves = spots.map(({ u, v }) => {
      const middle = axis === 1 ? v : u;
      return at.moves(axis, [Math.max(0, middle - half), Math.min(at.size[axis], middle + half)]);
    });
    const worst = moves.reduce((a, b) => (b.out + b.in > a.out + a.in ? b : a), { out: 0, in: 0 });
    if (worst.out + worst.in <= TAKEN_UP_MM) return [];
    return [
      {
        code: 'held-across-grain',
        step: step.id,
        severity: 'warning',
        message: [
          `${featureName(feature)}: metal over `,
          feature.length,
          ' of the moving wood, which over the year wants to go ',
          { mm: worst.out },
          ' out and ',
          { mm: worst.in },
          ' in: it lifts, or the wood cracks beside it. Run it along the grain, or in short lengths with gaps.',
        ],
        numbers: { length: feature.length.mm, out: worst.out, in: worst.in },
        fixes: [
          {
            label: `Run ${featureName(feature)} along the grain`,
            edit: {
              do: 'setStep',
              step: step.id,
              change: {
                features: features.features.map((each) =>
                  each.id === feature.id ? { ...each, runs: axis === 1 ? 'along' : 'across' } : each,
                ),
              },
            },
          },
        ],
      },
    ];
  });
}
