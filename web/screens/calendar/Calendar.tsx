import { Download } from 'lucide-react';
import { DateTime } from 'luxon';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { JobReply } from '../../../contract/api';
import {
  hoursText,
  onCalendar,
  promisedOf,
  roomOfShop,
  type ScheduledTask,
  zoneOf,
} from '../../../core/bench';
import { mustEdit } from '../../../core/edit';
import { gluingOf } from '../../../core/kit';
import { api, problemText, useBuildsQuery, useKitQuery } from '../../app/api';
import { keepChange } from '../../app/outbox';
import { useAppDispatch } from '../../app/store';
import { Tick } from '../../parts/Tick';
import { DayGrid } from './DayGrid';
import { exportCalendar } from './export';
import { calendarWorker, localZone } from './calendar-worker';
import { FullScreen } from '../../parts/layout';
import { UndoButtons } from '../../parts/UndoButtons';
import { UndoKeys } from '../../parts/UndoKeys';
import { PromiseLine } from '../today/PromiseLine';

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
  const [moves, setMoves] = useState<{ past: Moved[]; future: Moved[] }>({ past: [], future: [] });
  const dispatch = useAppDispatch();
  const [now] = useState(() => Math.floor(Date.now() / 300_000) * 300_000);
  const open = useMemo(
    () => (jobs ?? []).filter(({ build }) => build.steps.some(({ done }) => !done)),
    [jobs],
  );
  // At first only the jobs somebody has begun or moved, else the newest: nine jobs at once are no plan.
  const off = hidden ?? new Set(firstHidden(open, now));
  const shown = open.filter(({ id }) => !off.has(id));
  const key = shown.map(({ id, version }) => `${id}.${version}`).join();
  const shop = kit?.shop;
  const zone = shop ? zoneOf(shop, localZone()) : localZone();
  useEffect(() => {
    if (!shop) return;
    let gone = false;
    calendarWorker
      .plan(
        shown.map(({ id, build }) => ({ id, build })),
        now,
        roomOfShop(shop, zone),
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
  const put = ({ job: id, step, begin }: Moved): Moved | undefined => {
    const job = jobs.find((each) => each.id === id);
    const before = job?.build.steps.find((each) => each.id === step);
    // Gone meanwhile, elsewhere: there is nothing to put back.
    if (!job || !before) return undefined;
    const build = mustEdit(job.build, { do: 'setStep', step, change: { begin } });
    keepChange('job', job.id, { name: build.name, version: job.version, content: build });
    dispatch(
      api.util.updateQueryData('builds', undefined, (all) => ({
        ...all,
        jobs: all.jobs.map((each) => (each.id === job.id ? { ...each, build } : each)),
      })),
    );
    return { job: id, step, begin: before.begin };
  };
  const move = (task: ScheduledTask, begin: number | undefined) => {
    const iso = begin === undefined ? undefined : new Date(begin).toISOString();
    const before = put({ job: task.job, step: task.step, begin: iso });
    if (before) setMoves(({ past }) => ({ past: [...past, before], future: [] }));
  };
  const undo = () => {
    const last = moves.past.at(-1);
    if (!last) return;
    const after = put(last);
    setMoves(({ past, future }) => ({
      past: past.slice(0, -1),
      future: after ? [...future, after] : future,
    }));
  };
  const redo = () => {
    const last = moves.future.at(-1);
    if (!last) return;
    const before = put(last);
    setMoves(({ past, future }) => ({
      past: before ? [...past, before] : past,
      future: future.slice(0, -1),
    }));
  };
  const days = Array.from({ length: DAYS }, (_, i) =>
    DateTime.fromMillis(now, { zone })
      .startOf('day')
      .plus({ days: offset + i }),
  );
  return (
    <FullScreen>
      <UndoKeys onUndo={undo} onRedo={redo} />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <h1 className="text-[20px] font-semibold">Calendar</h1>
        <span className="text-graphite text-[14px]">
          {hoursText(gluingOf(shop).hours)}; {zone.replace('_', ' ')}
        </span>
        {refused && (
          <span role="alert" className="text-red text-[14px]">
            {refused}
          </span>
        )}
        <span className="ml-auto flex flex-wrap items-center gap-2">
          <UndoButtons past={moves.past.length} future={moves.future.length} onUndo={undo} onRedo={redo} />
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
      <ul aria-label="Promised" className="flex flex-col empty:hidden">
        {promisedOf(shown, tasks ?? [], zone).map((each) => (
          <li key={each.job}>
            <span className="font-medium">{nameOf(each.job)}</span>
            <PromiseLine promise={each} zone={zone} />
          </li>
        ))}
      </ul>
      {shown.length === 0 ? (
        <p className="text-graphite text-[15px]">
          {open.length === 0
            ? 'No job has a step left to do. A job that is planned stands here with its days: a panel glued on Monday is flattened on Tuesday.'
            : 'Tick a job to see its days.'}{' '}
          {open.length === 0 && (
            <Link className="action mr-2" to="/jobs/new">
              Plan a new job
            </Link>
          )}
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

/** When a step was meant to begin before it was moved. */
interface Moved {
  job: string;
  step: string;
  begin: string | undefined;
}

/** Jobs left out at first: ideas, but for the two newest. */
function firstHidden(jobs: readonly JobReply[], now: number): string[] {
  const shown = new Set(onCalendar(jobs, now));
  return jobs.filter((job) => !shown.has(job)).map(({ id }) => id);
}
