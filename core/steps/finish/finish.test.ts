import { describe, expect, it } from 'vitest';
import { DateTime } from 'luxon';
import { schedule, tasksOf, toBuy } from '../../bench';
import { FINISH_KINDS, FINISH_LIST, FINISH_USES } from '../../kit';
import { expectMended } from '../../review/mended.fixture';
import { findingsOf } from '../../review';
import { run } from '../../run';
import { boxBlank } from '../../solid';
import { faceAreas } from '../faces';
import { build, GLUE, last, size, slot, three } from '../steps.fixture';
import type { WorkPiece } from '../timeline';
import { finishRows, type FinishStep, lossOf } from './amounts';
import { finish } from './finish';

const step = (change: Partial<FinishStep> = {}): FinishStep => ({
  id: 'finish',
  kind: 'finish',
  inputs: ['panel'],
  output: 'finished',
  ...change,
});
const top = [1, 2, 3, 4].map((i) => slot(`s${i}`, 900, 150, 25, 'oak_white'));
const pieces = () => last(build(top, [GLUE])).pieces;

describe('finish', () => {
  it('changes no size', () =>
    expect(size(last(build(three, [GLUE, step({ coats: 3 })])))).toEqual(size(last(build(three, [GLUE])))));

  it.each([
    [{}, 20, 12, 1],
    [{ coats: 3 }, 60, 12, 3],
    [{ coats: 2, hours: 24 }, 40, 24, 2],
    [{ coats: 0, hours: 4 }, 20, 4, 1],
    [{ coats: 1, upper: 4, hours: 4 }, 80, 4, 4],
  ] as const)('%j: %i minutes of hands, %i hours for each of %i coats', (change, minutes, hours, coats) => {
    expect(finish.labour.fixed?.(step(change))).toBe(minutes);
    const rounds = finish.labour.rounds?.(step(change)) ?? [];
    expect(rounds).toHaveLength(coats);
    expect(rounds.every((round) => round.hours === hours)).toBe(true);
  });

  it('900 x 600 x 25 is 1.155 m2 all round; amounts with loss add up over the places', () => {
    const areas = faceAreas(pieces());
    expect(Object.values(areas).reduce((sum, { mm2 }) => sum + mm2, 0) / 1e6).toBeCloseTo(1.155, 9);
    expect(areas.ends.endGrain).toBeCloseTo(1, 6);
    expect(areas.upper.endGrain).toBe(0);
    const own = step({ finish: 'polyOil', coats: 3, lossPct: 20 });
    const rows = finishRows(own, pieces());
    // By hand: (0.54 x 2 + 0.045) x 3 coats, ends 0.03 x (3 + half a coat more for the first), over 12.25 m2 a litre, and a fifth lost.
    const layers = (0.54 * 2 + 2 * 0.9 * 0.025) * 3 + 2 * 0.6 * 0.025 * 3.5;
    expect(rows.reduce((sum, { ml }) => sum + ml, 0)).toBeCloseTo(((layers * 1000) / 12.25) * 1.2, 6);
    const [need] = finish.needs?.(own, { pieces: pieces() }) ?? [];
    expect(need).toMatchObject({ kind: 'finish', size: FINISH_KINDS.polyOil.name });
  });

  it('3 coats above and 1 below is a finding, 3 and 2 none, and one press makes them alike', () => {
    const job = (own: Partial<FinishStep>) =>
      build(top, [GLUE, step({ finish: 'polyOil', hours: 12, ...own })]);
    const found = expectMended(job({ upper: 3, lower: 1, coats: 3 }), 'finish-one-sided');
    expect(found.numbers).toMatchObject({ above: 3, below: 1, ratio: 3 });
    expectMended(job({ coats: 2, lower: 0 }), 'finish-one-sided');
    const codes = (own: Partial<FinishStep>) => findingsOf(job(own), run(job(own))).map(({ code }) => code);
    expect(codes({ upper: 3, lower: 2, coats: 3 })).not.toContain('finish-one-sided');
  });

  it('coats without a wait, a finish that is not for food or does not stand its use: each mended by its offers', () => {
    const job = (own: Partial<FinishStep>) => build(top, [GLUE, step(own)]);
    expectMended(job({ finish: 'polyOil', coats: 3, hours: 0 }), 'finish-no-wait');
    expectMended(job({ finish: 'linseed', use: 'cut', coats: 2 }), 'finish-not-food');
    expectMended(job({ finish: 'polyOil', use: 'cut', coats: 2 }), 'finish-unsuited');
    for (const { value } of FINISH_USES) {
      const [kind] = FINISH_LIST.find(([, { uses }]) => uses.includes(value)) ?? [];
      expect(kind, value).toBeDefined();
    }
  });

  it('every coat dries on the calendar before the next, and it hardens last', () => {
    const job = build(top, [GLUE, step({ finish: 'polyOil', coats: 3, hours: 8, cureDays: 7 })]);
    const tasks = tasksOf('j', job, run(job)).filter((task) => task.step === 'finish');
    expect(tasks.map(({ kind, minutes }) => [kind, minutes])).toEqual([
      ['work', 20],
      ['coat', 480],
      ['work', 20],
      ['coat', 480],
      ['work', 20],
      ['coat', 480],
      ['cure', 7 * 1440],
    ]);
    expect(new Set(tasks.map(({ id }) => id)).size).toBe(tasks.length);
    tasks.slice(1).forEach(({ after }, i) => expect(after).toEqual([tasks[i].id]));
    // Done: only the last coat still dries.
    const done = build(top, [
      GLUE,
      step({ finish: 'polyOil', coats: 3, hours: 8, done: true, doneAt: '2026-03-06T16:00:00Z' }),
    ]);
    expect(
      tasksOf('j', done, run(done))
        .filter((task) => task.step === 'finish')
        .map(({ kind }) => kind),
    ).toEqual(['coat', 'cure']);
  });

  it('coats over a weekend and a clock change: work in working hours, waits in real ones', () => {
    const job = build(top, [GLUE, step({ finish: 'polyOil', coats: 3, hours: 20, cureDays: 3 })]);
    const done = {
      ...job,
      steps: job.steps.map((each) => (each.id === 'finish' ? each : { ...each, done: true })),
    };
    const zone = 'Europe/Berlin';
    // Friday before 29 March 2026, when clocks go forward.
    const now = DateTime.fromISO('2026-03-27T16:00', { zone }).toMillis();
    const room = { hours: { days: [1, 2, 3, 4, 5], from: 8, to: 17 }, zone, clamps: {}, benches: 2 };
    const placed = schedule(tasksOf('j', done, run(done)), now, room).filter(
      (task) => task.step === 'finish',
    );
    const work = placed.filter(({ kind }) => kind === 'work');
    expect(work.map(({ from }) => DateTime.fromMillis(from, { zone }).toFormat('ccc d HH:mm'))).toEqual([
      'Fri 27 16:00',
      'Mon 30 08:00',
      'Tue 31 08:00',
    ]);
    placed.slice(1).forEach((task, i) => expect(task.from).toBeGreaterThanOrEqual(placed[i].to));
    const cure = placed.at(-1);
    expect((cure?.to ?? 0) - (cure?.from ?? 0)).toBe(72 * 3_600_000);
  });

  it('what several coats of one finish take adds up over the job, against what is left', () => {
    const two = build(top, [
      GLUE,
      step({ finish: 'polyOil', coats: 1, hours: 8 }),
      step({ id: 'again', inputs: ['finished'], output: 'twice', finish: 'polyOil', coats: 2, hours: 8 }),
    ]);
    const size = FINISH_KINDS.polyOil.name;
    const shop = {
      ...two.shop,
      supplies: [{ id: 'can', name: 'Can', kind: 'finish' as const, size, onHand: 100 }],
    };
    const job = { ...two, shop };
    const [short] = toBuy(job, run(job));
    const all = [1, 2].reduce(
      (sum, coats) =>
        sum +
        Math.ceil(finishRows(step({ finish: 'polyOil', coats }), pieces()).reduce((s, { ml }) => s + ml, 0)),
      0,
    );
    expect(short).toMatchObject({ have: 100, short: all - 100 });
  });

  it('wants some finish at hand, and says that oily rags can catch fire', () => {
    expect(finish.needs?.(step(), { pieces: [] })).toEqual([{ what: 'supply', kind: 'finish' }]);
    expect(finish.caution).toMatch(/catch fire/);
    const own = step({ finish: 'linseed' });
    const job = build(top, [GLUE, own]);
    const words = finish
      .facts?.(own, { build: job, entry: last(job) })
      .flatMap(({ says }) => says)
      .join(' ');
    expect(words).toMatch(/rags heat by themselves/);
  });

  it('oak under a water-based finish and oily wood under a film are noted', () => {
    const codes = (species: string, kind: FinishStep['finish']) => {
      const job = build(
        [slot('a', 500, 100, 20, species), slot('b', 500, 100, 20, species)],
        [GLUE, step({ finish: kind })],
      );
      return findingsOf(job, run(job)).filter(({ code }) => code === 'finish-and-wood').length;
    };
    expect(codes('oak_white', 'polyWater')).toBe(1);
    expect(codes('maple_sugar', 'polyWater')).toBe(0);
    expect(codes('teak', 'polyOil')).toBe(1);
    expect(codes('teak', 'mineralOil')).toBe(0);
  });
});

it('a piece that stands on end shows end grain above, whichever end of its grain looks up', () => {
  // The log's axis is the third: down through the board, or up.
  for (const up of [1, -1]) {
    const onEnd: WorkPiece = {
      id: 'p',
      blank: boxBlank(
        [300, 200, 40],
        [1, 0, 0, 500, 0, up, 0, 500, 0, 0, up, 0],
        { board: 'b', species: 'oak_white', seed: 1, shade: 1 },
        'p',
      ),
      errors: [{}, {}, {}],
    };
    const areas = faceAreas([onEnd]);
    expect([areas.upper.endGrain, areas.edges.endGrain, areas.ends.endGrain]).toEqual([
      expect.closeTo(1, 9),
      expect.closeTo(0, 9),
      expect.closeTo(0, 9),
    ]);
  }
});

it('of a finish that nobody named nothing is lost but what the step says', () => {
  expect(lossOf(step({ finish: 'unsaid' }))).toBe(0);
  expect(lossOf(step({ finish: 'unsaid', lossPct: 12 }))).toBe(12);
});
