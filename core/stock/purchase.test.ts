import { describe, expect, it } from 'vitest';
import { newBoardsBody } from '../../contract/board';
import { checkWith } from '../../contract/check';
import type { Brief, BuildDocument } from '../document';
import { type ShopSnapshot, STOCK_KINDS } from '../kit';
import { mustFit, startingBrief, stockGives, stripsOfStock } from '../plan';
import { shopWith } from '../plan/briefs.fixture';
import { INCH } from '../units';
import { settingsOf } from './demand';
import { FACTORY_CORNER_MM } from '../kit';
import type { Problem } from './problem';
import { boardsBought, type Purchase, purchaseList } from './purchase';
import { problemFor, shortageFixes } from './shortage';
import { EFFORT, solveNow } from './solve';

const shop = shopWith();
const about = { name: 'p', use: '' };
const job = (change: Partial<Brief> = {}, kit: ShopSnapshot = shop): BuildDocument =>
  mustFit(startingBrief('panel', kit, { woods: ['douglas_fir_coast'], ...change }), kit, about);
const bought = (build: BuildDocument): { problem: Problem; list: Purchase[] } => {
  const { problem } = problemFor([build], []);
  return { problem, list: purchaseList(problem, solveNow(problem, EFFORT.quick).missing, []) };
};
/** Every strip finds its place in what was bought. */
const holds = ({ problem, list }: ReturnType<typeof bought>): boolean => {
  const boards = list.flatMap(({ species, length, width, thickness, count, kind }, k) =>
    Array.from({ length: count }, (_, i) => ({
      id: `b${k}-${i}`,
      label: `${i}`,
      species,
      length: { mm: length },
      width: { mm: width },
      thickness: { mm: thickness },
      sold: STOCK_KINDS[kind].sold,
    })),
  );
  return solveNow({ ...problem, boards }, EFFORT.quick).missing.length === 0;
};

describe('what is short is bought', () => {
  it('softwood as construction lumber, by its nominal name and its real size', () => {
    const made = bought(job());
    const [buy] = made.list;
    expect(buy.kind).toBe('construction');
    // PS 20, from memory: whatever begins with 2 is 1 1/2 thick when dry.
    expect(buy.name).toMatch(/^2x/);
    expect(buy.thickness).toBeCloseTo(1.5 * INCH, 9);
    expect((buy.length / INCH / 12) % 2).toBeCloseTo(0, 9);
    expect(holds(made)).toBe(true);
    // Board feet by the nominal size: 2 x W x L / 12.
    const nominal = Number(buy.name?.split('x')[1]);
    expect(buy.boardFeet).toBeCloseTo((buy.count * 2 * nominal * (buy.length / INCH / 12)) / 12, 9);
  });
  it('hardwood rough, by quarters; or as the job says', () => {
    const oak = job({ woods: ['oak_white'] });
    const [buy] = bought(oak).list;
    expect(buy).toMatchObject({ kind: 'rough', name: expect.stringMatching(/^\d+\/4$/) });
    // NHLA, from memory: feet of length times inches of width by 12, to the nearest foot, times the quarters.
    const measure = Math.round(((buy.width / INCH) * (buy.length / INCH / 12)) / 12);
    expect(buy.boardFeet).toBeCloseTo((buy.count * measure * Number.parseInt(buy.name ?? '', 10)) / 4, 6);
    const fir = job();
    const rough = { ...fir, breakdown: { ...settingsOf(fir), buyAs: 'rough' as const } };
    expect(bought(rough).list[0].kind).toBe('rough');
    const none = { ...fir, breakdown: { ...settingsOf(fir), buyAs: 'sheet' as const } };
    // A sheet is thin: three quarters of an inch at most.
    expect(bought(none).list).toEqual([]);
  });
  it('in the lengths the yard has, and no others', () => {
    const fir = job();
    const only = [{ mm: 2100 }, { mm: 3300 }];
    const build = { ...fir, breakdown: { ...settingsOf(fir), buyLengths: only } };
    const made = bought(build);
    expect(only.map(({ mm }) => mm)).toContain(made.list[0].length);
    expect(holds(made)).toBe(true);
  });
  it('in a metric shop by real sizes', () => {
    const metric = shopWith({ display: { system: 'mm', fraction: 0 } });
    const made = bought(job({}, metric));
    const [buy] = made.list;
    expect(buy.thickness).toBe(45);
    expect(buy.name).toBeUndefined();
    // A board foot is 144 cubic inches.
    const cubicInches = (buy.count * buy.length * buy.width * buy.thickness) / INCH ** 3;
    expect(buy.boardFeet).toBeCloseTo(cubicInches / 144, 9);
    expect(holds(made)).toBe(true);
  });
  it('as what the brief says it is sold as', () => {
    expect(settingsOf(job({ stock: '8/4' })).buyAs).toBe('rough');
    expect(settingsOf(job({ stock: '2x8' })).buyAs).toBe('construction');
    expect(settingsOf(job()).buyAs).toBeUndefined();
    // Hardwood is not sold as construction lumber, whatever the brief says.
    expect(settingsOf(job({ stock: '2x8', woods: ['oak_white'] })).buyAs).toBeUndefined();
  });
  it('strips as wide as a 2x8 gives come out of 2x8s, rounded corners ripped off', () => {
    const gives = stockGives('2x8', shop);
    if (!gives) throw new Error('not read');
    const brief = startingBrief('panel', shop, { woods: ['douglas_fir_coast'], stock: '2x8' });
    const build = mustFit({ ...brief, ...stripsOfStock(brief, gives) }, shop, about);
    const sawn = Math.max(...build.assemblies[0].slots.map(({ width }) => width.mm));
    expect(sawn).toBeLessThanOrEqual(7.25 * INCH - 2 * FACTORY_CORNER_MM + 1e-9);
    expect(holds(bought(build))).toBe(true);
  });
});

it('narrower strips that are offered are whole steps of the shop, to the last one', () => {
  const metric = shopWith({ display: { system: 'mm', fraction: 0 }, settingStep: { mm: 1 } });
  const build = job({ module: { mm: 40 }, width: { aim: 'fixed', value: { mm: 400 } } }, metric);
  const board = {
    id: 'n',
    label: 'n',
    species: 'douglas_fir_coast',
    length: { mm: 6000 },
    width: { mm: 70 },
    thickness: { mm: 100 },
  };
  const boards = Array.from({ length: 4 }, (_, i) => ({ ...board, id: `n${i}`, width: { mm: 70 } }));
  const { problem } = problemFor([build], boards);
  const offered = shortageFixes(build, boards, solveNow(problem, EFFORT.quick)).flatMap(({ label }) => {
    const found = /^Narrower strips: (\d+) mm instead of 40 mm/.exec(label);
    return found ? [Number(found[1])] : [];
  });
  // 90, 75, 60 and 50 % of 40 are whole millimetres: none of them is rounded down by one more.
  expect(offered.length).toBeGreaterThan(0);
  for (const mm of offered) expect([36, 30, 24, 20]).toContain(mm);
});

describe('what was bought', () => {
  const purchase: Purchase = {
    ...{ species: 'ash_white', length: 2438.4, width: 152.4, thickness: 38.1, count: 3, boardFeet: 18 },
    ...{ kind: 'rough', strips: [] },
  };
  it('comes onto the rack with the next free numbers, its size and how it was sold, and no price that nobody paid', () => {
    const boards = boardsBought(purchase, ['7', '9']);
    expect(boards.map(({ label }) => label)).toEqual(['10', '11', '12']);
    for (const board of boards) {
      expect(board).toMatchObject({ species: 'ash_white', sold: 'rough', length: { mm: 2438.4 } });
      expect(board.price).toBeUndefined();
    }
    expect(checkWith(newBoardsBody, { boards })).toMatchObject({ ok: true });
  });
});
