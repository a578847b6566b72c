import { sumOf } from '../units';
import { type BuildDocument, PACE_ACTS, type PaceAct, type Step, type TimedLap } from '../document';
import { glueUpOf, layAids, planClamps, rehearse } from '../glueup';
import type { Timeline } from '../steps';
import { actsTogether } from './bands';
import type { TaughtRow } from './line';
import { ACT_SD, DAY_SD, LOSSES } from './losses';

/** A lap that somebody pressed twice for is no act, and a lunch is none either, seconds. */
const LEAST_S = 1;
const MOST_S = 3600;
const MIN_S = 60;
/** How far acts of one day go together: what the day has of the variance of an act. */
const ALIKE = DAY_SD ** 2 / (DAY_SD ** 2 + ACT_SD ** 2);

/** Whether a dry run of a step was timed. */
export const wasTimed = (step: Step): boolean =>
  step.kind === 'glue' && (step.plan?.rehearsal?.laps.length ?? 0) > 0;

/** Acts of one kind in a dry run that was timed: minutes planned and taken, and what each teaches. */
export interface TimedActs {
  act: PaceAct;
  at: string;
  count: number;
  planned: number;
  taken: number;
  /** Half of the band of their sum. */
  likely: number;
  rows: TaughtRow[];
}

/**
 * What a timed dry run of a glue-up teaches of the minutes of each act: every lap against the act that was planned in its place, or where
 * the plan has changed since, against the mean of its kind. Nothing for what is no glue-up, or was not timed. Acts of one day share
 * the day: together they weigh no more than so many apart as their design effect leaves (Kish, Survey Sampling, 1965: 1 + (n - 1) rho).
 */
export function actsTimed(build: BuildDocument, timeline: Timeline, step: string): TimedActs[] {
  const glueUp = glueUpOf(build, timeline, step);
  const run = glueUp?.step.plan?.rehearsal;
  if (!glueUp || !run || run.laps.length === 0) return [];
  const { shop } = build;
  const { acts } = rehearse(glueUp, planClamps(glueUp, shop), layAids(build, timeline, glueUp), shop);
  const plannedOf = ({ act }: TimedLap, i: number): number => {
    if (acts[i]?.act === act) return acts[i].minutes;
    const alike = acts.filter((each) => each.act === act);
    return sumOf(alike, ({ minutes }) => minutes) / alike.length;
  };
  const timed = run.laps
    .map((lap, i) => ({ act: lap.act, taken: lap.seconds / MIN_S, planned: plannedOf(lap, i) }))
    .filter(({ taken, planned }) => taken >= LEAST_S / MIN_S && taken < MOST_S / MIN_S && planned > 0);
  return PACE_ACTS.flatMap((act): TimedActs[] => {
    const own = timed.filter((each) => each.act === act);
    if (own.length === 0) return [];
    const id = `act:${act}` as const;
    const used = { [id]: Math.log(LOSSES.act.standing(shop, act)?.value ?? 1) };
    const f = 1 / (1 + (own.length - 1) * ALIKE);
    const planned = sumOf(own, (each) => each.planned);
    const { from, to } = actsTogether({
      count: own.length,
      minutes: planned / own.length,
      m: 0,
      se2: 0,
      act: ACT_SD,
      day: DAY_SD,
    });
    return [
      {
        act,
        at: run.at,
        count: own.length,
        planned,
        taken: sumOf(own, (each) => each.taken),
        likely: (to - from) / 2,
        rows: own.map((each) => ({
          y: Math.log(each.taken / each.planned),
          a: { [id]: 1 },
          b: { 'scatter:act': 1 },
          g2: 0,
          kind: id,
          f,
          used,
        })),
      },
    ];
  });
}
