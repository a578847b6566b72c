import { DateTime } from 'luxon';
import { useRef, useState, type PointerEvent } from 'react';
import { Link } from 'react-router';
import type { ScheduledTask } from '../../../core/bench';
import type { WorkHours } from '../../../core/kit';
import { minutesText } from '../../../core/units';
import { timeScale, WORK_SHARE } from '../../drawing/time-scale';

const LOOK: Record<ScheduledTask['kind'], { words: string; style: React.CSSProperties }> = {
  work: { words: 'work', style: { background: '#535b60', color: '#fff' } },
  clamps: {
    words: 'in clamps',
    style: { backgroundImage: 'repeating-linear-gradient(45deg,#22272a 0 1.5px,#fafaf7 1.5px 6px)' },
  },
  settle: {
    words: 'full strength after',
    style: { backgroundImage: 'repeating-linear-gradient(0deg,#cdd1cc 0 1px,#fafaf7 1px 5px)' },
  },
  rest: {
    words: 'wood rests',
    style: { backgroundImage: 'radial-gradient(#a9afab 1px,#fafaf7 1.2px)', backgroundSize: '6px 6px' },
  },
  coat: { words: 'a coat or layer dries', style: { background: '#ead9b4' } },
  cure: {
    words: 'hardens right through',
    style: { backgroundImage: 'repeating-linear-gradient(-45deg,#ead9b4 0 3px,#fafaf7 3px 7px)' },
  },
  outside: { words: 'away', style: { background: '#fafaf7', border: '1.5px dashed #535b60' } },
};
const WHY: Record<NonNullable<ScheduledTask['why']>, string> = {
  before: 'cannot begin when wished: the work before it is not done by then',
  clamps: 'waits for clamps of another glue-up',
  bench: 'waits for room on the benches',
};
/** Pieces of the day a drag snaps to. */
const SNAP = 15 * 60_000;

/** Days across, a row for each job and kind of time; work is dragged to another moment. */
export function DayGrid({
  days,
  zone,
  hours,
  jobs,
  tasks,
  onMove,
}: {
  days: readonly DateTime[];
  zone: string;
  hours: WorkHours;
  jobs: readonly { id: string; name: string }[];
  tasks: readonly ScheduledTask[];
  onMove: (task: ScheduledTask, begin: number | undefined) => void;
}) {
  const grid = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<{ task: ScheduledTask; from: number; x: number }>();
  const [chosen, setChosen] = useState<string>();
  const scale = timeScale(days, hours);
  const first = days[0].toMillis();
  const last = days[days.length - 1].plus({ days: 1 }).toMillis();
  const pct = (t: number) => scale.x(t);
  const keyOf = (task: ScheduledTask) => `${task.job}/${task.id}`;
  const picked = tasks.find((task) => keyOf(task) === chosen);
  const wish = (event: PointerEvent): number => {
    const width = grid.current?.getBoundingClientRect().width ?? 1;
    const moved = (100 * (event.clientX - (held?.x ?? 0))) / width;
    return Math.round(scale.x.invert(pct(held?.task.from ?? 0) + moved) / SNAP) * SNAP;
  };
  const when = (t: number) => DateTime.fromMillis(t, { zone }).toFormat('ccc d LLL HH:mm');
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3">
      <div className="sheet min-h-0 flex-1 overflow-auto">
        <div className="grid" style={{ gridTemplateColumns: '190px 1fr' }}>
          <div className="bg-sheet border-line sticky top-0 z-20 border-r border-b" />
          <div className="bg-sheet border-line sticky top-0 z-20 flex border-b">
            {days.map((day, i) => (
              <div
                key={day.toISODate()}
                style={{ width: `${scale.widths[i]}%` }}
                className={`border-line overflow-hidden border-r py-1 text-center text-[12.5px] whitespace-nowrap ${scale.isOff(day) ? 'text-graphite bg-faint' : ''}`}
              >
                <span className="font-medium">{day.toFormat('ccc')}</span>{' '}
                <span className="rule">{day.toFormat(scale.isOff(day) ? 'd' : 'd LLL')}</span>
              </div>
            ))}
          </div>
          {jobs.map((job) => (
            <JobRow key={job.id} job={job} days={days} scale={scale}>
              {tasks
                .filter((task) => task.job === job.id)
                .flatMap((task) =>
                  task.spans.map((span, i) => {
                    const moved = held && keyOf(held.task) === keyOf(task) ? held.from - held.task.from : 0;
                    if (span.to <= first || span.from >= last || span.to <= span.from) return null;
                    const work = task.kind === 'work';
                    return (
                      <div
                        key={`${task.id}.${i}`}
                        aria-hidden
                        data-task={task.id}
                        data-job={job.name}
                        title={`${task.name}: ${when(span.from)} to ${when(span.to)}`}
                        className={`absolute overflow-hidden rounded-[3px] ${work ? 'top-2 z-10 h-7 cursor-grab touch-none' : 'top-10 h-3.5'} ${chosen === keyOf(task) ? 'outline-chalk outline-2' : ''} ${task.why ? 'ring-red ring-1' : ''}`}
                        style={{
                          left: `${pct(span.from + moved)}%`,
                          width: `max(4px, ${pct(span.to) - pct(span.from)}%)`,
                          ...LOOK[task.kind].style,
                        }}
                        onPointerDown={(event) => {
                          setChosen(keyOf(task));
                          if (!work) return;
                          event.currentTarget.setPointerCapture(event.pointerId);
                          setHeld({ task, from: task.from, x: event.clientX });
                        }}
                        onPointerMove={(event) => held && setHeld({ ...held, from: wish(event) })}
                        onPointerUp={(event) => {
                          if (!held) return;
                          const begin = wish(event);
                          setHeld(undefined);
                          if (Math.abs(begin - task.from) >= SNAP) onMove(task, begin);
                        }}
                        onPointerCancel={() => setHeld(undefined)}
                      />
                    );
                  }),
                )}
            </JobRow>
          ))}
        </div>
        <div ref={grid} className="ml-[190px] h-0" />
        <Agenda
          tasks={tasks}
          jobs={jobs}
          when={when}
          chosen={chosen}
          onChoose={(task) => setChosen(keyOf(task))}
          onMove={onMove}
        />
      </div>
      <div className="flex min-h-14 items-center gap-4 text-[13.5px]">
        <span className="flex flex-wrap gap-3" aria-hidden>
          {Object.entries(LOOK).map(([kind, { words, style }]) => (
            <span key={kind} className="flex items-center gap-1.5">
              <span className="inline-block h-3 w-6 rounded-[2px]" style={style} /> {words}
            </span>
          ))}
        </span>
        <span className="ml-auto text-right" role="status" data-testid="picked">
          {held ? (
            <>begins {when(held.from)}</>
          ) : picked ? (
            <>
              <Link className="text-chalk font-medium underline" to={`/jobs/${picked.job}`}>
                {picked.name}
              </Link>
              , {when(picked.from)} to {when(picked.to)}
              {picked.spans.length > 1 &&
                `: ${minutesText(picked.minutes)} of work, ${stretches(picked, when)}`}
              {picked.why && <span className="text-red">; {WHY[picked.why]}</span>}
              {picked.begin !== undefined && (
                <button
                  type="button"
                  className="text-chalk ml-2 underline"
                  onClick={() => onMove(picked, undefined)}
                >
                  as early as can be
                </button>
              )}
            </>
          ) : (
            'Drag work to another time, or choose it in the list and use the arrow keys (with Shift by days).'
          )}
        </span>
      </div>
    </div>
  );
}

/** The stretches of work, where other work or the end of a day lies between: why it ends later than it takes. */
const stretches = ({ spans }: ScheduledTask, when: (t: number) => string): string | undefined =>
  spans.length < 2
    ? undefined
    : `in stretches, with other work or closed hours between: ${spans.map(({ from, to }) => `${when(from)} to ${when(to).slice(-5)}`).join(', ')}`;

function JobRow({
  job,
  days,
  scale,
  children,
}: {
  job: { id: string; name: string };
  days: readonly DateTime[];
  scale: ReturnType<typeof timeScale>;
  children: React.ReactNode;
}) {
  return (
    <>
      <div className="border-line bg-sheet border-r border-b px-3 py-2 text-[14px] font-medium">
        <Link className="press hover:text-chalk" to={`/jobs/${job.id}`}>
          {job.name}
        </Link>
      </div>
      <div className="border-line relative h-[60px] border-b">
        <div className="absolute inset-0 flex" aria-hidden>
          {days.map((day, i) => (
            <div
              key={day.toISODate()}
              style={{ width: `${scale.widths[i]}%` }}
              className={`border-line relative border-r ${scale.isOff(day) ? 'bg-faint' : ''}`}
            >
              {!scale.isOff(day) && (
                <div
                  className="absolute inset-y-0 bg-white"
                  style={{ left: `${100 * WORK_SHARE.before}%`, width: `${100 * WORK_SHARE.work}%` }}
                />
              )}
            </div>
          ))}
        </div>
        {children}
      </div>
    </>
  );
}

/** What comes next, in words, in the order of the days: chosen and moved by keys here, by dragging above. */
function Agenda({
  tasks,
  jobs,
  when,
  chosen,
  onChoose,
  onMove,
}: {
  tasks: readonly ScheduledTask[];
  jobs: readonly { id: string; name: string }[];
  when: (t: number) => string;
  chosen: string | undefined;
  onChoose: (task: ScheduledTask) => void;
  onMove: (task: ScheduledTask, begin: number) => void;
}) {
  const rows = tasks.toSorted((a, b) => a.from - b.from || a.to - b.to).slice(0, 60);
  return (
    <table className="m-3 text-[14px] max-desk:w-[calc(100%-24px)]" aria-label="What comes next">
      <thead className="max-desk:sr-only">
        <tr className="label text-left">
          <th className="pr-5 pb-1 font-medium">What comes next</th>
          <th className="pr-5 pb-1 font-medium">until</th>
          <th className="pr-5 pb-1 text-right font-medium">takes</th>
          <th className="pr-5 pb-1 font-medium">job</th>
          <th className="pb-1 font-medium">what</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((task) => {
          const job = jobs.find(({ id }) => id === task.job)?.name;
          const isChosen = chosen === `${task.job}/${task.id}`;
          return (
            <tr
              key={`${task.job}/${task.id}`}
              className={`border-line border-t border-dotted max-desk:grid max-desk:grid-cols-[auto_auto_1fr] max-desk:py-1 ${isChosen ? 'bg-chalk-wash' : ''}`}
            >
              <td className="rule py-0.5 pr-5">{when(task.from)}</td>
              <td className="rule pr-5">
                <span className="desk:hidden">to </span>
                {when(task.to)}
              </td>
              <td className="rule pr-5 text-right max-desk:pr-0" title={stretches(task, when)}>
                {minutesText(task.minutes)}
                {task.spans.length > 1 && (
                  <span className="text-graphite font-sans text-[12.5px] font-normal">
                    {' '}
                    in {task.spans.length} stretches
                  </span>
                )}
              </td>
              <td className="pr-5 max-desk:col-span-3">{job}</td>
              <td className="max-desk:col-span-3">
                <button
                  type="button"
                  aria-label={`${job}, ${task.name}, ${LOOK[task.kind].words}, ${when(task.from)} to ${when(task.to)}`}
                  aria-pressed={isChosen}
                  className={`min-h-6 text-left ${task.kind === 'work' ? 'hover:text-chalk font-medium' : 'text-graphite'}`}
                  onClick={() => onChoose(task)}
                  onKeyDown={(event) => {
                    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
                    if (!by || task.kind !== 'work') return;
                    event.preventDefault();
                    onChoose(task);
                    onMove(task, task.from + by * (event.shiftKey ? 24 : 1) * 3_600_000);
                  }}
                >
                  {task.name}
                </button>
                {task.why && <span className="text-red"> ✕ {WHY[task.why]}</span>}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
