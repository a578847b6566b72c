import { describe, expect, it } from 'vitest';
import { mustEdit } from '../edit';
import { clampsOf, type ShopSnapshot } from '../kit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { morningOf, onCalendar, pastBottles, schedule, type ShopRoom, tasksOf, todayOf } from '.';

const NOW = Date.parse('2026-03-02T09:00:00Z');
const H = 3_600_000;
const shop = shopWith({}, { hands: 2 });
const room: ShopRoom = {
  hours: { days: [1, 2, 3, 4, 5], from: 8, to: 17 },
  zone: 'UTC',
  benches: 2,
  clamps: Object.fromEntries(clampsOf(shop).map(({ id, count }) => [id, count])),
};
const panel = plannedFor(panelBrief({}), shop);
const block = plannedFor(panelBrief(CHEQUER), shop);
const glue = panel.steps.findIndex(({ kind }) => kind === 'glue');
/** The panel with everything up to its glue-up done, so many hours ago. */
const glued = (hoursAgo: number) => ({
  ...panel,
  steps: panel.steps.map((step, i) =>
    i <= glue ? { ...step, done: true, doneAt: new Date(NOW - hoursAgo * H).toISOString() } : step,
  ),
});

describe('today', () => {
  it('says what is in clamps and until when, and leaves it when that is over', () => {
    const { waiting, next } = todayOf([{ id: 'a', build: glued(0.25) }], NOW, room);
    const [clamps] = waiting;
    expect(clamps).toMatchObject({ job: 'a', kind: 'clamps', from: NOW - 0.25 * H });
    expect(clamps.to).toBeGreaterThan(NOW);
    // What comes after it begins when it is over, not before.
    expect(next[0].from).toBeGreaterThanOrEqual(clamps.to);
    expect(todayOf([{ id: 'a', build: glued(400) }], NOW, room).waiting).toEqual([]);
  });

  it('gives the first work of each job, in the order of the calendar', () => {
    const jobs = [
      { id: 'a', build: glued(0.25) },
      { id: 'b', build: block },
    ];
    const { next } = todayOf(jobs, NOW, room);
    const all = schedule(
      jobs.flatMap(({ id, build }) => tasksOf(id, build, run(build))),
      NOW,
      room,
    ).filter(({ kind }) => kind === 'work');
    expect(next.map(({ job }) => job).toSorted()).toEqual(['a', 'b']);
    for (const task of next)
      expect(task.from).toBe(Math.min(...all.filter(({ job }) => job === task.job).map(({ from }) => from)));
    expect(next.map(({ from }) => from)).toEqual(next.map(({ from }) => from).toSorted((x, y) => x - y));
  });

  it('says what was to begin before now and is not done, and nothing of what is done or left out', () => {
    const begin = new Date(NOW - 24 * H).toISOString();
    const late = mustEdit(panel, { do: 'setStep', step: panel.steps[1].id, change: { begin } });
    expect(todayOf([{ id: 'a', build: late }], NOW, room).late).toMatchObject([
      { job: 'a', step: panel.steps[1].id, begin: NOW - 24 * H },
    ]);
    const change = { done: true };
    const done = mustEdit(late, { do: 'setStep', step: panel.steps[1].id, change });
    expect(todayOf([{ id: 'a', build: done }], NOW, room).late).toEqual([]);
  });

  it('says what is short with the amounts, and bottles past their date', () => {
    const dry = { ...shop, adhesives: (shop.adhesives ?? []).map((bottle) => ({ ...bottle, leftG: 1 })) };
    const bottle = { id: 'pva', name: 'PVA', class: 'pva_crosslink_d3', leftG: 1 };
    const own = { ...dry, adhesives: [bottle] };
    const { short } = todayOf([{ id: 'a', build: { ...panel, shop: own } }], NOW, room);
    expect(short).toHaveLength(1);
    expect(short[0].what).toEqual([
      'PVA: ',
      { grams: 1 },
      ' on hand, ',
      { grams: expect.any(Number) },
      ' missing',
    ]);
    const bottles = [
      { ...bottle, expires: '2026-03-01' },
      { ...bottle, id: 'b', expires: '2026-03-02' },
      { ...bottle, id: 'c' },
    ];
    expect(pastBottles({ ...shop, adhesives: bottles }, '2026-03-02').map(({ id }) => id)).toEqual(['pva']);
  });

  it('is of the jobs on the calendar: those begun or planned, and the two newest ideas', () => {
    const named = (name: string, build = panel) => ({ build: { ...build, name } });
    const jobs = [named('old idea'), named('begun', glued(1)), named('idea'), named('newest')];
    expect(onCalendar(jobs, NOW).map(({ build }) => build.name)).toEqual(['begun', 'idea', 'newest']);
  });
});

describe('the first screen in the morning', () => {
  const at = { now: NOW, today: '2026-12-01', local: 'Europe/Riga' };
  it('counts the ideas that are not on the calendar, goes by the shop’s own clock, names bottles past their date', () => {
    const jobs = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id, build: panel }));
    const own = {
      ...panel.shop,
      adhesives: [{ id: 'x', name: 'Old', class: 'pva_yellow', expires: '2026-11-30' }],
    };
    const morning = morningOf(jobs, own as ShopSnapshot, at);
    expect(morning.ideas).toBe(3);
    expect(morning.next.map(({ job }) => job).toSorted()).toEqual(['d', 'e']);
    expect(morning.zone).toBe('Europe/Riga');
    expect(morning.bottles).toMatchObject([{ id: 'x' }]);
    expect(morning.air.isEntered).toBe(false);
    expect(morning.air.moisturePct).toBeCloseTo(8.5, 0);
  });

  it('says of air that the equation does not cover what was entered, and no moisture', () => {
    const { air } = morningOf([], { ...panel.shop, climate: { temperatureC: 60, humidityPct: 50 } }, at);
    expect(air).toEqual({ temperatureC: 60, humidityPct: 50, isEntered: true });
  });
});
