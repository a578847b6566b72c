import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { ScheduledTask, ShopAir } from '../../../core/bench';
import { phraseText } from '../../../core/document';
import { counted, minutesText, temperatureText } from '../../../core/units';
import { problemText, useBoardsQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { Bar, Beside, Screen } from '../../parts/layout';
import { Working } from '../../parts/Working';
import { localZone } from '../calendar/calendar-worker';
import { clock, inZone, when } from './moment';
import { PromiseLine } from './PromiseLine';
import { SOON, useMorning, WAITS } from './use-morning';

const MINUTE = 60_000;
/** What is in clamps, what comes next on each job, what is short or late, and the air: read in the morning, from a phone. */
export function Today() {
  const { report, failed, error, shop, jobs, damaged, now } = useMorning();
  const display = useDisplay();
  const zone = report?.zone ?? localZone();
  const nameOf = (id: string) => jobs?.find((job) => job.id === id)?.name ?? '';
  const said = failed ?? (error === undefined ? undefined : problemText(error));
  return (
    <Screen>
      <Bar className="pb-3">
        <h1 className="text-[20px] font-semibold">Today</h1>
        <span className="text-graphite text-[15px]">
          {inZone(now, zone, { weekday: 'long', day: 'numeric', month: 'long' })}, {clock(now, zone)}
        </span>
        <span className="ml-auto flex gap-2">
          <Link to="/calendar" className="action">
            Calendar
          </Link>
        </span>
      </Bar>
      {said && (
        <p role="alert" className="text-red pb-2">
          {said}
        </p>
      )}
      {damaged?.map(({ id, name, version }) => (
        <p key={id} role="alert" className="text-red pb-2 text-[14px]">
          Left out, since its newest version {version} is damaged:{' '}
          <Link className="underline" to={`/jobs/${id}`}>
            {name}
          </Link>
        </p>
      ))}
      {!report || !shop ? (
        !said && <Working>Looking through the jobs …</Working>
      ) : (
        <Beside broad>
          <div className="flex min-w-0 flex-col gap-4">
            <Part
              title="In clamps, drying or away"
              empty="Nothing waits: no clamp is tight, no finish dries."
            >
              {report.waiting.map((task) => (
                <Waiting
                  key={`${task.job}/${task.id}`}
                  task={task}
                  name={nameOf(task.job)}
                  now={now}
                  zone={zone}
                />
              ))}
            </Part>
            <Part
              title="Next"
              says="on each job, in the order of the calendar"
              empty={<Beginning hasJobs={(jobs?.length ?? 0) > 0} />}
            >
              {report.next.map((task) => (
                <Next key={task.job} task={task} name={nameOf(task.job)} now={now} zone={zone} />
              ))}
            </Part>
            {report.ideas > 0 && (
              <p className="text-graphite text-[14px]">
                {counted(report.ideas, 'more idea')}, with no boards and no time set:{' '}
                <Link className="text-chalk underline" to="/jobs?state=idea">
                  look at them
                </Link>
              </p>
            )}
          </div>
          <div className="flex min-w-0 flex-col gap-4">
            <Part title="Promised" empty="No job is promised for a day. Say one at what is wanted of a job.">
              {report.promised.map((each) => (
                <li key={each.job} className="py-1.5">
                  <Link className="press text-chalk font-medium underline" to={`/jobs/${each.job}`}>
                    {nameOf(each.job)}
                  </Link>
                  <PromiseLine promise={each} zone={zone} />
                </li>
              ))}
            </Part>
            <Part title="Late" empty="Nothing that was given a time has passed it.">
              {report.late.map(({ job, step, name, begin }) => (
                <li key={`${job}/${step}`} className="py-1.5">
                  <span className="text-red" aria-hidden>
                    ✕{' '}
                  </span>
                  <StepLink job={job} step={step}>
                    {nameOf(job)}: {name}
                  </StepLink>
                  <span className="text-red block text-[14px]">
                    was to begin {when(begin, now, zone)}, and is not done
                  </span>
                </li>
              ))}
              {report.bottles.map(({ id, name, expires }) => (
                <li key={id} className="py-1.5">
                  <span className="text-red" aria-hidden>
                    ✕{' '}
                  </span>
                  <Link className="press text-chalk font-medium underline" to="/kit">
                    {name}
                  </Link>
                  <span className="text-red block text-[14px]">past its date: good until {expires}</span>
                </li>
              ))}
            </Part>
            <Part title="Short" empty="What the steps ahead want is on hand, as far as the kit says.">
              {report.short.map(({ job, what }, i) => (
                <li key={i} className="py-1.5">
                  <span className="text-red" aria-hidden>
                    ✕{' '}
                  </span>
                  {phraseText(what, display)}
                  <Link className="press text-graphite block text-[14px] underline" to={`/jobs/${job}`}>
                    for {nameOf(job)}
                  </Link>
                </li>
              ))}
            </Part>
            <Air air={report.air} />
          </div>
        </Beside>
      )}
    </Screen>
  );
}

function Part({
  title,
  says,
  empty,
  children,
}: {
  title: string;
  says?: string;
  empty: ReactNode;
  children: ReactNode[] | readonly ReactNode[];
}) {
  const some = children.flat().length > 0;
  return (
    <section aria-label={title} className="sheet p-4 max-desk:p-3">
      <h2 className="pb-1 text-[17px] font-semibold">
        {title} {says && <span className="text-graphite text-[14px] font-normal">{says}</span>}
      </h2>
      {some ? (
        <ul className="[&>li+li]:border-line [&>li+li]:border-t [&>li+li]:border-dotted">{children}</ul>
      ) : (
        <p className="text-graphite">{empty}</p>
      )}
    </section>
  );
}

const StepLink = ({ job, step, children }: { job: string; step: string; children: ReactNode }) => (
  <Link className="press text-chalk font-medium underline" to={`/jobs/${job}?step=${step}`}>
    {children}
  </Link>
);

interface LineProps {
  task: ScheduledTask;
  name: string;
  now: number;
  zone: string;
}

/** The job, and the step of it as the way there. */
const Named = ({ task, name }: Pick<LineProps, 'task' | 'name'>) => (
  <span className="min-w-0 flex-1 basis-60">
    <span className="block text-[16px] font-medium">{name}</span>
    <StepLink job={task.job} step={task.step}>
      {task.name}
    </StepLink>
  </span>
);

function Waiting({ task, name, now, zone }: LineProps) {
  const share = Math.min(1, Math.max(0, (now - task.from) / Math.max(1, task.to - task.from)));
  const left = (task.to - now) / MINUTE;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <Named task={task} name={name} />
      <span className="flex flex-col gap-1">
        <span className="rule text-[17px]">
          {left > 0 ? `until ${when(task.to, now, zone)}` : 'over'}
          <span className="text-graphite text-[14px] font-medium">
            {left > 0 && `, ${minutesText(left)} left`}
          </span>
        </span>
        <span
          role="progressbar"
          aria-label={`${name}, ${WAITS[task.kind]}`}
          aria-valuenow={Math.round(share * 100)}
          aria-valuemin={0}
          aria-valuemax={100}
          className="border-edge block h-3 w-56 max-w-full border bg-white"
        >
          <span
            className="block h-full bg-[repeating-linear-gradient(45deg,#22272a_0_1.5px,#fafaf7_1.5px_6px)]"
            style={{ width: `${share * 100}%` }}
          />
        </span>
      </span>
    </li>
  );
}

function Next({ task, name, now, zone }: LineProps) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 gap-y-0.5 py-2">
      <Named task={task} name={name} />
      <span className="desk:text-right">
        <span className="rule block text-[17px]">
          {task.from <= now + SOON ? 'now' : `from ${when(task.from, now, zone)}`}
        </span>
        <span className="text-graphite text-[14px]">takes {minutesText(task.minutes)} of work</span>
      </span>
      <Link className="action" to={`/jobs/${task.job}/bench?step=${task.step}`}>
        At the bench
      </Link>
    </li>
  );
}

/** What a shop with nothing to do may begin with. */
function Beginning({ hasJobs }: { hasJobs: boolean }) {
  const { data: boards } = useBoardsQuery();
  const isNew = !hasJobs && boards?.length === 0;
  return (
    <>
      {isNew
        ? 'Nothing is planned yet. Begin with either: a job says what you want and works without boards; boards on the rack say what there is.'
        : 'No job has a step left to do.'}
      <span className="flex flex-wrap gap-2 pt-2">
        <Link className="action action-main" to="/jobs/new">
          Plan a new job
        </Link>
        {isNew && (
          <Link className="action" to="/rack">
            Put boards on the rack
          </Link>
        )}
      </span>
    </>
  );
}

/** The shop's air as it was entered, and what wood comes to in it. */
function Air({ air: { temperatureC, humidityPct, isEntered, moisturePct } }: { air: ShopAir }) {
  const display = useDisplay();
  return (
    <section aria-label="Air" className="sheet p-4 max-desk:p-3">
      <h2 className="pb-1 text-[17px] font-semibold">The shop’s air</h2>
      <p>
        <span className="rule text-[17px]">
          {temperatureText(temperatureC, display)}, {humidityPct} %
        </span>
        {moisturePct !== undefined && <>: wood comes to about {moisturePct.toFixed(1)} % moisture here.</>}
      </p>
      <p className="text-graphite text-[14px]">
        {isEntered
          ? 'As it was last entered in the kit. '
          : 'Nobody has entered it: this is a heated shop’s usual air. '}
        <Link className="text-chalk underline" to="/kit">
          Enter it
        </Link>
      </p>
    </section>
  );
}
