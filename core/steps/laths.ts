import type { BuildDocument, Step } from '../document';

/** A line of steps that work on one thing, from where it begins to where it flows into another. */
export interface Lath {
  id: string;
  name: string;
  steps: Step[];
  /** Id of the lath it is glued into; undefined for one that flows into none. */
  into?: string;
  /** Id of the lath it branched off; undefined for one that begins with boards or where several meet. */
  from?: string;
}

/** The lath that all others branched off, of those that meet in a step; undefined where they begin apart. */
function trunk(meeting: readonly Lath[]): Lath | undefined {
  const from = (lath: Lath): Lath | undefined => meeting.find(({ id }) => id === lath.from);
  return meeting.find((lath) => meeting.every((other) => other === lath || from(other) === lath));
}

/**
 * The steps as laths: one for each line of work, those that flow into another before it, the main one last. Pieces sent
 * another way begin a lath of their own, and flow back where they are laid in again.
 */
export function laths(build: BuildDocument): Lath[] {
  const lathOf = new Map<string, Lath>();
  const all: Lath[] = [];
  for (const step of build.steps) {
    const sources = [
      ...new Set(step.inputs.map((input) => lathOf.get(input)).filter((l) => l !== undefined)),
    ];
    const along = sources.length > 1 ? trunk(sources) : sources[0];
    const leaves = step.only && along && leavesSomething(build, step) ? along : undefined;
    let lath = leaves ? undefined : along;
    if (!lath) {
      const assembly = step.kind === 'rip' ? build.assemblies.find((a) => a.id === step.assembly) : undefined;
      const met = sources.length > 1 ? `${sources[0].name} + ${sources.length - 1} more` : build.name;
      const begun = sources.length === 0 ? step.name : undefined;
      const name = leaves ? `${step.only?.length} of ${leaves.name}` : (assembly?.name ?? begun ?? met);
      lath = { id: step.id, name, steps: [], ...(leaves ? { from: leaves.id } : {}) };
      all.push(lath);
    }
    for (const source of sources) if (source !== lath && source !== leaves) source.into = lath.id;
    lath.steps.push(step);
    lathOf.set(step.output, lath);
  }
  const ordered = inOrder(all);
  // What nothing else takes in is the piece itself.
  const last = ordered.at(-1);
  if (last && last.steps[0].inputs.length > 1) last.name = build.name;
  return ordered;
}

/** Whether other steps take of the same input what this one leaves there. */
const leavesSomething = (build: BuildDocument, step: Step): boolean =>
  build.steps.some((other) => other !== step && other.inputs.some((input) => step.inputs.includes(input)));

/** Each lath after those that flow into it, else in the order they began. */
function inOrder(all: readonly Lath[]): Lath[] {
  const out: Lath[] = [];
  const put = (lath: Lath) => {
    if (out.includes(lath)) return;
    for (const other of all) if (other.into === lath.id) put(other);
    out.push(lath);
  };
  for (const lath of all) if (!lath.into) put(lath);
  return out;
}
