import {
  type BuildDocument,
  type Edit,
  type Finding,
  type FindingCode,
  machineIdOf,
  sawIdOf,
  type Step,
} from '../document';
import { type Machine, machinesThat, type Saw, type Work } from '../kit';
import type { Region } from '../curve';
import type { Blank, Ledger, Vec3 } from '../solid';
import type { Trims } from './feature/frame';
import type { Laid, WorkPiece } from './timeline';
import type { Sources } from './tolerance';

/** Saws of the shop whose kerf is below a limit, as fixes. */
export const thinnerSaws = (step: string, saw: Saw, limitMm: number, saws: readonly Saw[]) =>
  saws
    .filter((other) => other.id !== saw.id && other.kerf.mm <= limitMm)
    .map((other) => ({ label: `Use ${other.name}`, edit: { do: 'useSaw' as const, step, saw: other.id } }));

/** A board after all its cuts: the strips that wait for their step, and what the cuts took. */
export interface CutBoard {
  strips: Map<string, Blank>;
  lost: Ledger;
  /** Wood that this build takes in with the board: without the strips, which count when they are picked up. */
  woodInMm3: number;
}

/** What every step may look at while a build is run. */
export interface RunContext {
  build: BuildDocument;
  sources: Sources;
  /** Findings of steps that go on all the same. */
  notes: Finding[];
  /** Boards that are cut already, by id: a board is cut once, and its strips wait for the step that takes them. */
  cutBoards: Map<string, CutBoard>;
  /** What each output held when its step was done. */
  outputs: ReadonlyMap<string, readonly WorkPiece[]>;
  /** What later steps take off each side of what an output gives, for pieces of a size; mm. */
  laterTrims: (output: string, size: Vec3) => Trims;
  /** The outline that was sawn of what enters a step, where it still has it: in the piece's own frame, seen from above. */
  outlineBefore: (step: Step) => Region | undefined;
  /** Leaves of the resaw now carried out as they were measured, mm, by the ids they get. */
  measuredLeaves?: ReadonlyMap<string, number>;
}

/** What a step gives back: its pieces and what it took, or the finding that stopped it. */
export interface Done {
  pieces: WorkPiece[];
  lost: Ledger;
  woodInMm3?: number;
  laid?: Laid[];
  glue?: { joints: number; areaMm2: number };
  wanted?: number;
}

export type Outcome = Done | { stop: Finding };

/** A finding that stops the run at a step. */
export const stopAt = (
  step: { id: string },
  code: FindingCode,
  message: Finding['message'],
  more: Partial<Finding> & Pick<Finding, 'numbers'>,
): { stop: Finding } => ({
  stop: { code, step: step.id, severity: 'stop', message, fixes: [], ...more },
});

/** One edit for every step that used what is gone. */
const insteadOf = (users: readonly Step[], edit: (step: Step) => Edit): Edit =>
  users.length === 1 ? edit(users[0]) : { do: 'many', edits: users.map(edit) };

/** The saw a step names, or the finding that there is none. */
export function sawOf(step: { id: string }, id: string, context: RunContext): { stop: Finding } | Saw {
  const saw = context.build.shop.saws.find((candidate) => candidate.id === id);
  if (saw) return saw;
  // Whatever else was to be done with it goes along.
  const users = context.build.steps.filter((each) => sawIdOf(each) === id);
  const fixes = context.build.shop.saws.map((other) => ({
    label: `Use ${other.name}`,
    edit: insteadOf(users, (user) => ({ do: 'useSaw', step: user.id, saw: other.id })),
  }));
  return stopAt(step, 'no-such-saw', [`The saw “${id}” is not in this job’s kit. Choose another one.`], {
    numbers: { saws: context.build.shop.saws.length },
    fixes,
  });
}

/** The machine a step names, or the finding that there is none, with those that do the work. */
export function machineOf(
  step: { id: string },
  id: string,
  context: RunContext,
  work: Work,
): Machine | { stop: Finding } {
  const machine = context.build.shop.machines.find((candidate) => candidate.id === id);
  if (machine) return machine;
  const users = context.build.steps.filter((each) => machineIdOf(each) === id);
  const { shop } = context.build;
  const able = machinesThat(shop, work);
  // Without a planer something else mills: the review says so.
  const fixes = (able.length > 0 ? able : machinesThat(shop, 'flatten')).map((other) => ({
    label: `Use ${other.name}`,
    edit: insteadOf(users, (user) => ({ do: 'useMachine', step: user.id, machine: other.id })),
  }));
  return stopAt(
    step,
    'no-such-machine',
    [`The machine “${id}” is not in this job’s kit. Choose another one.`],
    { numbers: { machines: context.build.shop.machines.length }, fixes },
  );
}

/** Whether a step stopped the run. */
export const isStopped = (value: object): value is { stop: Finding } => 'stop' in value;

declare module '../document/finding' {
  interface FindingCodes {
    /** The saw a step names is not in the job’s kit. */
    'no-such-saw': true;
    /** The machine a step names is not in the job’s kit. */
    'no-such-machine': true;
  }
}
