import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demo } from '../../demo';
import type { BuildDocument } from '../document';
import { machineFacts } from '../kit';
import { run } from '../run';
import { passesNeeded, sumOf } from '../units';
import { helperMinutes, helpersAdd } from './flatten/helpers';
import { chamferLasts, handMinutes, passesDown } from './passplan';
import { machineOfStep, roomOf } from './list';
import { noiseOf } from './tolerance';

const settings = (start: number, off: number, dial: Parameters<typeof passesDown>[2]) =>
  passesDown(start, off, dial)?.map(({ settingMm }) => settingMm);

describe('settings of a machine, pass by pass', () => {
  it('go from 9.0 to 4.5 on a carrier of 19.05 at 0.8 in six passes, the last one light', () => {
    const dial = { biteMm: 0.8, stepMm: 0.05, pitchMm: 0 };
    expect(settings(9 + 19.05, 4.5, dial)).toEqual([27.25, 26.45, 25.65, 24.85, 24.05, 23.55]);
  });

  it('are 14 and 7 passes of 0.05 over 0.7 and 0.35, and a crank of 2.0 a turn goes 9 degrees for each', () => {
    const dial = { biteMm: 0.05, stepMm: 0.05, pitchMm: 2 };
    for (const [off, count] of [
      [0.7, 14],
      [0.35, 7],
    ]) {
      const passes = passesDown(20, off, dial) ?? [];
      expect(passes).toHaveLength(count);
      for (const { turns } of passes) expect((turns ?? 0) * 360).toBeCloseTo(9, 6);
    }
  });

  it('are one where a machine has no limit to a pass, none where nothing comes off', () => {
    expect(settings(30, 3, { biteMm: 0, stepMm: 0.1, pitchMm: 0 })).toEqual([27]);
    expect(settings(30, 0, { biteMm: 0.8, stepMm: 0.1, pitchMm: 0 })).toEqual([]);
  });

  it('are refused where a step of the dial is more than a pass may take', () => {
    expect(settings(30, 3, { biteMm: 0.05, stepMm: 0.1, pitchMm: 0 })).toBeUndefined();
  });

  it('without a dial are rounded to the shop’s step but for the last, and not where that is more than a pass', () => {
    const free = { stepMm: 0, pitchMm: 0 };
    expect(settings(20.37, 1, { ...free, biteMm: 0.8, roundMm: 0.5 })).toEqual([20, 19.5, 19.37]);
    const fine = settings(20, 1, { ...free, biteMm: 0.4, roundMm: 0.5 }) ?? [];
    expect(fine.map((mm) => Number(mm.toFixed(6)))).toEqual([19.6, 19.2, 19]);
  });

  it('never rise, never take more than the bite, and end within half a step of what was asked', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 200, noNaN: true }),
        fc.double({ min: 0.01, max: 12, noNaN: true }),
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        fc.constantFrom(0, 0.05, 0.1, 25.4 / 64, 25.4 / 128),
        (start, off, bite, step) => {
          fc.pre(off < start - 1 && (step === 0 || bite >= 2 * step));
          const passes = passesDown(start, off, { biteMm: bite, stepMm: step, pitchMm: 0 });
          expect(passes).toBeDefined();
          let at = start;
          for (const { settingMm, takesMm } of passes ?? []) {
            expect(settingMm).toBeLessThan(at);
            expect(takesMm).toBeLessThanOrEqual(bite + 1e-6);
            expect(at - settingMm).toBeCloseTo(takesMm, 9);
            at = settingMm;
          }
          expect(Math.abs(at - (start - off))).toBeLessThanOrEqual(step / 2 + 1e-6);
          // As many as the bite needs, and no more than the dial's rounding adds.
          const least = passesNeeded(Math.max(0, start - at), bite);
          expect(passes?.length ?? 0).toBeGreaterThanOrEqual(least);
          if (step === 0) expect(passes).toHaveLength(least);
        },
      ),
      { numRuns: 500, seed: 20261129 },
    );
  });
});

describe('a chamfer under passes', () => {
  const passes = (off: number) => passesDown(20, off, { biteMm: 0.05, stepMm: 0.05, pitchMm: 0 }) ?? [];
  it('of 0.45 under 0.7 in steps of 0.05 is gone with pass 9; one of 0.8 outlasts by 0.1', () => {
    const gone = chamferLasts(0.45, passes(0.7));
    expect(gone.goneWith).toBe(9);
    expect(gone.overMm).toBeCloseTo(-0.25, 9);
    const lasts = chamferLasts(0.8, passes(0.7));
    expect(lasts.goneWith).toBeUndefined();
    expect(lasts.overMm).toBeCloseTo(0.1, 9);
  });
});

describe('a machine that first only touches', () => {
  it('has one pass more, which takes nothing, where it touches the thickest', () => {
    const dial = { biteMm: 0.8, stepMm: 0.05, pitchMm: 0, touch: true };
    expect(settings(28.05, 4.5, dial)).toEqual([28.05, 27.25, 26.45, 25.65, 24.85, 24.05, 23.55]);
    expect(passesDown(28.03, 1, dial)?.[0]).toMatchObject({ settingMm: 28.05, takesMm: 0 });
  });
});

describe('minutes of hands', () => {
  it('go by the pace of whoever does it; work that is counted as a whole goes by how often it is done', () => {
    let whole = 0;
    const passing: number[] = [];
    for (const job of demo.jobs) {
      const timeline = run(job);
      for (const step of job.steps) {
        const entry = timeline.steps.find(({ id }) => id === step.id);
        const minutes = (factor: number, times: number) => {
          const shop = { ...job.shop, paces: [{ kind: step.kind, factor, steps: 3 }] };
          const build = { ...job, shop } as BuildDocument;
          return handMinutes(step, entry, { build, pieces: 3, times });
        };
        const { fixed, minutes: byPieces } = roomOf(step).labour;
        const machine = machineOfStep(step, job);
        if (machine && machineFacts(machine).away) continue;
        expect(minutes(2, 1), step.id).toBeCloseTo(2 * minutes(1, 1), 9);
        const counted = entry && byPieces?.(step, entry.pieces);
        if (counted !== undefined) expect(minutes(1, 1), step.id).toBeCloseTo(counted, 9);
        if (!fixed && counted === undefined) {
          const { setUp, each, pass, more } = roomOf(step).labour;
          const perPiece = (minutes(1, 1) - setUp) / 3 - each - (more?.(step) ?? 0);
          if (pass) passing.push(perPiece);
          else expect(perPiece, step.id).toBeCloseTo(0, 9);
        }
        if (!fixed && !byPieces) continue;
        whole += 1;
        expect(minutes(1, 3), step.id).toBeCloseTo(3 * minutes(1, 1), 9);
        if (fixed) expect(minutes(1, 1), step.id).toBeCloseTo(fixed(step), 9);
      }
    }
    expect(whole).toBeGreaterThan(2);
    // Over a machine, a minute and more for each pass, and there is more than one of them.
    for (const each of passing) expect(each).toBeGreaterThanOrEqual(0);
    expect(Math.max(...passing)).toBeGreaterThan(2);
  });
  it('without what was played, no pass is known: set up, and each piece handled', () => {
    const [job] = demo.jobs;
    const mill = job.steps.find(({ kind }) => kind === 'mill');
    if (!mill) throw new Error('nothing is milled');
    const { setUp, each } = roomOf(mill).labour;
    const shop = { ...job.shop, paces: [] };
    const build = { ...job, shop } as BuildDocument;
    expect(handMinutes(mill, undefined, { build, pieces: 4, times: 1 })).toBeCloseTo(setUp + 4 * each, 9);
  });
});

describe('what is put on a piece for its machine', () => {
  it('counts however little it is, and runners and ends add to both sides', () => {
    const on = (change: object) => change as Parameters<typeof helperMinutes>[0];
    const parts = ['runners', 'ends', 'chamfer'].map((name) => helperMinutes(on({ [name]: { mm: 0.5 } })));
    for (const minutes of parts) expect(minutes).toBeGreaterThan(0);
    expect(helperMinutes(on({ runners: { mm: 30 }, ends: { mm: 60 }, chamfer: { mm: 3 } }))).toBe(
      sumOf(parts),
    );
    expect(helperMinutes(on({ runners: { mm: 0 } }))).toBe(0);
    const both = on({ runners: { mm: 30 }, ends: { mm: 60 } });
    expect((['length', 'width', 'thickness'] as const).map((name) => helpersAdd(both, name))).toEqual([
      120, 60, 0,
    ]);
    expect((['length', 'width'] as const).map((name) => helpersAdd(on({}), name))).toEqual([0, 0]);
  });
});

it('the noise of a shop is a hundredth of its step, however fine, and of 0.1 mm where it has none', () => {
  const noise = (mm: number) => noiseOf({ settingStep: { mm } });
  expect([noise(1), noise(0.5), noise(0.02), noise(0)].map((mm) => Number(mm.toFixed(9)))).toEqual([
    0.01, 0.005, 0.0002, 0.001,
  ]);
});
