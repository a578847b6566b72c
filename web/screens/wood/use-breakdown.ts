import { proxy, type Remote, wrap } from 'comlink';
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { RackBoard } from '../../../contract/board';
import { type BuildDocument, type Edit, type Fix, isRefused, phraseText } from '../../../core/document';
import { applyEdits, mustEdit } from '../../../core/edit';
import {
  type Answer,
  answerEdit,
  type Demand,
  type Plan,
  planOf,
  type Problem,
  problemFor,
  type Progress,
  type Purchase,
  settingsOf,
} from '../../../core/stock';
import { api, isAnswered, problemText } from '../../app/api';
import { jobActions } from '../../app/job';
import { useDisplay } from '../../app/display';
import { useAppDispatch } from '../../app/store';
import type { BreakdownWorker, KerfCase, TradeOff } from '../../workers/breakdown.worker';

/** A job that is broken down along with the open one. */
export interface Companion {
  id: string;
  version: number;
  build: BuildDocument;
}

/** What is known about the breakdown beside the plan itself; asked for after each solving. */
export interface Advice {
  fixes: Fix[];
  purchases: Purchase[];
  tradeOffs: TradeOff[];
  kerfs: KerfCase[];
}
const NO_ADVICE: Advice = { fixes: [], purchases: [], tradeOffs: [], kerfs: [] };

/** What the screen shows: the plan in the jobs, or the best so far while it is solved. */
export interface Breakdown {
  plan: Plan | undefined;
  running: Progress | undefined;
  advice: Advice;
  advising: boolean;
  trouble: string | undefined;
  /** Solves with some edits carried out first, and writes the answer into the jobs: one step of undo. */
  solve: (edits?: Edit[]) => Promise<void>;
  stop: () => void;
  /** Writes an answer that is known already. */
  use: (answer: Answer, edits?: Edit[]) => Promise<void>;
}

let marks = 0;
/** At most so many kerfs of the kit are compared. */
const MOST_KERFS = 4;

/** The boards a job may use: those not reserved for other jobs. */
export const freeFor = (rack: readonly RackBoard[], jobs: readonly string[]): RackBoard[] =>
  rack.filter(({ reserved }) => !reserved || jobs.includes(reserved.job));

/** What is said where something is asked for before everything it counts with is read: nothing is planned with less. */
const NOT_READ =
  'The rack and the jobs that share it are not read yet. Nothing was changed; try it again in a moment.';

/** An answer with what it answers. */
interface Solved {
  edits: readonly Edit[];
  problem: Problem;
  demand: Demand;
  answer: Answer;
  jobs: readonly BuildDocument[];
}

/** Breaks down the job that is open, with its companions. `rack` is left out until it and the companions are read. */
export function useBreakdown(
  id: string,
  build: BuildDocument | undefined,
  companions: readonly Companion[],
  rack: readonly RackBoard[] | undefined,
): Breakdown {
  const dispatch = useAppDispatch();
  const display = useDisplay();
  const worker = useRef<Remote<BreakdownWorker>>(undefined);
  const [running, setRunning] = useState<Progress>();
  const [live, setLive] = useState<{ problem: Problem; demand: Demand }>();
  const [advice, setAdvice] = useState<Advice>(NO_ADVICE);
  const [advising, setAdvising] = useState(false);
  const [trouble, setTrouble] = useState<string>();
  const newest = useRef(0);
  useEffect(() => {
    const thread = new Worker(new URL('../../workers/breakdown.worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.current = wrap<BreakdownWorker>(thread);
    return () => thread.terminate();
  }, []);

  const builds = useMemo(
    () => (build ? [build, ...companions.map((c) => c.build)] : []),
    [build, companions],
  );
  const stored = useMemo(() => (builds.length ? planOf(builds) : undefined), [builds]);

  /** Writes an answer: boards and the jobs beside this one in one command, then this job, once that was taken. */
  const write = useCallback(
    async ({ edits, problem, demand, answer, jobs }: Solved) => {
      const mark = `wood ${++marks}`;
      const settings = settingsOf(jobs[0]);
      const names = jobs.map(({ name }) => name);
      const answered = (job: number) => answerEdit(problem, demand, answer, { job, settings, names });
      const { error } = await dispatch(
        api.endpoints.reserveBoards.initiate({
          id,
          boards: [...new Set(answer.places.map(({ board }) => board))],
          freed: jobs[0].boards.map((board) => board.id),
          companions: companions.map(({ id: other, version, build: own }, i) => ({
            id: other,
            version,
            build: mustEdit(own, answered(i + 1)),
          })),
        }),
      );
      if (error) setTrouble(problemText(error));
      // Refused, nothing is written anywhere; without a server this job is planned all the same, and its boards are not reserved.
      if (error && isAnswered(error)) return;
      for (const edit of [...edits, answered(0)]) dispatch(jobActions.edited({ edit, mark }));
      dispatch(jobActions.settled());
    },
    [companions, dispatch, id],
  );

  /** Ways out, purchases and comparisons: each takes a moment, and none may hold up the plan. */
  const advise = useCallback(
    async (jobs: readonly BuildDocument[], problem: Problem, answer: Answer) => {
      const asked = ++newest.current;
      const thread = worker.current;
      if (!thread) return;
      const current = () => asked === newest.current;
      const add = (more: Partial<Advice>) => {
        if (current()) setAdvice((before) => ({ ...before, ...more }));
      };
      setAdvice(NO_ADVICE);
      setAdvising(true);
      if (answer.missing.length > 0) {
        if (jobs.length === 1) add({ fixes: await thread.waysOut(jobs[0], [...problem.boards], answer) });
        if (current()) add({ purchases: await thread.purchases(problem, answer.missing, [...(rack ?? [])]) });
      }
      const kerfs = [...new Set(jobs[0].shop.saws.map(({ kerf }) => kerf.mm))].toSorted((a, b) => a - b);
      if (current()) add({ kerfs: await thread.kerfs(problem, kerfs.slice(0, MOST_KERFS), answer) });
      if (current()) add({ tradeOffs: await thread.tradeOffs(problem, answer) });
      if (current()) setAdvising(false);
    },
    [rack],
  );

  const solve = useCallback(
    async (edits: Edit[] = []) => {
      const thread = worker.current;
      if (!thread || builds.length === 0) return;
      if (!rack) return setTrouble(NOT_READ);
      setTrouble(undefined);
      newest.current += 1;
      const edited = applyEdits(builds[0], edits);
      if (isRefused(edited)) return setTrouble(phraseText(edited.refused, display));
      const jobs = [edited, ...builds.slice(1)];
      const { problem, demand } = problemFor(jobs, freeFor(rack, [id, ...companions.map((c) => c.id)]));
      const before = planOf(jobs).answer;
      setLive({ problem, demand });
      try {
        const start = before.places.length > 0 ? before : undefined;
        // A better answer is drawn when there is time for it: typing and dragging come first.
        const say = (progress: Progress) => startTransition(() => setRunning(progress));
        const answer = await thread.run(problem, start, proxy(say));
        await write({ edits, problem, demand, answer, jobs });
        void advise(jobs, problem, answer);
      } catch (error) {
        setTrouble(`This could not be solved: ${(error as Error).message}`);
      }
      setRunning(undefined);
      setLive(undefined);
    },
    [advise, builds, companions, display, id, rack, write],
  );

  const use = useCallback(
    async (answer: Answer, edits: Edit[] = []) => {
      if (!rack) return setTrouble(NOT_READ);
      const edited = applyEdits(builds[0], edits);
      if (isRefused(edited)) return setTrouble(phraseText(edited.refused, display));
      const jobs = [edited, ...builds.slice(1)];
      const { problem, demand } = problemFor(jobs, freeFor(rack, [id, ...companions.map((c) => c.id)]));
      await write({ edits, problem, demand, answer, jobs });
    },
    [builds, companions, display, id, rack, write],
  );

  const plan = running && live ? { ...live, answer: running.best } : stored;
  return { plan, running, advice, advising, trouble, solve, stop: () => void worker.current?.stop(), use };
}
