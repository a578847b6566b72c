import { scaleLinear, type ScaleLinear } from 'd3';
import { DateTime } from 'luxon';
import type { WorkHours } from '../../core/kit';

/** Shares of a working day's width before, in and after its hours; a day off is as narrow as its night. */
const BEFORE = 0.1;
const WORK = 0.74;
const AFTER = 0.16;
const OFF = 0.3;

/** Days on a line where working hours are wide and nights and days off narrow: time to per cent, and back. */
export function timeScale(
  days: readonly DateTime[],
  hours: WorkHours,
): { x: ScaleLinear<number, number>; widths: number[]; isOff: (day: DateTime) => boolean } {
  const isOff = (day: DateTime) => !hours.days.includes(day.weekday);
  const weights = days.map((day) => (isOff(day) ? OFF : 1));
  const all = weights.reduce((sum, w) => sum + w, 0);
  const domain: number[] = [];
  const range: number[] = [];
  let at = 0;
  days.forEach((day, i) => {
    const wide = (100 * weights[i]) / all;
    domain.push(day.toMillis());
    range.push(at);
    if (!isOff(day)) {
      domain.push(moment(day, hours.from), moment(day, hours.to));
      range.push(at + wide * BEFORE, at + wide * (1 - AFTER));
    }
    at += wide;
  });
  domain.push(days[days.length - 1].plus({ days: 1 }).toMillis());
  range.push(100);
  // Hours from or to midnight would give one moment twice: the later place counts.
  const kept = domain.map((t, i) => i === 0 || t > domain[i - 1]);
  return {
    x: scaleLinear(
      domain.filter((_, i) => kept[i]),
      range.filter((_, i) => kept[i]),
    ).clamp(true),
    widths: weights.map((w) => (100 * w) / all),
    isOff,
  };
}

/** Share of a working day that comes before its hours, and the share they take. */
export const WORK_SHARE = { before: BEFORE, work: WORK } as const;

const moment = (day: DateTime, hour: number): number =>
  day
    .set({ hour: Math.min(23, Math.floor(hour)), minute: hour >= 24 ? 59 : Math.round((hour % 1) * 60) })
    .toMillis();
