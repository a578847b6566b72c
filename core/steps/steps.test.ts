import { describe, expect, it } from 'vitest';
import type { Step } from '../document';
import { typed } from '../kit';
import { run } from '../run';
import { lostTo } from '../solid';
import { INCH } from '../units';
import { build, closes, GLUE, last, lost, shop, size, slot, three } from './steps.fixture';
import { toleranceOf } from './tolerance';

describe('rip', () => {
  it('gives each strip its section, and counts wood not yet chosen as wood in', () => {
    const timeline = run(build(three, []));
    expect(timeline.steps[0].pieces.map(({ id }) => id)).toEqual(['s1', 's2', 's3']);
    expect(timeline.woodInMm3).toBeCloseTo(500 * 150 * 25, 3);
    expect([timeline.steps[0].least[1], timeline.steps[0].greatest[1]]).toEqual([40, 60]);
  });
  it('takes strips from a board one after the other, books kerf and offcut, and lets figure run on', () => {
    const boards = [
      {
        id: 'b1',
        label: '1',
        species: 'oak_white',
        length: { mm: 600 },
        width: { mm: 120 },
        thickness: { mm: 30 },
      },
    ];
    const fromBoard = three.slice(0, 2).map((s) => ({ ...s, species: 'oak_white', strip: { board: 'b1' } }));
    const document = build(fromBoard, [], { boards });
    const timeline = run(document);
    expect(timeline.woodInMm3).toBeCloseTo(600 * 120 * 30, 3);
    const [a, b] = timeline.steps[0].pieces.map(({ blank }) => blank.cells[0]);
    expect(a.origin).toEqual(b.origin);
    // The second strip begins where the first and one kerf end: the same log, 40 + 3.175 mm further across.
    const logAt = (cell: typeof a) => [cell.toLog[3], cell.toLog[7], cell.toLog[11]];
    const apart = Math.hypot(...logAt(a).map((v, i) => v - logAt(b)[i]));
    expect(apart).toBeCloseTo(40 + 3.175, 9);
    expect(lostTo(timeline.ledger, 'kerf')).toBeGreaterThan(600 * 3.175 * 30 * 2);
    closes(document);
  });
  it('draws two strips of one seed alike and of other seeds not', () => {
    const seeds = build(
      [
        { ...three[0], strip: { seed: 7 } },
        { ...three[0], id: 'x', strip: { seed: 7 } },
        { ...three[0], id: 'y', strip: { seed: 8 } },
      ],
      [],
    );
    const [a, b, c] = run(seeds).steps[0].pieces.map(({ blank }) => blank.cells[0].toLog);
    expect(a).toEqual(b);
    expect(a).not.toEqual(c);
  });
  it('puts the pith below a flat-sawn board and beside a quartersawn one', () => {
    const rays = (grain: 'flat' | 'quarter') => {
      const [piece] = run(build([{ ...three[0], grain }], [])).steps[0].pieces;
      const m = piece.blank.cells[0].toLog;
      const centre = [m[1] * 20 + m[2] * 12.5 + m[3], m[5] * 20 + m[6] * 12.5 + m[7]];
      const r = Math.hypot(...centre);
      // How far the face's normal points along the radius: 1 for flat-sawn, 0 for quartersawn.
      return Math.abs((m[2] * centre[0] + m[6] * centre[1]) / r);
    };
    expect(rays('flat')).toBeGreaterThan(0.95);
    expect(rays('quarter')).toBeLessThan(0.3);
  });
});

describe('mill, flatten, joint', () => {
  it('milling takes both faces and both edges of every strip, as shavings', () => {
    const step = last(
      build(three, [
        {
          id: 'mill',
          kind: 'mill',
          inputs: ['strips'],
          output: 'milled',
          machine: 'planer',
          face: { mm: 1 },
          edge: { mm: 0.5 },
        },
      ]),
    );
    expect([step.least[1], step.greatest[1], step.greatest[2]]).toEqual(
      [39, 59, 23].map((v) => expect.closeTo(v, 9)),
    );
    expect(lost(step)).toMatchObject({ kerf: 0, offcut: 0, dust: 0, shaving: expect.any(Number) });
  });
  it('a drum sander makes dust, a planer shavings, and either sets the thickness anew', () => {
    const flat = (machine: string) =>
      last(
        build(three, [
          GLUE,
          {
            id: 'f',
            kind: 'flatten',
            inputs: ['panel'],
            output: 'flat',
            machine,
            top: { mm: 1.5 },
            bottom: { mm: 0.5 },
          },
        ]),
      );
    expect(lost(flat('drum'))).toEqual({ kerf: 0, offcut: 0, shaving: 0, dust: 500 * 150 * 2 });
    expect(lost(flat('planer'))).toEqual({ kerf: 0, offcut: 0, dust: 0, shaving: 500 * 150 * 2 });
    expect(flat('planer').tolerance[2].likelyMm).toBeCloseTo(0.005 * INCH, 9);
    expect(flat('hand').tolerance[2].likelyMm).toBeCloseTo(0.015 * INCH, 9);
  });
  it('flattening by nothing leaves size and error as they were', () => {
    const before = last(build(three, [GLUE]));
    const after = last(
      build(three, [
        GLUE,
        {
          id: 'f',
          kind: 'flatten',
          inputs: ['panel'],
          output: 'flat',
          machine: 'planer',
          top: { mm: 0 },
          bottom: { mm: 0 },
        },
      ]),
    );
    expect(size(after)).toEqual(size(before));
    expect(after.tolerance[2]).toEqual(before.tolerance[2]);
  });
  it('jointing adds its error once for each edge taken', () => {
    const jointed = (near: number, far: number) =>
      last(
        build(three, [
          GLUE,
          {
            id: 'j',
            kind: 'joint',
            inputs: ['panel'],
            output: 'jointed',
            machine: 'jointer',
            near: { mm: near },
            far: { mm: far },
          },
        ]),
      );
    expect(size(jointed(1, 2))[1]).toBeCloseTo(147, 9);
    const [none, one, two] = [jointed(0, 0), jointed(1, 0), jointed(1, 1)].map(
      (step) => step.tolerance[1].worstMm,
    );
    expect(one - none).toBeCloseTo(0.015 * INCH, 9);
    expect(two - none).toBeCloseTo(2 * 0.015 * INCH, 9);
  });
});

describe('glue', () => {
  it('lays the first part at the far edge, the others towards the maker, starts flush', () => {
    const { laid } = last(build(three, [GLUE]));
    expect(laid?.map(({ piece, min, max }) => [piece, Math.round(min[1]), Math.round(max[1])])).toEqual([
      ['s1', 110, 150],
      ['s2', 60, 110],
      ['s3', 0, 60],
    ]);
  });
  it('follows the order and the turns it is given, and gives the joints and their area', () => {
    const parts = [{ piece: 's3' }, { piece: 's1', endForEnd: true }, { piece: 's2', rollOver: true }];
    const step = last(build(three, [{ ...GLUE, parts }]));
    expect(step.laid?.map(({ piece, endForEnd, rollOver }) => [piece, endForEnd, rollOver])).toEqual([
      ['s3', false, false],
      ['s1', true, false],
      ['s2', false, true],
    ]);
    expect(step.glue).toEqual({ joints: 2, areaMm2: expect.closeTo(2 * 500 * 25, 6) });
  });
  it('counts only the area that touches where parts differ in size', () => {
    const uneven = [slot('s1', 500, 40, 25), slot('s2', 300, 40, 20)];
    const step = last(build(uneven, [GLUE]));
    expect(step.glue?.areaMm2).toBeCloseTo(300 * 20, 6);
    expect(size(step)).toEqual([500, 80, 25].map((v) => expect.closeTo(v, 9)));
  });
  it('glues along the thickness too', () => {
    expect(
      size(last(build(three.slice(0, 1).concat(slot('x', 500, 40, 15)), [{ ...GLUE, along: 'thickness' }]))),
    ).toEqual([500, 40, 40].map((v) => expect.closeTo(v, 9)));
  });
  it('a turned strip shows the same wood the other way round', () => {
    const straight = last(build(three, [GLUE])).pieces[0].blank.cells;
    const turned = last(
      build(three, [
        { ...GLUE, parts: [{ piece: 's1', endForEnd: true }, { piece: 's2' }, { piece: 's3' }] },
      ]),
    ).pieces[0].blank.cells;
    const grain = (cells: typeof straight, id: string) => cells.find((cell) => cell.id === id)?.toLog[8];
    expect(grain(turned, 's1')).toBe(-(grain(straight, 's1') ?? 0));
    expect(grain(turned, 's2')).toBe(grain(straight, 's2'));
  });
  it('books parts that are not laid as spares, so that the ledger still closes', () => {
    const document = build(three, [{ ...GLUE, parts: [{ piece: 's1' }, { piece: 's2' }] }]);
    const timeline = run(document);
    expect(timeline.problems).toMatchObject([{ code: 'part-not-laid', numbers: { missing: 1, parts: 3 } }]);
    expect(lostTo(timeline.ledger, 'offcut')).toBeCloseTo(500 * 60 * 25, 6);
    closes(document);
  });
});

describe('the graph', () => {
  it('refuses an output used twice or made by nobody, and keeps what came before', () => {
    const twice = run(build(three, [GLUE, { ...GLUE, id: 'again', output: 'other' }]));
    expect(twice.problems).toMatchObject([{ code: 'used-twice', step: 'again' }]);
    expect(twice.steps).toHaveLength(2);
    expect(run(build(three, [{ ...GLUE, inputs: ['nothing'] }])).problems).toMatchObject([
      { code: 'no-such-input' },
    ]);
    expect(run(build(three, [{ ...GLUE, inputs: [] }])).problems).toMatchObject([{ code: 'no-input' }]);
    expect(run(build([], [])).problems).toMatchObject([
      { code: 'no-strips', fixes: [{ label: 'Add a strip' }] },
    ]);
  });
  it('a step that is not computed yet passes pieces through and is said', () => {
    const timeline = run(
      build(three, [
        GLUE,
        { id: 'h', kind: 'shape', inputs: ['panel'], output: 'holed', settings: { holes: 4 } },
      ]),
    );
    expect(timeline.problems).toMatchObject([{ code: 'not-run-yet', step: 'h', severity: 'note' }]);
    expect(timeline.steps[2].greatest).toEqual(timeline.steps[1].greatest);
  });
  it('goes on after any step that passes pieces through: they are that step’s own, and nothing is lost or doubled', () => {
    const through: Step[] = [
      { id: 'x', kind: 'rest', inputs: ['panel'], output: 'x', hours: 24 },
      { id: 'x', kind: 'finish', inputs: ['panel'], output: 'x' },
      { id: 'x', kind: 'surface', inputs: ['panel'], output: 'x' },
      { id: 'x', kind: 'outside', inputs: ['panel'], output: 'x' },
      { id: 'x', kind: 'shape', inputs: ['panel'], output: 'x' },
    ];
    for (const step of through) {
      const after: Step = {
        id: 'flat',
        kind: 'flatten',
        inputs: ['x'],
        output: 'flat',
        machine: shop.machines[0].id,
        top: { mm: 1 },
        bottom: { mm: 1 },
      };
      const document = build(three, [GLUE, step, after]);
      const timeline = run(document);
      expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
      expect(timeline.steps.at(-1)?.greatest[2]).toBeCloseTo(23, 9);
      expect(timeline.leftOverMm3).toBe(0);
      closes(document);
      // What the step was given is used up: nothing else can take it.
      const twice = run(build(three, [GLUE, step, { ...after, inputs: ['panel'] }]));
      expect(twice.problems.at(-1)?.code).toBe('used-twice');
    }
  });
  it('wood that no step used any more is left over, not lost', () => {
    const two = build(three, [GLUE], {
      targets: [
        {
          id: 't',
          purpose: '',
          quantity: 1,
          output: 'strips',
          length: { aim: 'free' },
          width: { aim: 'free' },
          thickness: { aim: 'free' },
        },
      ],
    });
    expect(run(two).leftOverMm3).toBeCloseTo(500 * 150 * 25, 3);
  });
  it('repeats and further targets are kept and said', () => {
    const more = build(three, [GLUE], {
      readings: [{ id: 'r', step: 'glue', dimension: 'width', measured: typed('5') }],
    });
    more.assemblies[0].repeat = 3;
    const codes = run(more).problems.map(({ message }) => message.join(''));
    expect(codes.join(' ')).toContain('3 times');
  });
  it('weighs pieces by their woods', () => {
    const maple = last(build([slot('s', 1000, 100, 10)], []));
    expect(maple.massKg).toBeCloseTo(0.001 * 1000 * 0.63 * 1.08, 2); // specific gravity 0.63 at 12 %, Wood Handbook Table 5-3, from memory
  });
  it('is pure: the same build twice gives the same timeline', () => {
    const document = build(three, [GLUE]);
    expect(JSON.stringify(run(document))).toBe(JSON.stringify(run(structuredClone(document))));
  });
});

describe('errors of sums', () => {
  it('a source that is not in the book counts nothing, weights count by size', () => {
    const sources = new Map([
      ['a', { id: 'a', label: '', likelyMm: 0.1, worstMm: 0.3, basis: '' }],
      ['b', { id: 'b', label: '', likelyMm: 0.2, worstMm: 0.4, basis: '' }],
    ]);
    expect(toleranceOf({ a: 3, b: -2, gone: 5 }, sources)).toEqual({
      likelyMm: expect.closeTo(Math.hypot(0.3, 0.4), 12),
      worstMm: expect.closeTo(1.7, 12),
    });
    expect(toleranceOf({}, sources)).toEqual({ likelyMm: 0, worstMm: 0 });
  });
});
