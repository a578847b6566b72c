import { sumOf } from '../units';
import { Refusal } from '../document';
import { chance } from '../wood';
import { fromAnswer, toAnswer, type Answer } from './answer';
import type { Problem } from './problem';
import { provenBest } from './prove';
import { byLength, orderUnits, recreate, STRAIGHT } from './recreate';
import { ruin } from './ruin';
import { begin, withLocked, type Search } from './search';

/** How far the search is. */
export interface Progress {
  done: number;
  of: number;
  best: Answer;
}

/** Boards packed before the search ends, by effort; counted, not timed, so that the answer is always the same. */
export const EFFORT = { quick: 40_000, normal: 500_000, thorough: 2_500_000 } as const;

/** A reproducible stream of numbers in [0, 1). */
const stream = (seed: number) => {
  let n = 0;
  return () => chance(seed, n++);
};

/** The most strips laid out at once: more would keep a worker busy for minutes. */
export const MOST_WANTED = 3000;

/**
 * Solves a breakdown: a first answer by placing the longest strips first, then better ones by taking a part of the
 * plan out and laying it in again in another order (ruin and recreate with simulated annealing). Yields after the
 * first answer and then from time to time; the last value returned is the best found. Deterministic: the same problem
 * and effort give the same answer. `start` begins from an earlier answer, and the result is never worse than it.
 * More than 3,000 strips are a Refusal.
 */
export function* solve(
  problem: Problem,
  effort: number = EFFORT.normal,
  start?: Answer,
): Generator<Progress, Answer> {
  if (problem.strips.length > MOST_WANTED)
    throw new Refusal([
      `${problem.strips.length} strips are wanted at once; Junta lays out up to ${MOST_WANTED} on the boards. Make fewer alike at a time.`,
    ]);
  const search = begin(problem);
  const settled = withLocked(search);
  const all = search.units.filter((unit) => unit.some((strip) => !problem.strips[strip].locked));
  let current = recreate(search, settled, byLength(search, all), STRAIGHT);
  let best = current;
  if (start) {
    const again = fromAnswer(search, settled, start);
    if (again.score < best.score) current = best = again;
  }
  const bound = lowerBound(search);
  yield { done: 0, of: effort, best: toAnswer(search, best, bound) };
  if (all.length === 0) return toAnswer(search, best, bound);
  const random = stream(17);
  const heat = Math.max(best.score * 0.01, 1);
  let said = 0;
  let idle = 0;
  const patience = 3000 + 150 * problem.strips.length;
  while (search.work < effort && best.score > bound * (1 + 1e-12) && idle < patience) {
    const cooling = heat * (1 - search.work / effort) ** 2;
    const { left, removed } = ruin(search, current, random);
    const order = orderUnits(search, removed, random);
    const next = recreate(search, left, order, random);
    search.work += 1;
    idle += 1;
    if (next.score < current.score - cooling * Math.log(Math.max(1e-12, random()))) current = next;
    if (next.score < best.score - 1e-9) {
      best = next;
      idle = 0;
    }
    if (search.work - said > effort / 100) {
      said = search.work;
      yield { done: search.work, of: effort, best: toAnswer(search, best, bound) };
    }
  }
  const answer = toAnswer(search, best, bound);
  return { ...answer, proven: answer.proven || provenBest(problem, best.score) === true };
}

/** Runs a search to its end. */
export function solveNow(problem: Problem, effort: number = EFFORT.normal, start?: Answer): Answer {
  const search = solve(problem, effort, start);
  for (;;) {
    const { done, value } = search.next();
    if (done) return value;
  }
}

/**
 * The least score that any plan can have: wood of the strips on the thinnest board that gives each, one board at least,
 * and those that no board gives. Only for the goal that is measured in wood; zero where no bound is known.
 */
function lowerBound({ problem, kinds, kindOf, boards, scoring }: Search): number {
  if (problem.goal !== 'leastWaste' || kinds.some(({ leaves }) => leaves.some((n) => n >= 2))) return 0;
  const least = problem.strips.map((strip, i) => {
    const able = boards.filter(({ index }) => kinds[kindOf[i]].leaves[index] > 0);
    return able.length > 0
      ? strip.length * strip.width * Math.min(...able.map(({ thickness }) => thickness))
      : undefined;
  });
  const given = least.filter((mm3) => mm3 !== undefined);
  return (
    sumOf(given) + (given.length > 0 ? scoring.oneMore : 0) + (least.length - given.length) * scoring.missing
  );
}
