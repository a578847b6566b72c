import { describe, expect, it } from 'vitest';
import { type BoardStock, type Goal, GOALS } from '../document';
import { labDifference, labOfColour } from '../wood';
import { board, dice, problem, strip, twoStage } from './cases.fixture';
import { layAnswer, layBoard, totalsOf } from './layout';
import { packBoard, type PackedSection } from './pack';
import { prepare, type Problem } from './problem';
import { eachOffcut, isReusable, readBoard, scoringOf } from './score';
import { EFFORT, solve, solveNow } from './solve';

const volume = (b: BoardStock) => b.length.mm * b.width.mm * b.thickness.mm;
const all = (p: Problem) => p.boards.reduce((sum, b) => sum + volume(b), 0);

describe('what no plan can beat', () => {
  const eight = Array.from({ length: 8 }, (_, i) => strip(`s${i}`, 500, 100));
  const still = { crosscutKerf: 0, ripKerf: 0 };
  const first = (p: Problem) => {
    const { done, value } = solve(p, 400).next();
    return done ? value : value.best;
  };
  it('strips that fill their board to the last millimetre are proven at once, and one millimetre more is not', () => {
    expect(first(problem(eight, [board('full', 1000, 400)], still))).toMatchObject({
      missing: [],
      proven: true,
    });
    expect(first(problem(eight, [board('longer', 1001, 400)], still)).proven).toBe(false);
  });
  it('a thinner board that gives none of them is no reason to hope for less wood', () => {
    const boards = [board('thin', 3000, 400, 12), board('full', 1000, 400)];
    expect(first(problem(eight, boards, still))).toMatchObject({ missing: [], proven: true });
  });
  it('strips that no board gives are missing in every plan', () => {
    const p = problem([...eight, strip('thick', 500, 100, 60)], [board('full', 1000, 400)], still);
    expect(first(p)).toMatchObject({ missing: ['thick'], proven: true });
    expect(first(problem([strip('thick', 500, 100, 60)], [board('full', 1000, 400)], still))).toMatchObject({
      missing: ['thick'],
      proven: true,
    });
  });
  it('what is proven is never beaten by looking longer', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const p = twoStage(seed, 9);
      const quick = solveNow(p, 60);
      if (quick.proven) expect(solveNow(p, 4000).score).toBeGreaterThan(quick.score * (1 - 1e-9));
    }
  });
});

describe('the score the search works by', () => {
  it('of least waste is wood used less offcuts at their worth, as the layout counts them rectangle by rectangle', () => {
    for (let seed = 1; seed <= 20; seed++)
      for (const offcutWorth of [0, 0.6, 1]) {
        const plain = twoStage(seed, 12);
        const p = { ...plain, rules: { ...plain.rules, offcutWorth } };
        const answer = solveNow(p, 600);
        const { used, reusable, boards } = totalsOf(layAnswer(p, answer));
        const mean = all(p) / p.boards.length;
        const missing = answer.missing.length * (4 * all(p) + mean);
        expect(answer.score / (used - offcutWorth * reusable + 1e-4 * mean * boards + missing)).toBeCloseTo(
          1,
          9,
        );
      }
  });
  it('of fewest boards never trades a board for any amount of waste', () => {
    const wide = board('wide', 2000, 400);
    const tight = ['t1', 't2'].map((id) => board(id, 500, 101));
    const p = problem([strip('a', 500, 100), strip('b', 500, 100)], [wide, ...tight], {}, 'fewestBoards');
    expect(new Set(solveNow(p, 500).places.map((place) => place.board))).toEqual(new Set(['wide']));
    const used = new Set(
      solveNow({ ...p, goal: 'leastWaste', rules: { ...p.rules, offcutWorth: 0 } }, 500).places.map(
        (place) => place.board,
      ),
    );
    expect(used).toEqual(new Set(['t1', 't2']));
  });
  it('places a strip before it saves anything, whatever the goal', () => {
    for (const goal of GOALS) {
      const p = problem(
        [strip('a', 500, 100), strip('b', 400, 90)],
        [board('x', 520, 110), board('y', 3000, 600)],
        {},
        goal,
      );
      expect(solveNow(p, 500).missing, goal).toEqual([]);
    }
  });
  it('of the cheapest counts only the share of a board that is used up', () => {
    const priced = (minor: number) => ({ price: { minor, currency: 'EUR', per: 'board' as const } });
    // Half of the long board can be kept, so it costs half its price.
    const p = problem(
      [strip('a', 995, 100)],
      [board('long', 2001, 100, 25, priced(1000)), board('short', 1000, 100, 25, priced(600))],
      {},
      'cheapest',
    );
    expect(solveNow(p, 300).places[0].board).toBe('long');
    const dearer = { ...p, boards: [board('long', 2001, 100, 25, priced(1400)), p.boards[1]] };
    expect(solveNow(dearer, 300).places[0].board).toBe('short');
  });
  it('of colour is the strips’ volume times their board’s distance from the mean', () => {
    const colours = ['#c8a37c', '#a98058'];
    const p = problem(
      [strip('a', 500, 100), strip('b', 500, 100)],
      colours.map((colour, i) => board(`b${i}`, 505, 105, 25, { colour })),
      {},
      'colour',
    );
    const { boards } = prepare(p);
    const reading = { used: true, strips: 500 * 100 * 25, reusable: 0 };
    // Wood itself counts a hundredth there, so that colour goes first; a board more still counts its ten-thousandth.
    const volumes = boards.map(({ volume: own }) => own);
    const meanVolume = volumes.reduce((sum, own) => sum + own, 0) / volumes.length;
    expect(scoringOf('colour', boards, p.rules).board(boards[0], reading)).toBeCloseTo(
      0.01 * volumes[0] + 1e-4 * meanVolume,
      6,
    );
    const [x, y] = colours.map((c) => labOfColour(c) as readonly [number, number, number]);
    const mean = [0, 1, 2].map((k) => (x[k] + y[k]) / 2);
    const spread = scoringOf('colour', boards, p.rules).together([reading, reading]);
    expect(spread / (0.2 * reading.strips * (labDifference(x, mean) + labDifference(y, mean)))).toBeCloseTo(
      1,
      9,
    );
    expect(scoringOf('colour', boards, p.rules).together([reading, { ...reading, strips: 0 }])).toBe(0);
    expect(labOfColour('brown')).toBeUndefined();
  });
  it('is what how-it-works says of each goal: wood less what is kept, money, offcuts at a twentieth, wide boards dearer', () => {
    const price = { minor: 4000, currency: 'EUR', per: 'board' as const };
    const p = problem(
      [],
      [
        board('a', 1000, 100, 20, { price }),
        board('b', 3000, 200, 20, { sold: 'offcut', price: { ...price, minor: 1000 } }),
      ],
      { offcutWorth: 0.5 },
    );
    const { boards } = prepare(p);
    const volumes = [1000 * 100 * 20, 3000 * 200 * 20];
    const all = volumes[0] + volumes[1];
    const one = 1e-4 * (all / 2);
    const reading = { used: true, strips: 1e6, reusable: 4e5 };
    const wood = volumes.map((own) => own - 0.5 * 4e5);
    const said: Record<Goal, readonly [number, number]> = {
      leastWaste: [wood[0] + one, wood[1] + one],
      fewestBoards: [all + wood[0], all + wood[1]],
      // What a board's share costs, in wood that costs the mean of all.
      cheapest: [4000, 1000].map(
        (minor, i) => ((wood[i] / volumes[i]) * minor * all) / 5000 + 1e-4 * wood[i] + one,
      ) as unknown as [number, number],
      offcutsFirst: [wood[0] + one, 0.05 * wood[1] + one],
      keepWide: [wood[0] * (1 + 4 * 0.25) + one, wood[1] * 5 + one],
      colour: [0.01 * wood[0] + one, 0.01 * wood[1] + one],
    };
    for (const goal of GOALS)
      for (const i of [0, 1])
        expect(scoringOf(goal, boards, p.rules).board(boards[i], reading) / said[goal][i], goal).toBeCloseTo(
          1,
          9,
        );
    for (const goal of GOALS.filter((each) => each !== 'colour'))
      expect(scoringOf(goal, boards, p.rules).together([reading, reading]), goal).toBe(0);
  });
  it('counts a board more, whatever the goal, where all of its wood is kept', () => {
    const p = problem([], [board('a', 1000, 100, 20), board('b', 3000, 100, 20)], { offcutWorth: 1 });
    const { boards } = prepare(p);
    const mean = 20 * 100 * 2000;
    const kept = { used: true, strips: 0, reusable: boards[0].volume };
    for (const goal of GOALS)
      expect(scoringOf(goal, boards, p.rules).board(boards[0], kept) / mean, goal).toBeCloseTo(
        goal === 'fewestBoards' ? 2 : 1e-4,
        9,
      );
    for (const goal of GOALS)
      expect(scoringOf(goal, boards, p.rules).board(boards[0], { ...kept, used: false }), goal).toBe(0);
  });
  it('a board without a price counts with the mean of the others', () => {
    const boards = [
      board('a', 1000, 100, 20, { price: { minor: 400, currency: 'EUR', per: 'board' } }),
      board('b', 2000, 100, 20),
    ];
    expect(prepare(problem([], boards)).boards.map(({ cost }) => Math.round(cost))).toEqual([400, 800]);
    expect(prepare(problem([], [board('a', 10, 10, 10)])).boards[0].cost).toBeGreaterThan(0);
  });
});

describe('what a layout leaves over', () => {
  it('is read the same by the search and by the layout, lanes short of their section and shifted ones too', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const roll = dice(seed + 300);
      const b = board('b', roll(20, 40) * 50, roll(14, 22) * 10);
      const p = problem(
        Array.from({ length: 6 }, (_, i) => strip(`s${i}`, roll(4, 12) * 40, roll(3, 7) * 9)),
        [b],
        {
          endTrim: roll(0, 2) * 4,
          edgeTrim: roll(0, 2) * 2,
        },
      );
      const answer = solveNow(p, 200);
      const [layout] = layAnswer(p, answer);
      if (!layout) continue;
      const { boards, kindOf } = prepare(p);
      const sections = layout.sections.map(
        ({ x, length, lanes }): PackedSection => ({
          x,
          length,
          fixed: false,
          lanes: lanes.map(([laid]) => {
            const at = p.strips.indexOf(laid.strip);
            const { x: left, y, length: long, width } = laid;
            return {
              kind: kindOf[at],
              strips: [at],
              leaves: 1,
              length: long,
              width,
              x: left,
              y,
              faceDown: false,
              fixed: false,
            };
          }),
        }),
      );
      const found: string[] = [];
      eachOffcut(boards[0], sections, p.rules, (...area) =>
        found.push(area.map((v) => v.toFixed(4)).join(' ')),
      );
      const laid = layout.offcuts.map(({ x, y, length, width }) =>
        [x, y, length, width].map((v) => v.toFixed(4)).join(' '),
      );
      expect(found.toSorted(), `seed ${seed}`).toEqual(laid.toSorted());
      const reusable = layout.offcuts
        .filter((o) => o.reusable)
        .reduce((sum, o) => sum + o.length * o.width * 25, 0);
      expect(readBoard(boards[0], sections, p.rules).reusable).toBeCloseTo(reusable, 3);
    }
  });
  it('is worth keeping from the least length and width on, both', () => {
    const { rules } = problem([], []);
    expect([isReusable(300, 60, rules), isReusable(299.9, 60, rules), isReusable(300, 59.9, rules)]).toEqual([
      true,
      false,
      false,
    ]);
    expect(layBoard(board('b', 800, 100), [], rules).offcuts).toEqual([
      { x: 0, y: 0, length: 800, width: 100, reusable: true },
    ]);
  });
});

describe('packing a board', () => {
  const p = problem([strip('a', 400, 50), strip('b', 300, 40)], [board('x', 1000, 100)]);
  const { boards, kinds, kindOf } = prepare(p);
  const lane = (i: number) => ({
    kind: kindOf[i],
    strips: [i],
    leaves: 1,
    length: p.strips[i].length,
    width: p.strips[i].width,
    x: 0,
    y: 0,
    faceDown: false,
    fixed: false,
  });
  const section = (length: number, ...strips: number[]): PackedSection => ({
    x: 0,
    length,
    lanes: strips.map(lane),
    fixed: false,
  });
  it('sets sections and lanes a kerf apart, from the marked end and the near edge', () => {
    const packed = packBoard(boards[0], [section(400, 0, 1), section(300, 1)], kinds, p.rules);
    expect(packed?.map(({ x }) => x)).toEqual([0, 403]);
    expect(packed?.[0].lanes.map(({ y }) => y)).toEqual([0, 53]);
  });
  it('gives nothing where it does not fit', () => {
    expect(packBoard(boards[0], [section(400, 0, 0)], kinds, p.rules)).toBeUndefined();
    expect(
      packBoard(boards[0], [section(400, 0), section(400, 0), section(300, 1)], kinds, p.rules),
    ).toBeUndefined();
  });
  it('leaves fixed sections where they are and packs around them', () => {
    const fixed: PackedSection = {
      x: 350,
      length: 300,
      fixed: true,
      lanes: [{ ...lane(1), x: 350, y: 30, fixed: true }],
    };
    const packed = packBoard(boards[0], [section(300, 1), section(300, 1), fixed], kinds, p.rules);
    expect(packed?.map(({ x, fixed: f }) => [x, f])).toEqual([
      [0, false],
      [350, true],
      [653, false],
    ]);
  });
});

describe('effort', () => {
  it('more of it is never worse', () => {
    const goals: Goal[] = ['leastWaste', 'fewestBoards', 'offcutsFirst'];
    for (const goal of goals) {
      const p = { ...twoStage(15, 14), goal };
      expect(solveNow(p, EFFORT.quick).score).toBeLessThanOrEqual(solveNow(p, 300).score * (1 + 1e-12));
    }
  });
});

describe('what looking at every arrangement proves', () => {
  it('strips that a kerf keeps from lying on one board side by side, or one after the other', () => {
    const boards = [board('a', 1000, 100), board('b', 1000, 100)];
    for (const strips of [
      [strip('s1', 1000, 50), strip('s2', 1000, 50)],
      [strip('s1', 500, 100), strip('s2', 500, 100)],
      [strip('s1', 1000, 32), strip('s2', 1000, 32), strip('s3', 1000, 33)],
      [strip('s1', 330, 100), strip('s2', 330, 100), strip('s3', 337, 100)],
    ]) {
      const answer = solveNow(problem(strips, boards, {}, 'fewestBoards'), 400);
      expect(answer).toMatchObject({ missing: [], proven: true });
      expect(new Set(answer.places.map((place) => place.board)).size).toBe(2);
    }
  });
});
