import type { BuildDocument, GlueStep, LaidPart, Step } from './document';
import { assemblyOf } from './graph';
import { isTurned } from './turns';

/** Parts of a glue-up with the turns of its rule written on each, so that they can be dealt to several glue-ups. */
function writtenParts(step: GlueStep, pieces: readonly string[]): LaidPart[] {
  const parts = step.parts ?? pieces.map((piece): LaidPart => ({ piece }));
  const { turns } = step;
  if (!turns) return [...parts];
  return parts.map((part, i) =>
    isTurned(turns, i + 1) ? { ...part, [turns.turn]: !part[turns.turn] } : part,
  );
}

/**
 * Splits a glue-up of strips at joints (1 lies between the first and the second part): each run of parts is glued by
 * itself, and the step becomes the one that joins them, so that whatever follows still finds its output. Joints that
 * do not exist are passed over; with none left the build stays as it was. Only strips laid along the width are split.
 */
export function splitGlue(build: BuildDocument, stepId: string, joints: readonly number[]): BuildDocument {
  const step = build.steps.find(({ id }) => id === stepId);
  const slots = assemblyOf(build, stepId)?.slots;
  if (step?.kind !== 'glue' || step.along !== 'width' || step.rows || step.shifts || !slots) return build;
  const parts = writtenParts(
    step,
    slots.map(({ id }) => id),
  );
  const at = [...new Set(joints)].filter((j) => j > 0 && j < parts.length).toSorted((a, b) => a - b);
  if (at.length === 0) return build;
  const taken = new Set(build.steps.flatMap(({ id, output }) => [id, output]));
  const fresh = (base: string): string => {
    let n = 1;
    while (taken.has(`${base}-${n}`)) n += 1;
    taken.add(`${base}-${n}`);
    return `${base}-${n}`;
  };
  const ends = [0, ...at, parts.length];
  const sections: GlueStep[] = ends.slice(1).map((end, i) => ({
    id: fresh(`${step.id}-section`),
    kind: 'glue',
    name: `Glue section ${i + 1}`,
    inputs: step.inputs,
    output: fresh(`${step.output}-section`),
    along: 'width',
    parts: parts.slice(ends[i], end),
    ...(step.plan?.adhesive ? { plan: { adhesive: step.plan.adhesive } } : {}),
  }));
  const { parts: _p, turns: _t, plan: _plan, ...rest } = step;
  const join: Step = {
    ...rest,
    name: step.name ?? 'Join sections',
    inputs: sections.map(({ output }) => output),
  };
  return {
    ...build,
    steps: build.steps.flatMap((each): Step[] => (each.id === stepId ? [...sections, join] : [each])),
  };
}
