import { expose } from 'comlink';
import {
  type CalendarJob,
  schedule,
  type ScheduledTask,
  type ShopRoom,
  tasksOf,
  type Morning,
  morningOf,
} from '../../core/bench';
import type { ShopSnapshot } from '../../core/kit';
import { run } from '../../core/run';

const worker = {
  /** All jobs' open steps on one calendar, the first job first. A job that cannot be played adds what could be. */
  plan: (jobs: CalendarJob[], now: number, room: ShopRoom): ScheduledTask[] =>
    schedule(
      jobs.flatMap(({ id, build }) => tasksOf(id, build, run(build))),
      now,
      room,
    ),
  /** What a shop needs to know this morning of its jobs, its shelf and its air. */
  morning: (jobs: CalendarJob[], shop: ShopSnapshot, at: Parameters<typeof morningOf>[2]): Morning =>
    morningOf(jobs, shop, at),
};
export type CalendarWorker = typeof worker;
expose(worker);
