import type { Format } from './format';
import ical, { ICalAlarmRelatesTo, ICalAlarmType, ICalCalendarMethod } from 'ical-generator';
import type { ScheduledTask } from '../bench';

/** A calendar as iCalendar (RFC 5545), times in UTC: every stretch of work and every wait is an event, waits shown as free time. Each has an alarm: work at its beginning, a wait at its end. */
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
      const event = calendar.createEvent({
        id: `${task.job}.${task.id}.${i}@junta.invalid`,
        stamp: new Date(now),
        start: new Date(from),
        end: new Date(to),
        summary: `${jobName(task.job)}: ${task.name}`,
        transparency: (task.kind === 'work' ? 'OPAQUE' : 'TRANSPARENT') as never,
      });
      // Work rings when it is time to begin, a wait when it is over: then the clamps may come off.
      event.createAlarm({
        type: ICalAlarmType.display,
        ...(task.kind === 'work' ? { trigger: 0 } : { triggerAfter: 1, relatesTo: ICalAlarmRelatesTo.end }),
        description: `${jobName(task.job)}: ${task.name}${task.kind === 'work' ? '' : ', over'}`,
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
  says: 'Work and waits of all jobs as iCalendar (RFC 5545), with alarms, for any calendar program.',
  reads: false,
  writes: ({ tasks, jobName, now, shop }) => calendarFile(tasks, jobName, { now, shop }),
};
