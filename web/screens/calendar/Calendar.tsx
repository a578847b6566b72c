import { wrap } from 'comlink';
import { Download } from 'lucide-react';
import { DateTime } from 'luxon';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { JobReply } from '../../../contract/api';
import type { ScheduledTask, ShopRoom } from '../../../core/bench';
import { mustEdit } from '../../../core/edit';
import { clampsOf, gluingOf } from '../../../core/kit';
import { api, problemText, useBuildsQuery, useKitQuery } from '../../app/api';
import { keepChange } from '../../app/outbox';
import { useAppDispatch } from '../../app/store';
import { Tick } from '../../parts/Tick';
import type { CalendarWorker } from '../../workers/calendar.worker';
import { DayGrid } from './DayGrid';
import { exportCalendar } from './export';
import { FullScreen } from '../../parts/layout';

const worker = wrap<CalendarWorker>(
  new Worker(new URL('../../workers/calendar.worker.ts', import.meta.url), { type: 'module' }),
);
/** Days in sight at once. */
const DAYS = 9;

/** All jobs on the shop's days: work, clamps, waits; moved by dragging. */
export function Calendar() {
  const { data, error } = useBuildsQuery(undefined, { refetchOnMountOrArgChange: true });
  const jobs = data?.jobs;
  const { data: kit } = useKitQuery();
  const [hidden, setHidden] = useState<ReadonlySet<string>>();
  const [tasks, setTasks] = useState<ScheduledTask[]>();
  const [offset, setOffset] = useState(0);
  const [refused, setRefused] = useState<string>();
  const dispatch = useAppDispatch();
  const [now] = useState(() => Math.floor(Date.now() / 300_000) * 300_000);
  const open = useMemo(
    () => (jobs ?? []).filter(({ build }) => build.steps.some(({ done }) => !done)),
    [jobs],
  );
  // At first only the jobs somebody has begun or moved, else the newest: nine jobs at once are no plan.
  const off = hidden ?? new Set(firstHidden(open));
  const shown = open.filter(({ id }) => !off.has(id));
  const key = shown.map(({ id, version }) => `${id}.${version}`).join();
  const shop = kit?.shop;
  const zone = (shop && gluingOf(shop).hours.zone) ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  useEffect(() => {
    if (!shop) return;
    const practice = gluingOf(shop);
    const room: ShopRoom = {
      hours: practice.hours,
      zone,
      benches: practice.benches,
      clamps: Object.fromEntries(clampsOf(shop).map(({ id, count }) => [id, count])),
    };
    let gone = false;
    worker
      .plan(
        shown.map(({ id, build }) => ({ id, build })),
        now,
        room,
      )
      .then((planned) => !gone && setTasks(planned))
      .catch((problem: unknown) => !gone && setRefused((problem as Error).message));
    return () => {
      gone = true;
    };
    // `shown` is what `key` stands for.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, shop, zone, now]);
  if (error !== undefined)
    return (
      <p role="alert" className="text-red p-8">
        {problemText(error)}
      </p>
    );
  if (!jobs || !shop) return <p className="text-graphite p-8">Reading the jobs …</p>;
  const nameOf = (id: string) => jobs.find((job) => job.id === id)?.name ?? '';
  const move = (task: ScheduledTask, begin: number | undefined) => {
    const job = jobs.find(({ id }) => id === task.job);
    if (!job) return;
    const build = mustEdit(job.build, {
      do: 'setStep',
      step: task.step,
      change: { begin: begin === undefined ? undefined : new Date(begin).toISOString() },
    });
    keepChange('job', job.id, { name: build.name, version: job.version, content: build });
    dispatch(
      api.util.updateQueryData('builds', undefined, (all) => ({
        ...all,
        jobs: all.jobs.map((each) => (each.id === job.id ? { ...each, build } : each)),
      })),
    );
  };
  const days = Array.from({ length: DAYS }, (_, i) =>
    DateTime.fromMillis(now, { zone })
      .startOf('day')
      .plus({ days: offset + i }),
  );
  return (
    <FullScreen>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="text-[20px] font-semibold">Calendar</h1>
        <span className="text-graphite text-[14px]">
          {hoursText(gluingOf(shop).hours.days, gluingOf(shop).hours.from, gluingOf(shop).hours.to)};{' '}
          {zone.replace('_', ' ')}
        </span>
        {refused && (
          <span role="alert" className="text-red text-[14px]">
            {refused}
          </span>
        )}
        <span className="ml-auto flex flex-wrap items-center gap-2">
          <button type="button" className="action" onClick={() => setOffset(offset - 7)}>
            A week back
          </button>
          <button type="button" className="action" disabled={offset === 0} onClick={() => setOffset(0)}>
            Today
          </button>
          <button type="button" className="action" onClick={() => setOffset(offset + 7)}>
            A week on
          </button>
          <button
            type="button"
            className="action"
            disabled={!tasks?.length}
            onClick={() => void exportCalendar(tasks ?? [], nameOf, shop.name)}
          >
            <Download size={15} aria-hidden /> iCalendar
          </button>
        </span>
      </div>
      {data && data.damaged.length > 0 && (
        <p role="alert" className="text-red text-[14px]">
          Not on the calendar, since its newest version is damaged:{' '}
          {data.damaged.map(({ id, name, version }, i) => (
            <span key={id}>
              {i > 0 && ', '}
              <Link className="underline" to={`/jobs/${id}`}>
                {name}
              </Link>{' '}
              (version {version})
            </span>
          ))}
          .
        </p>
      )}
      <div className="flex flex-wrap gap-x-4">
        {open.map(({ id, name }) => (
          <Tick
            key={id}
            label={name}
            checked={!off.has(id)}
            onChange={(on) => {
              const next = new Set(off);
              if (on) next.delete(id);
              else next.add(id);
              setHidden(next);
            }}
          />
        ))}
      </div>
      {shown.length === 0 ? (
        <p className="text-graphite text-[15px]">
          {open.length === 0 ? 'No job has a step left to do.' : 'Tick a job to see its days.'}{' '}
          <Link className="text-chalk underline" to="/jobs">
            All jobs
          </Link>
        </p>
      ) : (
        <DayGrid
          days={days}
          zone={zone}
          hours={gluingOf(shop).hours}
          jobs={shown.map(({ id, name }) => ({ id, name }))}
          tasks={tasks ?? []}
          onMove={move}
        />
      )}
    </FullScreen>
  );
}

const DAY_NAMES = ['', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const hoursText = (days: readonly number[], from: number, to: number): string =>
  `${days.map((d) => DAY_NAMES[d]).join(' ')}, ${from}:00 to ${to}:00`;

/** Jobs left out at first: those not begun, but for the two newest. */
function firstHidden(jobs: readonly JobReply[]): string[] {
  const begun = (job: JobReply) => job.build.steps.some((step) => step.done || step.begin);
  const newest = jobs.slice(-2).map(({ id }) => id);
  return jobs.filter((job) => !begun(job) && !newest.includes(job.id)).map(({ id }) => id);
}
