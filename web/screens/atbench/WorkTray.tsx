import { Bell as BellSign } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ScheduledTask } from '../../../core/bench';
import { minutesText } from '../../../core/units';
import { Waiting } from '../frame/Waiting';
import { SOON, useMorning, WAITS } from '../today/use-morning';
import { Bell } from '../frame/Bell';
import type { Waited } from '../frame/use-bell';

const MINUTE = 60_000;
/** So many others stand in the tray: more is read on Today. */
const MOST = 3;

/** What else is in work: what waits until when, and what may begin, each the way there; and what has just ended, ringing. */
export function WorkTray({
  job,
  title,
  place,
  gates,
  now,
}: {
  job: string;
  title: string;
  place: string;
  gates: readonly Waited[];
  now: number;
}) {
  const { report, jobs } = useMorning();
  const nameOf = (id: string) => jobs?.find((each) => each.id === id)?.name ?? '';
  const waiting = (report?.waiting ?? []).filter(({ to }) => to > now);
  const free = (report?.next ?? []).filter((task) => task.job !== job && task.from <= now + SOON);
  const others = [...waiting.filter((task) => task.job !== job), ...free].slice(0, MOST);
  return (
    <>
      <header className="bg-faint flex min-h-14 flex-wrap items-center gap-x-5 gap-y-1 px-6 py-1.5 max-desk:px-4">
        <h1 className="min-w-0 text-[18px] font-semibold max-desk:text-[17px]">
          {title} <span className="text-graphite font-normal whitespace-nowrap">{place}</span>
        </h1>
        <Link to={`/jobs/${job}`} className="action h-11">
          To the plan
        </Link>
        <Waiting />
        {gates.length + waiting.length > 0 && <AskToRing />}
        {others.length > 0 && (
          <ul
            aria-label="Also in work"
            className="desk:ml-auto flex min-w-0 flex-wrap gap-x-5 text-[16px] max-desk:text-[15px]"
          >
            {others.map((task) => (
              <Other key={`${task.job}/${task.id}`} task={task} name={nameOf(task.job)} now={now} />
            ))}
          </ul>
        )}
      </header>
      <Bell also={gates} />
    </>
  );
}

/** Where the browser has not been told yet: the way to notifications, which ring when the page is out of sight. */
function AskToRing() {
  const [asked, setAsked] = useState(false);
  if (asked || !('Notification' in window) || Notification.permission !== 'default') return null;
  return (
    <button
      type="button"
      className="action h-11"
      onClick={() => void Notification.requestPermission().finally(() => setAsked(true))}
    >
      <BellSign size={16} aria-hidden /> Notify me
    </button>
  );
}

const Other = ({ task, name, now }: { task: ScheduledTask; name: string; now: number }) => (
  <li>
    <Link className="press hover:text-chalk" to={`/jobs/${task.job}/bench?step=${task.step}`}>
      <span>
        <strong className="font-semibold">{name}</strong>{' '}
        {task.kind === 'work' ? (
          `${task.name} may begin`
        ) : (
          <>
            {WAITS[task.kind]},{' '}
            <span className="rule">{minutesText(Math.max(1, Math.ceil((task.to - now) / MINUTE)))}</span>
          </>
        )}
      </span>
    </Link>
  </li>
);
