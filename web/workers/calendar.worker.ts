import { expose } from 'comlink';
import { schedule, type ScheduledTask, type ShopRoom, tasksOf } from '../../core/bench';
import type { BuildDocument } from '../../core/document';
import { run } from '../../core/run';

const worker = {
  /** All jobs' open steps on one calendar, the first job first. A job that cannot be played adds what could be. */
  plan: (jobs: { id: string; build: BuildDocument }[], now: number, room: ShopRoom): ScheduledTask[] =>
    schedule(
      jobs.flatMap(({ id, build }) => tasksOf(id, build, run(build))),
      now,
      room,
    ),
};
export type CalendarWorker = typeof worker;
expose(worker);
