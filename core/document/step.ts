/** What does a trim or an edge: a saw, or a plane that leaves no kerf. */
export type Cutter = { saw: string } | { machine: string };

/** A stretch in which hands were on a step, as ISO times, and whose they were, by name; one without an end goes on. */
export interface WorkSpell {
  from: string;
  to?: string;
  who?: string;
}

/** That a step was begun before a wait was over: when, until when it should have waited, and for what. */
export interface EarlyStart {
  at: string;
  until: string;
  wait: string;
  who?: string;
}

/** What every step has, whatever its kind. */
export interface StepBase {
  id: string;
  name?: string;
  /** Ids of the outputs it takes. */
  inputs: string[];
  output: string;
  /** Of what lies on its inputs only these pieces: the rest goes another way. All that lies there, if missing. */
  only?: string[];
  /** Left out for now: pieces pass it as they are. */
  off?: boolean;
  done?: boolean;
  /** When it was done, as an ISO time: what waits after it counts from then. Unknown if missing. */
  doneAt?: string;
  /** How many of its operations are done at the bench: the next one is shown there. */
  operations?: number;
  /** When hands were on it. */
  work?: WorkSpell[];
  /** Waits that were not over when it was begun all the same. */
  early?: EarlyStart[];
  note?: string;
  marks?: string[];
  photos?: string[];
  /** Pieces made here that were spoilt: they leave the work as offcuts. */
  spoilt?: string[];
  /** When the maker means to begin it, as an ISO time; as early as it can be if missing. */
  begin?: string;
}

/**
 * The kinds of step by their names, each with its settings. Open on purpose: every room in core/steps declares its own
 * kind here, so that the document holds it and stands below it all the same. A kind declared without a room in the list
 * does not compile (core/steps/list.ts).
 */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled by the rooms
export interface StepKinds {}

export type StepKind = keyof StepKinds;
/** A step of any kind that has a room. */
export type Step = StepKinds[StepKind];

/** The most steps a job holds: more is a slip or an attack. */
export const MOST_STEPS = 200;

/** The tools a step may name, whatever its kind: always in these fields. */
type Tools = { saw?: string; machine?: string; cutter?: { saw?: string; machine?: string } };

/** The saw a step names, by id; undefined where it has none. */
export const sawIdOf = (step: StepBase): string | undefined => {
  const { saw, cutter } = step as Tools;
  return cutter ? cutter.saw : saw;
};
/** The machine a step names, by id; undefined where it has none. */
export const machineIdOf = (step: StepBase): string | undefined => {
  const { machine, cutter } = step as Tools;
  return cutter ? cutter.machine : machine;
};
/** The step with another saw or machine in the field that names it. */
export const withTool = <S extends StepBase>(step: S, tool: Cutter): S =>
  (step as Tools).cutter ? { ...step, cutter: tool } : { ...step, ...tool };
