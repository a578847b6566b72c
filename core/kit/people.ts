/** Somebody who works in the shop. Nobody signs in by it: it says who did what, and what they may run and lift. */
export interface Person {
  id: string;
  name: string;
  /** What they lift alone, kg; what the shop's one pair of hands lifts, if missing. */
  liftKg?: number;
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
