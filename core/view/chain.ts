import {
  type BuildDocument,
  DIMENSIONS,
  type Edit,
  isRefused,
  makerOf,
  type Phrase,
  type Step,
  type StepKind,
  usersOfOutput,
} from '../document';
import { applyEdit } from '../edit';
import { findingsOf } from '../review';
import { run } from '../run';
import {
  greatestSize,
  isHeld,
  machineOfStep,
  STEP_GROUPS,
  STEP_ROOMS,
  type StepGroup,
  stepTitle,
  type Timeline,
  type TimelineStep,
} from '../steps';
import { counted, rising } from '../units';
import { type LyingPiece, named } from './lying';

/** A place of the chain: behind a step, and between it and another, where it is one of several ways. */
export interface ChainPlace {
  after: string;
  before?: string;
  /** Only these pieces, another way. */
  only?: string[];
}

/** The place between a mark of a lath and the next one on it: behind what the next one works on. */
export function placeAfter(build: BuildDocument, step: Step, next: Step | undefined): ChainPlace {
  if (!next) return { after: step.id };
  const maker = next.inputs.includes(step.output) ? step : makerOf(build, next.inputs[0] ?? '');
  return maker ? { after: maker.id, before: next.id } : { after: step.id };
}

/** One kind of step in the menu: what it would do here, or why it cannot be put in. */
export interface MenuLine {
  kind: StepKind;
  name: string;
  group: StepGroup;
  says: string;
  /** Puts it in, with the settings its figures were played with; undefined where it cannot. */
  edit?: Edit;
  /** What it would do here, in figures; or why not. */
  words: Phrase[];
  /** What would be wrong with it here, first of all. */
  warns?: Phrase[];
}

/** What lies at a place of the chain, and every kind of step that could be put in there. */
export interface ChainMenu {
  lies: LyingPiece[];
  lines: MenuLine[];
}

/** How the sizes and the number of pieces change, in figures; empty where nothing does. */
function changed(before: readonly TimelineStep['pieces'][number][], now: TimelineStep): Phrase[] {
  const greatest = (pieces: TimelineStep['pieces']) =>
    DIMENSIONS.map((dimension) => greatestSize(pieces, dimension));
  const [was, is] = [greatest([...before]), greatest(now.pieces)];
  const words: Phrase[] = [];
  const add = (...parts: Phrase[]) => words.push(...(words.length > 0 ? [', '] : []), ...parts);
  if (before.length !== now.pieces.length) add(`${before.length} → ${counted(now.pieces.length, 'piece')}`);
  DIMENSIONS.forEach((dimension, a) => {
    if (Math.abs(was[a] - is[a]) > 1e-6) add(`${dimension} `, { mm: was[a] }, ' → ', { mm: is[a] });
  });
  return words;
}

/** What lies at a place before anything is put in there. */
function lyingThere(timeline: Timeline, { after, before, only }: ChainPlace): TimelineStep['pieces'] {
  const pieces = timeline.steps.find(({ id }) => id === after)?.pieces ?? [];
  const taken = timeline.steps.find(({ id }) => id === before)?.entered.map(({ id }) => id);
  const wanted = new Set(only ?? taken ?? pieces.map(({ id }) => id));
  return pieces.filter(({ id }) => wanted.has(id));
}

/** The tool a step was given, by its name. */
const toolOf = (step: Step, { shop }: BuildDocument): string | undefined => {
  const { saw, cutter } = step as { saw?: string; cutter?: { saw?: string } };
  const id = saw ?? cutter?.saw;
  return shop.saws.find((each) => each.id === id)?.name;
};

/**
 * All kinds of step in the order of the work, each played forward at a place: what it would make of what lies there, with
 * which tool, and what would be wrong with it; or why it cannot be put in there. Nothing is offered that was not played.
 */
export function stepsAt(build: BuildDocument, timeline: Timeline, place: ChainPlace): ChainMenu {
  const lies = lyingThere(timeline, place);
  const lines = STEP_ROOMS.filter(({ flow }) => !flow.source).map((room): MenuLine => {
    const kind = room.kind as StepKind;
    const line = { kind, name: room.name, group: room.group, says: room.says };
    const next = applyEdit(build, { do: 'addStep', kind, ...place });
    if (isRefused(next)) return { ...line, words: next.refused };
    const step = next.steps.find(({ id }) => !build.steps.some((each) => each.id === id));
    if (!step) throw new Error(`chain: nothing was put in for ${kind}`);
    // What is wanted of the whole piece is not asked of it half made.
    const upTo = { ...next, targets: [], steps: next.steps.slice(0, next.steps.indexOf(step) + 1) };
    const played = run(upTo, timeline);
    const entry = played.steps.find(({ id }) => id === step.id);
    const stop = played.problems.find((each) => each.step === step.id && each.severity === 'stop');
    if (!entry) return { ...line, words: stop?.message ?? ['It cannot be done here.'] };
    const {
      id: _id,
      kind: _kind,
      inputs: _in,
      output: _out,
      only: _only,
      ...settings
    } = step as Step & Record<string, unknown>;
    const tool = machineOfStep(step, next)?.name ?? toolOf(step, next);
    const figures = changed(lies, entry);
    const wrong = findingsOf(upTo, played).find(
      (each) => each.step === step.id && each.severity === 'warning',
    );
    return {
      ...line,
      edit: { do: 'addStep', kind, ...place, settings },
      words: [
        ...(figures.length > 0
          ? figures
          : [isHeld(step) ? 'kept in the plan; its sizes are not computed' : 'no size changes']),
        ...(tool ? [`; ${tool}`] : []),
      ],
      ...(wrong ? { warns: wrong.message } : {}),
    };
  });
  const after = build.steps.find(({ id }) => id === place.after);
  const all = lyingThere(timeline, { after: place.after, ...(place.before ? { before: place.before } : {}) });
  return {
    lies: named(build, after, all),
    lines: lines.toSorted(rising((a) => STEP_GROUPS.indexOf(a.group))),
  };
}

/** A place a step could be moved to, in words, and the edit that does it. */
export interface MovePlace {
  words: string;
  edit: Edit;
}

/** Where a step can be moved to: every place of the chain that takes it, in the order of the work. Empty where it must stay. */
export function movesOf(build: BuildDocument, id: string): MovePlace[] {
  const step = build.steps.find((each) => each.id === id);
  if (!step) return [];
  return build.steps
    .filter((each) => each.id !== id && !step.inputs.includes(each.output))
    .flatMap((after) => {
      const users = usersOfOutput(build, after.output).filter((user) => user.id !== id);
      const places = users.length > 1 ? users : [undefined];
      return places.flatMap((before): MovePlace[] => {
        const edit: Edit = {
          do: 'moveStep',
          step: id,
          after: after.id,
          ...(before ? { before: before.id } : {}),
        };
        if (isRefused(applyEdit(build, edit))) return [];
        const words = `after ${stepTitle(build, after)}${before ? `, before ${stepTitle(build, before)}` : ''}`;
        return [{ words, edit }];
      });
    });
}

/** Something a hand can do to a step in its chain: the edit, or why it cannot be done there. */
export type ChainAct = { edit: Edit } | { why: Phrase[] };

/** All that can be done to a step in its chain, each carried out before it is offered. */
export interface ChainActs {
  earlier: ChainAct;
  later: ChainAct;
  duplicate: ChainAct;
  remove: ChainAct;
  /** What it takes from several lines, and how each is left aside. */
  inputs: { from: string; leave: ChainAct }[];
}

/** What can be done to a step in its chain, or why not: one place earlier or later on its line, twice, out, an input less. */
export function chainActs(build: BuildDocument, step: Step): ChainActs {
  const { id } = step;
  const tried = (edit: Edit): ChainAct => {
    const made = applyEdit(build, edit);
    return isRefused(made) ? { why: made.refused } : { edit };
  };
  const maker = makerOf(build, step.inputs[0] ?? '');
  const behind = maker && makerOf(build, maker.inputs[0] ?? '');
  const [user] = usersOfOutput(build, step.output);
  const title = stepTitle(build, step);
  const joins = (other: Step) => [
    `${stepTitle(build, other)} joins several lines: ${title} is moved past it by choosing a place.`,
  ];
  const first: Phrase[] = [`${title} is the first that can be done on its line.`];
  return {
    earlier: !maker
      ? tried({ do: 'moveStep', step: id, after: build.steps.find((each) => each.id !== id)?.id ?? id })
      : maker.inputs.length > 1
        ? { why: joins(maker) }
        : behind
          ? tried({ do: 'moveStep', step: id, after: behind.id, before: maker.id })
          : { why: first },
    later: !user
      ? { why: [`${title} is the last on its line.`] }
      : user.inputs.length > 1
        ? { why: joins(user) }
        : tried({ do: 'moveStep', step: id, after: user.id }),
    duplicate: tried({ do: 'duplicateStep', step: id }),
    remove: tried({ do: 'removeStep', step: id }),
    inputs:
      step.inputs.length > 1
        ? step.inputs.map((output) => {
            const from = makerOf(build, output);
            return {
              from: from ? stepTitle(build, from) : output,
              leave: tried({ do: 'leaveAside', step: id, output }),
            };
          })
        : [],
  };
}
