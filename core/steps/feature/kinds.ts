import type { Bit, BitKind } from '../../kit';
import { INCH, roundToStep } from '../../units';
import type { FeatureKindName, FeatureKinds, Feature } from './model';
import type { FeatureKind, SideSize } from './kind';
import { dovetails } from './kinds/dovetails';
import { edge } from './kinds/edge';
import { groove } from './kinds/groove';
import { handHold } from './kinds/handhold';
import { hole } from './kinds/hole';
import { inlay } from './kinds/inlay';
import { juice } from './kinds/juice';
import { mortise } from './kinds/mortise';
import { opening } from './kinds/opening';
import { pocket } from './kinds/pocket';
import { tenon } from './kinds/tenon';
import { vise } from './kinds/vise';

/** Every kind of feature, one line each, in the order they are offered. A kind without an entry does not compile. */
export const FEATURE_KINDS: { [K in FeatureKindName]: FeatureKind<FeatureKinds[K]> } = {
  hole,
  groove,
  pocket,
  mortise,
  opening,
  juice,
  inlay,
  handHold,
  edge,
  tenon,
  dovetails,
  vise,
};

/** A kind as those see it who walk over all of them. */
export type AnyFeatureKind = FeatureKind<Feature>;

/** All kinds, in the order they are offered. */
export const FEATURE_LIST = Object.values(FEATURE_KINDS) as unknown as readonly AnyFeatureKind[];

/** The kinds of cutter and drill that make a feature as it is set, the usual one first. */
export const bitKindsOf = (feature: Feature): readonly BitKind[] => {
  const { bits, only } = kindOf(feature);
  return only ? [only(feature)] : bits;
};

/** What is known of a feature’s kind. */
export const kindOf = ({ kind }: Pick<Feature, 'kind'>): AnyFeatureKind =>
  FEATURE_KINDS[kind] as unknown as AnyFeatureKind;

/** In what steps sizes of about so many mm begin, mm: as the systems are dialled. */
const NICE = {
  inch: [
    { upTo: INCH / 2, step: INCH / 16 },
    { upTo: 2 * INCH, step: INCH / 8 },
    { upTo: Infinity, step: INCH / 4 },
  ],
  mm: [
    { upTo: 20, step: 0.5 },
    { upTo: 50, step: 1 },
    { upTo: Infinity, step: 5 },
  ],
} as const;

const nice = (mm: number, system: keyof typeof NICE): number => {
  const [{ step }] = NICE[system].filter(({ upTo }) => mm <= upTo);
  return Math.max(step, roundToStep(mm, step));
};

/**
 * A feature of a kind as it begins on a side: in the middle, in sizes that this shop dials, as wide as the cutter of the kit
 * that comes nearest, where the cutter decides.
 */
export function beginFeature(
  kind: AnyFeatureKind,
  side: SideSize,
  { id, system, bits = [] }: { id: string; system: keyof typeof NICE; bits?: readonly Bit[] | undefined },
): Feature {
  const own = Object.fromEntries(
    Object.entries(kind.begin(side)).map(([name, value]) => [
      name,
      typeof value === 'object' && value !== null && 'mm' in value
        ? { mm: nice((value as { mm: number }).mm, system) }
        : value,
    ]),
  );
  const middle = { from: 'middle' as const, by: { mm: 0 } };
  const feature = { id, kind: kind.kind, side: side.side, u: middle, v: middle, ...own } as Feature;
  const wish = kind.bitMm?.(feature);
  const setBy = (['diameter', 'width', 'height', 'cutter'] as const).find(
    (name) => (own[name] as { mm: number } | undefined)?.mm === wish,
  );
  if (wish === undefined || !setBy) return feature;
  const near = bits
    .filter((bit) => kind.bits.includes(bit.kind) && Math.abs(bit.diameter.mm - wish) <= wish / 2)
    .toSorted(
      (a, b) =>
        Math.abs(a.diameter.mm - wish) - Math.abs(b.diameter.mm - wish) ||
        kind.bits.indexOf(a.kind) - kind.bits.indexOf(b.kind),
    )[0];
  return near ? ({ ...feature, [setBy]: near.diameter, bit: near.id } as Feature) : feature;
}
