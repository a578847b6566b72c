import { expose } from 'comlink';
import { schedule, tasksOf, type ScheduledTask, type ShopRoom } from '../../core/bench';
import { run, type BuildDocument } from '../../core/build';

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
