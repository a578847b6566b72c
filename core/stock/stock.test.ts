import { describe, expect, it } from 'vitest';
import type { Aim, BoardStock, Brief, BuildDocument } from '../document';
import { mustEdit } from '../edit';
import { defaultShop, FACTORY_CORNER_MM, typed } from '../kit';
import { mustFit } from '../plan';
import { run } from '../run';
import { blankVolume, CAUSES, lostTo } from '../solid';
import { INCH, type Length } from '../units';
import { answerEdit } from './apply';
import { board as plain, problem, strip } from './cases.fixture';
import { demandOf, settingsOf } from './demand';
import { planOf } from './hand';
import { layAnswer, totalsOf } from './layout';
import { offcutBoards } from './leftover';
import { faceCleaning, acclimatised, millingYield, warpLoss } from './milling';
import { purchaseList } from './purchase';
import { setUpList } from './setup';
import { problemFor, shortageFixes, shortages } from './shortage';
import { EFFORT, solveNow } from './solve';

const shop = defaultShop('stock');
const inches = (id: string, l: number, w: number, t: number, more: Partial<BoardStock> = {}) =>
  plain(id, l * INCH, w * INCH, t * INCH, more);

describe('what the milling leaves', () => {
  const warped = inches('w', 96, 8, 1, {
    sold: 'rough',
    warp: { cup: typed('1/8'), bow: typed('1/4'), wind: typed('1/8'), crook: typed('3/16') },
  });
  it('the whole board loses all of its warp, and cleaning off both faces', () => {
    const { thickness, width, length, loss } = millingYield(warped, shop);
    expect(loss.cup).toBeCloseTo(INCH / 8, 9);
    expect(thickness).toBeCloseTo((1 - 1 / 8 - 1 / 4 - 1 / 16 - 2 / 16) * INCH, 9);
    expect(width).toBeCloseTo((8 - 3 / 16 - 2 / 32) * INCH, 9);
    expect(length).toBeCloseTo((96 - 6 / 16) * INCH, 9);
  });
  it('half the length keeps a quarter of the bow, half the width a quarter of the cup: as on a circular arc', () => {
    const part = warpLoss(warped, { length: 48 * INCH, width: 4 * INCH });
    expect(part.bow).toBeCloseTo(INCH / 16, 9);
    expect(part.cup).toBeCloseTo(INCH / 32, 9);
    expect(part.wind).toBeCloseTo(INCH / 64, 9);
    // Sagitta s of a chord c on radius R: s = R - sqrt(R2 - c2/4). R from the whole bow.
    const radius = (s: number, c: number) => (c * c) / 8 / s + s / 2;
    const r = radius(INCH / 4, 96 * INCH);
    expect(part.bow).toBeCloseTo(r - Math.sqrt(r * r - (24 * INCH) ** 2), 3);
  });
  it('dressed lumber loses its rounded corners, both edges', () => {
    const dressed = inches('d', 96, 3.5, 1.5, { sold: 'dressed' });
    expect(millingYield(dressed, shop).width).toBeCloseTo(3.5 * INCH - 2 * FACTORY_CORNER_MM, 9);
  });
  it('says what nobody measured, carries a tolerance, and never goes below nothing', () => {
    expect(millingYield(inches('n', 10, 3, 1), shop).notLooked).toEqual(['cup', 'bow', 'crook', 'wind']);
    const { tolerance } = millingYield(warped, shop);
    expect(tolerance.thickness.likelyMm).toBeGreaterThan(0.1);
    expect(tolerance.thickness.worstMm).toBeGreaterThan(tolerance.thickness.likelyMm);
    expect(millingYield(inches('t', 96, 3, 0.1, { warp: { bow: typed('1') } }), shop).thickness).toBe(0);
  });
  it('a board waits two weeks, construction lumber four, unless its moisture says otherwise (common practice)', () => {
    const day = '2026-03-15';
    expect(acclimatised(inches('a', 9, 9, 1, { arrived: '2026-03-08' }), shop, day)).toEqual({
      ready: false,
      days: 7,
      daysLeft: 7,
      abovePct: undefined,
    });
    expect(acclimatised(inches('a', 9, 9, 1, { arrived: '2026-03-01' }), shop, day).ready).toBe(true);
    expect(
      acclimatised(inches('a', 9, 9, 1, { arrived: '2026-03-01', sold: 'dressed' }), shop, day).daysLeft,
    ).toBe(14);
    expect(
      acclimatised(inches('a', 9, 9, 1, { arrived: '2026-03-14', moisturePct: 9 }), shop, day),
    ).toMatchObject({ ready: true, abovePct: 1 });
    expect(acclimatised(inches('a', 9, 9, 1, { moisturePct: 14 }), shop, day).ready).toBe(false);
  });
});

const brief: Brief = {
  pattern: 'panel',
  length: { aim: 'fixed', value: typed('26') },
  width: { aim: 'fixed', value: typed('10 1/4') },
  thickness: { aim: 'fixed', value: typed('3/4') },
  woods: ['ash_white'],
  module: typed('1 7/8'),
  saw: 'table-full',
  flattenWith: 'planer',
  trimWith: { saw: 'table-full' },
  chequer: false,
  extraSlices: 0,
  sections: 2,
};
const job = (change: Partial<Brief> = {}, quantity = 1): BuildDocument => {
  const build = mustFit({ ...brief, ...change }, shop, { name: 'a shelf', use: 'to try' });
  return { ...build, targets: build.targets.map((target) => ({ ...target, quantity })) };
};
const ash = (id: string, l: number, w: number, more: Partial<BoardStock> = {}) =>
  inches(id, l, w, 1.25, { species: 'ash_white', sold: 'rough', ...more });

/** Wood in equals the finished piece, the losses and what is left, to a billionth. */
const closes = (build: BuildDocument) => {
  const timeline = run(build);
  expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
  const kept = (timeline.finished?.pieces ?? []).reduce((sum, { blank }) => sum + blankVolume(blank), 0);
  const gone = CAUSES.reduce((sum, cause) => sum + lostTo(timeline.ledger, cause), 0);
  expect(Math.abs(timeline.woodInMm3 - kept - gone - timeline.leftOverMm3) / timeline.woodInMm3).toBeLessThan(
    1e-9,
  );
  return timeline;
};

describe('from the rack into the job', () => {
  const boards = [ash('b1', 60, 7), ash('b2', 84, 6), ash('b3', 40, 5, { sold: 'offcut' })];
  it('every strip comes out of a real board; kerf, shavings and offcuts close; the piece comes out as asked', () => {
    const build = job();
    const { problem: p, demand } = problemFor([build], boards);
    const answer = solveNow(p, EFFORT.quick);
    expect(answer.missing).toEqual([]);
    const placed = mustEdit(build, answerEdit(p, demand, answer, { job: 0, settings: settingsOf(build) }));
    const timeline = closes(placed);
    const { used } = totalsOf(layAnswer(p, answer));
    expect(timeline.woodInMm3).toBeCloseTo(used, 0);
    const size = timeline.finished?.greatest ?? [0, 0, 0];
    expect(size.map((mm) => mm / INCH)).toEqual([26, 10.25, 0.75].map((v) => expect.closeTo(v, 6)));
    // The solid model's kerf in the boards is the layout's, rectangle by rectangle.
    const ripped = timeline.steps
      .filter(({ kind }) => kind === 'rip')
      .reduce((sum, step) => sum + lostTo(step.lost, 'kerf'), 0);
    const kerfs = layAnswer(p, answer).reduce(
      (sum, l) => sum + l.kerfs.reduce((a, k) => a + k.length * k.width * l.board.thickness.mm, 0),
      0,
    );
    expect(ripped / kerfs).toBeCloseTo(1, 9);
  });
  it('a strip shows its own place of the board, its neighbour there continues it, and a resawn pair opens as a mirror', () => {
    const build = job();
    const slots = build.assemblies[0].slots.slice(0, 2);
    const at = { x: 20, y: 10 };
    const thick = ash('thick', 60, 7, { thickness: typed('4') });
    const leaf = (n: number, faceDown: boolean) => ({ board: 'thick', at, leaf: n, leaves: 2, faceDown });
    const paired = mustEdit(build, {
      do: 'useBoards',
      boards: [thick],
      strips: { [slots[0].id]: leaf(0, false), [slots[1].id]: leaf(1, true) },
      breakdown: { ...settingsOf(build), ripSaw: 'table-full' },
    });
    const pieces = run(paired).steps[0].pieces;
    const logAt = (i: number, x: number, y: number, z: number) => {
      const m = pieces[i].blank.cells[0].toLog;
      return [0, 4, 8].map((r) => m[r] * x + m[r + 1] * y + m[r + 2] * z + m[r + 3]);
    };
    const width = slots[0].width.mm;
    const thickness = slots[0].thickness.mm;
    // The upper face of the lower leaf and the upper face of the turned one lay against the same saw cut.
    const below = logAt(0, 100, 5, thickness);
    const above = logAt(1, 100, width - 5, thickness);
    const kerf = shop.saws.find(({ id }) => id === settingsOf(build).resawSaw)?.kerf.mm ?? 0;
    expect(Math.hypot(...below.map((v, i) => v - above[i]))).toBeCloseTo(kerf, 6);
    closes(paired);
  });
  it('several jobs and copies share a board: each knows the places that the others take', () => {
    const builds = [
      { ...job({ sections: 1, width: { aim: 'fixed', value: typed('5') } }, 2), name: 'the other shelf' },
      job({ sections: 1, width: { aim: 'fixed', value: typed('4') } }),
    ];
    const rack = [ash('b1', 120, 9), ash('b2', 96, 8)];
    const { problem: p, demand } = problemFor(builds, rack);
    const answer = solveNow(p, EFFORT.quick);
    expect(answer.missing).toEqual([]);
    const placed = builds.map((build, i) =>
      mustEdit(
        build,
        answerEdit(p, demand, answer, {
          job: i,
          settings: settingsOf(build),
          names: builds.map(({ name }) => name),
        }),
      ),
    );
    const taken = placed.flatMap(({ boards: own }) => own.flatMap((b) => b.taken ?? []));
    expect(taken.length).toBeGreaterThan(0);
    for (const build of placed) closes(build);
    // Opened alone, the second job sees what the first takes, and solved again it leaves that alone.
    const alone = planOf([placed[1]]);
    const foreign = alone.answer.places.filter(({ strip: id }) => alone.demand.of.get(id)?.job === -1);
    expect(foreign.length).toBeGreaterThan(0);
    const again = problemFor([placed[1]], rack);
    const second = solveNow(again.problem, EFFORT.quick);
    for (const place of foreign) expect(second.places).toContainEqual(place);
    const kept = mustEdit(
      placed[1],
      answerEdit(again.problem, again.demand, second, { job: 0, settings: settingsOf(placed[1]) }),
    );
    expect(kept.boards.flatMap((b) => b.taken ?? []).map(({ of }) => of)).toContain(builds[0].name);
    // Together again, every strip is found once.
    const both = planOf(placed);
    expect(both.answer.missing).toEqual([]);
    expect(both.answer.places).toHaveLength(answer.places.length);
    // A strip is asked for as thick as it is ripped; what stays of it once milled is told beside that.
    for (const build of builds) {
      const mill = build.steps.find(({ kind }) => kind === 'mill') as { face?: { mm: number } } | undefined;
      for (const { thickness, milledThickness } of demandOf([build]).strips)
        expect(thickness - milledThickness).toBeCloseTo(2 * (mill?.face?.mm ?? 0), 9);
    }
    expect(demandOf(builds).strips).toHaveLength(
      3 * builds[0].assemblies[0].slots.length -
        builds[0].assemblies[0].slots.length +
        builds[1].assemblies[0].slots.length,
    );
  });
  it('a fault under a strip by hand is pointed out, and two strips on one place stop the run with a way out', () => {
    const build = job();
    const [a, b] = build.assemblies[0].slots;
    const knotty = ash('k', 60, 7, {
      faults: [{ id: 'f', kind: 'knot', face: 'up', x: 100, y: 20, length: 30, width: 30 }],
    });
    const put = (strips: Record<string, { x: number; y: number }>) =>
      run(
        mustEdit(build, {
          do: 'useBoards',
          boards: [knotty],
          strips: Object.fromEntries(Object.entries(strips).map(([id, at]) => [id, { board: 'k', at }])),
          breakdown: settingsOf(build),
        }),
      );
    expect(put({ [a.id]: { x: 12, y: 10 } }).problems.map(({ code }) => code)).toEqual(['fault-on-strip']);
    const both = put({ [a.id]: { x: 12, y: 10 }, [b.id]: { x: 30, y: 20 } }).problems;
    expect(both.find(({ severity }) => severity === 'stop')).toMatchObject({
      code: 'strips-overlap-on-board',
      fixes: [{}],
    });
  });
  it('offcuts worth keeping go back as boards that know their log and their faults', () => {
    const build = job({ sections: 1, width: { aim: 'fixed', value: typed('3') } });
    const knot = {
      id: 'f',
      kind: 'knot' as const,
      face: 'up' as const,
      x: 1700,
      y: 20,
      length: 30,
      width: 30,
    };
    const rack = [
      ash('b9', 84, 8, { faults: [knot], price: { minor: 8000, currency: 'EUR', per: 'board' } }),
    ];
    const { problem: p, demand } = problemFor([build], rack);
    const placed = mustEdit(
      build,
      answerEdit(p, demand, solveNow(p, 2000), { job: 0, settings: settingsOf(build) }),
    );
    const left = offcutBoards(rack[0], placed);
    expect(left.length).toBeGreaterThan(0);
    for (const offcut of left) {
      expect(offcut).toMatchObject({ sold: 'offcut', species: 'ash_white', log: 'b9' });
      expect(offcut.length.mm).toBeGreaterThanOrEqual(12 * INCH - 1e-6);
    }
    expect(left.some(({ faults }) => faults?.length)).toBe(true);
    const shares = left.reduce((sum, offcut) => sum + (offcut.price?.minor ?? 0), 0);
    expect(shares).toBeLessThan(8000);
  });
});

describe('what is short', () => {
  it('is named with its number, and each fix offered really leaves less short', () => {
    const build = job();
    const boards = [ash('b1', 60, 7)];
    const { problem: p } = problemFor([build], boards);
    const answer = solveNow(p, EFFORT.quick);
    expect(answer.missing.length).toBeGreaterThan(0);
    const [finding] = shortages(p, answer);
    expect(finding).toMatchObject({ code: 'wood-short', numbers: { strips: answer.missing.length } });
    const fixes = shortageFixes(
      build,
      [...boards, inches('w', 60, 8, 1.5, { species: 'walnut_black' })],
      answer,
    );
    expect(fixes.map(({ label }) => label)).toContainEqual(expect.stringContaining('accent'));
    for (const { edit } of fixes) {
      const again = problemFor(
        [mustEdit(build, edit)],
        [...boards, inches('w', 60, 8, 1.5, { species: 'walnut_black' })],
      );
      expect(solveNow(again.problem, EFFORT.quick).missing.length).toBeLessThan(answer.missing.length);
    }
  });
  it('smaller pieces that are offered are smaller, and said with both sizes', () => {
    const build = job();
    // Wide and long enough, and too thin: a thinner piece is a way out.
    const boards = ['t', 'u', 'v'].map((id) => ash(id, 90, 14, { thickness: typed('7/8') }));
    const { problem: p } = problemFor([build], boards);
    const fixes = shortageFixes(build, boards, solveNow(p, EFFORT.quick)).filter(
      ({ edit }) => edit.do === 'replan',
    );
    expect(fixes.length).toBeGreaterThan(0);
    for (const { edit, label } of fixes) {
      const { change = {} } = edit as { change?: Partial<Brief> };
      expect(label).toMatch(/^(Narrower strips|A thinner piece|A shorter piece).* instead of /);
      for (const [name, value] of Object.entries(change)) {
        const mm = (each: unknown) => (each as Length).mm ?? (each as Aim).value?.mm ?? Number.NaN;
        expect(mm(value), label).toBeLessThan(mm(build.brief?.[name as keyof Brief]));
      }
    }
  });
  it.each([
    ['no-such-wood', [plain('m', 2000, 200)], 'none of this wood'],
    ['too-thin', [ash('t', 60, 7, { thickness: typed('1/2') })], 'thickest'],
    ['too-short', [ash('t', 20, 7)], 'longest'],
    ['too-narrow', [ash('t', 60, 1.5)], 'widest'],
    // Long boards are too thin and the thick one too short: what is missing is a thick one that is long.
    ['too-thin', [ash('t', 60, 7, { thickness: typed('1/2') }), ash('s', 10, 7)], 'thickest'],
  ])('%s', (_code, boards, words) => {
    const { problem: p } = problemFor([job()], boards);
    const [finding] = shortages(p, solveNow(p, 500));
    expect(finding.message.filter((part) => typeof part === 'string').join('')).toContain(words);
  });
  it('of a board too thin says what is left once its bow and cup are out and its faces clean', () => {
    const warped = { thickness: typed('3/4'), warp: { bow: { mm: 2 }, cup: { mm: 3 }, wind: { mm: 4 } } };
    const { problem: p } = problemFor([job()], [ash('t', 60, 7, warped)]);
    const [finding] = shortages(p, solveNow(p, 500));
    // Bow and cup go with the square of the share of the board that a strip takes, half the wind with its area.
    const left = p.strips.map(({ width, length }) => {
      const [l, w] = [length / (60 * INCH), width / (7 * INCH)];
      return 0.75 * INCH - 3 * w * w - 2 * l * l - 2 * l * w - 2 * faceCleaning(p.boards[0], p.shop);
    });
    const said = finding.message.flatMap((part) =>
      typeof part === 'object' && 'mm' in part ? [part.mm] : [],
    );
    expect(
      said.some((mm) => left.some((each) => Math.abs(each - mm) < 1e-6)),
      said.join(),
    ).toBe(true);
  });
  it('is blamed on what must stay in hand at the fence where that alone stands in the way', () => {
    const build = job();
    const widths = build.assemblies[0].slots.map(({ width }) => width.mm / INCH);
    // As wide as one strip and its cleaned edges need, and half an inch: an inch at the fence leaves none.
    const boards = [ash('n', 60, Math.max(...widths) + 1)];
    const { problem: p } = problemFor([build], boards);
    const tight = { ...p, rules: { ...p.rules, remnant: 1.5 * INCH } };
    const answer = solveNow(tight, 500);
    const said = shortages(tight, answer).map(({ message }) => message.join(' '));
    const free = solveNow({ ...p, rules: { ...p.rules, remnant: 0 } }, 500);
    expect(free.missing.length).toBeLessThan(answer.missing.length);
    expect(said.some((words) => words.includes('stay in hand at the fence'))).toBe(true);
  });
  it('the purchase list gives every missing strip a board of a size that is sold', () => {
    const build = job();
    const rack = [ash('x', 10, 3, { price: { minor: 600, currency: 'EUR', per: 'boardFoot' } })];
    const { problem: p } = problemFor([build], []);
    const answer = solveNow(p, 500);
    const [buy, ...more] = purchaseList(p, answer.missing, rack);
    expect(more).toEqual([]);
    expect(buy.strips).toHaveLength(p.strips.length);
    const whole = [buy.length / INCH / 12, buy.width / INCH];
    expect(whole.map((v) => v - Math.round(v))).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    expect([1, 1.25, 1.5]).toContainEqual(expect.closeTo(buy.thickness / INCH, 9));
    const bought = Array.from({ length: buy.count }, (_, i) =>
      plain(`n${i}`, buy.length, buy.width, buy.thickness, { species: 'ash_white', sold: 'rough' }),
    );
    expect(solveNow({ ...p, boards: bought }, EFFORT.quick).missing).toEqual([]);
    expect(buy.cost?.minor).toBeCloseTo(600 * buy.boardFeet, 6);
  });
});

describe('the set-up list', () => {
  const strips = [
    strip('a', 600, 40),
    strip('b', 600, 40),
    strip('c', 600, 15),
    strip('d', 250, 60),
    strip('e', 400, 40),
  ];
  const p = problem(strips, [plain('b1', 1500, 150), plain('b2', 1400, 130)]);
  const answer = solveNow(p, 4000);
  const list = setUpList(layAnswer(p, answer), settingsOf(job()), shop, (id) => id);
  it('sets each distance once, in the order of the work, long and wide first', () => {
    const keys = list.map(({ kind, distance, bladeHeight }) => `${kind} ${distance} ${bladeHeight}`);
    expect(new Set(keys).size).toBe(keys.length);
    const rips = list.filter(({ kind }) => kind === 'rip').map(({ distance }) => distance ?? 0);
    expect(rips).toEqual(rips.toSorted((x, y) => y - x));
    // What is cut by eye has no distance: it comes after what has one, the higher blade first.
    for (const kind of new Set(list.map((each) => each.kind))) {
      const alike = list.filter((each) => each.kind === kind);
      const key = (each: (typeof list)[number]) => (each.distance ?? 0) * 1e4 + each.bladeHeight;
      expect(alike.map(key)).toEqual(alike.map(key).toSorted((x, y) => y - x));
    }
    expect(rips.length).toBe(new Set(strips.map(({ width }) => width)).size);
    expect(list.findIndex(({ kind }) => kind === 'rip')).toBeGreaterThan(
      list.findLastIndex(({ kind }) => kind === 'crosscut'),
    );
  });
  it('rips every strip exactly once and says what to pencil on it', () => {
    const ripped = list
      .filter(({ kind }) => kind === 'rip')
      .flatMap(({ pieces }) => pieces.flatMap(({ labels }) => labels));
    expect(ripped.toSorted()).toEqual(['a', 'b', 'c', 'd', 'e']);
  });
  it('cautions where a strip is narrow or short, and defers to the manual', () => {
    const caution = (distance: number) =>
      list.find((s) => s.kind === 'rip' && s.distance === distance)?.caution;
    expect(caution(15)).toContain('far side');
    expect(caution(40)).toContain('push block');
    const stub = problem([strip('z', 250, 60)], [plain('b', 270, 100)]);
    const alone = setUpList(layAnswer(stub, solveNow(stub, 100)), settingsOf(job()), shop, (id) => id);
    expect(alone.find(({ kind }) => kind === 'rip')?.caution).toContain('short for ripping');
    for (const { caution: text } of list) if (text) expect(text).toContain('manual');
  });
});
