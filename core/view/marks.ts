import { type BuildDocument, DIMENSIONS, type Finding, phraseText, type Step } from '../document';
import type { StepOutlook } from '../review';
import { stepName } from '../steps';
import { counted, type Display, lengthText, lengthUnit, rising } from '../units';

/** A size as it is said aloud, with its unit. */
const said = (mm: number, display: Display): string => {
  const text = lengthText(mm, display);
  return text.endsWith(lengthUnit(display)) ? text : `${text} ${lengthUnit(display)}`;
};

/**
 * What a mark of the stick says to those who do not see it: its step and where it stands, how many pieces it leaves, the sizes it
 * changes, and what is broken there. `before` is what the step began with; all sizes are said where it is missing.
 */
export function markName(
  build: BuildDocument,
  step: Step,
  {
    seen,
    before,
    findings,
    display,
  }: {
    seen: StepOutlook | undefined;
    before: StepOutlook | undefined;
    findings: readonly Finding[];
    display: Display;
  },
): string {
  const nth = build.steps.findIndex(({ id }) => id === step.id) + 1;
  const parts = [stepName(step), `step ${nth} of ${build.steps.length}`];
  if (step.off) parts.push('left out');
  else if (step.done) parts.push('done');
  if (!seen) parts.push('not reached');
  else {
    if (seen.count > 1) parts.push(counted(seen.count, 'piece'));
    DIMENSIONS.forEach((dimension, axis) => {
      const [least, greatest] = [seen.least[axis], seen.greatest[axis]];
      const same = (a: number, b: number) => said(a, display) === said(b, display);
      if (before && same(before.least[axis], least) && same(before.greatest[axis], greatest)) return;
      parts.push(
        same(least, greatest)
          ? `${dimension} ${said(greatest, display)}`
          : `${dimension} ${said(least, display)} to ${said(greatest, display)}`,
      );
    });
  }
  for (const finding of findings.filter(({ severity }) => severity !== 'note'))
    parts.push(phraseText(finding.message, display));
  return parts.join(', ');
}

/** What is to be looked at in a job, in the order of the work, the whole job's last; notes left out. */
export function toLookAt(build: BuildDocument, findings: readonly Finding[]): Finding[] {
  const at = new Map(build.steps.map(({ id }, i) => [id, i]));
  return findings
    .filter(({ severity }) => severity !== 'note')
    .toSorted(rising((a) => at.get(a.step) ?? build.steps.length));
}

/** What tells one finding of a job from another: its code, its step and its dimension. */
export const findingKey = ({ code, step, dimension }: Finding): string =>
  [code, step, dimension ?? ''].join(' ');
