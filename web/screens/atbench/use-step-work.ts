import { shopTime } from '../../app/clock';
import { begunAt, type BenchGate, type BenchStep, ended, isRunning, started } from '../../../core/bench';
import type { Step } from '../../../core/document';
import { useEdit } from '../job/use-edit';

/** What hands do with a step: begin, tick one operation after the other, pause, end, and take any of it back. */
export function useStepWork(step: Step, sheet: BenchStep, who?: string) {
  const edit = useEdit();
  const now = () => shopTime();
  const all = sheet.operations.length;
  const done = step.done ? all : Math.min(step.operations ?? 0, all - 1);
  const change = (next: Partial<Step>) => edit({ do: 'setStep', step: step.id, change: { ...next } });
  return {
    running: isRunning(step),
    begun: begunAt(step) !== undefined,
    /** Operations that are done, and which is shown, counted from 0. */
    done,
    shown: Math.min(done, all - 1),
    begin: (gate?: BenchGate) => {
      const at = now();
      change({
        work: started(step.work, at, who),
        ...(gate
          ? {
              early: [
                ...(step.early ?? []),
                { at, until: new Date(gate.until).toISOString(), wait: gate.name, ...(who ? { who } : {}) },
              ],
            }
          : {}),
      });
    },
    pause: () => change({ work: ended(step.work, now()) }),
    tick: () => {
      const at = now();
      if (done + 1 >= all) change({ done: true, doneAt: at, operations: all, work: ended(step.work, at) });
      else change({ operations: done + 1, ...(sheet.rounds ? { work: ended(step.work, at) } : {}) });
    },
    untick: () => change({ operations: Math.max(0, done - 1) }),
    notDone: () => change({ done: false, doneAt: undefined, operations: Math.max(0, all - 1) }),
  };
}

export type StepWork = ReturnType<typeof useStepWork>;
