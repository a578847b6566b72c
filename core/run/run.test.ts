import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Brief, BuildDocument, Edit } from '../document';
import { mustEdit } from '../edit';
import { defaultShop, type ShopSnapshot, typed } from '../kit';
import { mustFit } from '../plan';
import { blankVolume, CAUSES, lostTo } from '../solid';
import type { Timeline } from '../steps';
import { INCH, type Length } from '../units';
import { run } from './run';

const CUBIC_INCH = INCH ** 3;

const sum = (timeline: Timeline) =>
  CAUSES.reduce((total, cause) => total + lostTo(timeline.ledger, cause), 0);

const finishedVolume = (timeline: Timeline) => {
  const [l, w, t] = timeline.finished?.greatest ?? [0, 0, 0];
  return l * w * t;
};

const sizeIn = (timeline: Timeline) => timeline.finished?.greatest.map((mm) => mm / INCH);

/** The shop of the worked example: no rounding, no milling of faces, trims planed to the line. */
const exactShop = (): ShopSnapshot => {
  const shop = defaultShop('example');
  shop.settingStep = { mm: 0 };
  shop.allowances = {
    millFace: typed('0'),
    millEdge: typed('1/32'),
    flattenPanel: typed('1/8'),
    flattenBlock: typed('1/8'),
    trimEnd: typed('1/16'),
    trimEdge: typed('1/16'),
    jointEdge: typed('1/16'),
    sliceHead: typed('1/2'),
    sliceTail: typed('1/2'),
  };
  return shop;
};

const fixed = (text: string) => ({ aim: 'fixed' as const, value: typed(text) });

const brief = (change: Partial<Brief> = {}): Brief => ({
  pattern: 'endGrain',
  length: fixed('18'),
  width: fixed('12'),
  thickness: fixed('1 1/2'),
  woods: ['walnut_black', 'maple_sugar'],
  module: typed('1 1/2'),
  saw: 'table-full',
  flattenWith: 'planer',
  trimWith: { machine: 'planer' },
  chequer: true,
  extraSlices: 0,
  sections: 0,
  ...change,
});

const plan = (change: Partial<Brief> = {}, shop = exactShop()) =>
  mustFit(brief(change), shop, { name: 'example', use: '' });

const slots = (build: BuildDocument) => build.assemblies.flatMap((a) => a.slots);

describe('the worked end-grain block', () => {
  const build = plan();
  const timeline = run(build);
  const step = (id: string) =>
    build.steps.find((s) => s.id === id) as never as Record<string, Length & number>;

  it('is planned backwards to all printed digits', () => {
    expect(step('slice').count).toBe(12);
    expect(step('slice').thickness.mm / INCH).toBeCloseTo(1.625, 9);
    expect(slots(build)[0].thickness.mm / INCH).toBeCloseTo(1.6354, 4);
    expect(slots(build)[0].length.mm / INCH).toBeCloseTo(22.125, 9);
    expect(slots(build).map((slot) => slot.width.mm / INCH)).toEqual(
      [1.625, ...Array(6).fill(1.5625), 1.625].map((w) => expect.closeTo(w, 9)),
    );
    const after = (id: string) =>
      timeline.steps.find((s) => s.id === id)?.greatest.map((mm) => mm / INCH) ?? [];
    expect(after('flatten')[2]).toBeCloseTo(1.5104, 4);
    expect(after('glue')[1]).toBeCloseTo(12.125, 9);
  });

  it('run forward gives exactly 18 x 12 x 1 1/2, and its ledger and glue', () => {
    expect(timeline.problems).toEqual([]);
    expect(sizeIn(timeline)).toEqual([18, 12, 1.5].map((v) => expect.closeTo(v, 9)));
    expect(timeline.woodInMm3 / CUBIC_INCH).toBeCloseTo(456.82, 2);
    expect(finishedVolume(timeline) / CUBIC_INCH).toBeCloseTo(324, 6);
    expect(lostTo(timeline.ledger, 'kerf') / CUBIC_INCH).toBeCloseTo(29.76, 2);
    expect((lostTo(timeline.ledger, 'shaving') + lostTo(timeline.ledger, 'dust')) / CUBIC_INCH).toBeCloseTo(
      84.74,
      2,
    );
    expect(lostTo(timeline.ledger, 'offcut') / CUBIC_INCH).toBeCloseTo(18.31, 2);
    expect(timeline.joints.finishedAreaMm2 / INCH ** 2).toBeCloseTo(387, 1);
    expect(timeline.joints.areaMm2 / INCH ** 2).toBeCloseTo(470, 0);
    expect(timeline.joints.count).toBe(7 + 11);
    expect(timeline.joints.bySideMm2['long grain']).toBeCloseTo(timeline.joints.finishedAreaMm2, 6);
    expect(timeline.finished?.pieces[0].blank.cells).toHaveLength(96);
  });

  it('closes its ledger in closed form too', () => {
    const [L, W, T, N, n, k, P, H, h] = [18, 12, 1.5, 12, 8, 0.125, 22.125, 18.125 / 12 + 0.125, 18.125 / 12];
    const shavings =
      2 * (1 / 32) * n * H * P +
      0.125 * 12.125 * P +
      0.125 * (L + 0.125) * 12.125 +
      T * ((L + 0.125) * 12.125 - L * W);
    expect(lostTo(timeline.ledger, 'kerf') / CUBIC_INCH).toBeCloseTo(k * (N + 1) * 12.125 * h, 6);
    expect((lostTo(timeline.ledger, 'shaving') + lostTo(timeline.ledger, 'dust')) / CUBIC_INCH).toBeCloseTo(
      shavings,
      6,
    );
  });
});

describe('every planned build, run forward, is exactly what was asked', () => {
  const aim = fc.constantFrom('fixed' as const, 'atLeast' as const, 'atMost' as const, 'free' as const);
  const metricShop = (): ShopSnapshot => ({
    ...defaultShop('metric'),
    settingStep: { mm: 0.1 },
    display: { system: 'mm', fraction: 0 },
  });
  it('panels and blocks, rounded to the shop’s step, in both systems', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('panel' as const, 'endGrain' as const),
        fc.boolean(),
        fc.integer({ min: 320, max: 900 }),
        fc.integer({ min: 180, max: 700 }),
        fc.integer({ min: 18, max: 60 }),
        fc.integer({ min: 28, max: 90 }),
        aim,
        aim,
        (pattern, metric, l, w, t, m, aimL, aimW) => {
          const value = (mm: number): Length =>
            metric ? { mm } : { mm: (Math.round((mm / INCH) * 8) / 8) * INCH };
          const build = plan(
            {
              pattern,
              length: { aim: aimL, value: value(l) },
              width: { aim: aimW, value: value(w) },
              thickness: { aim: 'fixed', value: value(t) },
              module: value(m),
              trimWith: { saw: 'table-full' },
            },
            metric ? metricShop() : defaultShop('inch'),
          );
          const timeline = run(build);
          expect(timeline.problems.filter((p) => p.severity === 'stop')).toEqual([]);
          const got = timeline.finished?.greatest ?? [0, 0, 0];
          const check = (a: typeof aimL, asked: number, size: number) => {
            if (a === 'fixed') expect(size).toBeCloseTo(asked, 6);
            if (a === 'atLeast') expect(size).toBeGreaterThanOrEqual(asked - 1e-6);
            if (a === 'atMost' && asked >= 2 * value(m).mm) expect(size).toBeLessThanOrEqual(asked + 1e-6);
          };
          check(aimL, value(l).mm, got[0]);
          check(aimW, value(w).mm, got[1]);
          expect(got[2]).toBeCloseTo(value(t).mm, 6);
          expect(timeline.finished?.least[0]).toBeCloseTo(got[0], 6);
          const total = finishedVolume(timeline) + sum(timeline) + timeline.leftOverMm3;
          expect(Math.abs(total - timeline.woodInMm3) / timeline.woodInMm3).toBeLessThan(1e-9);
          for (const step of build.steps)
            if (step.kind === 'rip') {
              const stepMm = build.shop.settingStep.mm;
              for (const slot of build.assemblies.flatMap((a) => a.slots))
                expect(Math.abs(slot.width.mm / stepMm - Math.round(slot.width.mm / stepMm))).toBeLessThan(
                  1e-5,
                );
            }
        },
      ),
      { numRuns: 250, seed: 5 },
    );
  });
  it('a wide panel is glued as sections that the planer takes', () => {
    const build = plan(
      { pattern: 'panel', length: fixed('40'), width: fixed('34'), module: typed('3') },
      defaultShop('s'),
    );
    const sections = run(build).steps.filter((s) => s.kind === 'flatten' && s.id !== 'flatten-panel');
    expect(sections).toHaveLength(3);
    for (const section of sections) expect(section.greatest[1]).toBeLessThanOrEqual(13 * INCH);
    expect(sizeIn(run(build))).toEqual([40, 34, 1.5].map((v) => expect.closeTo(v, 9)));
  });
  it('says why a brief cannot be met', () => {
    expect(() => plan({ woods: [] })).toThrow('at least one wood');
    expect(() => plan({ length: fixed('999'), module: typed('1/8') })).toThrow(/7992 strips or slices/);
    expect(() => plan({ thickness: { aim: 'fixed', value: { mm: 0 } } })).toThrow('more than zero');
  });
});

describe('tolerances', () => {
  const threeStrips = (fence: 'shared' | 'separate') => {
    const shop = exactShop();
    shop.allowances.millEdge = { mm: 0 };
    const build = plan(
      { pattern: 'panel', width: fixed('9'), module: typed('3'), length: fixed('20'), thickness: fixed('1') },
      shop,
    );
    return run(
      mustEdit(mustEdit(build, { do: 'setStep', step: 'rip', change: { fence } }), {
        do: 'setAllSlots',
        step: 'rip',
        change: { width: typed('3') },
      }),
    );
  };
  const width = (timeline: Timeline) =>
    timeline.steps.find((s) => s.kind === 'glue')?.tolerance[1] ?? { likelyMm: 0, worstMm: 0 };
  const one = defaultShop('x').saws[0].setting;

  it('three strips ripped at one fence: three times the error of one', () => {
    expect(width(threeStrips('shared')).likelyMm).toBeCloseTo(3 * one.likely.mm, 9);
    expect(width(threeStrips('shared')).worstMm).toBeCloseTo(3 * one.worst.mm, 9);
  });
  it('three at separate settings: in quadrature, and three times at the worst', () => {
    expect(width(threeStrips('separate')).likelyMm).toBeCloseTo(Math.sqrt(3) * one.likely.mm, 9);
    expect(width(threeStrips('separate')).worstMm).toBeCloseTo(3 * one.worst.mm, 9);
  });
  it('a row height set once is shared by every row; a trim sets the size anew', () => {
    const timeline = run(plan());
    const planer = defaultShop('x').machines.find((m) => m.id === 'planer')?.setting;
    const block = timeline.steps.find((s) => s.id === 'glue-block');
    expect(block?.tolerance[0].likelyMm).toBeCloseTo(12 * (planer?.likely.mm ?? 0), 9);
    expect(timeline.finished?.tolerance[0].likelyMm).toBeCloseTo(planer?.likely.mm ?? 0, 9);
  });
});

describe('edits', () => {
  const build = plan();
  const edits: Edit[] = [
    { do: 'moveStrip', step: 'glue', from: 0, to: 5 },
    { do: 'turnPart', step: 'glue', piece: 'strip-2', turn: 'endForEnd' },
    { do: 'turnPart', step: 'glue', piece: 'strip-3', turn: 'rollOver' },
    { do: 'duplicateStrip', step: 'glue', strip: 'strip-4' },
    { do: 'removeStrip', step: 'glue', strip: 'strip-1' },
    { do: 'setSlot', step: 'rip', strip: 'strip-5', change: { species: 'cherry_black', width: typed('2') } },
    { do: 'flipSlice', step: 'glue-block', part: 4 },
    { do: 'setStep', step: 'slice', change: { count: 9 } },
    { do: 'useSaw', step: 'slice', saw: 'bandsaw' },
    { do: 'lengthenStrips', step: 'slice', byMm: 10 },
    { do: 'rename', name: 'other' },
  ];
  it('never lose wood, in any order, and never touch the build they were made on', () => {
    const before = JSON.stringify(build);
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...edits), { maxLength: 8 }), (list) => {
        const timeline = run(list.reduce(mustEdit, build));
        if (!timeline.finished) return;
        const kept = timeline.finished.pieces.reduce((total, { blank }) => total + blankVolume(blank), 0);
        const accounted = kept + sum(timeline) + timeline.leftOverMm3;
        expect(Math.abs(accounted - timeline.woodInMm3) / timeline.woodInMm3).toBeLessThan(1e-9);
      }),
      { seed: 20270, numRuns: 60 },
    );
    expect(JSON.stringify(build)).toBe(before);
  });
  it('keep the rule when a slice is turned by hand, and take the exception back', () => {
    const once = mustEdit(build, { do: 'flipSlice', step: 'glue-block', part: 4 });
    const glue = once.steps.find((s) => s.id === 'glue-block');
    expect(glue).toMatchObject({ turns: { every: 2, first: 2, except: [4] } });
    expect(mustEdit(once, { do: 'flipSlice', step: 'glue-block', part: 4 })).toEqual(build);
    const turned = run(once)
      .steps.find((s) => s.id === 'glue-block')
      ?.laid?.map((part) => part.endForEnd);
    expect(turned).toEqual([false, true, false, false, false, true, false, true, false, true, false, true]);
  });
  it('a duplicate lies beside its original and a moved strip where it was put', () => {
    const order = (b: BuildDocument) =>
      run(b)
        .steps.find((s) => s.id === 'glue')
        ?.laid?.map((part) => part.piece);
    expect(
      order(mustEdit(build, { do: 'duplicateStrip', step: 'glue', strip: 'strip-2' }))?.slice(0, 4),
    ).toEqual(['strip-1', 'strip-2', 'strip-9', 'strip-3']);
    expect(order(mustEdit(build, { do: 'moveStrip', step: 'glue', from: 0, to: 2 }))?.slice(0, 3)).toEqual([
      'strip-2',
      'strip-3',
      'strip-1',
    ]);
  });
});

describe('builds that cannot be carried out', () => {
  const stopOf = (build: BuildDocument) => run(build).problems.find((p) => p.severity === 'stop');
  const change = (edit: Edit) => mustEdit(plan(), edit);
  it.each([
    [
      'no-size',
      change({ do: 'setSlot', step: 'rip', strip: 'strip-3', change: { width: { mm: 0 } } }),
      'rip',
    ],
    [
      'no-size',
      change({ do: 'setSlot', step: 'rip', strip: 'strip-3', change: { length: { mm: -4 } } }),
      'rip',
    ],
    [
      'no-size',
      change({ do: 'setSlot', step: 'rip', strip: 'strip-3', change: { length: { mm: Number.NaN } } }),
      'rip',
    ],
    ['nothing-left', change({ do: 'setStep', step: 'flatten', change: { top: typed('2') } }), 'flatten'],
    ['no-slice-fits', change({ do: 'setStep', step: 'slice', change: { thickness: typed('40') } }), 'slice'],
    ['bad-count', change({ do: 'setStep', step: 'slice', change: { count: 1.5 } }), 'slice'],
    ['no-such-saw', change({ do: 'useSaw', step: 'slice', saw: 'gone' }), 'slice'],
    ['no-such-input', change({ do: 'setStep', step: 'slice', change: { inputs: ['nothing'] } }), 'slice'],
    ['bad-amount', change({ do: 'setStep', step: 'trim', change: { start: { mm: -3 } } }), 'trim'],
  ])('%s stops at its step and keeps the timeline before it', (code, build, step) => {
    expect(stopOf(build)).toMatchObject({ code, step });
    expect(run(build).steps).toHaveLength(build.steps.findIndex((s) => s.id === step));
  });
  it('a strip larger than its board says by how much', () => {
    const base = plan();
    base.boards = [
      {
        id: 'b7',
        label: '7',
        species: 'walnut_black',
        length: typed('30'),
        width: typed('3'),
        thickness: typed('2'),
      },
    ];
    const one = mustEdit(base, {
      do: 'setSlot',
      step: 'rip',
      strip: 'strip-1',
      change: { strip: { board: 'b7' } },
    });
    expect(stopOf(one)).toBeUndefined();
    const two = mustEdit(one, {
      do: 'setSlot',
      step: 'rip',
      strip: 'strip-2',
      change: { strip: { board: 'b7' } },
    });
    // 3 - (1 5/8 + 1/8) = 1 1/4 left, 1 9/16 needed: the two-strips-need-a-kerf rule
    expect(stopOf(two)?.numbers.short).toBeCloseTo(0.3125 * INCH, 9);
    const fixedAgain = mustEdit(two, stopOf(two)?.fixes[0].edit as Edit);
    expect(stopOf(fixedAgain)).toBeUndefined();
    const timeline = run(one);
    expect(
      Math.abs(finishedVolume(timeline) + sum(timeline) - timeline.woodInMm3) / timeline.woodInMm3,
    ).toBeLessThan(1e-9);
  });
});
