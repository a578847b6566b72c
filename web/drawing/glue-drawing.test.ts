import fc from 'fast-check';
import { DateTime } from 'luxon';
import { describe, expect, it } from 'vitest';
import { glueUpsOf } from '../../core/glueup';
import { outlook } from '../../core/review';
import { run } from '../../core/run';
import { demoJobs } from '../../demo/jobs';
import { glueFrame, glueView } from './glue-frame';
import { layOne } from './layout';
import { timeScale } from './time-scale';

describe('a glue-up’s drawing', () => {
  const cases = demoJobs.flatMap((build) =>
    glueUpsOf(build, run(build)).map((glueUp) => ({ build, glueUp })),
  );
  it('shows every glue-up of the demo with its joints as lines inside the room, and finds the way back from a pixel', () => {
    expect(cases.length).toBeGreaterThan(10);
    for (const { build, glueUp } of cases) {
      const { scene } = outlook(build, glueUp.step.id);
      if (!scene) throw new Error('no scene');
      const room = { width: 880, height: 480 };
      const layout = layOne(scene, glueView(glueUp), room, { left: 60, top: 50, right: 60, bottom: 120 });
      const frame = glueFrame(glueUp, scene, layout.views[0], layout.mmPerPx);
      expect(frame.box.left).toBeGreaterThanOrEqual(59.9);
      expect(frame.box.left + frame.box.width).toBeLessThanOrEqual(room.width - 59.9);
      expect(frame.box.top + frame.box.height).toBeLessThanOrEqual(room.height - 119.9);
      for (const line of glueUp.lines) {
        const [a, b] = [frame.point(line.from, line.at), frame.point(line.to, line.at)];
        expect(frame.lying ? a.y - b.y : a.x - b.x).toBeCloseTo(0, 9);
        for (const at of [0, 0.3, 1]) {
          const { x, y } = frame.point(at * glueUp.lengthMm, line.at);
          expect(frame.runAt(x, y)).toBeCloseTo(at * glueUp.lengthMm, 6);
        }
      }
    }
  });
  it('counts joints from the far edge of the screen on', () => {
    const { build, glueUp } = cases[0];
    const { scene } = outlook(build, glueUp.step.id);
    if (!scene) throw new Error('no scene');
    const layout = layOne(
      scene,
      glueView(glueUp),
      { width: 880, height: 480 },
      { left: 60, top: 50, right: 60, bottom: 60 },
    );
    const frame = glueFrame(glueUp, scene, layout.views[0], layout.mmPerPx);
    const tops = glueUp.lines.map(({ at }) => frame.point(0, at).y);
    expect(tops.toSorted((a, b) => a - b)).toEqual(tops);
  });
});

describe('the calendar’s line of days', () => {
  const zones = ['UTC', 'Europe/Berlin', 'America/New_York', 'Australia/Lord_Howe'];
  it('goes from left to right, gives working hours most room, and finds its way back', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer({ min: 0, max: 364 }),
        fc.integer({ min: 0, max: 12 }),
        fc.integer({ min: 1, max: 12 }),
        fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }),
        (zone, day, from, long, workdays) => {
          const first = DateTime.fromISO('2026-01-01', { zone }).plus({ days: day });
          const days = Array.from({ length: 9 }, (_, i) => first.plus({ days: i }));
          const { x, widths } = timeScale(days, { days: workdays, from, to: Math.min(24, from + long) });
          expect(widths.reduce((sum, w) => sum + w, 0)).toBeCloseTo(100, 9);
          const end = days[8].plus({ days: 1 }).toMillis();
          expect(x(first.toMillis())).toBeCloseTo(0, 9);
          expect(x(end)).toBeCloseTo(100, 9);
          let before = -1;
          for (let t = first.toMillis(); t <= end; t += 7 * 3_600_000 + 13) {
            expect(x(t)).toBeGreaterThan(before);
            before = x(t);
            expect(Math.abs(x.invert(x(t)) - t)).toBeLessThan(1000);
          }
        },
      ),
      { seed: 20281, numRuns: 60 },
    );
  });
});
