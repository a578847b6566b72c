import { falling } from '../units';
import {
  type BuildDocument,
  cameThrough,
  firstOf,
  type LaidPart,
  makerOf,
  makersOf,
  MOST_STEPS,
  Refusal,
  type Slot,
  type Step,
  usersOfOutput,
} from '../document';
import { run } from '../run';
import {
  asGlueUp,
  asSlicing,
  assemblyOf,
  glueUpAt,
  type GlueStep,
  isOf,
  roomOf,
  sliceIds,
  type SliceStep,
  stepTitle,
  type Timeline,
} from '../steps';
import { bare, stepAt } from './chain';
import type { EditOf } from './family';
import { freshIds } from './ids';

/** Steps copied to be done once more, and what the copies call what the first ones gave. */
interface Copied {
  build: BuildDocument;
  /** Outputs, steps and strips of the first by those of the copy. */
  names: Map<string, string>;
}

/** A piece as a copy calls it: named after the strip, the output or the step that it came of, with what hangs on it. */
const renamed = (names: ReadonlyMap<string, string>, piece: string): string => {
  const whole = names.get(piece);
  if (whole !== undefined) return whole;
  const from = [...names.keys()]
    .filter((each) => piece.startsWith(`${each}.`))
    .toSorted(falling((a) => a.length))[0];
  return from === undefined ? piece : `${names.get(from)}${piece.slice(from.length)}`;
};

/** How a copy differs from what it is a copy of. */
interface Change {
  /** Strips that are made again; all if missing. */
  slots?: (slot: Slot) => Slot | undefined;
  step?: (step: Step) => Step;
}

/** The build with steps done once more, right before a step: from new wood, with nothing ticked, measured or spoilt. */
function copied(
  build: BuildDocument,
  steps: readonly Step[],
  before: string,
  { slots = (slot) => slot, step: change = (step) => step }: Change,
): Copied {
  if (build.steps.length + steps.length > MOST_STEPS)
    throw new Refusal([`A job holds at most ${MOST_STEPS} steps.`]);
  const fresh = freshIds(build);
  const names = new Map<string, string>();
  const assemblies = [...build.assemblies];
  const made: Step[] = [];
  for (const step of steps) {
    const assembly = isOf(step, 'rip') ? assemblyOf(build, step.id) : undefined;
    if (step.inputs.length === 0 && !assembly)
      throw new Refusal([`${stepTitle(build, step)}: this wood came as it is, and there is no more of it.`]);
    const id = fresh(step.kind);
    // Pieces are called after the one or the other: where both are one name, they stay one.
    const output = step.id === step.output ? id : fresh(`${step.kind}-out`);
    names.set(step.id, id).set(step.output, output);
    const own: Partial<Record<'assembly', string>> = {};
    if (assembly) {
      own.assembly = fresh('lay-up');
      assemblies.push({
        ...assembly,
        id: own.assembly,
        name: `${assembly.name} again`.slice(0, 80),
        slots: assembly.slots.flatMap((each) => {
          const slot = slots(each);
          if (!slot) return [];
          const { strip: _strip, ...rest } = slot;
          names.set(each.id, fresh('strip'));
          return [{ ...rest, id: names.get(each.id) as string }];
        }),
      });
    }
    const to = (piece: string) => renamed(names, piece);
    const { parts } = step as { parts?: LaidPart[] };
    made.push(
      change({
        ...bare(step),
        ...own,
        id,
        output,
        ...(step.name ? { name: `${step.name} again`.slice(0, 80) } : {}),
        inputs: step.inputs.map((input) => names.get(input) ?? input),
        ...(step.only ? { only: step.only.map(to) } : {}),
        ...(parts ? { parts: parts.map((part) => ({ ...part, piece: to(part.piece) })) } : {}),
      } as Step),
    );
  }
  const at = build.steps.findIndex(({ id }) => id === before);
  return {
    build: {
      ...build,
      assemblies,
      steps: build.steps.toSpliced(at < 0 ? build.steps.length : at, 0, ...made),
    },
    names,
  };
}

/** The strips that steps really took of a ripping: a copy makes no others. */
function takenOf(timeline: Timeline, steps: readonly Step[], rip: string): Set<string> {
  const own = new Set(steps.map(({ id }) => id));
  const given = new Set(timeline.steps.find(({ id }) => id === rip)?.pieces.map(({ id }) => id));
  return new Set(
    timeline.steps
      .filter(({ id }) => own.has(id))
      .flatMap(({ entered }) => entered.flatMap(({ id }) => (given.has(id) ? [id] : []))),
  );
}

/** Where the parts of a glue-up on one of its inputs were divided: by a slicing, or out of boards. */
function dividedAt(build: BuildDocument, input: string) {
  const way = [...makersOf(build, input)];
  const at = firstOf(
    way,
    (step) => roomOf(step).flow.source === true || Boolean(roomOf(step).flow.divides?.(step)),
  );
  return at && { at, between: way.slice(0, way.indexOf(at)).toReversed() };
}

/** What a divider calls the pieces it gives, whether or not they came to be. */
const idsOf = (build: BuildDocument, step: Step): string[] => {
  const slice = asSlicing(step);
  return slice ? sliceIds(build, slice) : (assemblyOf(build, step.id)?.slots.map(({ id }) => id) ?? []);
};

/** Parts of one slicing dealt out anew over the places they have, those that are new spread evenly; turns stay where they are. */
export function spreadOut(
  parts: readonly LaidPart[],
  fresh: ReadonlySet<string>,
  alike: ReadonlySet<string>,
): LaidPart[] {
  const places = parts.flatMap(({ piece }, i) => (alike.has(piece) ? [i] : []));
  const [old, made] = [false, true].map((isNew) =>
    places.map((i) => parts[i].piece).filter((piece) => fresh.has(piece) === isNew),
  );
  if (made.length === 0 || old.length === 0) return [...parts];
  const at = new Set(made.map((_, i) => Math.floor(((i + 0.5) * places.length) / made.length)));
  const out = [...parts];
  let [o, m] = [0, 0];
  places.forEach((place, n) => {
    out[place] = { ...parts[place], piece: at.has(n) ? made[m++] : old[o++] };
  });
  return out;
}

/** The slicing of a panel that slices came from, counted from 0, by their names; undefined where it slices one only. */
const panelOf = (slice: SliceStep, piece: string): number | undefined => {
  const [panel, nth] = piece.slice(slice.id.length + 1).split('.');
  return nth === undefined ? undefined : Number(panel) - 1;
};

/** Slices made again from a panel of their own, as long as they need it; the panel goes through all that the first one did. */
function slicesAgain(
  build: BuildDocument,
  timeline: Timeline,
  {
    slice,
    struck,
    into,
    shorterMm,
  }: { slice: SliceStep; struck: readonly string[]; into: string; shorterMm: number },
): Copied & { ids: string[] } {
  const nth = panelOf(slice, struck[0]);
  const entered = timeline.steps.find(({ id }) => id === slice.id)?.entered[nth ?? 0];
  const input = slice.inputs.find((each) => {
    const maker = makerOf(build, each);
    return timeline.steps.find(({ id }) => id === maker?.id)?.pieces.some(({ id }) => id === entered?.id);
  });
  if (!entered || !input)
    throw new Refusal([`${stepTitle(build, slice)} has no panel of which these could be cut again.`]);
  const line = cameThrough(build, input);
  // Of blanks alike one is enough.
  const shared = line.map(asGlueUp).find((glue) => glue && (glue.blanks ?? 1) > 1);
  const share = shared && blankShare(build, shared, entered.id);
  if (shared && !share)
    throw new Refusal([
      `${stepTitle(build, shared)} makes several panels, and which one these came from is not known.`,
    ]);
  const taken = new Map(
    line.filter((step) => isOf(step, 'rip')).map((step) => [step.id, takenOf(timeline, line, step.id)]),
  );
  const wanted = new Set([...taken.values()].flatMap((ids) => [...ids]));
  const made = copied(build, [...line, slice], into, {
    slots: (slot) =>
      (share ? share.has(slot.id) : wanted.has(slot.id))
        ? { ...slot, length: { mm: slot.length.mm - shorterMm } }
        : undefined,
    step: (step) => {
      const glue = asGlueUp(step);
      if (!share || !glue?.blanks || glue.blanks === 1) return step;
      return {
        ...glue,
        blanks: undefined,
        parts: glue.parts?.filter((_, i) => share.has(shared?.parts?.[i]?.piece ?? '')),
      };
    },
  });
  const id = made.names.get(slice.id) as string;
  const own = made.names.get(input) as string;
  const steps = made.build.steps.map((step): Step => {
    const again = step.id === id ? asSlicing(step) : undefined;
    return again ? { ...again, count: struck.length, inputs: [own], only: undefined } : step;
  });
  return {
    build: { ...made.build, steps },
    names: made.names,
    ids: struck.map((_, i) => `${id}.${i + 1}`),
  };
}

/** The strips of the blank with a name, where a glue-up makes several alike. */
function blankShare(build: BuildDocument, glue: GlueStep, blank: string): Set<string> | undefined {
  const nth = Number(blank.slice(glue.output.length + 1)) - 1;
  if (!(nth >= 0)) return undefined;
  const parts =
    glue.parts?.map(({ piece }) => piece) ?? assemblyOf(build, glue.id)?.slots.map(({ id }) => id) ?? [];
  const each = Math.ceil(parts.length / (glue.blanks ?? 1));
  return new Set(parts.slice(nth * each, (nth + 1) * each));
}

/**
 * Makes pieces that were struck once more, from new wood and through the same steps, and lays them into the glue-up in their
 * place; `spread` deals old and new slices out evenly, so that a difference in colour spreads. `shorterMm` makes the new
 * strips so much shorter. Refused where a piece was not made in this job.
 */
export function makeAgain(whole: BuildDocument, edit: EditOf<'makeAgain'>): BuildDocument {
  const glue = glueUpAt(whole, edit.into);
  if (!glue) throw new Refusal([`The glue-up “${edit.into}” is no longer in this job.`]);
  let build = whole;
  for (const input of glue.inputs) {
    const from = dividedAt(whole, input);
    const all = new Set(from ? idsOf(whole, from.at) : []);
    const own = edit.pieces.filter((piece) => all.has(piece));
    if (!from || own.length === 0) continue;
    if (from.between.some(({ inputs }) => inputs.length > 1))
      throw new Refusal([
        `${stepTitle(whole, glue)} takes pieces that were joined before: make that panel again instead.`,
      ]);
    const slice = asSlicing(from.at);
    const groups = slice
      ? [...new Set(own.map((piece) => panelOf(slice, piece)))].map((nth) =>
          own.filter((piece) => panelOf(slice, piece) === nth),
        )
      : [own];
    for (const struck of groups) build = againFor(build, whole, { from, struck, slice, edit, all });
  }
  if (build === whole)
    throw new Refusal(['These pieces are not laid into this glue-up from steps of this job.']);
  return build;
}

function againFor(
  build: BuildDocument,
  whole: BuildDocument,
  {
    from,
    struck,
    slice,
    edit,
    all,
  }: {
    from: NonNullable<ReturnType<typeof dividedAt>>;
    struck: readonly string[];
    slice: SliceStep | undefined;
    edit: EditOf<'makeAgain'>;
    all: ReadonlySet<string>;
  },
): BuildDocument {
  const gone = new Set(struck);
  const panel =
    slice &&
    slicesAgain(build, run(whole), { slice, struck, into: edit.into, shorterMm: edit.shorterMm ?? 0 });
  const made =
    panel ??
    copied(build, [from.at], edit.into, {
      slots: (slot) =>
        gone.has(slot.id) ? { ...slot, length: { mm: slot.length.mm - (edit.shorterMm ?? 0) } } : undefined,
    });
  const ids = panel?.ids ?? struck.map((id) => made.names.get(id) as string);
  // What lies between is done to the new ones too.
  const after = from.between.length > 0 ? copied(made.build, from.between, edit.into, {}) : undefined;
  const next = after?.build ?? made.build;
  const begin = made.names.get(from.at.output) as string;
  const first = after?.names.get(from.between[0]?.id);
  const end = after ? (after.names.get(from.between.at(-1)?.output ?? '') as string) : begin;
  const laid = glueUpAt(next, edit.into) as GlueStep;
  const parts = laid.parts ?? [...all].map((piece): LaidPart => ({ piece }));
  let n = 0;
  const replaced = parts.map((part) =>
    gone.has(part.piece) ? { ...part, piece: ids[n++] ?? part.piece } : part,
  );
  const fresh = new Set(ids);
  return {
    ...next,
    steps: next.steps.map((step): Step => {
      if (step.id === first) return { ...step, inputs: [begin], only: undefined } as Step;
      if (step.id !== edit.into) return step;
      return {
        ...laid,
        inputs: [...laid.inputs, end],
        parts: edit.spread && slice ? spreadOut(replaced, fresh, new Set([...all, ...fresh])) : replaced,
      };
    }),
  };
}

/** Makes all that came to a step once more, from new wood; what follows takes the new, and the old is left over. */
export function startAgain(build: BuildDocument, { step: id }: EditOf<'startAgain'>): BuildDocument {
  const step = stepAt(build, id);
  const timeline = run(build);
  const line = cameThrough(build, step.output);
  const taken = new Set(
    line.filter((each) => isOf(each, 'rip')).flatMap((rip) => [...takenOf(timeline, line, rip.id)]),
  );
  const at = build.steps[build.steps.indexOf(step) + 1]?.id ?? '';
  const { build: next, names } = copied(build, line, at, {
    slots: (slot) => (line.length === 1 || taken.has(slot.id) ? slot : undefined),
  });
  const given = names.get(step.output) as string;
  const users = new Set(usersOfOutput(build, step.output).map((each) => each.id));
  return {
    ...next,
    steps: next.steps.map((each) => {
      if (!users.has(each.id)) return each;
      const { parts } = each as { parts?: LaidPart[] };
      return {
        ...each,
        inputs: each.inputs.map((input) => (input === step.output ? given : input)),
        ...(each.only ? { only: each.only.map((piece) => renamed(names, piece)) } : {}),
        ...(parts ? { parts: parts.map((part) => ({ ...part, piece: renamed(names, part.piece) })) } : {}),
      } as Step;
    }),
    targets: next.targets.map((target) =>
      target.output === step.output ? { ...target, output: given } : target,
    ),
  };
}
