import { axisOf, type Finding, type Step } from '../document';
import { extents } from '../solid';
import { noiseOf } from '../steps';
import type { ReviewContext } from './context';

/** The shop's own rules: a size that is below or above the number which the shop wrote down after something had gone wrong. */
export function ownRules(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const rules = (build.shop.rules ?? []).filter((rule) => rule.step === step.kind);
  const entry = rules.length > 0 ? timeline.steps.find(({ id }) => id === step.id) : undefined;
  if (!entry) return [];
  const noise = noiseOf(build.shop);
  return rules.flatMap((rule): Finding[] => {
    const axis = axisOf(rule.dimension);
    const sizes = entry.pieces.map(({ blank }) => extents(blank)[axis]);
    const low = rule.side === 'below';
    const size = low ? Math.min(...sizes) : Math.max(...sizes);
    const broken = low ? size < rule.size.mm - noise : size > rule.size.mm + noise;
    if (sizes.length === 0 || !broken) return [];
    return [
      {
        code: 'own-rule',
        step: step.id,
        severity: 'warning',
        dimension: rule.dimension,
        message: [
          `${rule.words} The ${rule.dimension} is `,
          { mm: size },
          `, ${rule.side} `,
          rule.size,
          ': a rule of this shop’s own.',
        ],
        numbers: { size, rule: rule.size.mm },
        fixes: [],
      },
    ];
  });
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A size breaks a rule that the shop made for itself. */
    'own-rule': true;
  }
}
