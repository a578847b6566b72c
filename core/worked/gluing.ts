import type { BuildDocument } from '../document';
import { adhesiveFor, amountFor, glueUpOf, planClamps } from '../glueup';
import { APPLICATORS, gluingOf } from '../kit';
import { run } from '../run';
import { number, type Sum, type Worked } from './sums';

/** How many clamps a glue-up wants, by whatever decides it; undefined where a hand placed them or pressure curves decide. */
export function workedClamps(build: BuildDocument, step: string): Worked | undefined {
  const glueUp = glueUpOf(build, run(build), step);
  if (!glueUp || glueUp.askew) return undefined;
  const plan = planClamps(glueUp, build.shop);
  const reach = plan.schools[0].reach;
  const length = number(glueUp.lengthMm, 'length', 'length of the joints');
  const counts: Partial<Record<typeof plan.governs, { sum: Sum; source: string }>> = {
    ...(reach === undefined
      ? {}
      : {
          spread: {
            sum: {
              is: 'over',
              top: length,
              under: {
                is: 'times',
                of: [
                  number(2, 'count', 'pressure spreads to both sides of a clamp'),
                  number(reach, 'count', 'reach: how far it spreads for its way through the wood'),
                  number(plan.wayMm, 'length', 'way through the outer part and its caul'),
                ],
              },
            } satisfies Sum,
            source:
              'Pressure spreads from a jaw at 45° (reach 1), or as this shop’s method says: common practice.',
          },
        }),
    force: {
      sum: {
        is: 'over',
        top: {
          is: 'times',
          of: [
            number(plan.wantedMPa, 'pressure', 'pressure that is wanted'),
            number(plan.wantedMPa > 0 ? plan.neededN / plan.wantedMPa : 0, 'area', 'largest joint'),
          ],
        },
        under: {
          is: 'times',
          of: [
            number(
              plan.picks[0]?.set.forceN ?? 0,
              'force',
              `by hand, ${plan.picks[0]?.set.name ?? 'no clamp'}`,
            ),
            number(plan.rows, 'count', 'clamps side by side at one place'),
          ],
        },
      },
      source:
        'Pressure times area over the force of a clamp: exact. Pressures by wood and forces by hand are unverified; labels and gauges come first.',
    },
    'largest spacing': {
      sum: {
        is: 'over',
        top: length,
        under: number(gluingOf(build.shop).mostSpacing.mm, 'length', 'largest spacing of this shop'),
      },
      source: 'The shop’s own rule, from the Kit.',
    },
  };
  const own = counts[plan.governs];
  if (!own) return undefined;
  const perBlank: Sum[] = [
    { is: 'up', of: own.sum },
    ...(plan.rows > 1 ? [number(plan.rows, 'count', 'rows of clamps, one over the other')] : []),
    ...(glueUp.blanks > 1 ? [number(glueUp.blanks, 'count', 'blanks at once')] : []),
  ];
  const sum: Sum = perBlank.length === 1 ? perBlank[0] : { is: 'times', of: perBlank };
  return { title: 'Clamps', sum, unit: 'count', source: own.source };
}

/** How much glue is taken for a glue-up. */
export function workedGlue(build: BuildDocument, step: string): Worked | undefined {
  const glueUp = glueUpOf(build, run(build), step);
  const facts = glueUp && adhesiveFor(glueUp, build.shop);
  if (!glueUp || !facts) return undefined;
  const { toTakeG, typicalG } = amountFor(glueUp, facts, build.shop);
  const area = glueUp.areaMm2 * glueUp.blanks;
  if (!(area > 0) || !(typicalG > 0)) return undefined;
  const oneFace = (area / 1e6) * facts.typicalGPerM2;
  const waste = APPLICATORS.find(({ waste: share }) => Math.abs(1 + share - toTakeG / typicalG) < 1e-9);
  return {
    title: 'Glue to take',
    sum: {
      is: 'times',
      of: [
        number(area, 'area', 'all joints'),
        number(facts.typicalGPerM2 / 1e6, 'spread', `${facts.name}, spread on one face`),
        number(typicalG / oneFace, 'share', 'for the faces that are spread: 1 for one, 1.4 for both'),
        number(
          toTakeG / typicalG,
          'share',
          `with what stays in the tool${waste ? ` (${waste.name.toLowerCase()})` : ''}`,
        ),
      ],
    },
    unit: 'mass',
    source:
      'Area times spread rate: exact. Rates by class are unverified, check the label; a second face takes two fifths more, common practice.',
  };
}
