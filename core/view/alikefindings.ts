import type { Finding } from '../document';

/** A finding with how many steps it is the same on, and those steps in their order. */
export interface AlikeFinding {
  finding: Finding;
  steps: string[];
}

/** What is said of a finding, apart from the step it is said on. */
const said = ({ step, code, severity, message, numbers, dimension, caution }: Finding): string =>
  JSON.stringify([step === '', code, severity, message, numbers, dimension, caution]);

/**
 * Findings that say the same on several steps, as sections made alike do, each once with those steps; in the order of the
 * first. Their ways out stay with each step: what mends one does not mend another.
 */
export function alikeFindings(findings: readonly Finding[]): AlikeFinding[] {
  const out = new Map<string, AlikeFinding>();
  for (const finding of findings) {
    const key = said(finding);
    const known = out.get(key);
    const steps = finding.step === '' ? [] : [finding.step];
    if (known) known.steps.push(...steps);
    else out.set(key, { finding, steps });
  }
  return [...out.values()];
}
