import { readFileSync } from 'node:fs';
import { phraseText, type BuildDocument } from '../core/document';
import { outlook } from '../core/review';
import { stepName, stepTitle } from '../core/steps';
import { type Display, lengthText } from '../core/units';
import { heldPieces, toLookAt } from '../core/view';

/*
 * What the timeline of a job has, as its screen should say it: given `{ build, display, step }` on standard input, written as
 * JSON. It runs by itself, since the browser tests load no tables.
 */
const {
  build,
  display,
  step: shown,
} = JSON.parse(readFileSync(0, 'utf8')) as {
  build: BuildDocument;
  display: Display;
  step: string;
};
const seen = outlook(build, shown);
const marks = build.steps.map((step, i) => {
  const entry = seen.steps.find(({ id }) => id === step.id);
  const before = seen.steps.find(({ id }) => id === build.steps[i - 1]?.id);
  const changed = [0, 1, 2].filter(
    (axis) => entry && before && Math.abs(entry.greatest[axis] - before.greatest[axis]) > 1,
  );
  return {
    step: step.id,
    says: [
      `${stepName(step)}, step ${i + 1} of ${build.steps.length}`,
      ...changed.map((axis) => lengthText(entry?.greatest[axis] ?? 0, display)),
      ...seen.findings
        .filter((finding) => finding.step === step.id && finding.severity !== 'note')
        .map(({ message }) => phraseText(message, display)),
    ],
  };
});
const laid = seen.steps.find(({ id }) => id === shown)?.laid?.[0];
const strips = seen.scene
  ? heldPieces(build, seen, { scene: seen.scene, display }).map(({ name }) => name)
  : [];
const findings = toLookAt(build, seen.findings).map(({ message, step: at }) => {
  const step = build.steps.find(({ id }) => id === at);
  return [step ? stepTitle(build, step) : 'The whole job', phraseText(message, display)];
});
console.log(
  JSON.stringify({
    marks,
    strips,
    findings,
    firstWidth: laid ? lengthText(laid.max[1] - laid.min[1], display) : '',
  }),
);
