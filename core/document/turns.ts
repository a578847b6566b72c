import { upwards } from '../units';
import type { PartRule, ShiftRule, TurnRule } from './parts';

/** Whether a rule takes a part, counted from 1, its exceptions included. */
export function isTurned(rule: PartRule, part: number): boolean {
  const nth = rule.rowOf ? ((part - 1) % rule.rowOf) + 1 + Math.floor((part - 1) / rule.rowOf) : part;
  const byRule = nth >= rule.first && (nth - rule.first) % rule.every === 0;
  return byRule !== rule.except.includes(part);
}

/** How far a rule shifts a part, counted from 1, mm. */
export function shiftOf(rule: ShiftRule, part: number): number {
  if (!rule.wrap) return isTurned(rule, part) ? rule.by.mm : 0;
  if (part < rule.first || rule.except.includes(part)) return 0;
  const steps = Math.floor((part - rule.first) / rule.every) + 1;
  return rule.wrap.mm > 0 ? (steps * rule.by.mm) % rule.wrap.mm : steps * rule.by.mm;
}

/** The rule with one part turned the other way: an exception is added or taken back, the rule itself stays. */
export function flipPart<R extends PartRule>(rule: R, part: number): R {
  const except = rule.except.includes(part)
    ? rule.except.filter((p) => p !== part)
    : [...rule.except, part].sort(upwards);
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
  const how = { endForEnd: 'end for end', rollOver: 'rolled over', quarter: 'a quarter turn' }[rule.turn];
  const off = rule.except.filter((part) => !isTurned(rule, part));
  const on = rule.except.filter((part) => isTurned(rule, part));
  const parts = [`${every} from ${rule.first}, ${how}`];
  if (off.length) parts.push(`but not ${off.join(', ')}`);
  if (on.length) parts.push(`and also ${on.join(', ')}`);
  return parts.join(', ');
}
