import {
  type BoardStock,
  type BuildDocument,
  cameThrough,
  type LaidPart,
  LONGEST_BOARD_MM,
  MOST_STRIPS,
  Refusal,
  type Slot,
  type Step,
  type Target,
  targetsFrom,
  timesMade,
} from '../document';
import { run } from '../run';
import { extents } from '../solid';
import { asGlueUp, roomOf, stepTitle, type Timeline, type TimelineStep } from '../steps';
import { freshIds } from './ids';

/** Sizes nearer than this are one, mm. */
const SAME_MM = 1e-6;

/** The target, how often its chain is gone through, and the steps of that chain in their order. */
function chainOf(build: BuildDocument, id: string): { target: Target; times: number; steps: Step[] } {
  const target = build.targets.find((each) => each.id === id);
  if (!target) throw new Refusal(['That piece is not wanted of this job any more.']);
  const steps = cameThrough(build, target.output);
  const repeats = steps.map((step) => assemblyOfStep(build, step)?.repeat ?? 1);
  const repeat = Math.max(1, ...repeats);
  const times = timesMade(build, target) * repeat;
  if (steps.length === 0) throw new Refusal([`“${target.purpose}” comes out of no step yet.`]);
  if (times < 2)
    throw new Refusal([
      `“${target.purpose}” is made once: ${target.quantity} are wanted, and ${target.atOnce ?? 1} come out at once.`,
    ]);
  for (const step of steps) {
    if (step.done)
      throw new Refusal([
        `${stepTitle(build, step)} is done already, for one: the others would count as made too.`,
      ]);
    const others = targetsFrom(build, step.output).filter((each) => each.id !== id);
    if (others.length > 0)
      throw new Refusal([
        `${stepTitle(build, step)} is gone through for “${others[0].purpose}” too: pieces that share steps are made in sessions.`,
      ]);
  }
  return { target, times, steps };
}

const assemblyOfStep = (build: BuildDocument, step: Step) =>
  build.assemblies.find(({ id }) => id === (step as { assembly?: string }).assembly);

/** Pieces of a played step: all that comes out of it. */
const piecesOf = (build: BuildDocument, step: string): TimelineStep['pieces'] =>
  run(build).steps.find(({ id }) => id === step)?.pieces ?? [];

/**
 * A piece wanted several times, each with boards and readings of its own: its strips are written out for every one, its
 * glue-ups lay as many blanks, and all come out at once. Played step by step; leaves with a refusal, and with the step,
 * where the pieces that come out are not those of before, each as often.
 */
export function makeEach(build: BuildDocument, id: string): BuildDocument {
  const { target, times, steps } = chainOf(build, id);
  // As planned: what was measured on one of them is not true of the others.
  const before = run({ ...build, readings: [] });
  const written = writtenOut(build, steps, times);
  // Each old piece's twins, one for each time, in order.
  const twins = new Map<string, string[]>();
  let next: BuildDocument = { ...build, ...written, readings: [] };
  let played: Timeline | undefined;
  for (const step of steps) {
    const old = before.steps.find((entry) => entry.id === step.id);
    if (!old) throw new Refusal([`${stepTitle(build, step)} cannot be done yet: mend that first.`]);
    const changed = timesOver(step, old, { times, twins });
    next = { ...next, steps: next.steps.map((each) => (each.id === step.id ? changed : each)) };
    // Only as far as this step, and on from the one before: none is played twice.
    const at = next.steps.findIndex((each) => each.id === step.id);
    played = run({ ...next, targets: [], steps: next.steps.slice(0, at + 1) }, played);
    const pieces = played.steps.find((entry) => entry.id === step.id)?.pieces ?? [];
    const same =
      pieces.length === times * old.pieces.length &&
      pieces.every(({ blank }, i) => {
        const was = extents(old.pieces[i % old.pieces.length].blank);
        return extents(blank).every((mm, axis) => Math.abs(mm - was[axis]) < SAME_MM);
      });
    if (!same)
      throw new Refusal([
        `${stepTitle(build, step)} does not give the same ${times} times over: it gave ${old.pieces.length} pieces and would give ${pieces.length}.`,
      ]);
    old.pieces.forEach(({ id: piece }, i) =>
      twins.set(
        piece,
        Array.from({ length: times }, (_, copy) => pieces[copy * old.pieces.length + i].id),
      ),
    );
  }
  const atOnce = (target.atOnce ?? build.brief?.quantity ?? 1) * times;
  const readings = build.readings.map((reading) => {
    const [first] = (reading.piece === undefined ? undefined : twins.get(reading.piece)) ?? [];
    return first === undefined ? reading : { ...reading, piece: first };
  });
  return {
    ...next,
    readings,
    targets: next.targets.map((each) => (each.id === id ? { ...each, atOnce } : each)),
  };
}

/** The lay-ups of a chain with every strip written out so often, and boards whose other copies are strips of their own now. */
function writtenOut(
  build: BuildDocument,
  steps: readonly Step[],
  times: number,
): Pick<BuildDocument, 'assemblies' | 'boards'> {
  const fresh = freshIds(build);
  const own = new Set(steps.flatMap((step) => assemblyOfStep(build, step)?.id ?? []));
  // What the breakdown has placed for a copy is that copy's now.
  const placed = new Map<string, Slot['strip']>();
  const isCopy = ({ of, slot, copy }: NonNullable<BoardStock['taken']>[number]) =>
    of === undefined &&
    slot !== undefined &&
    (copy ?? 0) > 0 &&
    build.assemblies.some((each) => own.has(each.id) && each.slots.some((one) => one.id === slot));
  const boards = build.boards.map((board) => {
    const { taken, ...plain } = board;
    for (const { slot, copy, x, y, leaf, leaves } of (taken ?? []).filter(isCopy))
      placed.set(`${slot}/${copy}`, {
        board: board.id,
        at: { x, y },
        ...(leaves === undefined ? {} : { leaf: leaf ?? 0, leaves }),
      });
    const left = (taken ?? []).filter((each) => !isCopy(each));
    return left.length > 0 ? { ...plain, taken: left } : plain;
  });
  const assemblies = build.assemblies.map((assembly) => {
    if (!own.has(assembly.id)) return assembly;
    if (assembly.slots.length * times > MOST_STRIPS)
      throw new Refusal([
        `${times} times ${assembly.slots.length} strips are ${times * assembly.slots.length}; a lay-up holds at most ${MOST_STRIPS}.`,
      ]);
    const slots = Array.from({ length: times }, (_, copy) =>
      assembly.slots.map((slot): Slot => {
        if (copy === 0) return slot;
        const { strip: _, set, ...plain } = slot;
        const strip = placed.get(`${slot.id}/${copy}`);
        return {
          ...plain,
          id: fresh('strip'),
          ...(set === undefined ? {} : { set: `${set}/${copy + 1}` }),
          ...(strip ? { strip } : {}),
        };
      }),
    ).flat();
    return { ...assembly, repeat: 1, slots };
  });
  return { assemblies, boards };
}

/** A step as it is when all it works on comes so often: what it names is named for every time. */
function timesOver(
  step: Step,
  old: TimelineStep,
  { times, twins }: { times: number; twins: ReadonlyMap<string, string[]> },
): Step {
  const nth = (piece: string, copy: number) => twins.get(piece)?.[copy] ?? piece;
  const copies = Array.from({ length: times }, (_, copy) => copy);
  const named = {
    ...step,
    ...(step.only
      ? { only: copies.flatMap((copy) => step.only?.map((piece) => nth(piece, copy)) ?? []) }
      : {}),
  } as Step;
  if (roomOf(step).flow.source) {
    const { count } = step as { count?: number };
    return count === undefined ? named : ({ ...named, count: count * times } as unknown as Step);
  }
  const glue = asGlueUp(named);
  if (!glue || !asGlueUp(step)) return named;
  const blanks = glue.blanks ?? 1;
  // Several lines, or parts by name: dealt out to the blanks, one after the other.
  const order =
    glue.parts ??
    (step.inputs.length > 1 ? old.entered.map(({ id }): LaidPart => ({ piece: id })) : undefined);
  return {
    ...glue,
    blanks: blanks * times,
    ...(order
      ? { parts: copies.flatMap((copy) => order.map((part) => ({ ...part, piece: nth(part.piece, copy) }))) }
      : {}),
  };
}

/**
 * A piece wanted several times, cut from one long one: its strips so much longer, and cut to length at the end with the job's
 * saw. Played; leaves with a refusal where the pieces that come out are not those of before, or boards are not sold so long.
 */
export function fromOneLength(build: BuildDocument, id: string): BuildDocument {
  const { target, times, steps } = chainOf(build, id);
  const sources = steps.filter((step) => roomOf(step).flow.source);
  const assembly = sources.length === 1 ? assemblyOfStep(build, sources[0]) : undefined;
  if (!assembly)
    throw new Refusal([
      `“${target.purpose}” is put together from ${sources.length} lines: only what comes of one lay-up of strips is cut from one long piece.`,
    ]);
  const { saw: sawId } = sources[0] as { saw?: string };
  const saw = build.shop.saws.find((each) => each.id === sawId) ?? build.shop.saws[0];
  if (!saw) throw new Refusal(['The kit has no saw to cut it to length with.']);
  const maker = steps[steps.length - 1];
  const [one, ...more] = piecesOf(build, maker.id);
  if (!one || more.length > 0)
    throw new Refusal([
      `${stepTitle(build, maker)} gives ${more.length + (one ? 1 : 0)} pieces: one is cut from one.`,
    ]);
  const [length, ...section] = extents(one.blank);
  const by = (times - 1) * (length + saw.kerf.mm);
  const longest = Math.max(...assembly.slots.map((slot) => slot.length.mm + by));
  if (longest > LONGEST_BOARD_MM)
    throw new Refusal([
      `Strips for all ${times} would be `,
      { mm: longest },
      ' long; boards are seldom sold longer than ',
      { mm: LONGEST_BOARD_MM },
      '.',
    ]);
  const fresh = freshIds(build);
  const step: Step = {
    id: fresh('slice'),
    kind: 'slice',
    name: `Cut into ${times}`,
    inputs: [maker.output],
    output: fresh('slice-out'),
    saw: saw.id,
    head: { mm: 0 },
    thickness: { mm: length },
    count: times,
  };
  const at = build.steps.findIndex((each) => each.id === maker.id);
  const next: BuildDocument = {
    ...build,
    assemblies: build.assemblies.map((each) =>
      each.id === assembly.id
        ? {
            ...each,
            repeat: 1,
            slots: each.slots.map((slot) => ({ ...slot, length: { mm: slot.length.mm + by } })),
          }
        : each,
    ),
    steps: build.steps.toSpliced(at + 1, 0, step),
    targets: build.targets.map((each) =>
      each.id === id
        ? { ...each, output: step.output, atOnce: (each.atOnce ?? build.brief?.quantity ?? 1) * times }
        : each,
    ),
  };
  const pieces = piecesOf(next, step.id);
  const same = pieces.every(({ blank }) => {
    const size = extents(blank);
    return [length, ...section].every((mm, axis) => Math.abs(size[axis] - mm) < 1e-4);
  });
  if (pieces.length !== times || !same)
    throw new Refusal([
      `Longer strips do not give a longer piece here: of ${times} pieces ${pieces.length} would come out.`,
    ]);
  return next;
}
