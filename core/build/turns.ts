import type { TurnRule } from './document';

/** Whether the rule turns a part, counted from 1, its exceptions included. */
export function isTurned(rule: TurnRule, part: number): boolean {
  const byRule = part >= rule.first && (part - rule.first) % rule.every === 0;
  return byRule !== rule.except.includes(part);
}

/** The rule with one part turned the other way: an exception is added or taken back, the rule itself stays. */
export function flipPart(rule: TurnRule, part: number): TurnRule {
  const except = rule.except.includes(part)
    ? rule.except.filter((p) => p !== part)
    : [...rule.except, part].sort((a, b) => a - b);
  return { ...rule, except };
}

/** The rule in words, as in “every other from 2, end for end, but not 4”. */
export function ruleText(rule: TurnRule): string {
  const every =
    rule.every === 1
      ? 'every one'
      : rule.every === 2
        ? 'every other'
        : rule.every === 3
          ? 'every third'
          : `every ${rule.every}th`;
  const how = rule.turn === 'endForEnd' ? 'end for end' : 'rolled over';
  const off = rule.except.filter((part) => !isTurned(rule, part));
  const on = rule.except.filter((part) => isTurned(rule, part));
  const parts = [`${every} from ${rule.first}, ${how}`];
  if (off.length) parts.push(`but not ${off.join(', ')}`);
  if (on.length) parts.push(`and also ${on.join(', ')}`);
  return parts.join(', ');
}
