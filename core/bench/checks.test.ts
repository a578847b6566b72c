import { describe, expect, it } from 'vitest';
import { type Check, CHECK_KINDS, phraseText } from '../document';
import { mustEdit } from '../edit';
import { planned, randomFrom, SHOPS } from '../review/scenarios.fixture';
import { run } from '../run';
import { build, GLUE, three } from '../steps/steps.fixture';
import { benchStep, checkPlace, CHECKS, checksAt, judged, notOfCheck, outOfSquare } from '.';

/** A panel of 500 by 150 by 25. */
const panel = build(three, [GLUE]);
const timeline = run(panel);
const place = (step = 'glue') => {
  const found = checkPlace(panel, timeline, step);
  if (!found) throw new Error('not played');
  return found;
};
const of = (kind: Check['kind'], values: number[], step = 'glue') => CHECKS[kind].judge(values, place(step));

describe('corner to corner', () => {
  it('by its diagonals a rectangle is as far out of square as it was pushed', () => {
    // Pushed by d along its length, a rectangle of L by W stays W high: plane geometry, worked the other way round.
    for (const [length, width, push] of [
      [500, 150, 1],
      [900, 600, 4],
      [400, 400, 0.5],
    ]) {
      const a = Math.hypot(length + push, width);
      const b = Math.hypot(length - push, width);
      expect(outOfSquare([a, b], length, width)).toBeCloseTo(push, 2);
      expect(outOfSquare([b, a], length, width)).toBeCloseTo(outOfSquare([a, b], length, width), 12);
    }
    expect(outOfSquare([522, 522], 500, 150)).toBe(0);
    // Diagonals that no such rectangle has, pushed flat or past it.
    expect([outOfSquare([2, 0], 1, 1), outOfSquare([2.2, 0], 1, 1)]).toEqual([Infinity, Infinity]);
  });
  it('alike is good; a step that a thumb feels is minded; impossible ones are asked for again', () => {
    expect(of('squareness', [522, 522]).verdict).toBe('good');
    const step = panel.shop.noticeableStep.mm;
    const by = (push: number) => [Math.hypot(500 + push, 150), Math.hypot(500 - push, 150)];
    expect(of('squareness', by(1.5 * step)).verdict).toBe('mind');
    expect(of('squareness', by(3 * step)).verdict).toBe('bad');
    expect(of('squareness', [9000, 1])).toMatchObject({
      verdict: 'bad',
      words: [expect.stringContaining('measure again')],
    });
  });
});

describe('other checks', () => {
  it('four corners: wind is told from taper', () => {
    const words = (values: number[]) =>
      phraseText(of('corners', values).words, { system: 'mm', fraction: 0 });
    expect(words([25, 24, 25, 24])).toContain('1 mm is wind');
    // Thinner along one edge: taper, and no wind.
    expect(words([25, 25, 24, 24])).toContain('0 mm is wind');
    expect(of('corners', [25, 25, 25, 25]).verdict).toBe('good');
  });
  it('moisture: within 2 % of the shop it is at rest; readings that lie apart are minded as well', () => {
    const own = panel.shop.woodMoisturePct;
    expect(of('moisture', [own + 2]).verdict).toBe('good');
    expect(of('moisture', [own + 2.1]).verdict).toBe('mind');
    expect(of('moisture', [own + 4.1]).verdict).toBe('bad');
    expect(of('moisture', [own - 1.5, own + 1.5]).verdict).toBe('mind');
    // Of several the one farthest off is named, on whichever side it lies and wherever it stands.
    for (const values of [
      [own + 1, own - 3],
      [own - 3, own + 1],
      [own + 3, own - 1],
      [own + 3, own - 3],
      [own - 3, own + 3],
    ]) {
      const worst = values.find((value) => Math.abs(value - own) === 3) ?? 0;
      expect(phraseText(of('moisture', values).words, panel.shop.display)).toContain(
        `${Number(worst.toFixed(1))} %, where`,
      );
    }
  });
  it('weight: against what the woods of the piece weigh', () => {
    const kg = run(panel).steps[1].massKg;
    expect(of('weight', [kg]).verdict).toBe('good');
    expect(of('weight', [kg * 1.15]).verdict).toBe('mind');
    expect(of('weight', [kg * 0.5]).verdict).toBe('bad');
  });
  it('a gap is held against what the glue bridges; light against what no feeler gauge enters', () => {
    expect(of('gap', [0]).verdict).toBe('good');
    expect(of('gap', [3]).verdict).toBe('bad');
    expect(of('light', [0]).words).toEqual(['No light under the straightedge.']);
    expect(of('light', [0.05], 'rip').verdict).toBe('good');
    expect(of('light', [0.2], 'rip').verdict).toBe('bad');
  });
  it('a blade half a degree off leans by thickness times its tangent', () => {
    const { verdict, words } = of('bladeAngle', [89.5], 'rip');
    expect(verdict).toBe('bad');
    const [fine] = words.flatMap((part) => (typeof part === 'object' && 'fine' in part ? [part.fine] : []));
    expect(fine).toBeCloseTo(25 * Math.tan((0.5 * Math.PI) / 180), 9);
    expect(of('bladeAngle', [90.1], 'rip').verdict).toBe('good');
  });
  it('a sprung joint is open in the middle, and never at its ends', () => {
    const wanted = (500 * 0.4) / 914;
    expect(of('opening', [wanted]).verdict).toBe('good');
    expect(of('opening', [0, wanted, 0]).verdict).toBe('good');
    expect(of('opening', [wanted, 0, 0]).verdict).toBe('bad');
    expect(of('opening', [4 * wanted]).verdict).toBe('bad');
  });
});

describe('checks of a job', () => {
  it('in every pattern and at every step say something whole, whatever was read', () => {
    const random = randomFrom(8);
    for (const pattern of ['panel', 'endGrain', 'lamination', 'framed'] as const) {
      const job = planned(pattern, SHOPS.inch, random);
      if (!job) throw new Error(pattern);
      const played = run(job);
      for (const { id } of job.steps) {
        const at = checkPlace(job, played, id);
        if (!at) continue;
        expect(checksAt(at).length).toBeGreaterThan(2);
        for (const kind of checksAt(at))
          for (const value of [0, 0.3, 25, 1200]) {
            const values = CHECKS[kind].numbers.map(() => value);
            const text = phraseText(CHECKS[kind].judge(values, at).words, job.shop.display);
            expect(text, `${pattern}, ${id}, ${kind}, ${value}`).toMatch(/^[A-Z0-9].*\.$/);
            expect(text).not.toMatch(/NaN|undefined|Infinity/);
          }
      }
    }
  });
  it('are kept with the step, shown with what they mean, made anew by name, and taken back', () => {
    const check: Check = { id: 'c1', step: 'glue', kind: 'moisture', values: [8.5] };
    const once = mustEdit(panel, { do: 'check', check });
    const twice = mustEdit(once, { do: 'check', check: { ...check, values: [14] } });
    expect(twice.checks).toHaveLength(1);
    expect(benchStep(twice, run(twice), 'glue')?.checked).toMatchObject([
      { id: 'c1', result: { verdict: 'bad' } },
    ]);
    expect(benchStep(twice, run(twice), 'rip')?.checked).toEqual([]);
    expect(mustEdit(twice, { do: 'forgetCheck', check: 'c1' }).checks).toBeUndefined();
  });
  it('of a step or numbers that are gone judge nothing', () => {
    expect(judged({ id: 'c', step: 'gone', kind: 'weight', values: [1] }, panel, timeline)).toBeUndefined();
    expect(judged({ id: 'c', step: 'glue', kind: 'corners', values: [1] }, panel, timeline)).toBeUndefined();
    for (const kind of CHECK_KINDS) {
      expect(notOfCheck(kind, [])).toContain(CHECKS[kind].name);
      expect(
        notOfCheck(
          kind,
          CHECKS[kind].numbers.map(() => -1),
        ),
      ).toBeDefined();
      expect(
        notOfCheck(
          kind,
          CHECKS[kind].numbers.map(() => 1),
        ),
      ).toBeUndefined();
    }
  });
});
