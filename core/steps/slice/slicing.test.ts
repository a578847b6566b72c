import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { BuildDocument } from '../../document';
import { mustEdit } from '../../edit';
import { typed } from '../../kit';
import { run } from '../../run';
import { extents } from '../../solid';
import { build, GLUE, three } from '../steps.fixture';
import { tookBy } from '../took';
import type { SliceStep } from './slice';
import { lengthForSlices, slicesFrom } from './slicing';

const INCH = 25.4;

const inches = (head: string, thickness: string, hold: string) => ({
  head: typed(head),
  thickness: typed(thickness),
  hold: typed(hold),
});

/* Worked sizes of the shop arithmetic, by hand; common practice. */
describe('what a blank gives', () => {
  it('24 slices of 1 5/8 with an 1/8 kerf, 1/4 off the end and 3 in hand take 45 3/8, and no hair less', () => {
    const step = inches('1/4', '1 5/8', '3');
    const kerf = INCH / 8;
    expect(lengthForSlices(24, step, kerf)).toBeCloseTo(45.375 * INCH, 9);
    expect(slicesFrom(45.375 * INCH, step, kerf)).toBe(24);
    expect(slicesFrom(45.375 * INCH - 0.01, step, kerf)).toBe(23);
    // Without anything to hold, the last slice needs no cut behind it: 42 1/4 are enough.
    expect(lengthForSlices(24, inches('1/4', '1 5/8', '0'), kerf)).toBeCloseTo(42.25 * INCH, 9);
  });
  it('16 in with 1/2 and its kerf squared off: 13 rows of 1 with a kerf of 1/8, the far end clean', () => {
    expect(slicesFrom(16 * INCH, inches('1/2', '1', '0'), INCH / 8)).toBe(13);
  });
  it('counts and lengths answer each other for any sizes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.double({ min: 2, max: 80, noNaN: true }),
        fc.double({ min: 0.5, max: 6, noNaN: true }),
        fc.constantFrom(0, 12, 76),
        fc.constantFrom(0, 5),
        (count, thickness, kerf, hold, head) => {
          const step = { head: { mm: head }, thickness: { mm: thickness }, hold: { mm: hold } };
          const long = lengthForSlices(count, step, kerf);
          expect(slicesFrom(long, step, kerf)).toBe(count);
          expect(slicesFrom(long - 0.01, step, kerf)).toBe(count - 1);
        },
      ),
      { seed: 20274 },
    );
  });
});

const slice: SliceStep = {
  id: 'cut',
  kind: 'slice',
  inputs: ['panel'],
  output: 'slices',
  saw: 'table-full',
  head: { mm: 5 },
  thickness: { mm: 40 },
  count: 20,
  hold: { mm: 76 },
};

const played = (step: SliceStep): { job: BuildDocument; pieces: number; tail: number } => {
  const job = build(three, [GLUE, step]);
  const timeline = run(job);
  const entry = timeline.steps.at(-1);
  const kerf = job.shop.saws[0].kerf.mm;
  const cut = entry?.pieces.length ?? 0;
  const blank = extents(timeline.steps[1].pieces[0].blank)[0];
  return { job, pieces: cut, tail: blank - step.head.mm - kerf - cut * (step.thickness.mm + kerf) };
};

describe('slicing stops where the rest must stay in hand', () => {
  it('500 long: nine slices of 40 leave 103.4, a tenth would leave 60.2', () => {
    // 500 - 5 - 3.175 = 491.825; nine times 43.175 are 388.575, ten are 431.75.
    const nine = played(slice);
    expect(nine.pieces).toBe(9);
    expect(nine.tail).toBeCloseTo(491.825 - 388.575, 6);
    // A job from before this was asked for slices on, as it did.
    const { hold: _hold, ...old } = slice;
    expect(played(old).pieces).toBe(11);
  });
  it('counts the kerfs that were cut, not those asked for', () => {
    const { job } = played(slice);
    const kerf = job.shop.saws[0].kerf.mm;
    expect(tookBy(slice, job, 9)).toEqual([{ from: 'kerfs', mm: 10 * kerf }]);
    expect(tookBy(slice, job)).toEqual([{ from: 'kerfs', mm: 21 * kerf }]);
  });
  it('says what would have to stay, where not one slice fits', () => {
    const job = mustEdit(build(three, [GLUE, slice]), {
      do: 'setStep',
      step: 'cut',
      change: { hold: { mm: 480 } },
    });
    const stop = run(job).problems.find(({ code }) => code === 'no-slice-fits');
    expect(stop?.numbers.hold).toBe(480);
    expect(stop?.message.join('')).toContain('must stay in hand');
  });
});

it('however little is cut off first or stays in hand, it is taken from the blank with its kerf', () => {
  const thickness = { mm: 20 };
  for (const mm of [0.4, 1, 3]) {
    // Five slices of 20 with kerfs of 3 between them: 112; a head costs itself and a kerf, what is held makes the fifth kerf a cut.
    expect(lengthForSlices(5, { head: { mm: 0 }, thickness }, 3)).toBe(112);
    expect(lengthForSlices(5, { head: { mm }, thickness }, 3)).toBeCloseTo(115 + mm, 9);
    expect(lengthForSlices(5, { head: { mm: 0 }, thickness, hold: { mm } }, 3)).toBeCloseTo(115 + mm, 9);
    expect(slicesFrom(115 + mm, { head: { mm: 0 }, thickness, hold: { mm } }, 3)).toBe(5);
    expect(slicesFrom(114.9 + mm, { head: { mm: 0 }, thickness, hold: { mm } }, 3)).toBe(4);
  }
});
