import type { ScheduledTask } from '../../../core/bench';
import { saveFile } from '../../parts/save-file';

/** Saves the calendar as an iCalendar file; the writer is loaded only then. */
export async function exportCalendar(
  tasks: readonly ScheduledTask[],
  nameOf: (job: string) => string,
  shop: string,
): Promise<void> {
  const { calendarFile } = await import('../../../core/exchange/calendar');
  const text = calendarFile(tasks, nameOf, { now: Date.now(), shop });
  saveFile('junta-calendar.ics', text, 'text/calendar');
}
