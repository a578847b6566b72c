import {
  type BuildDocument,
  type Edit,
  makerOf,
  MOST_STEPS,
  Refusal,
  type Slot,
  type Step,
  usersOfOutput,
} from '../document';
import { run } from '../run';
import { type Place, roomOf, stepTitle } from '../steps';
import type { EditOf, Family } from './family';
import { freshIds } from './ids';
import { inOrderOfWork, reaches } from './order';

/** A step by its id; refused where it is gone. */
export function stepAt(build: BuildDocument, id: string): Step {
  const step = build.steps.find((each) => each.id === id);
  if (!step) throw new Refusal([`The step “${id}” is no longer in this job.`]);
  return step;
}

function roomLeft(build: BuildDocument): void {
  if (build.steps.length >= MOST_STEPS) throw new Refusal([`A job holds at most ${MOST_STEPS} steps.`]);
}

/** A list of outputs with one of them given way to others. */
export const swapped = (list: readonly string[], from: string, to: readonly string[]): string[] => [
  ...new Set(list.flatMap((each) => (each === from ? to : [each]))),
];

/** What of an output a user takes, by ids; undefined where it takes all that is there. */
const takenBy = (user: Step): string[] | undefined => user.only ?? roomOf(user).takes?.(user);

/** What a step is put in between: the one behind it, all that works on what that gives, and the one before which it comes. */
function between(build: BuildDocument, { after, before }: { after: string; before?: string }) {
  const maker = stepAt(build, after);
  const users = usersOfOutput(build, maker.output);
  const user = before === undefined ? undefined : stepAt(build, before);
  if (user && !users.includes(user))
    throw new Refusal([
      `${stepTitle(build, user)} does not work on what ${stepTitle(build, maker)} gives: nothing comes in between.`,
    ]);
  return { maker, users, user };
}

/**
 * Puts a step in behind another one. Between it and `before` it takes what that one took; with no `before`, all that is
 * there, or only its own pieces, which then go another way.
 */
export function put(
  build: BuildDocument,
  step: Step,
  place: { after: string; before?: string },
): BuildDocument {
  roomLeft(build);
  const { maker, users, user } = between(build, place);
  const apart = step.only !== undefined && !user;
  const followers = apart ? [] : user ? [user] : users;
  const only = user && users.length > 1 ? takenBy(user) : user?.only;
  const own = { ...step, inputs: [maker.output], ...(apart ? {} : { only }) } as Step;
  const at = Math.min(
    ...followers.map((each) => build.steps.indexOf(each)),
    followers.length > 0 ? Infinity : build.steps.indexOf(maker) + 1,
  );
  const steps = build.steps.map((each) =>
    followers.includes(each)
      ? ({
          ...each,
          inputs: swapped(each.inputs, maker.output, [own.output]),
          ...(each.only && each.inputs.length === 1 ? { only: undefined } : {}),
        } as Step)
      : each,
  );
  return {
    ...build,
    steps: steps.toSpliced(at, 0, own),
    targets:
      apart || users.length > 0
        ? build.targets
        : build.targets.map((target) =>
            target.output === maker.output ? { ...target, output: own.output } : target,
          ),
  };
}

/** What lies behind a step for one to be put in there. */
function placeAt(build: BuildDocument, { after, before, only }: EditOf<'addStep'>): Place {
  const timeline = run(build);
  between(build, { after, before });
  const maker = timeline.steps.find(({ id }) => id === after);
  const next = timeline.steps.find(({ id }) => id === before);
  const wanted = only && new Set(only);
  const taken = next && new Set(next.entered.map(({ id }) => id));
  const pieces = (maker?.pieces ?? []).filter(({ id }) => (wanted ?? taken)?.has(id) ?? true);
  if (pieces.length === 0)
    throw new Refusal(['Nothing lies there yet: the steps before it must be right first.']);
  const from = build.steps.find(({ id }) => id === after)?.output;
  return { build, pieces, ...(from === undefined ? {} : { from }) };
}

function addStep(build: BuildDocument, edit: EditOf<'addStep'>): BuildDocument {
  const room = roomOf({ kind: edit.kind });
  if (room.flow.source)
    throw new Refusal([`${room.name} begins a line of its own: it does not come after another step.`]);
  const fresh = freshIds(build);
  const { after, before, only, kind } = edit;
  const settings = edit.settings ?? room.begin(placeAt(build, edit));
  const step = {
    ...settings,
    id: fresh(kind),
    kind,
    inputs: [],
    output: fresh(`${kind}-out`),
  } as unknown as Step;
  return put(build, only ? { ...step, only } : step, { after, before });
}

function addLine(build: BuildDocument, { kind, settings, name, slots }: EditOf<'addLine'>): BuildDocument {
  roomLeft(build);
  const room = roomOf({ kind });
  if (!room.flow.source) throw new Refusal([`${room.name} begins no line: it comes after another step.`]);
  const fresh = freshIds(build);
  const assembly = slots && {
    id: fresh('lay-up'),
    name: name ?? 'Strips',
    repeat: 1,
    slots: slots.map((slot): Slot => ({ ...slot, id: fresh('strip') })),
  };
  const waiting = build.targets.find(({ output }) => !makerOf(build, output));
  const own = { ...settings, ...(assembly ? { assembly: assembly.id } : {}) };
  const step = { ...own, id: fresh(kind), kind, inputs: [], output: fresh(`${kind}-out`) } as unknown as Step;
  return {
    ...build,
    assemblies: assembly ? [...build.assemblies, assembly] : build.assemblies,
    steps: [...build.steps, step],
    // What nothing came to yet is what this line is for.
    targets: build.targets.map((target) =>
      target === waiting ? { ...target, output: step.output } : target,
    ),
  };
}

/** Those that take the rest of a step's inputs, with what they took written on them: the rest would grow otherwise. */
function restHeld(build: BuildDocument, gone: Step): BuildDocument {
  const others = build.steps.filter(
    (each) =>
      each !== gone &&
      takenBy(each) === undefined &&
      each.inputs.some((input) => gone.inputs.includes(input)),
  );
  if (!gone.only || others.length === 0 || usersOfOutput(build, gone.output).length === 0) return build;
  const timeline = run(build);
  return {
    ...build,
    steps: build.steps.map((each) => {
      const seen = others.includes(each) && timeline.steps.find(({ id }) => id === each.id);
      return seen ? ({ ...each, only: seen.entered.map(({ id }) => id) } as Step) : each;
    }),
  };
}

/** How many readings hang on a step. */
export const readingsOn = (build: BuildDocument, id: string): number =>
  build.readings.filter(({ step }) => step === id).length;

/** Takes a step out; its readings stay in the job, aside, and count again when it comes back. */
export function removeStep(whole: BuildDocument, id: string): BuildDocument {
  const step = stepAt(whole, id);
  const build = restHeld(whole, step);
  const users = usersOfOutput(build, step.output);
  const starved = step.inputs.length === 0 && users.filter(({ inputs }) => inputs.length === 1);
  if (starved && starved.length > 0)
    throw new Refusal([
      `${stepTitle(build, step)} gives ${starved.map((each) => stepTitle(build, each)).join(' and ')} all there is to work on. Take out what follows first, from the end.`,
    ]);
  const lone = (user: Step) => user.inputs.length === 1 && step.only && !user.only;
  const steps = build.steps.flatMap((each) => {
    if (each.id === id) return [];
    if (!users.some((user) => user.id === each.id)) return [each];
    const inputs = swapped(each.inputs, step.output, step.inputs);
    return [{ ...each, inputs, ...(lone(each) ? { only: step.only } : {}) } as Step];
  });
  const assemblyOf = (each: Step) => (each as { assembly?: string }).assembly;
  const used = new Set(steps.map(assemblyOf));
  const was = assemblyOf(step);
  return {
    ...build,
    steps,
    assemblies: build.assemblies.filter((each) => each.id !== was || used.has(each.id)),
    targets: build.targets.map((target) =>
      target.output === step.output ? { ...target, output: step.inputs[0] ?? target.output } : target,
    ),
  };
}

function moveStep(build: BuildDocument, { step: id, after, before }: EditOf<'moveStep'>): BuildDocument {
  const step = stepAt(build, id);
  const title = stepTitle(build, step);
  if (step.inputs.length === 0) throw new Refusal([`${title} begins its line: nothing can lie before it.`]);
  if (step.inputs.length > 1)
    throw new Refusal([
      `${title} joins what comes from ${step.inputs.length} lines, which meet only here: take it out, and put it in where they meet.`,
    ]);
  if (after === id || before === id) return build;
  const target = stepAt(build, after);
  const without = removeStep(build, id);
  const { only: _only, ...rest } = step;
  return put(without, rest as Step, { after: target.id, before });
}

/** What a copy does not take along: it is not done, and nobody measured or spoilt anything on it. */
export const bare = (step: Step): Step => {
  const {
    done: _d,
    doneAt: _a,
    spoilt: _s,
    begin: _b,
    photos: _p,
    only: _o,
    operations: _n,
    work: _w,
    early: _e,
    ...rest
  } = step;
  return rest as Step;
};

function duplicateStep(build: BuildDocument, id: string): BuildDocument {
  const step = stepAt(build, id);
  const { flow, name } = roomOf(step);
  if (flow.joins)
    throw new Refusal([`${name}: what is glued is one piece. Lay up other parts in a glue-up of their own.`]);
  const fresh = freshIds(build);
  const copy = { ...bare(step), id: fresh(step.kind), output: fresh(`${step.kind}-out`) } as Step;
  if (step.inputs.length > 0) {
    if (step.inputs.length > 1)
      throw new Refusal([
        `${stepTitle(build, step)} takes from ${step.inputs.length} lines: it is not done twice.`,
      ]);
    return put(build, copy, { after: id });
  }
  roomLeft(build);
  const assembly = build.assemblies.find((each) => each.id === (step as { assembly?: string }).assembly);
  if (!assembly) return { ...build, steps: [...build.steps, copy] };
  const twin = {
    ...assembly,
    id: fresh('lay-up'),
    name: `${assembly.name} again`,
    slots: assembly.slots.map(({ strip: _strip, ...slot }): Slot => ({ ...slot, id: fresh('strip') })),
  };
  return {
    ...build,
    assemblies: [...build.assemblies, twin],
    steps: [...build.steps, { ...copy, assembly: twin.id } as Step],
  };
}

/** Lets a step take what another one gives; refused where that would go round in a circle. */
export function takeIn(build: BuildDocument, { step: id, output, parts }: EditOf<'takeIn'>): BuildDocument {
  const step = stepAt(build, id);
  const maker = makerOf(build, output);
  const title = stepTitle(build, step);
  if (!maker) throw new Refusal([`Nothing in this job gives “${output}” any more.`]);
  if (step.inputs.length === 0) throw new Refusal([`${title} begins its line: it takes nothing in.`]);
  if (maker.id === id || reaches(build, step, maker))
    throw new Refusal([
      `${stepTitle(build, maker)} waits for ${title} itself: it cannot be laid in there, or both would wait for ever.`,
    ]);
  const steps = build.steps.map((each) =>
    each.id === id
      ? ({ ...each, inputs: [...new Set([...each.inputs, output])], ...(parts ? { parts } : {}) } as Step)
      : each,
  );
  return { ...build, steps: inOrderOfWork(steps) };
}

function leaveAside(build: BuildDocument, { step: id, output }: EditOf<'leaveAside'>): BuildDocument {
  const step = stepAt(build, id);
  if (!step.inputs.includes(output)) return build;
  if (step.inputs.length === 1)
    throw new Refusal([`${stepTitle(build, step)} would have nothing left to work on: take it out instead.`]);
  return {
    ...build,
    steps: build.steps.map((each) =>
      each.id === id ? ({ ...each, inputs: each.inputs.filter((input) => input !== output) } as Step) : each,
    ),
  };
}

type Chain = Extract<
  Edit['do'],
  'addStep' | 'addLine' | 'removeStep' | 'moveStep' | 'duplicateStep' | 'takeIn' | 'leaveAside'
>;

/** What a hand does to the chain of steps itself. */
export const chain: Family<Chain> = {
  addStep,
  addLine,
  removeStep: (build, { step }) => removeStep(build, step),
  moveStep,
  duplicateStep: (build, { step }) => duplicateStep(build, step),
  takeIn,
  leaveAside,
};
