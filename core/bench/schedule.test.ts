import fc from 'fast-check';
import ICAL from 'ical.js';
import { DateTime } from 'luxon';
import { describe, expect, it } from 'vitest';
import { mustEdit } from '../edit';
import { calendarFile } from '../exchange';
import { clampsOf, type Person, type WorkHours } from '../kit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import {
  hoursText,
  placeWork,
  schedule,
  type ScheduledTask,
  type ShopRoom,
  type Task,
  tasksOf,
  workingSpans,
} from '.';

const hours: WorkHours = { days: [1, 2, 3, 4, 5], from: 8, to: 17 };
const H = 3_600_000;
const at = (text: string, zone = 'UTC') => DateTime.fromISO(text, { zone }).toMillis();

describe('working hours', () => {
  it('pass over nights and days off', () => {
    // Friday, 6 March 2026, 16:00: one hour of Friday, then Monday from eight on.
    const spans = placeWork(at('2026-03-06T16:00'), 180, {
      whole: false,
      hours: [hours],
      zone: 'UTC',
      busy: [],
    });
    expect(spans).toEqual([
      { from: at('2026-03-06T16:00'), to: at('2026-03-06T17:00') },
      { from: at('2026-03-09T08:00'), to: at('2026-03-09T10:00') },
    ]);
    expect(
      placeWork(at('2026-03-06T16:30'), 60, { whole: true, hours: [hours], zone: 'UTC', busy: [] })[0].from,
    ).toBe(at('2026-03-09T08:00'));
  });
  it('are of the shop’s own clock across a daylight-saving change', () => {
    const zone = 'Europe/Berlin';
    // On 29 March 2026 clocks go forward: Friday to Monday is 71 hours, not 72.
    const [friday, monday] = [...take(workingSpans(at('2026-03-27T08:00', zone), [hours], zone), 2)];
    expect(monday.from - friday.from).toBe(71 * H);
    expect(DateTime.fromMillis(monday.from, { zone }).hour).toBe(8);
    // In autumn, 25 October 2026, it is 73.
    const [before, after] = [...take(workingSpans(at('2026-10-23T08:00', zone), [hours], zone), 2)];
    expect(after.from - before.from).toBe(73 * H);
  });
  it('are those of whoever is there: stretches of several run into one, and a day that only one of them works counts', () => {
    const early = { days: [1, 2], from: 6, to: 10 };
    const late = { days: [2, 6], from: 9.5, to: 14 };
    const spans = [...take(workingSpans(at('2026-03-09T00:00'), [early, late], 'UTC'), 3)];
    expect(spans).toEqual([
      { from: at('2026-03-09T06:00'), to: at('2026-03-09T10:00') },
      { from: at('2026-03-10T06:00'), to: at('2026-03-10T14:00') },
      { from: at('2026-03-14T09:30'), to: at('2026-03-14T14:00') },
    ]);
    // Five hours in one stretch go where there are five; eight that are longer than anybody's day are spread.
    const put = (minutes: number) =>
      placeWork(at('2026-03-09T00:00'), minutes, {
        whole: true,
        hours: [early, late],
        zone: 'UTC',
        busy: [],
      });
    expect(put(240)[0].from).toBe(at('2026-03-09T06:00'));
    expect(put(480)).toHaveLength(2);
  });
  it('are told with their half hours', () => {
    expect(hoursText({ days: [1, 3], from: 7.5, to: 16.25 })).toBe('Mon Wed, 7:30 to 16:15');
  });
  it('say so where the shop never works', () => {
    expect(() =>
      placeWork(0, 60, { whole: true, hours: [{ days: [], from: 8, to: 17 }], zone: 'UTC', busy: [] }),
    ).toThrow('no room');
  });
});

describe('people of the shop', () => {
  const NOW = at('2026-03-02T08:00');
  const room = (people: Person[]): ShopRoom => ({ hours, zone: 'UTC', benches: 1, clamps: {}, people });
  const task = (id: string, tool?: string): Task => ({
    id,
    job: 'a',
    step: id,
    name: id,
    kind: 'work',
    minutes: 60,
    whole: true,
    after: [],
    ...(tool ? { tool } : {}),
  });
  const begins = (people: Person[], ...tasks: Task[]) =>
    schedule(tasks, NOW, room(people)).map(({ from }) => from);

  it('are waited for where only they may run the machine; all else goes on while anybody is there', () => {
    const alder = { id: 'a', name: 'Alder', runs: ['bandsaw'] };
    const rowan = { id: 'r', name: 'Rowan', hours: { days: [3], from: 8, to: 17 } };
    // Monday: Alder is there, and may not run the table saw. Rowan may, on Wednesday.
    expect(begins([alder, rowan], task('1', 'bandsaw'), task('2', 'table saw'), task('3'))).toEqual([
      at('2026-03-02T08:00'),
      at('2026-03-04T08:00'),
      at('2026-03-02T09:00'),
    ]);
  });
  it('change nothing where there are none, or none has hours of their own; a machine that nobody may run is planned all the same', () => {
    const usual = begins([], task('1', 'table saw'));
    expect(begins([{ id: 'a', name: 'Alder' }], task('1', 'table saw'))).toEqual(usual);
    expect(begins([{ id: 'a', name: 'Alder', runs: [] }], task('1', 'table saw'))).toEqual(usual);
  });
  it('are known to every step of a job by the saw or machine it is done on', () => {
    const build = plannedFor(panelBrief({}), shopWith({}, { hands: 2 }));
    const tasks = tasksOf('a', build, run(build)).filter(({ kind }) => kind === 'work');
    const of = (step: string) => tasks.find((each) => each.step === step)?.tool;
    expect(build.shop.saws.map(({ id }) => id)).toContain(of('rip'));
    expect(build.shop.machines.map(({ id }) => id)).toContain(of('mill'));
    expect(of('glue')).toBeUndefined();
  });
});

function* take<T>(from: Iterable<T>, count: number): Generator<T> {
  let n = 0;
  for (const item of from) {
    if (n++ >= count) return;
    yield item;
  }
}

const shop = shopWith({}, { hands: 2 });
const block = plannedFor(panelBrief(CHEQUER), shop);
const room = (change: Partial<ShopRoom> = {}): ShopRoom => ({
  hours,
  zone: 'UTC',
  benches: 2,
  clamps: Object.fromEntries(clampsOf(shop).map(({ id, count }) => [id, count])),
  ...change,
});
const NOW = at('2026-03-02T08:00');
const plan = (jobs: [string, typeof block][], change: Partial<ShopRoom> = {}) =>
  schedule(
    jobs.flatMap(([id, build]) => tasksOf(id, build, run(build))),
    NOW,
    room(change),
  );
const find = (tasks: ScheduledTask[], id: string, job = 'a') =>
  tasks.find((task) => task.id === id && task.job === job) as ScheduledTask;

describe('the calendar of a job', () => {
  it('has every open step after what it works on, with the waits of both glue-ups', () => {
    const tasks = plan([['a', block]]);
    const ends = new Map(tasks.map((task) => [task.id, task.to]));
    for (const task of tasks)
      for (const before of task.after) expect(task.from).toBeGreaterThanOrEqual(ends.get(before) ?? Infinity);
    const glue = find(tasks, 'glue');
    expect(find(tasks, 'glue:clamps').from).toBe(glue.to);
    // The joint settles a day before it is planed, from the last clamp on.
    expect(find(tasks, 'flatten').from - glue.to).toBeGreaterThanOrEqual(24 * H);
    expect(tasks.filter(({ kind }) => kind === 'clamps')).toHaveLength(2);
  });
  it('leaves out what is done, and what follows begins at once', () => {
    const done = ['rip', 'mill', 'glue'].reduce(
      (build, step) => mustEdit(build, { do: 'setStep', step, change: { done: true } }),
      block,
    );
    const tasks = plan([['a', done]]);
    expect(tasks[0].id).toBe('flatten');
    expect(tasks[0].from).toBe(NOW);
  });
  it('keeps what waits after a glue-up that is done, from the moment it was clamped, until it is over', () => {
    const ticked = (hoursAgo: number) => {
      const clamped = new Date(NOW - hoursAgo * H).toISOString();
      const changes = [
        { step: 'rip', change: { done: true } },
        { step: 'mill', change: { done: true } },
        { step: 'glue', change: { done: true, doneAt: new Date(NOW).toISOString() } },
      ];
      return mustEdit(
        changes.reduce((build, change) => mustEdit(build, { do: 'setStep', ...change }), block),
        { do: 'planGlue', step: 'glue', change: { clamped } },
      );
    };
    const one = plan([['a', ticked(1)]]);
    expect(find(one, 'glue')).toBeUndefined();
    expect(find(one, 'glue:clamps').from).toBe(NOW - H);
    // In clamps since an hour, in a shop that waits a day before it planes a joint.
    expect(find(one, 'flatten').from).toBeGreaterThanOrEqual(NOW + 23 * H);
    const late = plan([['a', ticked(23)]]);
    expect(find(late, 'glue:clamps')).toBeUndefined();
    expect(find(late, 'flatten').from - NOW).toBeGreaterThanOrEqual(H);
    expect(find(late, 'flatten').from - NOW).toBeLessThan(3 * H);
    expect(find(plan([['a', ticked(30)]]), 'flatten').from).toBe(NOW);
    // Its clamps are not to be had for anybody else meanwhile.
    const held = find(one, 'glue:clamps').clamps ?? {};
    const scarce = Object.fromEntries(Object.entries(held).map(([set, count]) => [set, count]));
    const two = plan(
      [
        ['a', ticked(1)],
        ['b', block],
      ],
      { clamps: scarce },
    );
    expect(find(two, 'glue', 'b').from).toBeGreaterThanOrEqual(find(two, 'glue:clamps', 'a').to);
  });
  it('begins where it was dragged to, never before the work it waits for, and says so', () => {
    const later = mustEdit(block, {
      do: 'setStep',
      step: 'glue',
      change: { begin: '2026-03-11T10:00:00.000Z' },
    });
    expect(find(plan([['a', later]]), 'glue').from).toBe(at('2026-03-11T10:00'));
    const tooEarly = mustEdit(block, {
      do: 'setStep',
      step: 'glue-block',
      change: { begin: '2026-03-02T08:00:00.000Z' },
    });
    const moved = find(plan([['a', tooEarly]]), 'glue-block');
    expect(moved.why).toBe('before');
    expect(moved.from).toBeGreaterThan(at('2026-03-03T08:00'));
  });
});

describe('several jobs', () => {
  it('share one pair of hands, the clamps and the benches', () => {
    const night = { ...block, shop: shopWith({}, { hands: 2, unclamp: 'overnight' }) };
    const tasks = plan(
      [
        ['a', night],
        ['b', night],
        ['c', night],
      ],
      { benches: 1 },
    );
    const work = tasks
      .filter(({ kind }) => kind === 'work')
      .flatMap(({ spans }) => spans)
      .toSorted((a, b) => a.from - b.from);
    work.slice(1).forEach((span, i) => expect(span.from).toBeGreaterThanOrEqual(work[i].to));
    const inClamps = tasks
      .filter(({ kind }) => kind === 'clamps')
      .map((task) => ({ from: find(tasks, task.step, task.job).from, to: task.to }))
      .toSorted((a, b) => a.from - b.from);
    inClamps.slice(1).forEach((hold, i) => expect(hold.from).toBeGreaterThanOrEqual(inClamps[i].to));
    expect(tasks.some(({ why }) => why === 'bench')).toBe(true);
  });
  it('never hold more of a clamp than there are, for any number of jobs and clamps', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 4, max: 20 }),
        fc.integer({ min: 1, max: 4 }),
        (jobs, owned, benches) => {
          const clamps = Object.fromEntries(clampsOf(shop).map(({ id }) => [id, owned]));
          const tasks = plan(
            Array.from({ length: jobs }, (_, i) => [`j${i}`, block]),
            { clamps, benches },
          );
          const holds = tasks
            .filter(({ kind }) => kind === 'clamps')
            .map((task) => ({ task, from: find(tasks, task.step, task.job).from, to: task.to }));
          for (const { from: moment } of holds) {
            const now = holds.filter(({ from, to }) => from <= moment && to > moment);
            expect(now.length).toBeLessThanOrEqual(benches);
            for (const id of Object.keys(clamps)) {
              const used = now.map(({ task }) => task.clamps?.[id] ?? 0);
              const sum = used.reduce((s, n) => s + n, 0);
              if (Math.max(...used) <= owned) expect(sum).toBeLessThanOrEqual(owned);
            }
          }
        },
      ),
      { seed: 20261, numRuns: 40 },
    );
  });
});

describe('iCalendar', () => {
  it('is read back by an independent parser with every stretch at its moment', () => {
    const tasks = plan([['a', block]]);
    const text = calendarFile(tasks, () => 'Galley, block; and more', { now: NOW, shop: 'North Slip shop' });
    const events = new ICAL.Component(ICAL.parse(text))
      .getAllSubcomponents('vevent')
      .map((each) => new ICAL.Event(each));
    const spans = tasks.flatMap((task) =>
      task.spans.filter(({ from, to }) => to > from).map((span) => ({ task, ...span })),
    );
    expect(events).toHaveLength(spans.length);
    spans.forEach(({ task, from, to }, i) => {
      // iCalendar counts in whole seconds.
      expect(Math.abs(events[i].startDate.toJSDate().getTime() - from)).toBeLessThan(1000);
      expect(Math.abs(events[i].endDate.toJSDate().getTime() - to)).toBeLessThan(1000);
      expect(events[i].summary).toBe(`Galley, block; and more: ${task.name}`);
      // Work rings at its beginning, a wait at its end (RFC 5545, 3.8.6.3).
      const [alarm] = events[i].component.getAllSubcomponents('valarm');
      const trigger = alarm.getFirstProperty('trigger');
      expect(trigger?.getFirstParameter('related') ?? 'START').toBe(task.kind === 'work' ? 'START' : 'END');
      expect(String(trigger?.getFirstValue())).toBe(task.kind === 'work' ? 'PT0S' : 'PT1S');
    });
    expect(new Set(events.map(({ uid }) => uid)).size).toBe(events.length);
  });
  it('keeps a wait of 24 h as 24 h across a daylight-saving change', () => {
    const zone = 'Europe/Berlin';
    const tasks = schedule(tasksOf('a', block, run(block)), at('2026-03-27T13:00', zone), room({ zone }));
    const text = calendarFile(tasks, () => 'x', { now: NOW, shop: 's' });
    const settle = new ICAL.Component(ICAL.parse(text))
      .getAllSubcomponents('vevent')
      .map((each) => new ICAL.Event(each))
      .find(({ summary }) => summary.includes('full strength'));
    const [glue] = tasks.filter(({ kind }) => kind === 'clamps');
    expect(Math.abs((settle?.endDate.toJSDate().getTime() ?? 0) - glue.from - 24 * H)).toBeLessThan(2000);
  });
});

it('work until midnight ends with the day, not a day later', () => {
  const night: WorkHours = { days: [1], from: 22.5, to: 24 };
  const [monday] = [...take(workingSpans(at('2026-03-09T00:00'), [night], 'UTC'), 1)];
  expect(monday).toEqual({ from: at('2026-03-09T22:30'), to: at('2026-03-10T00:00') });
});
