import { expose } from 'comlink';
import { type BoardStock, type BuildDocument, type Fix, type Goal, GOALS } from '../../core/document';
import { findingsOf, withoutNewWarnings } from '../../core/review';
import { run as play } from '../../core/run';
import {
  type Answer,
  EFFORT,
  type Largest,
  largestFrom,
  layAnswer,
  type Problem,
  type Progress,
  type Purchase,
  purchaseList,
  shortageFixes,
  solve,
  solveNow,
  type Totals,
  totalsOf,
} from '../../core/stock';
import { pause } from './pause';

/** One goal's answer and its sums, for the chart. */
export interface TradeOff {
  goal: Goal;
  answer: Answer;
  totals: Totals;
}
/** What a kerf makes of the same strips and boards. */
export interface KerfCase {
  kerfMm: number;
  strips: number;
  totals: Totals;
}

let stopped = false;

/** Solves while answering a call to stop; says the best so far from time to time. */
async function run(
  problem: Problem,
  start: Answer | undefined,
  say: (progress: Progress) => void,
): Promise<Answer> {
  stopped = false;
  const search = solve(problem, EFFORT.normal, start);
  let best: Answer | undefined;
  let said = Number.NaN;
  let saidAt = 0;
  for (;;) {
    const { done, value } = search.next();
    if (done) return value;
    best = value.best;
    // A better answer is worth drawing; that the search goes on is said now and then.
    if (best.score !== said || value.done - saidAt > value.of / 25) {
      say(value);
      said = best.score;
      saidAt = value.done;
    }
    await pause();
    if (stopped) return best;
  }
}

const worker = {
  run,
  stop: () => void (stopped = true),
  /** What each goal comes to, never worse than the plan there is. */
  tradeOffs: async (problem: Problem, from: Answer): Promise<TradeOff[]> => {
    const out: TradeOff[] = [];
    for (const goal of GOALS) {
      const answer = solveNow({ ...problem, goal }, EFFORT.quick, from);
      out.push({ goal, answer, totals: totalsOf(layAnswer(problem, answer)) });
      await pause();
    }
    return out;
  },
  /** What each kerf makes of the same strips and boards. */
  kerfs: async (problem: Problem, kerfs: number[], from: Answer): Promise<KerfCase[]> =>
    kerfs.map((kerfMm) => {
      const with_ = { ...problem, rules: { ...problem.rules, ripKerf: kerfMm, crosscutKerf: kerfMm } };
      const answer = solveNow(with_, EFFORT.quick, from);
      return { kerfMm, strips: answer.places.length, totals: totalsOf(layAnswer(with_, answer)) };
    }),
  waysOut: (build: BuildDocument, boards: BoardStock[], answer: Answer): Fix[] =>
    withoutNewWarnings(build, shortageFixes(build, boards, answer), (next) => findingsOf(next, play(next))),
  largest: (build: BuildDocument, boards: BoardStock[], dimension: 'length' | 'width'): Largest =>
    largestFrom(build, boards, dimension),
  purchases: (problem: Problem, missing: string[], rack: BoardStock[]): Purchase[] =>
    purchaseList(problem, missing, rack),
};
export type BreakdownWorker = typeof worker;
expose(worker);
