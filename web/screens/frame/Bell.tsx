import { BellRing } from 'lucide-react';
import { useMemo } from 'react';
import { useHearTimerMutation, useTimersQuery } from '../../app/api';
import { useNow } from '../../parts/use-now';
import { useBell, type Waited } from './use-bell';

const SECOND = 1000;
const NONE: readonly Waited[] = [];

/** What is over and nobody has heard yet, on whatever screen: in words, with the way to put it away on every device. */
export function Bell({ also = NONE, skip = false }: { also?: readonly Waited[]; skip?: boolean }) {
  const { data } = useTimersQuery(undefined, { skip, pollingInterval: 60_000 });
  const [hearTimer] = useHearTimerMutation();
  const now = useNow(SECOND);
  const timers = data?.timers;
  const waits = useMemo(
    () => [
      ...(timers ?? []).map(
        ({ job, task, name, words, until }): Waited => ({
          key: `${job}/${task}`,
          words: `${name}, ${words}: the wait is over`,
          until: Date.parse(until),
          listed: { job, task },
        }),
      ),
      ...also,
    ],
    [timers, also],
  );
  const { over, hear } = useBell(waits, now, (listed) => void hearTimer(listed));
  if (over.length === 0) return null;
  return (
    <div
      role="alert"
      className="bg-chalk-wash border-chalk flex flex-wrap items-center gap-4 border-y-2 px-6 py-2 text-[20px] max-desk:px-4 max-desk:text-[18px] print:hidden"
    >
      <BellRing aria-hidden className="text-chalk shrink-0" />
      <span className="min-w-0 flex-1">{over.map(({ words }) => words).join('. ')}.</span>
      <button type="button" className="action action-main h-12 px-5 text-[18px]" onClick={hear}>
        Heard
      </button>
    </div>
  );
}
