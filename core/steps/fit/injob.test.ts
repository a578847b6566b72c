import { describe, expect, it } from 'vitest';
import type { BuildDocument, PlaceOfUse, Step } from '../../document';
import { mustEdit } from '../../edit';
import { mustFit, startingBrief } from '../../plan';
import { findingsOf } from '../../review';
import { expectMended } from '../../review/mended.fixture';
import { run } from '../../run';
import { build, GLUE, slot } from '../steps.fixture';
import { swingOf } from '../swing';
import type { WorkPiece } from '../timeline';
import { fitPlaceOf, fittingKindOf, type Fitting } from '.';
import { base, between, mm } from './fit.fixture';

describe('in a job', () => {
  const panel = (step: Step, place?: PlaceOfUse): BuildDocument => ({
    ...build(
      [0, 1, 2, 3, 4, 5].map((i) => slot(`s${i}`, 900, 130, 28, 'oak_white')),
      [GLUE, step],
    ),
    ...(place ? { place } : {}),
  });
  const step = (fittings: object[]): Step =>
    ({ id: 'fit', kind: 'fit', inputs: ['panel'], output: 'fitted', fittings }) as unknown as Step;
  const cleat = {
    id: 'c',
    kind: 'fixing',
    to: 'cleat',
    by: 'screws',
    held: 'all',
    farthest: mm(300),
    bolt: mm(6),
    spare: mm(1),
  };

  it('a member fixed all along is found with its numbers, and its way out mends it', () => {
    const job = panel(step([cleat]), between(6, 12, 8));
    const found = findingsOf(job, run(job)).find(({ code }) => code === 'held-across-grain');
    expect(found?.numbers.out).toBeGreaterThan(1);
    expectMended(job, 'held-across-grain');
  });

  it('every problem that a fitting can have is mended by its own offer', () => {
    const place = between(6, 13, 8);
    const tight = [
      {
        id: 'a',
        kind: 'breadboard',
        ends: 'both',
        width: mm(90),
        tenon: mm(40),
        held: 'middle',
        relief: mm(0.5),
        pin: mm(8),
        outermost: mm(300),
        slot: mm(9),
        spare: mm(1),
        drawbore: mm(4),
        flush: 'damp',
      },
      { id: 'b', kind: 'frame', held: 'middle', groove: mm(6), gap: mm(1), least: mm(5) },
      { id: 'd', kind: 'gap', to: 'wall', held: 'near', gap: mm(1), covers: mm(2) },
      { id: 'e', kind: 'against', dimension: 'width', thing: mm(780), clearance: mm(1) },
      { id: 'f', kind: 'rigid', runs: 'across', length: mm(900), from: mm(0) },
      { id: 'g', kind: 'shoulders', ends: 'one', back: mm(3), toSpare: mm(1) },
      { id: 'h', kind: 'waited', days: 4, thenPct: 8, nowPct: 10 },
      {
        id: 'i',
        kind: 'fixing',
        to: 'base',
        by: 'figureEight',
        held: 'near',
        farthest: mm(700),
        bolt: mm(5),
        swing: mm(3),
        spare: mm(1),
      },
    ];
    for (const own of tight) {
      const job = panel(step([own]), place);
      const found = findingsOf(job, run(job)).filter(({ step: at }) => at === 'fit');
      expect(found.length).toBeGreaterThan(0);
      let now: WorkPiece = { ...run(job).steps.at(-1)?.pieces[0] } as WorkPiece;
      let fitting = own as unknown as Fitting;
      for (let turns = 0; turns < 4; turns++) {
        const [problem] = fittingKindOf(fitting).report(fitting, fitPlaceOf(now, job)).problems;
        if (!problem?.fixes[0].change) break;
        fitting = { ...fitting, ...problem.fixes[0].change } as Fitting;
        now = { ...now };
      }
      expect(fittingKindOf(fitting).report(fitting, fitPlaceOf(now, job)).problems).toEqual([]);
    }
  });

  it('a line of metal across the moving width is found among features too, along the grain not', () => {
    const line = (runs: string) =>
      ({
        id: 'cut',
        kind: 'feature',
        inputs: ['panel'],
        output: 'cut',
        edges: 'now',
        features: [
          {
            id: 'line',
            kind: 'inlay',
            of: 'metal',
            side: 'upper',
            u: { from: 'middle', by: mm(0) },
            v: { from: 'middle', by: mm(0) },
            runs,
            length: mm(600),
            width: mm(6),
            depth: mm(4),
            radius: mm(0),
          },
        ],
      }) as unknown as Step;
    const job = panel(line('across'), between(6, 12, 8));
    expect(expectMended(job, 'held-across-grain').numbers.out).toBeGreaterThan(4);
    const along = panel(line('along'), between(6, 12, 8));
    expect(findingsOf(along, run(along)).map(({ code }) => code)).not.toContain('held-across-grain');
  });

  it('a whole that is wanted tells the core that it asks for, and planning again brings it', () => {
    const brief = startingBrief('panel', base.shop);
    const planned = mustFit(brief, base.shop, { name: 'top', use: '' });
    const ends = {
      id: 'a',
      kind: 'breadboard',
      ends: 'both',
      width: mm(90),
      tenon: mm(40),
      held: 'middle',
      relief: mm(20),
      pin: mm(8),
      outermost: mm(100),
      slot: mm(40),
      spare: mm(1),
      whole: mm(900),
      flush: 'fitting',
    };
    const job = mustEdit(planned, {
      do: 'addStep',
      kind: 'fit',
      after: planned.steps.at(-1)?.id ?? '',
      settings: { fittings: [ends] },
    });
    const found = expectMended(job, 'does-not-fit');
    // 900 - 2 x 90 + 2 x 40.
    expect(found.numbers.core).toBe(800);
    expect(found.fixes.map(({ label }) => label).join()).toContain('plan the core');
  });

  it('says that a heated house is assumed where nobody told the place', () => {
    const job = panel(step([]));
    expect(swingOf(job).assumed).toBe(true);
  });
});
