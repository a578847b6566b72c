import { describe, expect, it } from 'vitest';
import type { LaidPart, Step } from '../../document';
import { mustEdit } from '../../edit';
import { run } from '../../run';
import { blankVolume, determinant, extents, grainAngle } from '../../solid';
import { overlapOf } from '../glue/overlap';
import type { GlueStep } from '../glue/step';
import { outlinePlanes } from '../shape/shape';
import { balanced, build, cut, GLUE, last, lost, size, slot, three } from '../steps.fixture';
import { mitreOpens, obliqueRoom } from './oblique';

const KERF = 3.175;

describe('a mitre and its measured corner', () => {
  it('of 93 degrees is cut at 46.5; cut at 45 on a leg 500 wide its line opens (500 / sin 45) tan 3 = 37.06', () => {
    expect(mitreOpens(500, 45, 93).line).toBeCloseTo(707.107, 3);
    expect(mitreOpens(500, 45, 93).opens).toBeCloseTo(37.06, 2);
    // At 91 degrees a line of 20 / sin 45.5 = 28.04 (handbook of the trade, common practice).
    expect(mitreOpens(20, 45.5, 91)).toEqual({ line: expect.closeTo(28.04, 2) as number, opens: 0 });
    const legs = [slot('s1', 900, 250, 25), slot('s2', 900, 250, 25)];
    const mitred = (change: object) =>
      build(legs, [GLUE, cut({ ends: 'end', long: 'near', angleDegrees: 45, ...change })]);
    const [note] = run(mitred({ corner: 93 })).problems;
    expect(note).toMatchObject({
      code: 'mitre-opens',
      numbers: {
        half: 46.5,
        opens: expect.closeTo(37.06, 2) as number,
        line: expect.closeTo(707.107, 3) as number,
      },
    });
    for (const corner of [0, 90]) expect(run(mitred({ corner })).problems).toEqual([]);
    const mended = mustEdit(mitred({ corner: 93 }), note.fixes[0].edit);
    expect(mended.steps.find(({ kind }) => kind === 'oblique')).toMatchObject({ angleDegrees: 46.5 });
    expect(run(mended).problems).toEqual([]);
  });
});

describe('oblique slices', () => {
  it.each([30, 45, 60, 90])('at %d degrees are as wide as set and laid along their cut', (angleDegrees) => {
    const document = build(three, [GLUE, cut({ angleDegrees, thickness: { mm: 30 } })]);
    const step = last(document);
    expect(step.pieces).toHaveLength(3);
    const radians = (angleDegrees * Math.PI) / 180;
    for (const { blank } of step.pieces) {
      const [long, wide, thick] = extents(blank);
      expect(wide).toBeCloseTo(30, 6);
      expect(thick).toBeCloseTo(25, 9);
      expect(long).toBeCloseTo(150 / Math.sin(radians) + 30 / Math.tan(radians), 6);
      // A parallelogram: its volume is its width across the cut times the cut's length.
      expect(blankVolume(blank)).toBeCloseTo((30 * 25 * 150) / Math.sin(radians), 3);
      for (const cell of blank.cells) {
        expect(determinant(cell.toLog)).toBeCloseTo(1, 12);
        expect(grainAngle(cell, [0, 1, 0])).toBeCloseTo(angleDegrees, 6);
      }
    }
    balanced(document);
  });
  it('as many as the room between the corners gives, the last kerf falling in the corner', () => {
    const room = obliqueRoom(500, 150, 45);
    expect(room).toBeCloseTo((500 - 150) / Math.SQRT2, 9);
    const fits = Math.floor((room + KERF) / (40 + KERF));
    const timeline = run(build(three, [GLUE, cut({ count: 20 })]));
    expect(timeline.steps.at(-1)?.pieces).toHaveLength(fits);
    const exactly = (40 + KERF) * 3 - KERF;
    const long = exactly * Math.SQRT2 + 150;
    expect(last(build([slot('s1', long, 150, 25)], [GLUE, cut()])).pieces).toHaveLength(3);
    expect(run(build([slot('s1', long - 0.01, 150, 25)], [GLUE, cut()])).steps.at(-1)?.pieces).toHaveLength(
      2,
    );
  });
  it.each([
    [{ angleDegrees: 3 }, 'bad-angle'],
    [{ angleDegrees: 95 }, 'bad-angle'],
    [{ angleDegrees: Number.NaN }, 'bad-angle'],
    [{ thickness: { mm: 0 } }, 'no-size'],
    [{ count: 0 }, 'bad-count'],
    [{ thickness: { mm: 400 } }, 'no-slice-fits'],
    [{ saw: 'none' }, 'no-such-saw'],
    [{ ends: 'both' as const, angleDegrees: 15 }, 'too-short-to-mitre'],
  ])('%j is answered with %s', (change, code) => {
    expect(run(build(three, [GLUE, cut(change)])).problems).toMatchObject([{ code, severity: 'stop' }]);
  });
  it('rhombus sticks of 60 degrees have four equal sides', () => {
    const side = 30;
    const high = (side * Math.sqrt(3)) / 2;
    const document = build(
      [slot('s1', 300, 160, high)],
      [cut({ inputs: ['strips'], tilt: 'ripBevel', angleDegrees: 60, thickness: { mm: high }, count: 4 })],
    );
    const step = last(document);
    expect(step.pieces).toHaveLength(4);
    for (const { blank } of step.pieces) {
      expect(blankVolume(blank)).toBeCloseTo(side * high * 300, 3);
      expect(extents(blank)[1]).toBeCloseTo(1.5 * side, 6);
    }
    balanced(document);
  });
  it('mitred ends keep the long edge and lose half a square of the short one', () => {
    for (const long of ['near', 'far'] as const) {
      const document = build([slot('s1', 400, 50, 20)], [cut({ inputs: ['strips'], ends: 'both', long })]);
      const step = last(document);
      expect(size(step)[0]).toBeCloseTo(400, 9);
      expect(blankVolume(step.pieces[0].blank)).toBeCloseTo((400 * 50 - 50 * 50) * 20, 3);
      const flush = step.pieces[0].blank.cells[0].vertices.filter(
        (v) => Math.abs(v[0]) < 1e-6 || Math.abs(v[0] - 400) < 1e-6,
      );
      expect(new Set(flush.map((v) => Math.round(v[1])))).toEqual(new Set([long === 'near' ? 0 : 50]));
      balanced(document);
    }
  });
});

describe('resawing and outlines', () => {
  it('leaves are alike, the lowest first, with a kerf between each', () => {
    const resaw: Step = {
      id: 'r',
      kind: 'resaw',
      inputs: ['strips'],
      output: 'leaves',
      saw: 'bandsaw',
      leaves: 3,
    };
    const document = build([slot('s1', 400, 90, 30)], [resaw]);
    const step = last(document);
    expect(step.pieces.map(({ id }) => id)).toEqual(['s1.1', 's1.2', 's1.3']);
    for (const { blank } of step.pieces) expect(extents(blank)[2]).toBeCloseTo((30 - 2 * 1.5875) / 3, 9);
    expect(lost(step).kerf).toBe(Math.round(2 * 1.5875 * 400 * 90));
    balanced(document);
    expect(run(build(three, [{ ...resaw, leaves: 1 }])).problems[0].code).toBe('bad-count');
    expect(run(build(three, [{ ...resaw, leaves: 40 }])).problems[0].code).toBe('leaves-too-thin');
  });
  const shape = (outline: [number, number][], seen: 'face' | 'edge' = 'face'): Step => ({
    id: 'h',
    kind: 'shape',
    inputs: ['strips'],
    output: 'shaped',
    saw: 'bandsaw',
    seen,
    outline: outline.map(([x, y]) => ({ x: { mm: x }, y: { mm: y } })),
  });
  it('an outline keeps its area times the thickness, whichever way round it is drawn', () => {
    const taper: [number, number][] = [
      [0, 0],
      [400, 15],
      [400, 35],
      [0, 50],
    ];
    for (const outline of [taper, taper.toReversed()]) {
      const document = build([slot('s1', 400, 50, 20)], [shape(outline)]);
      expect(blankVolume(last(document).pieces[0].blank)).toBeCloseTo(((50 + 20) / 2) * 400 * 20, 3);
      balanced(document);
    }
    const edge = build(
      [slot('s1', 400, 50, 20)],
      [
        shape(
          [
            [0, 0],
            [400, 0],
            [400, 10],
            [0, 20],
          ],
          'edge',
        ),
      ],
    );
    expect(blankVolume(last(edge).pieces[0].blank)).toBeCloseTo(15 * 400 * 50, 3);
  });
  it('an outline with a hollow, without area or beside the piece is answered', () => {
    expect(
      outlinePlanes(
        [
          { x: 0, y: 0 },
          { x: 10, y: 0 },
          { x: 2, y: 2 },
          { x: 0, y: 10 },
        ],
        'face',
      ),
    ).toBeUndefined();
    const code = (outline: [number, number][]) =>
      run(build([slot('s1', 400, 50, 20)], [shape(outline)])).problems[0]?.code;
    expect(
      code([
        [0, 0],
        [10, 0],
        [20, 0],
      ]),
    ).toBe('outline-not-round');
    expect(
      code([
        [500, 0],
        [600, 0],
        [600, 50],
      ]),
    ).toBe('nothing-left');
  });
});

describe('strips that ask for care', () => {
  const codes = (width: number, length = 500) =>
    run(build([slot('s1', length, width, 25)], [])).problems.map(({ code }) => code);
  it('thin ones carry a caution with the number, kerf-thin ones another, usual ones none', () => {
    expect(codes(2)).toEqual(['kerf-thicker-than-strip']);
    expect(codes(3.175)).toEqual(['thin-strip']);
    expect(codes((3 / 8) * 25.4)).toEqual([]);
    const sawn = build([slot('s1', 500, 3, 25)], []);
    sawn.steps = sawn.steps.map((step) => ({ ...step, saw: 'bandsaw' }) as Step);
    expect(run(sawn).problems).toMatchObject([{ code: 'thin-strip', numbers: { width: 3 } }]);
    expect(run(sawn).problems[0].caution).toMatch(/manual comes first/);
  });
  it('longer than boards are sold', () => {
    expect(codes(50, 4876)).toEqual([]);
    expect(codes(50, 5000)).toEqual(['longer-than-boards']);
  });
});

describe('rows, shifts, blanks and places', () => {
  const six = Array.from({ length: 6 }, (_, i) => slot(`s${i + 1}`, 100, 50, 20));
  const glue = (change: Partial<GlueStep>): GlueStep => ({ ...GLUE, along: 'length', ...change });
  it('rows lie beside one another, the first at the far edge, and every joint is glued', () => {
    const step = last(build(six, [glue({ rows: { counts: [3, 3], across: 'width' } })]));
    expect(size(step)).toEqual([300, 100, 20].map((v) => expect.closeTo(v, 9)));
    expect(step.laid?.map(({ min }) => [Math.round(min[0]), Math.round(min[1])])).toEqual([
      [0, 50],
      [100, 50],
      [200, 50],
      [0, 0],
      [100, 0],
      [200, 0],
    ]);
    expect(step.glue).toMatchObject({ joints: 7 });
    expect(step.glue?.areaMm2).toBeCloseTo(4 * 50 * 20 + 300 * 20, 6);
  });
  it('every other part is shifted, but not the exception; a wrapping shift begins anew', () => {
    const at = (shifts: GlueStep['shifts']) =>
      last(build(six, [glue({ shifts })])).laid?.map(({ min }) => Math.round(min[1]));
    expect(at({ by: { mm: 10 }, every: 2, first: 2, except: [4] })).toEqual([0, 10, 0, 0, 0, 10]);
    expect(at({ by: { mm: 10 }, wrap: { mm: 30 }, every: 1, first: 2, except: [] })).toEqual([
      0, 10, 20, 0, 10, 20,
    ]);
  });
  it('a quarter turn exchanges length and width, and by rows it begins one later in each', () => {
    const step = last(
      build(
        six.map((s) => ({ ...s, length: { mm: 50 } })),
        [
          glue({
            rows: { counts: [2, 2, 2], across: 'width' },
            turns: { turn: 'quarter', every: 2, first: 2, except: [], rowOf: 2 },
          }),
        ],
      ),
    );
    expect(step.laid?.map(({ quarter }) => quarter ?? false)).toEqual([
      false,
      true,
      true,
      false,
      false,
      true,
    ]);
    const quarters = step.pieces[0].blank.cells.filter((cell) => grainAngle(cell, [1, 0, 0]) < 1);
    expect(quarters).toHaveLength(3);
  });
  it('parts are shared out to blanks alike, in order, and said where there are too few', () => {
    const step = last(build(six, [glue({ blanks: 3 })]));
    expect(step.pieces.map(({ id, blank }) => [id, Math.round(extents(blank)[0])])).toEqual([
      ['panel.1', 200],
      ['panel.2', 200],
      ['panel.3', 200],
    ]);
    expect(step.glue?.joints).toBe(3);
    expect(run(build(six, [glue({ blanks: 7 })])).problems[0].code).toBe('too-few-parts');
  });
  it('placed parts lie where they are put, and those that would lie in one another are found', () => {
    const part = (piece: string, x: number, y: number, angleDegrees = 0): LaidPart => ({
      piece,
      place: { x: { mm: x }, y: { mm: y }, angleDegrees },
    });
    const corner = last(
      build(six.slice(0, 2), [glue({ parts: [part('s1', 0, 0), part('s2', 150, 0, 90)] })]),
    );
    expect(size(corner)).toEqual([150, 100, 20].map((v) => expect.closeTo(v, 9)));
    expect(corner.glue?.areaMm2).toBeCloseTo(50 * 20, 6);
    const clash = run(build(six.slice(0, 2), [glue({ parts: [part('s1', 0, 0), part('s2', 60, 10)] })]));
    expect(clash.problems).toMatchObject([{ code: 'parts-overlap', numbers: { first: 1, second: 2 } }]);
    expect(clash.problems[0].numbers.volume).toBeCloseTo(40 * 40 * 20, 3);
    expect(overlapOf([])).toBeUndefined();
  });
  it('an output that two glue-ups take is divided by the parts they name', () => {
    const parts = (...ids: string[]) => ids.map((piece) => ({ piece }));
    const steps: Step[] = [
      { ...glue({ parts: parts('s1', 's4') }), id: 'g1', output: 'one' },
      { ...glue({ parts: parts('s2', 's3', 's5') }), id: 'g2', output: 'two' },
    ];
    const timeline = run(build(six, steps));
    expect(timeline.steps.map(({ greatest }) => Math.round(greatest[0]))).toEqual([100, 200, 300]);
    // The sixth is nobody's: the last that takes the input books it as a spare.
    expect(timeline.problems).toMatchObject([{ code: 'part-not-laid', step: 'g2', numbers: { missing: 1 } }]);
    balanced(build(six, steps));
  });
});
