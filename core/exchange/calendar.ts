import type { Format } from './format';
import ical, { ICalCalendarMethod } from 'ical-generator';
import type { ScheduledTask } from '../bench';

/** A calendar as iCalendar (RFC 5545), times in UTC: every stretch of work and every wait is an event, waits shown as free time. */
export function calendarFile(
  tasks: readonly ScheduledTask[],
  jobName: (job: string) => string,
  { now, shop }: { now: number; shop: string },
): string {
  const calendar = ical({
    name: shop,
    prodId: { company: 'Junta', product: 'Calendar', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const task of tasks)
    task.spans.forEach(({ from, to }, i) => {
      if (to <= from) return;
      calendar.createEvent({
        id: `${task.job}.${task.id}.${i}@junta.invalid`,
        stamp: new Date(now),
        start: new Date(from),
        end: new Date(to),
        summary: `${jobName(task.job)}: ${task.name}`,
        transparency: (task.kind === 'work' ? 'OPAQUE' : 'TRANSPARENT') as never,
      });
    });
  return calendar.toString();
}

/** What a calendar file is written from. */
export interface CalendarContent {
  tasks: readonly ScheduledTask[];
  jobName: (job: string) => string;
  now: number;
  shop: string;
}

/** The calendar for other calendars. */
export const calendarFormat: Format<CalendarContent> = {
  id: 'calendar',
  name: 'Calendar',
  extension: 'ics',
  media: 'text/calendar',
  says: 'Work and waits of all jobs as iCalendar (RFC 5545), for any calendar program.',
  reads: false,
  writes: ({ tasks, jobName, now, shop }) => calendarFile(tasks, jobName, { now, shop }),
};
