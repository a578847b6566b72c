import { type BuildDocument, machineIdOf, type Step, type StepBase } from '../document';
import { BASE_FIELDS, type Setting } from './field';
import { emptyLedger } from '../solid';
import { passThrough, type Seen, type StepRoom } from './room';
import { ROOMS } from './rooms';
import { unknownRoom } from './unknown';

/** A room as those see it who walk over all of them. */
export type AnyRoom = Omit<StepRoom<Step>, 'kind' | 'fields'> & {
  kind: string;
  fields: Record<string, Setting>;
};

/** All rooms, in the order of the menu. */
export const STEP_ROOMS: readonly AnyRoom[] = Object.values(ROOMS) as unknown as readonly AnyRoom[];

/** The room of a kind; of one that this Junta does not know, a room in which nothing can be played. */
const roomOfKind = (kind: Step['kind']): AnyRoom =>
  (Object.hasOwn(ROOMS, kind) ? ROOMS[kind] : unknownRoom(kind)) as unknown as AnyRoom;

/** What a step that is left out still has: what it is called, its settings, and which pieces it would take. */
const STAYS = ['kind', 'name', 'group', 'says', 'title', 'fields', 'ownIds', 'takes', 'begin'] as const;

/** A room in which nothing is done: pieces pass, and boards stay whole. */
const emptied = (room: AnyRoom): AnyRoom => ({
  ...(Object.fromEntries(STAYS.map((name) => [name, room[name]])) as Pick<AnyRoom, (typeof STAYS)[number]>),
  subtitle: () => 'Left out: pieces pass as they are.',
  flow: room.flow.source ? { source: true } : {},
  operations: () => [],
  run: room.flow.source ? () => ({ pieces: [], lost: emptyLedger() }) : passThrough,
  labour: { setUp: 0, each: 0 },
});
const emptiedRooms = new WeakMap<AnyRoom, AnyRoom>();

/**
 * The room of a step; of one that is left out, a room with its name and settings in which nothing is done: so that nobody
 * who asks what a step does, takes, costs or needs hears of one that is not done.
 */
export const roomOf = (step: Pick<Step, 'kind' | 'off'>): AnyRoom => {
  const room = roomOfKind(step.kind);
  if (!step.off) return room;
  const out = emptiedRooms.get(room) ?? emptied(room);
  emptiedRooms.set(room, out);
  return out;
};

/** Whether steps are of one kind, left out or not. */
export const sameKind = (...steps: readonly Pick<Step, 'kind'>[]): boolean =>
  new Set(steps.map(({ kind }) => kind)).size < 2;

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
