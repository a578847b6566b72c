import type { BuildDocument, Phrase, Step } from '../document';
import { type Length } from '../units';
import { featureName, laidOn } from './feature/feature';
import { kindOf } from './feature/kinds';
import type { LaidFeature } from './feature/lay';
import { asFeatures } from './find';
import { outlineBefore } from './outline';
import type { TimelineStep } from './timeline';
import { laterTrims } from './trims';

const isLength = (value: unknown): value is Length =>
  typeof value === 'object' && value !== null && 'mm' in value;

/** What the low edges of a side are called, along it and across. */
const LOW_EDGES = {
  upper: ['left end', 'near edge'],
  lower: ['left end', 'near edge'],
  near: ['left end', 'lower face'],
  far: ['left end', 'lower face'],
  left: ['near edge', 'lower face'],
  right: ['near edge', 'lower face'],
} as const;
const ON = {
  upper: 'the upper face',
  lower: 'the lower face',
  near: 'the near edge',
  far: 'the far edge',
  left: 'the left end',
  right: 'the right end',
} as const;

/** One feature in words: its sizes, and its places from the finished edges. */
function inWords({ feature, side, spots, refused }: LaidFeature): Phrase[] {
  if (refused) return [`${featureName(feature)} is not cut: `, ...refused.words];
  const kind = kindOf(feature);
  const sizes = Object.entries(kind.fields as Record<string, { label: string }>).flatMap(
    ([name, { label }], i): Phrase[] => {
      const value = (feature as unknown as Record<string, unknown>)[name];
      const words = label.replace(/,.*empty$/, '').toLowerCase();
      return isLength(value) ? [`${i > 0 ? ', ' : ''}${words} `, value] : [];
    },
  );
  const out: Phrase[] = [`${featureName(feature)} in ${ON[feature.side]}: `, ...sizes];
  const makes = kind.makes?.(feature, side, spots.length) ?? [];
  const end: Phrase[] = ['.', ...(makes.length > 0 ? [' ', ...makes] : [])];
  if (!kind.placed || spots.length === 0) return [...out, ...end];
  const [along, across] = LOW_EDGES[feature.side];
  const [first, second] = spots;
  out.push(
    '; its middle ',
    { mm: first.u - side.trims.u[0] },
    ` from the ${along}, `,
    { mm: first.v - side.trims.v[0] },
    ` from the ${across}`,
  );
  if (second)
    out.push(
      `; ${spots.length} in all, the next `,
      { mm: Math.hypot(second.u - first.u, second.v - first.v) },
      ' on',
    );
  return [...out, ...end];
}

/** What a step bores and routs, in its order, as it is marked out: sizes, and middles from the finished edges. Empty for any other step. */
export function featureCuts(step: Step, entry: TimelineStep, build: BuildDocument): Phrase[][] {
  const own = asFeatures(step);
  const [piece] = entry.entered;
  if (!own || !piece) return [];
  return laidOn(own, piece, {
    laterTrims: (output, size) => laterTrims(build, output, size),
    outlineBefore: (at) => outlineBefore(build, at),
  }).map(inWords);
}
