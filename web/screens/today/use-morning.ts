import { useEffect, useState } from 'react';
import type { Morning, ScheduledTask } from '../../../core/bench';
import { useBuildsQuery, useKitQuery } from '../../app/api';
import { today } from '../../app/day';
import { useNow } from '../../parts/use-now';
import { calendarWorker, localZone } from '../calendar/calendar-worker';

/** Work that may begin within so long may begin now, ms. */
export const SOON = 5 * 60_000;

/** What something that waits by itself does. */
export const WAITS: Record<ScheduledTask['kind'], string> = {
  work: 'at work',
  clamps: 'in clamps',
  settle: 'full strength after',
  rest: 'wood rests',
  coat: 'a coat or layer dries',
  cure: 'hardens right through',
  outside: 'away',
};

/**
 * What the shop needs to know just now of its jobs, its shelf and its air, planned beside the screen. A minute changes
 * what is said of it, not what is done: the days are planned anew every five.
 */
export function useMorning() {
  const { data, error } = useBuildsQuery(undefined, { refetchOnMountOrArgChange: true });
  const { data: kit } = useKitQuery();
  const now = useNow();
  const [report, setReport] = useState<Morning>();
  const [failed, setFailed] = useState<string>();
  const shop = kit?.shop;
  const jobs = data?.jobs;
  const planned = Math.floor(now / SOON) * SOON;
  useEffect(() => {
    if (!shop || !jobs) return;
    let gone = false;
    calendarWorker
      .morning(
        jobs.map(({ id, build }) => ({ id, build })),
        shop,
        { now: planned, today: today(), local: localZone() },
      )
      .then((made) => {
        if (gone) return;
        setReport(made);
        setFailed(undefined);
      })
      .catch((problem: unknown) => !gone && setFailed((problem as Error).message));
    return () => {
      gone = true;
    };
  }, [shop, jobs, planned]);
  return { report, failed, error, shop, jobs, damaged: data?.damaged, now };
}
