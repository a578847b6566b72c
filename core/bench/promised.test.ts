import { describe, expect, it } from 'vitest';
import { isRefused } from '../document';
import { applyEdit } from '../edit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { onCalendar, promisedOf, type ScheduledTask, todayOf } from '.';

const task = (job: string, to: string): ScheduledTask =>
  ({ job, id: to, step: 's', kind: 'work', from: 0, to: Date.parse(to) }) as ScheduledTask;
const promised = (id: string, day: string | undefined) => ({ id, build: day ? { promised: day } : {} });

describe('a job that is promised for a day', () => {
  it('is ready when the last of its work and waits is over; days are those of the shop’s clock', () => {
    const tasks = [
      task('a', '2026-03-05T10:00:00Z'),
      // Past midnight in Paris, not yet in London.
      task('a', '2026-03-06T23:30:00Z'),
      task('b', '2026-03-06T12:00:00Z'),
    ];
    const of = (day: string, zone: string) => promisedOf([promised('a', day)], tasks, zone)[0];
    expect(of('2026-03-06', 'Europe/London')).toEqual({
      job: 'a',
      promised: '2026-03-06',
      ready: Date.parse('2026-03-06T23:30:00Z'),
      spareDays: 0,
    });
    expect(of('2026-03-06', 'Europe/Paris').spareDays).toBe(-1);
    expect(of('2026-03-16', 'Europe/London').spareDays).toBe(10);
    // Clocks go forward on 29 March 2026: days of the calendar count, not hours.
    expect(
      promisedOf([promised('c', '2026-03-30')], [task('c', '2026-03-28T20:00:00Z')], 'Europe/London')[0]
        .spareDays,
    ).toBe(2);
  });
  it('stands before those that are less late, and not at all with nothing left to do or with no day', () => {
    const tasks = ['a', 'b', 'd'].map((job) => task(job, '2026-03-06T12:00:00Z'));
    const jobs = [
      promised('a', '2026-03-09'),
      promised('b', '2026-03-04'),
      promised('c', '2026-03-01'),
      promised('d', undefined),
    ];
    expect(promisedOf(jobs, tasks, 'UTC').map(({ job, spareDays }) => [job, spareDays])).toEqual([
      ['b', -2],
      ['a', 3],
    ]);
  });
  it('moves with what really happened: a glue-up that was ticked a week late makes it late by as much', () => {
    const NOW = Date.parse('2026-03-02T09:00:00Z');
    const WEEK = 7 * 86_400_000;
    const plan = plannedFor(panelBrief({}), shopWith({}, { hands: 2 }));
    const said = applyEdit(plan, { do: 'promise', day: '2026-03-06' });
    if (isRefused(said)) throw new Error('refused');
    const room = { hours: { days: [1, 2, 3, 4, 5], from: 8, to: 17 }, zone: 'UTC', benches: 2, clamps: {} };
    const at = (now: number) => todayOf([{ id: 'a', build: said }], now, room).promised[0];
    const [early, late] = [at(NOW), at(NOW + WEEK)];
    expect(early.spareDays).toBeGreaterThanOrEqual(0);
    expect(late.ready - early.ready).toBe(WEEK);
    expect(early.spareDays - late.spareDays).toBe(7);
    // An idea that is promised stands on the calendar however many come after it, and no day takes it back.
    const ideas = [said, plan, plan, plan].map((build, i) => ({ id: `${i}`, build }));
    expect(onCalendar(ideas, NOW).map(({ id }) => id)).toEqual(['0', '2', '3']);
    const none = applyEdit(said, { do: 'promise', day: undefined });
    expect(none).toEqual(plan);
  });
});
