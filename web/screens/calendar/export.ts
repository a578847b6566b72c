import type { ScheduledTask } from '../../../core/bench';

/** Saves the calendar as an iCalendar file; the writer is loaded only then. */
export async function exportCalendar(
  tasks: readonly ScheduledTask[],
  nameOf: (job: string) => string,
  shop: string,
): Promise<void> {
  const { calendarFile } = await import('../../../core/exchange/calendar');
  const text = calendarFile(tasks, nameOf, { now: Date.now(), shop });
  const url = URL.createObjectURL(new Blob([text], { type: 'text/calendar' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = 'junta-calendar.ics';
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
