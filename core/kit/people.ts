import type { WorkHours } from './practice';

/** Somebody who works in the shop. Nobody signs in by it: it says who did what, and what they may run and lift. */
export interface Person {
  id: string;
  name: string;
  /** What they lift alone, kg; what the shop's one pair of hands lifts, if missing. */
  liftKg?: number;
  /** When they are here; whenever the shop works, if missing. */
  hours?: Omit<WorkHours, 'zone'>;
  /** Ids of the saws and machines they may run; all of them if missing. */
  runs?: string[];
}

/** The most people of one shop. */
export const MOST_PEOPLE_OF_SHOP = 60;
/** What a person may be said to lift, kg. */
export const LIFTS_KG = { least: 1, most: 100 } as const;

/** Whether somebody may run a saw or a machine of the kit. Whoever has no list runs all of them. */
export const mayRun = ({ runs }: Pick<Person, 'runs'>, tool: string): boolean =>
  runs === undefined || runs.includes(tool);

/**
 * When somebody is here who may do a piece of work: the hours of each who may run its saw or machine, those of the shop for who has
 * none of their own. Where nobody may run it, or the shop lists nobody, it is whenever the shop works: that nobody may is said at the bench.
 */
export function presentFor(
  hours: WorkHours,
  people: readonly Person[],
  tool?: string,
): readonly Pick<WorkHours, 'days' | 'from' | 'to'>[] {
  const able = people.filter((person) => tool === undefined || mayRun(person, tool));
  return able.length > 0 ? able.map((person) => person.hours ?? hours) : [hours];
}
