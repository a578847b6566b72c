import {
  type BuildDocument,
  isTurned,
  type LaidPart,
  makersOf,
  type Slot,
  type Split,
  type Step,
} from '../document';
import {
  asGlueUp,
  asJointing,
  assemblyOf,
  flattenAfter,
  type FlattenStep,
  type GlueStep,
  glueUpAt,
  glueUps,
  ripOf,
  trimAfter,
  turnedHow,
} from '../steps';
import { roundUpToStep, upwards } from '../units';
import { freshIds } from './ids';

/** Parts of a glue-up with the turns of its rule written on each, so that they can be dealt to several glue-ups. */
function writtenParts(step: GlueStep, pieces: readonly string[]): LaidPart[] {
  const parts = step.parts ?? pieces.map((piece): LaidPart => ({ piece }));
  const { turns } = step;
  if (!turns) return [...parts];
  return parts.map((part, i) =>
    isTurned(turns, i + 1) ? { ...part, [turns.turn]: !part[turns.turn] } : part,
  );
}

/** Whether strips can still be ripped wider: none is cut, measured or laid out on a board. */
function canWiden(build: BuildDocument, step: GlueStep, slots: readonly Slot[]): boolean {
  const before = [...makersOf(build, step.inputs[0])];
  const real = new Set(build.readings.map((reading) => reading.step));
  if (before.some((each) => each.done || real.has(each.id) || asJointing(each))) return false;
  if (before.some((each) => turnedHow(each) === 'onEnd')) return false;
  return slots.every(({ strip }) => !strip?.at);
}

/** What of a strip lies across the joints: its width, or its thickness where strips were tipped on edge. */
const acrossOf = (build: BuildDocument, step: GlueStep): 'width' | 'thickness' =>
  [...makersOf(build, step.inputs[0])].filter((each) => turnedHow(each) === 'onEdge').length % 2 === 1
    ? 'thickness'
    : 'width';

/**
 * The build split, `next`, with the strips beside the split joints wider by what jointing takes there: the piece keeps
 * its width.
 */
function widened(
  build: BuildDocument,
  next: BuildDocument,
  step: GlueStep,
  { parts, at, edgeMm }: { parts: readonly LaidPart[]; at: readonly number[]; edgeMm: number },
): BuildDocument {
  const more = new Map<string, number>();
  const alone = (i: number) => (i === 0 || at.includes(i)) && (i + 1 === parts.length || at.includes(i + 1));
  for (const i of at.flatMap((joint) => [joint - 1, joint]))
    if (!alone(i)) more.set(parts[i].piece, (more.get(parts[i].piece) ?? 0) + edgeMm);
  const name = acrossOf(build, step);
  const rip = ripOf(build, step.id);
  const assemblies = build.assemblies.map((assembly) =>
    assembly.id === rip?.assembly
      ? {
          ...assembly,
          slots: assembly.slots.map((slot) =>
            more.has(slot.id) ? { ...slot, [name]: { mm: slot[name].mm + (more.get(slot.id) ?? 0) } } : slot,
          ),
        }
      : assembly,
  );
  return { ...next, assemblies };
}

/** The next trim takes less off both edges, so far as it can: strips that are cut already do not grow. */
function trimmedLess(build: BuildDocument, step: GlueStep, lostMm: number): BuildDocument {
  const trim = trimAfter(build, step.output);
  if (!trim) return build;
  const less = (mm: number) => ({ mm: Math.max(0, mm - lostMm / 2) });
  return {
    ...build,
    steps: build.steps.map((each) =>
      each.id === trim.id ? { ...trim, near: less(trim.near.mm), far: less(trim.far.mm) } : each,
    ),
  };
}

/** Half of what a step flattens off, as it can be dialled; the rest is left for the joined piece. */
function halfOff(
  build: BuildDocument,
  flatten: FlattenStep,
): { section: number; top: number; bottom: number } {
  const total = flatten.top.mm + flatten.bottom.mm;
  const section = Math.min(total, roundUpToStep(total / 2, build.shop.settingStep.mm));
  const rest = (total - section) / 2;
  return { section, top: rest, bottom: rest };
}

/**
 * Splits a glue-up of strips at joints (1 lies between the first and the second part): each run of parts is glued by
 * itself, and the step becomes the one that joins them, so that whatever follows still finds its output. One strip by
 * itself is not glued. With machining, every section is flattened and its meeting edges are jointed: half of what the
 * flattening after it takes comes off the sections, and what jointing takes is added to the strips beside the joints,
 * or comes out of the trim where those are cut already. Joints that do not exist are passed over; with none left the
 * build stays as it was. Only strips laid along the width are split.
 */
export function splitGlue(build: BuildDocument, stepId: string, split: Split): BuildDocument {
  const step = glueUpAt(build, stepId);
  const slots = assemblyOf(build, stepId)?.slots;
  if (!step || step.along !== 'width' || step.rows || step.shifts || !slots) return build;
  if ((step.blanks ?? 1) > 1 || step.inputs.length !== 1) return build;
  const parts = writtenParts(
    step,
    slots.map(({ id }) => id),
  );
  const at = [...new Set(split.joints)].filter((j) => j > 0 && j < parts.length).toSorted(upwards);
  if (at.length === 0) return build;
  const fresh = freshIds(build);
  const flatten = flattenAfter(build, step);
  const machining = flatten ? split.machining : undefined;
  const edgeMm = machining ? roundUpToStep(build.shop.allowances.jointEdge.mm, build.shop.settingStep.mm) : 0;
  const off = flatten && machining ? halfOff(build, flatten) : undefined;
  const ends = [0, ...at, parts.length];
  const runs = ends.slice(1).map((end, i) => parts.slice(ends[i], end));
  if (runs.every((run) => run.length < 2)) return build;
  const made: Step[] = [];
  const flattened = (input: string, words: string): string => {
    if (!machining || !off || off.section <= 0) return input;
    const output = fresh(`${step.output}-flat`);
    made.push({
      id: fresh(`${step.id}-flat`),
      kind: 'flatten',
      name: `Flatten ${words}`,
      inputs: [input],
      output,
      machine: machining.sections,
      top: { mm: off.section / 2 },
      bottom: { mm: off.section / 2 },
    });
    return output;
  };
  const sections = runs.map((run, i): string | undefined => {
    if (run.length < 2) return undefined;
    const glued = fresh(`${step.output}-section`);
    made.push({
      id: fresh(`${step.id}-section`),
      kind: 'glue',
      name: `Glue section ${i + 1}`,
      inputs: step.inputs,
      output: glued,
      along: 'width',
      parts: run,
      ...(step.plan?.adhesive ? { plan: { adhesive: step.plan.adhesive } } : {}),
    });
    const flat = flattened(glued, `section ${i + 1}`);
    if (!machining) return flat;
    const output = fresh(`${step.output}-edges`);
    made.push({
      id: fresh(`${step.id}-edges`),
      kind: 'joint',
      name: `Joint edges of section ${i + 1}`,
      inputs: [flat],
      output,
      machine: machining.edges,
      // The first part lies at the far edge, as on the bench.
      near: { mm: i < runs.length - 1 ? edgeMm : 0 },
      far: { mm: i > 0 ? edgeMm : 0 },
    });
    return output;
  });
  // Strips by themselves are not glued, and their edges come from the mill: they are only flattened with the others.
  const lone = runs.filter((run) => run.length === 1).length;
  const single =
    lone > 0 ? flattened(step.inputs[0], lone > 1 ? 'the single strips' : 'the single strip') : '';
  const { parts: _p, turns: _t, plan: _plan, ...rest } = step;
  const join: GlueStep = {
    ...rest,
    name: step.name ?? 'Join sections',
    inputs: [...sections.filter((output) => output !== undefined), ...(lone > 0 ? [single] : [])],
    parts: runs.map((run, i): LaidPart => {
      const section = sections[i];
      return section === undefined ? run[0] : { piece: pieceOf(section, made) };
    }),
    ...(split.aids ? { plan: { aids: { kind: split.aids } } } : {}),
    split: {
      joints: at,
      ...(machining ? { machining } : {}),
      ...(split.aids ? { aids: split.aids } : {}),
    },
  };
  const joined = build.steps.flatMap((each): Step[] => {
    if (each.id === stepId) return [...made, join];
    if (flatten && machining && off && each.id === flatten.id)
      return [{ ...flatten, machine: machining.joined, top: { mm: off.top }, bottom: { mm: off.bottom } }];
    return [each];
  });
  const next = { ...build, steps: joined };
  if (edgeMm === 0) return next;
  return canWiden(build, step, slots)
    ? widened(build, next, step, { parts, at, edgeMm })
    : trimmedLess(next, join, edgesOf(made));
}

/** What jointing takes of the width in all, mm. */
const edgesOf = (made: readonly Step[]): number =>
  made.reduce((sum, step) => {
    const joint = asJointing(step);
    return sum + (joint ? joint.near.mm + joint.far.mm : 0);
  }, 0);

/** What a section is called after its machines: flattening and jointing keep the name of what was glued. */
function pieceOf(output: string, made: readonly Step[]): string {
  const maker = made.find((step) => step.output === output);
  return maker && !asGlueUp(maker) ? pieceOf(maker.inputs[0], made) : output;
}

/** A build planned anew, split where the one before was: a split is the maker's own doing, and stays. */
export const splitAgain = (planned: BuildDocument, was: BuildDocument): BuildDocument =>
  glueUps(was).reduce((build, { id, split }) => (split ? splitGlue(build, id, split) : build), planned);
