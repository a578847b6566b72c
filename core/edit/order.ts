import type { BuildDocument, Step } from '../document';

/** Whether something of what one step gives goes into another, by whatever way round. */
export function reaches(build: BuildDocument, from: Step, to: Step): boolean {
  const given = new Set([from.output]);
  for (const step of build.steps) {
    if (!step.inputs.some((input) => given.has(input))) continue;
    if (step.id === to.id) return true;
    given.add(step.output);
  }
  return false;
}

/**
 * Steps so that each comes after all that makes what it takes, else in the order they had. Steps that wait for one
 * another come last, as they were.
 */
export function inOrderOfWork(steps: readonly Step[]): Step[] {
  const made = new Set<string>();
  const outputs = new Set(steps.map(({ output }) => output));
  const left = [...steps];
  const out: Step[] = [];
  while (left.length > 0) {
    const next = left.findIndex(({ inputs }) =>
      inputs.every((input) => made.has(input) || !outputs.has(input)),
    );
    if (next < 0) return [...out, ...left];
    const [step] = left.splice(next, 1);
    made.add(step.output);
    out.push(step);
  }
  return out;
}
