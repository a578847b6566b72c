import type { Assembly, BuildDocument, GluePlan, LaidPart, PartRule, Slot, Step } from '../document';
import { asGlueUp, assemblyOf, carriedSettings, type GlueStep, sameKind } from '../steps';
import { turnedByHand } from './rows';

/** What a maker can change of a slot by hand and still want after planning again. */
const OF_SLOT = ['species', 'grain', 'grade', 'gradeBelow', 'set', 'side', 'fibre', 'sapEdge'] as const;

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

function carrySlot(slot: Slot, was: Slot, planned: Slot): Slot {
  const kept = OF_SLOT.filter((name) => !same(was[name], planned[name]));
  const seed = was.strip?.seed === undefined ? {} : { strip: { seed: was.strip.seed } };
  return { ...slot, ...seed, ...Object.fromEntries(kept.map((name) => [name, was[name]])) };
}

function carryAssembly(
  assembly: Assembly,
  was: Assembly | undefined,
  planned: Assembly | undefined,
): Assembly {
  if (!was || !planned) return assembly;
  const slots = assembly.slots.map((slot) => {
    const [a, b] = [was, planned].map(({ slots: list }) => list.find(({ id }) => id === slot.id));
    return a && b ? carrySlot(slot, a, b) : slot;
  });
  return { ...assembly, slots };
}

/** Parts of a glue-up: turns and locks by hand on parts that are still there; the order where the same parts are. */
function carryParts(now: readonly LaidPart[], was: readonly LaidPart[]): LaidPart[] {
  const byPiece = new Map(was.map((part) => [part.piece, part]));
  const carried = now.map((part): LaidPart => {
    const before = byPiece.get(part.piece);
    if (!before) return part;
    const { endForEnd, rollOver, quarter, locked } = before;
    return { ...part, endForEnd, rollOver, quarter, locked };
  });
  const alike = now.length === was.length && now.every(({ piece }) => byPiece.has(piece));
  if (!alike || carried.some(({ place }) => place)) return carried;
  return was.map(({ piece }) => carried.find((part) => part.piece === piece) as LaidPart);
}

/** A rule: the hand's own where it changed it, else the new plan's with the hand's exceptions, as far as parts go. */
function carryRule<R extends PartRule>(
  now: R | undefined,
  was: R | undefined,
  planned: R | undefined,
  most: number,
) {
  const bare = (rule: R | undefined) => rule && { ...rule, except: [] };
  const rule = same(bare(was), bare(planned)) ? now : was;
  if (!rule) return undefined;
  return { ...rule, except: was?.except.filter((part) => most === 0 || part <= most) ?? [] };
}

/** Whether a step is planned just as it was, on strips of the same sizes: what is done of it stays done. */
function isSame(
  step: Step,
  planned: Step,
  sizes: { now: readonly Slot[]; before: readonly Slot[] },
): boolean {
  const size = ({ id, length, width, thickness }: Slot) => [id, length.mm, width.mm, thickness.mm];
  return same(step, planned) && same(sizes.now.map(size), sizes.before.map(size));
}

/** How a glue-up was to be done; clamps and aids put by hand only where strips are still as long and as many. */
function carryPlan(plan: GluePlan | undefined, asBefore: boolean): { plan?: GluePlan } {
  if (!plan) return {};
  if (asBefore) return { plan };
  const { clamps: _clamps, aids, ...rest } = plan;
  const { places: _places, ...kept } = aids ?? {};
  return { plan: { ...rest, ...(aids ? { aids: { ...kept, kind: aids.kind } } : {}) } };
}

function carryStep(
  step: Step,
  was: Step | undefined,
  planned: Step | undefined,
  { now, before }: { now: readonly Slot[]; before: readonly Slot[] },
): Step {
  if (!was || !planned || !sameKind(was, step, planned)) return step;
  const kept = Object.fromEntries(
    carriedSettings(step)
      .filter((name) => !same(was[name as never], planned[name as never]) && was[name as never] !== undefined)
      .map((name) => [name, was[name as never]]),
  );
  const asBefore = isSame(step, planned, { now, before });
  const done = asBefore
    ? {
        ...(was.done ? { done: true } : {}),
        ...(was.done && was.doneAt ? { doneAt: was.doneAt } : {}),
        ...(was.operations ? { operations: was.operations } : {}),
      }
    : {};
  const next = { ...step, ...kept, ...done } as Step;
  const [nextGlue, wasGlue, plannedGlue] = [next, was, planned].map(asGlueUp);
  return nextGlue && wasGlue && plannedGlue
    ? carryGlue({
        next: nextGlue,
        was: wasGlue,
        planned: plannedGlue,
        pieces: now.map(({ id }) => id),
        asBefore,
      })
    : next;
}

/** What the hand did to a glue-up: its rules' exceptions, the order and turns of its parts, how it is glued. */
function carryGlue({
  next,
  was,
  planned,
  pieces,
  asBefore,
}: Record<'next' | 'was' | 'planned', GlueStep> & {
  pieces: readonly string[];
  asBefore: boolean;
}): GlueStep {
  const most = next.parts?.length ?? pieces.length;
  const glue: GlueStep = {
    ...next,
    ...carryPlan(was.plan, asBefore),
    turns: carryRule(next.turns, was.turns, planned.turns, most),
    shifts: carryRule(next.shifts, was.shifts, planned.shifts, most),
  };
  if (same(was.parts, planned.parts) || !was.parts) return glue;
  const own = next.parts ?? pieces.map((piece): LaidPart => ({ piece }));
  // Where the parts themselves say what is turned, those that are new say what the rule would have done to them.
  const turned = next.turns && !was.turns ? turnedByHand(next, own) : own;
  return { ...glue, parts: carryParts(turned, was.parts) };
}

/**
 * Carries what was done by hand over to a build that was planned again: woods and grades of strips, exceptions of
 * rules, turns, locks and order of parts, machines and saws, notes and marks, how glue-ups are done; and what is done of
 * steps that stay as they were. `planned` is what the old brief gave
 * before any hand touched it, so that only what differs from it counts as done by hand.
 */
export function carryOver(next: BuildDocument, was: BuildDocument, planned: BuildDocument): BuildDocument {
  const assemblies = next.assemblies.map((assembly) => {
    const [a, b] = [was, planned].map((build) => build.assemblies.find(({ id }) => id === assembly.id));
    return carryAssembly(assembly, a, b);
  });
  const steps = next.steps.map((step) => {
    const [a, b] = [was, planned].map((build) => build.steps.find(({ id }) => id === step.id));
    const slots = (build: BuildDocument) => assemblyOf(build, step.id)?.slots ?? [];
    return carryStep(step, a, b, { now: slots({ ...next, assemblies }), before: slots(was) });
  });
  return {
    ...next,
    assemblies,
    steps,
    boards: was.boards,
    // A reading whose step is gone lies aside: it counts again when the step comes back.
    readings: was.readings,
    ...(was.breakdown ? { breakdown: was.breakdown } : {}),
    ...(was.uses ? { uses: was.uses } : {}),
    ...(was.sizes ? { sizes: was.sizes } : {}),
    ...(was.place ? { place: was.place } : {}),
  };
}
