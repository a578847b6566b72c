import { CHECKS, phraseOf } from '../bench';
import { axisOf, CHECK_KINDS, type Check, type Finding, type Phrase, type Step } from '../document';
import type { OwnRule } from '../kit';
import { extents } from '../solid';
import { noiseOf, type TimelineStep } from '../steps';
import type { ReviewContext } from './context';

const isBroken = ({ side }: OwnRule, value: number, than: number, noise: number): boolean =>
  side === 'below' ? value < than - noise : value > than + noise;
/** Of some numbers the one that a rule minds most. */
const worstOf = ({ side }: OwnRule, values: readonly number[]): number =>
  side === 'below' ? Math.min(...values) : Math.max(...values);

/** The shop's own rules: a size or a reading that is below or above the number which the shop wrote down after something had gone wrong. */
export function ownRules(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const rules = (build.shop.rules ?? []).filter((rule) => rule.step === step.kind);
  const entry = rules.length > 0 ? timeline.steps.find(({ id }) => id === step.id) : undefined;
  if (!entry) return [];
  const checks = (build.checks ?? []).filter((check) => check.step === step.id);
  const noise = noiseOf(build.shop);
  return rules.flatMap((rule) => [
    ...sizeBroken(rule, step, entry, noise),
    ...checkBroken(rule, step, checks),
  ]);
}

const finding = (
  rule: OwnRule,
  step: Step,
  said: Phrase[],
  rest: Pick<Finding, 'dimension' | 'numbers'>,
): Finding => ({
  code: 'own-rule',
  step: step.id,
  severity: 'warning',
  ...rest,
  message: [`${rule.words} `, ...said, ': a rule of this shop’s own.'],
  fixes: [],
});

function sizeBroken(rule: OwnRule, step: Step, entry: TimelineStep, noise: number): Finding[] {
  const { dimension, size: limit } = rule;
  if (!dimension || !limit) return [];
  const axis = axisOf(dimension);
  const sizes = entry.pieces.map(({ blank }) => extents(blank)[axis]);
  const size = worstOf(rule, sizes);
  if (sizes.length === 0 || !isBroken(rule, size, limit.mm, noise)) return [];
  return [
    finding(rule, step, [`The ${dimension} is `, { mm: size }, `, ${rule.side} `, limit], {
      dimension,
      numbers: { size, rule: limit.mm },
    }),
  ];
}

/** A check that was made anew stands for the earlier one of the same piece. */
function checkBroken(rule: OwnRule, step: Step, checks: readonly Check[]): Finding[] {
  const kind = CHECK_KINDS.find((each) => each === rule.check);
  const { value: limit } = rule;
  if (!kind || limit === undefined) return [];
  const newest = new Map(checks.filter((check) => check.kind === kind).map((check) => [check.piece, check]));
  const values = [...newest.values()].flatMap((check) => check.values);
  const value = worstOf(rule, values);
  if (values.length === 0 || !isBroken(rule, value, limit, 1e-9)) return [];
  const { name, of } = CHECKS[kind];
  return [
    finding(rule, step, [`${name}: `, phraseOf(of, value), `, ${rule.side} `, phraseOf(of, limit)], {
      numbers: { value, rule: limit },
    }),
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A size or a reading breaks a rule that the shop made for itself. */
    'own-rule': true;
  }
}
