import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { BuildDocument, Step } from '../document';
import { mustEdit } from '../edit';
import { determinant, extents } from '../solid';
import { balanced, build, cut, GLUE, last, lost, size, slot, three } from '../steps/steps.fixture';
import { run } from './run';

describe('what was measured', () => {
  const flatten: Step = {
    id: 'flat',
    kind: 'flatten',
    inputs: ['panel'],
    output: 'done',
    machine: 'planer',
    top: { mm: 2 },
    bottom: { mm: 2 },
  };
  const measured = (dimension: 'length' | 'width' | 'thickness', mm: number, step = 'flat'): BuildDocument =>
    build(three, [GLUE, flatten], { readings: [{ id: 'r', step, dimension, measured: { mm } }] });
  it('replaces the setting that explains it, more or less; the prediction stays beside it', () => {
    for (const mm of [19.5, 22.25]) {
      const step = last(measured('thickness', mm));
      expect(size(step)[2]).toBeCloseTo(mm, 9);
      expect(step.predicted?.[2]).toBeCloseTo(21, 9);
      expect(lost(step).shaving).toBe(Math.round((25 - mm) * 500 * 150));
      balanced(measured('thickness', mm));
    }
  });
  it('is booked where no setting explains it: length off the end, width off both edges', () => {
    const width = last(measured('width', 149));
    expect(size(width)).toEqual([500, 149, 21].map((v) => expect.closeTo(v, 9)));
    const length = last(measured('length', 490));
    expect(size(length)[0]).toBeCloseTo(490, 9);
    expect(lost(length).offcut).toBe(Math.round(10 * 150 * 21));
    balanced(measured('width', 149));
  });
  it('more wood than went in is a finding, with the reading to take back', () => {
    const timeline = run(measured('thickness', 26));
    expect(timeline.problems).toMatchObject([
      { code: 'more-than-went-in', step: 'flat', fixes: [{ edit: { do: 'measure' } }] },
    ]);
    expect(timeline.problems[0].numbers.more).toBeCloseTo(5, 9);
  });
  it('a thinner slice leaves a longer tail; a spoilt one leaves the work', () => {
    const slice: Step = {
      id: 'cut',
      kind: 'slice',
      inputs: ['panel'],
      output: 'slices',
      saw: 'table-full',
      head: { mm: 5 },
      thickness: { mm: 30 },
      count: 5,
    };
    const readings = [{ id: 'r', step: 'cut', dimension: 'length' as const, measured: { mm: 29 } }];
    const step = last(build(three, [GLUE, slice], { readings }));
    expect([step.least[0], step.greatest[0], step.predicted?.[0]]).toEqual(
      [29, 29, 30].map((v) => expect.closeTo(v, 9)),
    );
    const spoilt = build(three, [GLUE, { ...slice, spoilt: ['cut.2', 'cut.5'] }]);
    expect(last(spoilt).pieces.map(({ id }) => id)).toEqual(['cut.1', 'cut.3', 'cut.4']);
    balanced(spoilt);
  });
});

describe('random recipes with oblique cuts and free places', () => {
  it('lose no wood in 1,000 of them, and keep every way back to the log a motion', () => {
    const angle = fc.integer({ min: 20, max: 90 });
    const step = fc.oneof(
      fc.record({
        do: fc.constant('mitre' as const),
        angle,
        size: fc.integer({ min: 12, max: 60 }),
        count: fc.integer({ min: 1, max: 4 }),
      }),
      fc.record({
        do: fc.constant('bevel' as const),
        angle,
        size: fc.integer({ min: 8, max: 40 }),
        count: fc.integer({ min: 1, max: 3 }),
      }),
      fc.record({
        do: fc.constant('ends' as const),
        angle: fc.integer({ min: 45, max: 90 }),
        size: fc.constant(0),
        count: fc.constant(1),
      }),
      fc.record({
        do: fc.constant('place' as const),
        angle: fc.integer({ min: 0, max: 359 }),
        size: fc.integer({ min: 0, max: 200 }),
        count: fc.integer({ min: 0, max: 2 }),
      }),
      fc.record({
        do: fc.constant('trim' as const),
        angle,
        size: fc.integer({ min: 1, max: 6 }),
        count: fc.constant(1),
      }),
    );
    let played = 0;
    fc.assert(
      fc.property(
        fc.array(step, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 250, max: 700 }),
        (recipe, long) => {
          const strips = three.map((s) => ({ ...s, length: { mm: long } }));
          const steps: Step[] = [GLUE];
          let input = 'panel';
          recipe.forEach((part, i) => {
            const output = `o${i}`;
            const base = { id: `step${i}`, inputs: [input], output };
            if (part.do === 'place')
              steps.push({
                ...base,
                kind: 'glue',
                along: 'length',
                // Apart by more than any of them is long, so that none lies in another.
                parts: (run(build(strips, steps)).steps.at(-1)?.pieces ?? []).map(({ id }, k) => ({
                  piece: id,
                  place: {
                    x: { mm: 1600 * k + part.size },
                    y: { mm: part.size },
                    angleDegrees: part.angle,
                    about: (['length', 'width', 'thickness'] as const)[part.count],
                  },
                })),
              });
            else if (part.do === 'trim')
              steps.push({
                ...base,
                kind: 'trim',
                cutter: { saw: 'bandsaw' },
                start: { mm: part.size },
                end: { mm: part.size },
                near: { mm: part.size },
                far: { mm: 0 },
              });
            else
              steps.push(
                cut({
                  ...base,
                  tilt: part.do === 'bevel' ? 'bevel' : 'mitre',
                  angleDegrees: part.angle,
                  thickness: { mm: Math.max(1, part.size) },
                  count: part.count,
                  ...(part.do === 'ends' ? { ends: 'both' as const } : {}),
                }),
              );
            input = output;
          });
          const document = build(strips, steps);
          balanced(document);
          const timeline = run(document);
          played += timeline.steps.length;
          for (const { blank } of timeline.steps.at(-1)?.pieces ?? [])
            for (const cell of blank.cells) expect(determinant(cell.toLog)).toBeCloseTo(1, 9);
        },
      ),
      { seed: 20269, numRuns: 1000 },
    );
    expect(played).toBeGreaterThan(2500);
  }, 120_000);
});

describe('leaves measured one by one', () => {
  // One strip of 24 mm, resawn on a kerf of 3: 10.5 mm each if the saw kept to the middle.
  const job = (leaves: number, ...measured: [number, number][]): BuildDocument => {
    const base = build(
      [slot('s1', 500, 40, 24)],
      [{ id: 'resaw', kind: 'resaw', inputs: ['strips'], output: 'leaves', saw: 'bandsaw', leaves }],
      {
        readings: measured.map(([leaf, mm]) => ({
          id: `r${leaf}`,
          step: 'resaw',
          piece: `s1.${leaf}`,
          dimension: 'thickness' as const,
          measured: { mm },
        })),
      },
    );
    const saws = base.shop.saws.map((saw) => ({ ...saw, kerf: { mm: 3 } }));
    return { ...base, shop: { ...base.shop, saws } };
  };
  const thick = (build: BuildDocument) => last(build).pieces.map(({ blank }) => extents(blank)[2]);
  it('off the middle one leaf’s gain is the other’s loss: 9.7 and 11.3 of 24', () => {
    const off = job(2, [1, 9.7], [2, 11.3]);
    expect(thick(off)).toEqual([expect.closeTo(9.7, 9), expect.closeTo(11.3, 9)]);
    expect(run(off).problems).toEqual([]);
    balanced(off);
  });
  it('a leaf that nobody measured gets what is left, several share it', () => {
    expect(thick(job(2, [1, 9.7]))).toEqual([9.7, 11.3].map((mm) => expect.closeTo(mm, 9)));
    // 24 less two kerfs of 3 are 18; less 5, shared by two.
    expect(thick(job(3, [2, 5]))).toEqual([6.5, 5, 6.5].map((mm) => expect.closeTo(mm, 9)));
    balanced(job(3, [2, 5]));
  });
  it('thinner than the board gives, the rest is booked', () => {
    const thin = job(2, [1, 9], [2, 10]);
    expect(thick(thin)).toEqual([9, 10].map((mm) => expect.closeTo(mm, 9)));
    balanced(thin);
  });
  it('more than went in is refused with the sum, and the leaves stay as planned', () => {
    const much = job(2, [1, 10.7], [2, 11.3]);
    const [finding, ...rest] = run(much).problems;
    expect(rest).toEqual([]);
    expect(finding).toMatchObject({ code: 'more-than-went-in', step: 'resaw' });
    expect(finding.numbers).toMatchObject({ kerfs: 3, thickness: 24 });
    expect(finding.numbers.sum).toBeCloseTo(25, 9);
    expect(finding.numbers.more).toBeCloseTo(1, 9);
    expect(thick(much)).toEqual([10.5, 10.5].map((mm) => expect.closeTo(mm, 9)));
    expect(mustEdit(much, finding.fixes[0].edit).readings).toEqual([]);
    // One leaf that takes all leaves nothing for the other.
    expect(run(job(2, [1, 21])).problems).toMatchObject([{ code: 'more-than-went-in' }]);
  });
  it('one size for all leaves is still held against what they can be', () => {
    const all = job(2);
    const readings = [{ id: 'r', step: 'resaw', dimension: 'thickness' as const, measured: { mm: 10 } }];
    expect(thick({ ...all, readings })).toEqual([10, 10].map((mm) => expect.closeTo(mm, 9)));
    expect(run({ ...all, readings: [{ ...readings[0], measured: { mm: 11 } }] }).problems).toMatchObject([
      { code: 'more-than-went-in' },
    ]);
  });
  it('the reading of one piece is taken back for that piece', () => {
    const joined = build(three, [GLUE], {
      readings: [{ id: 'r', step: 'rip', piece: 's2', dimension: 'width', measured: { mm: 60 } }],
    });
    const [finding] = run(joined).problems;
    expect(finding).toMatchObject({ code: 'more-than-went-in' });
    expect(mustEdit(joined, finding.fixes[0].edit).readings).toEqual([]);
  });
});
