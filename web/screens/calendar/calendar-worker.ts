import { wrap } from 'comlink';
import type { CalendarWorker } from '../../workers/calendar.worker';

/** Plans the days of the shop beside the screen. */
export const calendarWorker = wrap<CalendarWorker>(
  new Worker(new URL('../../workers/calendar.worker.ts', import.meta.url), { type: 'module' }),
);

/** The clock of this machine. */
export const localZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;
