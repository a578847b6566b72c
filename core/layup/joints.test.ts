import { describe, expect, it } from 'vitest';
import type { BoardStock, BuildDocument, Edit, Step } from '../document';
import { mustEdit } from '../edit';
import { defaultShop, typed } from '../kit';
import { mustFit } from '../plan';
import { outlook, review } from '../review';
import { run } from '../run';
import { build as document, GLUE, slot } from '../steps/steps.fixture';
import { type JointReading, jointReadings, lineAngle } from './joints';
import { layUpOf, propose } from './propose/propose';

const board = (change: Partial<BoardStock> = {}): BoardStock => ({
  id: 'b1',
  label: '1',
  species: 'cherry_black',
  length: { mm: 700 },
  width: { mm: 130 },
  thickness: { mm: 25 },
  grain: 'flat',
  pith: 'below',
  fibre: 'rising',
  sapEdge: 'near',
  ...change,
});

const strip = (id: string, y: number, from = 'b1') => ({
  ...slot(id, 600, 50, 25, 'cherry_black'),
  strip: { board: from, at: { x: 20, y } },
});

/** Two strips of one board, the near one first: its near edge is the board's, and shows sapwood. */
const pair = (boards: BoardStock[] = [board()], ...edits: Edit[]): BuildDocument =>
  edits.reduce(mustEdit, document([strip('s1', 0), strip('s2', 60)], [GLUE], { boards }));

const read = (build: BuildDocument, step = 'glue'): JointReading[] => jointReadings(build, run(build), step);

const turn = (piece: string, how: 'endForEnd' | 'rollOver'): Edit => ({
  do: 'turnPart',
  step: 'glue',
  piece,
  turn: how,
});

describe('what a joint shows', () => {
  it('two strips of one board: said so, with little difference, in the same figure', () => {
    const [joint] = read(pair());
    expect(joint).toMatchObject({
      between: ['s1', 's2'],
      same: 'board',
      rings: 'alike',
      planing: 'agree',
      stepMm: 0,
    });
    expect(joint.difference).toBeLessThan(6);
    expect(joint.at).toBeCloseTo(50, 6);
  });
  it('rolling a strip over alternates the rings and opposes the planing; end for end turns that back', () => {
    const rolled = read(pair(undefined, turn('s2', 'rollOver')))[0];
    expect(rolled).toMatchObject({ rings: 'alternating', planing: 'opposed' });
    const both = read(pair(undefined, turn('s2', 'rollOver'), turn('s2', 'endForEnd')))[0];
    expect(both).toMatchObject({ rings: 'alternating', planing: 'agree' });
  });
  it('sapwood at the joint is told by the board’s own edge and its marked places', () => {
    // s1 lies at the far edge of the lay-up; its near edge, the board’s sapwood edge, meets s2.
    expect(read(pair())[0].sap).toBe('one');
    expect(read(pair(undefined, turn('s1', 'endForEnd')))[0].sap).toBe('none');
    const marked = board({
      sapEdge: 'none',
      faults: [{ id: 'f', kind: 'sapwood', face: 'both', x: 0, y: 100, length: 700, width: 30 }],
    });
    expect(read(pair([marked], turn('s2', 'endForEnd')))[0].sap).toBe('none');
    expect(read(pair([marked]))[0].sap).toBe('one');
    const { sapEdge: _, fibre: _f, ...nobody } = board();
    expect(read(pair([nobody]))[0].sap).toBeUndefined();
    expect(read(pair([nobody]))[0].planing).toBe('unknown');
  });
  it('a step in thickness is measured, woods differ by more than a board from itself', () => {
    const build = document(
      [slot('a', 600, 50, 25, 'maple_sugar'), slot('b', 600, 50, 24, 'walnut_black')],
      [GLUE],
    );
    const [joint] = read(build);
    expect(joint.stepMm).toBeCloseTo(1, 9);
    expect(joint.difference).toBeGreaterThan(25);
    expect(joint.same).toBeUndefined();
  });
  it('strips from no board are told by what was looked at on them', () => {
    const plain = document([slot('a', 600, 50, 25), slot('b', 600, 50, 25)], [GLUE]);
    const looked = [
      { do: 'setSlot', step: 'rip', strip: 'a', change: { fibre: 'rising', sapEdge: 'near' } },
      { do: 'setSlot', step: 'rip', strip: 'b', change: { fibre: 'falling', sapEdge: 'far', set: 'bundle' } },
    ].reduce((build, edit) => mustEdit(build, edit as Edit), plain);
    expect(read(plain)[0]).toMatchObject({ planing: 'unknown' });
    expect(read(looked)[0]).toMatchObject({ planing: 'opposed', sap: 'both' });
    expect(read(mustEdit(looked, turn('a', 'rollOver')))[0]).toMatchObject({ planing: 'agree', sap: 'one' });
  });
  it('leaves of a book match are mirrors: their lines meet at the joint at the same angle, mirrored', () => {
    const shop = defaultShop('match');
    const book = mustFit(
      {
        pattern: 'match',
        length: { aim: 'fixed', value: typed('21') },
        width: { aim: 'fixed', value: typed('13') },
        thickness: { aim: 'fixed', value: typed('5/16') },
        woods: ['walnut_black'],
        module: typed('1 1/4'),
        saw: 'table-full',
        flattenWith: 'planer',
        trimWith: { saw: 'table-full' },
        chequer: false,
        extraSlices: 0,
        sections: 0,
      },
      shop,
      { name: 'book', use: '' },
    );
    const laid = run(book).steps.find(({ id }) => id === 'glue');
    expect(laid?.laid?.map(({ rollOver }) => rollOver)).toEqual([false, true]);
    const [far, near] = laid?.pieces[0].blank.cells ?? [];
    // Both leaves show the faces that lay on each other in the board: the joint is a mirror for the wood.
    expect(Math.abs(far.toLog[2] + near.toLog[2])).toBeLessThan(1e-9);
    expect(Math.abs(far.toLog[8] - near.toLog[8])).toBeLessThan(1e-9);
  });
  it('angles between lines', () => {
    expect([lineAngle(10, -5), lineAngle(85, -85), lineAngle(0, 90), lineAngle(3, 3)]).toEqual([
      15, 10, 90, 0,
    ]);
  });
  it('other steps are not read', () => {
    expect(read(pair(), 'rip')).toEqual([]);
    const slice: Step = {
      id: 'x',
      kind: 'slice',
      inputs: ['panel'],
      output: 'sl',
      saw: 'bandsaw',
      head: { mm: 5 },
      thickness: { mm: 30 },
      count: 3,
    };
    const again: Step = { id: 'g2', kind: 'glue', inputs: ['sl'], output: 'end', along: 'length' };
    expect(read({ ...pair(), steps: [...pair().steps, slice, again] }, 'g2')).toEqual([]);
    expect(outlook(pair(), 'glue').seams).toHaveLength(1);
  });
});

describe('the shop’s practice decides what is pointed out', () => {
  const codes = (build: BuildDocument) => review(build, run(build)).map(({ code }) => code);
  const under = (rings: 'alternate' | 'bestFaces', first: 'planing' | 'figure', ...edits: Edit[]) => {
    const build = pair(undefined, ...edits);
    return codes({ ...build, shop: { ...build.shop, practice: { rings, first } } });
  };
  it('rings alike only where the shop alternates them', () => {
    expect(under('alternate', 'figure')).toContain('rings-alike');
    expect(under('bestFaces', 'figure')).not.toContain('rings-alike');
    expect(under('alternate', 'figure', turn('s2', 'rollOver'))).not.toContain('rings-alike');
  });
  it('opposed planing only where planing goes first', () => {
    expect(under('bestFaces', 'planing', turn('s2', 'rollOver'))).toContain('planing-opposed');
    expect(under('bestFaces', 'figure', turn('s2', 'rollOver'))).not.toContain('planing-opposed');
  });
  it('sapwood beside heartwood wherever somebody looked for it', () => {
    expect(under('bestFaces', 'figure')).toContain('sapwood-meets-heartwood');
  });
});

describe('proposing an order for a real lay-up', () => {
  const woods = [
    'maple_sugar',
    'walnut_black',
    'cherry_black',
    'oak_white',
    'ash_white',
    'wenge',
    'beech_american',
    'mahogany_african',
    'pine_eastern_white',
  ];
  const nine = document(
    woods.map((wood, i) => slot(`s${i}`, 600, 40, 25, wood)),
    [GLUE],
  );
  const last = (build: BuildDocument, purpose: Parameters<typeof propose>[1]) => {
    const layUp = layUpOf(build, run(build), 'glue');
    if (!layUp) throw new Error('no lay-up');
    const said = [...propose(layUp, purpose)];
    const search = propose(layUp, purpose);
    let step = search.next();
    while (!step.done) step = search.next();
    expect(said.length).toBeGreaterThan(0);
    return step.value;
  };
  it('is proven best, cheaper than as laid, and its terms add up to its cost', () => {
    for (const purpose of ['vanish', 'even', 'contrast', 'symmetric'] as const) {
      const { proven, answers, now, bound } = last(nine, purpose);
      expect(proven).toBe(true);
      expect(answers[0].cost).toBeLessThanOrEqual(now + 1e-9);
      expect(bound).toBeCloseTo(answers[0].cost, 9);
      for (const { scores, cost } of answers)
        expect(scores.reduce((sum, { weight, sum: value }) => sum + weight * value, 0)).toBeCloseTo(cost, 9);
    }
  });
  it('an even run goes from dark to light', () => {
    const { answers } = last(nine, 'even');
    expect(answers[0].parts[0].piece).toBe('s5'); // wenge, the darkest by far
    expect(answers[0].parts.slice(-2).map(({ piece }) => piece)).toContain('s0');
  });
  it('locked strips stay where they lie, and stay locked in the answer', () => {
    const locked = [2, 6].reduce(
      (build, i) => mustEdit(build, { do: 'lockPart', step: 'glue', piece: `s${i}` }),
      nine,
    );
    for (const answer of last(locked, 'vanish').answers) {
      expect(answer.parts[2]).toEqual({ piece: 's2', locked: true });
      expect(answer.parts[6]).toEqual({ piece: 's6', locked: true });
      expect(new Set(answer.parts.map(({ piece }) => piece)).size).toBe(9);
    }
  });
  it('answers differ by more than the side of the bench they are seen from', () => {
    const { answers } = last(nine, 'vanish');
    const seen = answers.map(({ parts }) => parts.map(({ piece }) => piece).join());
    const about = answers.map(({ parts }) =>
      parts
        .map(({ piece }) => piece)
        .toReversed()
        .join(),
    );
    for (let i = 1; i < seen.length; i++) expect(about.slice(0, i)).not.toContain(seen[i]);
  });
  it('rings alternate where flips allow it', () => {
    const build = document(
      Array.from({ length: 5 }, (_, i) => ({ ...slot(`s${i}`, 600, 40, 25), grain: 'flat' as const })),
      [GLUE],
    );
    const { answers } = last(build, 'rings');
    const laid = mustEdit(build, { do: 'layParts', step: 'glue', parts: answers[0].parts });
    expect(read(laid).filter(({ rings }) => rings === 'alike')).toEqual([]);
  });
});
