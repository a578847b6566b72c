import type { Finding, Fix, Phrase } from '../document';
import type { Bit } from '../kit';
import type { FeatureReport } from '../shaping';
import { type Feature, featureName, type FeatureStep } from '../steps';
import { roundUpToStep } from '../units';

/** Sizes within this are one, mm. */
export const SAME = 1e-6;

export type Look = (report: FeatureReport, at: number, seen: Seen) => Finding[];
export interface Seen {
  step: FeatureStep;
  all: readonly FeatureReport[];
  /** What places are set to, mm. */
  stepMm: number;
  bits: readonly Bit[];
}

/** The step with one feature changed. */
export const changed = (step: FeatureStep, id: string, change: Partial<Feature>): Fix['edit'] => ({
  do: 'setStep',
  step: step.id,
  change: {
    features: step.features.map((each) => (each.id === id ? ({ ...each, ...change } as Feature) : each)),
  },
});

/** A feature’s place moved along one direction by so much towards the high side, mm. */
export function moved(feature: Feature, along: 'u' | 'v', by: number): Partial<Feature> {
  const place = feature[along];
  const sign = place.from === 'high' ? -1 : 1;
  return { [along]: { ...place, by: { mm: place.by.mm + sign * by } } };
}

/** What lies at the low and at the high end of a direction of a side. */
export const towards = ({ side }: Feature, along: 'u' | 'v'): readonly [string, string] => {
  const face = side === 'upper' || side === 'lower';
  if (along === 'v' && !face) return ['lower face', 'upper face'];
  return along === 'u' && (face || side === 'near' || side === 'far')
    ? ['left end', 'right end']
    : ['near edge', 'far edge'];
};

/** Moves that may mend it: either way along, and across. */
export const moves = (step: FeatureStep, feature: Feature, least: number, stepMm: number): Fix[] => {
  const by = roundUpToStep(least, stepMm);
  const name = featureName(feature);
  return (['v', 'u'] as const).flatMap((along) =>
    [by, -by].map(
      (way): Fix => ({
        label: `Move ${name.toLowerCase()} towards the ${towards(feature, along)[way > 0 ? 1 : 0]}`,
        edit: changed(step, feature.id, moved(feature, along, way)),
      }),
    ),
  );
};

export const depthOf = (feature: Feature): number | undefined =>
  'depth' in feature ? feature.depth?.mm : undefined;

/** Less deep by so much. */
export const shallower = (step: FeatureStep, feature: Feature, by: number): Fix[] => {
  const now = depthOf(feature);
  return now !== undefined && now - by > 0.5
    ? [
        {
          label: `Cut ${featureName(feature).toLowerCase()} less deep`,
          edit: changed(step, feature.id, { depth: { mm: now - by } } as Partial<Feature>),
        },
      ]
    : [];
};

export const finding = (
  step: FeatureStep,
  at: number,
  code: Finding['code'],
  own: { message: Phrase[]; numbers: Record<string, number>; fixes?: Fix[]; severity?: Finding['severity'] },
): Finding => ({
  code,
  step: step.id,
  severity: own.severity ?? 'warning',
  message: own.message,
  // The place among the ids: the same feature, wherever it stands in the order.
  numbers: {
    ...own.numbers,
    at: step.features
      .map(({ id }) => id)
      .toSorted()
      .indexOf(step.features[at].id),
  },
  fixes: own.fixes ?? [],
});
