import { expect } from 'vitest';
import type { Display } from '../units';
import { amountText, namesOf, valueOf, type Worked, workedText } from '.';

/** What a reader gets who types the text into a calculator: names of units fall away. */
function evaluate(text: string): { left: number; right: number } {
  const [sum, result] = text.split(' = ');
  const tokens =
    sum
      .replaceAll(/(in³|in²|in|mm³|mm²|mm|lbf|psi|min|MPa|oz\/in²|oz|g\/mm²|g|N)(?![a-z])/g, '')
      .match(/[\d.]+(?:e-?\d+)?|[()⌈⌉√×÷+−]/g) ?? [];
  let at = 0;
  const factor = (): number => {
    const token = tokens[at++];
    if (token === '√') return Math.sqrt(factor());
    if (token === '(' || token === '⌈') {
      const value = total();
      at += 1;
      // Rounded up, but for what the figures of the text leave over.
      return token === '⌈' ? Math.ceil(value - 1e-5) : value;
    }
    return Number(token);
  };
  const product = (): number => {
    let value = factor();
    while (tokens[at] === '×' || tokens[at] === '÷')
      value = tokens[at++] === '×' ? value * factor() : value / factor();
    return value;
  };
  const total = (): number => {
    let value = product();
    while (tokens[at] === '+' || tokens[at] === '−')
      value = tokens[at++] === '+' ? value + product() : value - product();
    return value;
  };
  return { left: total(), right: Number.parseFloat(result) };
}

const DISPLAYS: Display[] = [
  { system: 'inch', fraction: 32 },
  { system: 'mm', fraction: 32 },
];
/** The text comes to its own number, in both systems, and every number in it has a name and the whole a source. */
export function expectWorked(worked: Worked | undefined, value: number | undefined, label: string): void {
  expect(worked, label).toBeDefined();
  if (!worked) return;
  if (value !== undefined) expect(valueOf(worked.sum), label).toBeCloseTo(value, 6);
  for (const display of DISPLAYS) {
    const text = workedText(worked, display);
    const { left, right } = evaluate(text);
    // What is nearly as much as it is taken from leaves fewer figures.
    const greatest = Math.max(
      ...namesOf(worked.sum).map((each) =>
        Math.abs(Number.parseFloat(amountText(each.value, each.unit, display))),
      ),
    );
    expect(Math.abs(left - right), `${label}: ${text}`).toBeLessThan(
      2e-5 * Math.max(1e-9, Math.abs(right)) + (worked.sum.is === 'less' ? 1e-6 * greatest : 0),
    );
  }
  for (const { name } of namesOf(worked.sum)) expect(name.length).toBeGreaterThan(2);
  expect(worked.source.length).toBeGreaterThan(10);
}
