import { type BuildDocument, machineIdOf, type Step, type StepBase } from '../document';
import { BASE_FIELDS, type Setting } from './field';
import type { Seen, StepRoom } from './room';
import { ROOMS } from './rooms';
import { unknownRoom } from './unknown';

/** A room as those see it who walk over all of them. */
export type AnyRoom = Omit<StepRoom<Step>, 'kind' | 'fields'> & {
  kind: string;
  fields: Record<string, Setting>;
};

/** All rooms, in the order of the menu. */
export const STEP_ROOMS: readonly AnyRoom[] = Object.values(ROOMS) as unknown as readonly AnyRoom[];

/** The room of a step; of one whose kind this Junta does not know, a room in which nothing can be played. */
export const roomOf = (step: Pick<Step, 'kind'>): AnyRoom =>
  (Object.hasOwn(ROOMS, step.kind) ? ROOMS[step.kind] : unknownRoom(step.kind)) as unknown as AnyRoom;

/** What a step is called: its own name, or its kind's. */
export const stepName = (step: Step): string => step.name ?? roomOf(step).title?.(step) ?? roomOf(step).name;

/** The line under a step's name: what it does here, in a few words. */
export const subtitleOf = (step: Step, seen: Seen): string => roomOf(step).subtitle?.(step, seen) ?? '';

/** Whether a step is in its document and Junta does not compute it: its kind, or this one as it stands. */
export const isHeld = (step: Step): boolean => {
  const { run, held } = roomOf(step);
  return run === undefined || (held?.(step) ?? false);
};

/** Names of the settings that planning again keeps where a hand changed them: of every step, and of this kind. */
export const carriedSettings = (step: Step): string[] =>
  Object.entries<Setting | { carried?: boolean }>({ ...BASE_FIELDS, ...roomOf(step).fields })
    .filter(([, { carried }]) => carried)
    .map(([name]) => name);

/** The machine a step names, as its kit knows it; undefined where it names none, or one that is gone. */
export const machineOfStep = (step: StepBase, build: BuildDocument) =>
  build.shop.machines.find(({ id }) => id === machineIdOf(step));
