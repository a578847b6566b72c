import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findingsOf } from '../../review';
import { expectMended } from '../../review/mended.fixture';
import { run } from '../../run';
import { balanced, build, GLUE, last, size, slot } from '../steps.fixture';
import type { InstallStep } from './report';
import { bears, peopleFor, tipsAt } from './lift';
import { scribed } from './scribe';

const mm = (n: number) => ({ mm: n });
const counter = (n = 5, thick = 40) =>
  Array.from({ length: n }, (_, i) => slot(`s${i}`, 2000, 120, thick, 'oak_white'));
const step = (change: Partial<InstallStep> = {}): InstallStep => ({
  id: 'in',
  kind: 'install',
  inputs: ['panel'],
  output: 'stands',
  people: 2,
  carried: 'flat',
  saw: 'track',
  ...change,
});
const area = (outline: { x: { mm: number }; y: { mm: number } }[]) =>
  outline.reduce((sum, { x, y }, i) => {
    const next = outline[(i + 1) % outline.length];
    return sum + (x.mm * next.y.mm - next.x.mm * y.mm) / 2;
  }, 0);

describe('scribing', () => {
  it('a corner of 92 degrees costs width times the tangent of 2 at the back, of 88 at the front', () => {
    // By hand: 600 x tan 2 = 20.952.
    expect(scribed({ leftDegrees: 92 }, [2000, 600]).left).toEqual({
      front: 0,
      back: expect.closeTo(20.952, 3),
    });
    expect(scribed({ leftDegrees: 88 }, [2000, 600]).left).toEqual({
      front: expect.closeTo(20.952, 3),
      back: 0,
    });
    expect(area(scribed({ leftDegrees: 92 }, [2000, 600]).outline)).toBeCloseTo(
      2000 * 600 - (20.953 * 600) / 2,
      0,
    );
  });
  it('where the wall stands nearest the back loses what it falls back where it stands farthest, and there nothing', () => {
    const wall = [
      { at: mm(0), gap: mm(0) },
      { at: mm(1000), gap: mm(9) },
      { at: mm(2000), gap: mm(3) },
    ];
    expect(scribed({ wall }, [2000, 600]).back.map(({ off }) => off)).toEqual([9, 0, 6]);
  });
  it('pushed home, it touches the wall everywhere: what is left and the gap are the same all along (property)', () => {
    const whole = (min: number, max: number) => fc.integer({ min, max });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(whole(0, 2000), whole(0, 30)), { minLength: 1, maxLength: 8 }),
        whole(85, 95),
        whole(85, 95),
        (readings, leftDegrees, rightDegrees) => {
          const seen = new Set<number>();
          const once = readings.filter(([at]) => !seen.has(at) && seen.add(at));
          const wall = once.map(([at, gap]) => ({ at: mm(at), gap: mm(gap) }));
          const { back, outline } = scribed({ wall, leftDegrees, rightDegrees }, [2000, 600]);
          const deepest = Math.max(...once.map(([, gap]) => gap));
          for (const { x, off } of back) {
            const own = once.find(([at]) => at === x);
            if (own) expect(off + own[1]).toBeCloseTo(deepest, 9);
            expect(off).toBeGreaterThanOrEqual(-1e-9);
          }
          expect(area(outline)).toBeGreaterThan(0);
        },
      ),
      { numRuns: 80, seed: 17 },
    );
  });
  it('is really cut: the piece measures what its outline says, and the wood balances', () => {
    const own = step({
      leftDegrees: 92,
      rightDegrees: 89,
      wall: [
        { at: mm(0), gap: mm(0) },
        { at: mm(900), gap: mm(8) },
        { at: mm(2000), gap: mm(2) },
      ],
    });
    const job = build(counter(), [GLUE, own]);
    const done = last(job);
    const cut = scribed(own, [2000, 600]);
    const mm3 = done.pieces[0].blank.cells.reduce((sum, cell) => sum + (cell.mm3 ?? 0), 0);
    expect(mm3).toBeCloseTo(area(cut.outline) * 40, -1);
    balanced(job);
  });
  it('without a saw nothing is cut, and that is said', () => {
    const { saw: _saw, ...bare } = step({ leftDegrees: 92 });
    const job = build(counter(), [GLUE, bare]);
    expect(size(last(job))).toEqual([2000, 600, 40]);
    expect(expectMended(job, 'not-scribed').numbers.most).toBeCloseTo(20.952, 3);
  });
  it('a wall that is straight and square costs nothing', () => {
    const own = step({
      wall: [
        { at: mm(0), gap: mm(4) },
        { at: mm(2000), gap: mm(4) },
      ],
    });
    expect(size(last(build(counter(), [GLUE, own])))).toEqual([2000, 600, 40]);
  });
  it('a reading past the piece, or as deep as it is wide, is found and taken out', () => {
    for (const wrong of [
      { at: mm(2600), gap: mm(2) },
      { at: mm(1000), gap: mm(700) },
    ])
      expectMended(
        build(counter(), [GLUE, step({ wall: [{ at: mm(0), gap: mm(1) }, wrong] })]),
        'wall-outside',
      );
  });
});

describe('lifts', () => {
  it('people share it evenly, the one below on stairs bears more, a trolley a quarter', () => {
    expect(bears(60, 2, 'flat', false)).toBe(30);
    expect(bears(60, 2, 'flat', true)).toBeCloseTo(39, 9);
    expect(bears(60, 1, 'flat', true)).toBe(60);
    expect(bears(60, 1, 'trolley', false)).toBe(15);
    expect(bears(60, 1, 'hoist', true)).toBe(0);
    expect(peopleFor(60, 25, { carried: 'flat', stairs: false, most: 12 })).toBe(3);
    expect(peopleFor(5000, 25, { carried: 'flat', stairs: false, most: 12 })).toBeUndefined();
  });
  it('a counter too heavy for its people is found with its mass, and more people or a trolley mend it', () => {
    const found = expectMended(build(counter(), [GLUE, step({ people: 1 })]), 'lift-too-heavy');
    expect(found.numbers.mass).toBeGreaterThan(25);
  });
  it('one that nobody can lift says so', () => {
    const job = build(counter(10, 200), [GLUE, step()]);
    const found = findingsOf(job, run(job)).find(({ code }) => code === 'lift-too-heavy');
    expect(found?.message.join(' ')).toMatch(/Nobody carries it by hand/);
  });
  it('tips over its support by the lever, by itself where it balances outside', () => {
    // 40 kg balancing 1000 from the left, support at 1600, end at 2000: 40 x 9.81 x 600 / 400.
    expect(tipsAt(40, 1000, 1600, 2000)).toBeCloseTo(588.6, 6);
    expect(tipsAt(40, 1000, 900, 2000)).toBeLessThan(0);
    expectMended(build(counter(), [GLUE, step({ supportRight: mm(900) })]), 'piece-tips');
  });
  it('a sink nearer than is asked for is found; the licensed trades come first', () => {
    const job = build(counter(), [
      GLUE,
      step({ appliances: [{ what: 'hob', to: 'wall', has: mm(40), asked: mm(50) }] }),
    ]);
    const found = findingsOf(job, run(job)).find(({ code }) => code === 'appliance-too-near');
    expect(found?.message.join(' ')).toMatch(/licensed trades and local rules come first/);
    expect(found?.numbers).toMatchObject({ has: 40, asked: 50 });
  });
});
