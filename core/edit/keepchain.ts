import {
  attempt,
  type BuildDocument,
  firstOf,
  isRefused,
  makerOf,
  makersOf,
  type Step,
  type Target,
  usersOf,
} from '../document';
import { roomOf, stepTitle } from '../steps';
import { put, removeStep, takeIn } from './chain';

/** A build with what a hand did to its chain, and what of that could not be kept, by name. */
export interface KeptChain {
  build: BuildDocument;
  lost: string[];
}

const idsOf = (build: BuildDocument): Set<string> => new Set(build.steps.map(({ id }) => id));

/** The nearest step behind one that is among those known; undefined at the beginning of a line. */
const behind = (build: BuildDocument, step: Step, known: ReadonlySet<string>): Step | undefined =>
  firstOf(makersOf(build, step.inputs[0] ?? ''), ({ id }) => known.has(id));

/** The next step ahead that is among those known; undefined at the end of a line. */
const ahead = (build: BuildDocument, step: Step, known: ReadonlySet<string>): Step | undefined =>
  firstOf(usersOf(build, step.output), ({ id }) => known.has(id));

/** One change after the other, each where it can be done; those that cannot are told by name. */
function each<T>(
  kept: KeptChain,
  list: readonly T[],
  { name, change }: { name: (one: T) => string; change: (build: BuildDocument, one: T) => BuildDocument },
): KeptChain {
  return list.reduce<KeptChain>(({ build, lost }, one) => {
    const next = attempt(() => change(build, one));
    return isRefused(next) ? { build, lost: [...lost, name(one)] } : { build: next, lost };
  }, kept);
}

/** A step that a hand had put in, put in again: behind the step it came after, and with all that it took in. */
function putBack(build: BuildDocument, was: BuildDocument, step: Step): BuildDocument {
  if (roomOf(step).flow.source) {
    const assembly = was.assemblies.find(({ id }) => id === (step as { assembly?: string }).assembly);
    return {
      ...build,
      steps: [...build.steps, step],
      assemblies:
        assembly && !build.assemblies.some(({ id }) => id === assembly.id)
          ? [...build.assemblies, assembly]
          : build.assemblies,
    };
  }
  const [first, ...others] = step.inputs;
  const maker = makerOf(was, first);
  const after = maker?.id ?? '';
  const now = build.steps.find(({ id }) => id === after);
  const user = was.steps.find(({ inputs }) => inputs.includes(step.output));
  const follows = build.steps.find(({ id }) => id === user?.id);
  const before = now && follows?.inputs.includes(now.output) ? follows.id : undefined;
  // What nobody took, nobody takes now: it goes another way.
  const apart = step.only !== undefined && before === undefined;
  const own = apart ? step : ({ ...step, only: undefined } as Step);
  const alone = { after, ...(before ? { before } : {}) };
  const next = put(build, own, alone);
  return others.reduce((at, output) => takeIn(at, { do: 'takeIn', step: step.id, output }), next);
}

/** Pieces wanted that a hand added, and what it said of those that were planned. */
function targetsKept(next: BuildDocument, was: BuildDocument, planned: BuildDocument): Target[] {
  const told = next.targets.map((target) => {
    const [now, before] = [was, planned].map(({ targets }) => targets.find(({ id }) => id === target.id));
    if (!now || !before) return target;
    const { purpose, quantity, atOnce } = now;
    return {
      ...target,
      ...(purpose === before.purpose ? {} : { purpose }),
      ...(quantity === before.quantity ? {} : { quantity }),
      ...(atOnce === before.atOnce ? {} : { atOnce }),
    };
  });
  return [...told, ...was.targets.filter(({ id }) => !told.some((target) => target.id === id))];
}

/**
 * Does to a chain that was planned anew what a hand had done to the one before: takes out what it took out, moves what it
 * moved, puts in what it put in, with lines of its own and what was laid in. `planned` is what the old brief gave before
 * any hand touched it. What no longer has a place is told by name.
 */
export function keepChain(next: BuildDocument, was: BuildDocument, planned: BuildDocument): KeptChain {
  const [inNext, inWas, inPlanned] = [next, was, planned].map(idsOf);
  const title = (step: Step) => stepTitle(was, step);
  const gone = planned.steps.filter(({ id }) => !inWas.has(id) && inNext.has(id));
  let kept = each({ build: next, lost: [] }, gone, {
    name: (step) => `${stepTitle(planned, step)}, taken out`,
    change: (build, { id }) => removeStep(build, id),
  });
  const bare = gone.reduce((build, { id }) => {
    const without = attempt(() => removeStep(build, id));
    return isRefused(without) ? build : without;
  }, planned);
  // A step that moved has other steps on both sides; one that only lost or got a neighbour did not move itself.
  const moved = was.steps.filter((step) => {
    const before = bare.steps.find(({ id }) => id === step.id);
    if (before?.inputs.length !== 1 || step.inputs.length !== 1 || !inNext.has(step.id)) return false;
    return (
      behind(was, step, inPlanned)?.id !== behind(bare, before, inPlanned)?.id &&
      ahead(was, step, inPlanned)?.id !== ahead(bare, before, inPlanned)?.id
    );
  });
  kept = each(kept, moved, {
    name: (step) => `${title(step)}, moved`,
    change: (build, step) => {
      const after = behind(was, step, idsOf(build));
      const own = build.steps.find(({ id }) => id === step.id);
      if (!after || !own || makerOf(build, own.inputs[0])?.id === after.id) return build;
      return put(removeStep(build, step.id), own, { after: after.id });
    },
  });
  const added = was.steps.filter(({ id }) => !inPlanned.has(id) && !inNext.has(id));
  kept = each(kept, added, { name: title, change: (build, step) => putBack(build, was, step) });
  // What a planned step took in besides: the outputs of lines that a hand began.
  const fresh = new Set(added.map(({ output }) => output));
  const laid = was.steps
    .filter(({ id }) => inPlanned.has(id))
    .flatMap((step) => step.inputs.filter((output) => fresh.has(output)).map((output) => ({ step, output })));
  kept = each(kept, laid, {
    name: ({ step, output }) => {
      const maker = makerOf(was, output);
      return `${maker ? title(maker) : 'What was'} laid into ${title(step)}`;
    },
    change: (build, { step, output }) => {
      const own = build.steps.find(({ id }) => id === step.id);
      if (!own || own.inputs.includes(output) || !makerOf(build, output)) return build;
      return takeIn(build, { do: 'takeIn', step: step.id, output });
    },
  });
  return {
    build: { ...kept.build, targets: targetsKept(kept.build, was, planned) },
    lost: kept.lost,
  };
}
