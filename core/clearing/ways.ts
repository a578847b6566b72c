import type { BuildDocument, Edit, GluePlan, Phrase } from '../document';
import { AID_COVER, type AidLayout, type GlueUp } from '../glueup';
import type { Feature, FeatureStep } from '../steps';
import { distinct, roundUpToStep } from '../units';
import type { WishName } from './wishes';

/** One change that may make an opening and the aids clear each other. */
export interface Way {
  wish: WishName;
  edit: Edit;
  words: Phrase[];
  /** How much of a change it is: the least is tried first. mm. */
  size: number;
}

/** How far along a search looks in steps of what the shop sets, and no more steps than this each way. */
const MOST_STEPS = 24;

/** Distances to try, the least first: what is just short of clearing, and even steps up to the limit, mm. */
export function distances(shorts: readonly number[], limitMm: number, stepMm: number): number[] {
  const coarse = Math.max(stepMm, roundUpToStep(limitMm / MOST_STEPS, stepMm));
  const even = Array.from({ length: Math.floor(limitMm / coarse + 1e-9) }, (_, i) => (i + 1) * coarse);
  const just = shorts.map((mm) => roundUpToStep(Math.max(mm, stepMm), stepMm));
  return distinct([...just, ...even]).filter((mm) => mm > 0 && mm <= limitMm + 1e-9);
}

/** The opening moved across, either way. */
export function placeWays(step: FeatureStep, feature: Feature, list: readonly number[]): Way[] {
  return list.flatMap((mm) =>
    [1, -1].map((way): Way => {
      const { v } = feature;
      const by = v.by.mm + (v.from === 'high' ? -1 : 1) * way * mm;
      return {
        wish: 'place',
        size: mm,
        words: ['Move the opening ', { mm }, ` towards the ${way > 0 ? 'far' : 'near'} edge`],
        edit: {
          do: 'setStep',
          step: step.id,
          change: {
            features: step.features.map((each) =>
              each.id === feature.id ? { ...each, v: { ...v, by: { mm: by } } } : each,
            ),
          },
        },
      };
    }),
  );
}

/** The narrowest board that a search makes, mm (common practice). */
const NARROWEST = 30;

/** One board of a joint wider, its neighbour as much narrower: the joint moves, the whole stays as wide. */
export function boardWays(build: BuildDocument, { courses }: GlueUp, list: readonly number[]): Way[] {
  const slots = new Map(
    build.assemblies.flatMap(({ slots: all }) => all.map((slot) => [slot.id, slot] as const)),
  );
  const single = courses.map(({ pieces }) => (pieces.length === 1 ? slots.get(pieces[0]) : undefined));
  return single.slice(1).flatMap((right, i) => {
    const left = single[i];
    if (!left || !right) return [];
    return list.flatMap((mm) =>
      [1, -1].flatMap((way): Way[] => {
        const [a, b] = [left.width.mm + way * mm, right.width.mm - way * mm];
        if (a < NARROWEST || b < NARROWEST) return [];
        return [
          {
            wish: 'boards',
            size: mm,
            words: [`Boards ${i + 1} and ${i + 2}: `, { mm: a }, ' and ', { mm: b }, ' wide'],
            edit: {
              do: 'many',
              edits: [
                { do: 'setSlots', strips: [left.id], change: { width: { mm: a } } },
                { do: 'setSlots', strips: [right.id], change: { width: { mm: b } } },
              ],
            },
          },
        ];
      }),
    );
  });
}

const plan = (glueUp: GlueUp, change: Partial<GluePlan>): Edit => ({
  do: 'planGlue',
  step: glueUp.step.id,
  change,
});

/** The aids placed anew, less deep, or both. */
export function aidWays(glueUp: GlueUp, layout: AidLayout): Way[] {
  const aids = glueUp.step.plan?.aids;
  const { size, kind } = layout;
  if (!size || kind === 'none' || kind === 'cauls') return [];
  const { places, ...rest } = aids ?? { kind };
  const anew: Way[] = places
    ? [
        {
          wish: 'aids',
          size: 0,
          words: ['Let Junta place the aids'],
          edit: plan(glueUp, { aids: { ...rest, kind } }),
        },
      ]
    : [];
  const smaller = [0.85, 0.7, 0.55].flatMap((share, i): Way[] => {
    const into = Math.floor(size.into * share * 2) / 2;
    if (into < AID_COVER) return [];
    return [
      {
        wish: 'aids',
        size: i + 1,
        words: ['Aids that reach ', { mm: into }, ' into each board'],
        edit: plan(glueUp, {
          aids: {
            ...(aids ?? {}),
            kind,
            own: {
              ...(aids?.own ?? { thick: { mm: size.thick }, along: { mm: size.along } }),
              into: { mm: into },
            },
          },
        }),
      },
    ];
  });
  return [...anew, ...smaller];
}
