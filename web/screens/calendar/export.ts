import type { ScheduledTask } from '../../../core/bench';
import { saveFile } from '../../parts/save-file';

/** Saves the calendar as an iCalendar file; the writer is loaded only then. */
export async function exportCalendar(
  tasks: readonly ScheduledTask[],
  nameOf: (job: string) => string,
  shop: string,
): Promise<void> {
  const { calendarFormat } = await import('../../../core/exchange/calendar');
  saveFile(calendarFormat, 'junta-calendar', { tasks, jobName: nameOf, now: Date.now(), shop });
}
