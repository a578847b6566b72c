import { describe, expect, it } from 'vitest';
import type { Brief, BuildDocument, PatternId } from '../../document';
import { defaultShop, type ShopSnapshot, typed } from '../../kit';
import { run } from '../../run';
import { bounds, type Cell, contacts, extents } from '../../solid';
import { INCH } from '../../units';
import { mustFit } from '../fit';
import { fromPanel } from '../onhand';
import { chevronPanel } from './chevron';
import { rhombus } from './cubes';
import { stackFor } from './lamination';
import { PATTERNS } from './patterns';
import { bestStagger, staggerOf } from './stagger';
import { jointsOf } from './staggered';
import { startingBrief } from './start';

const typedZero = typed('0');

/** A shop that rounds nothing and trims a sixteenth with a plane. */
const exact: ShopSnapshot = {
  ...defaultShop('exact'),
  settingStep: { mm: 0 },
  allowances: {
    ...defaultShop('exact').allowances,
    millFace: typedZero,
    trimEnd: typed('1/16'),
    trimEdge: typed('1/16'),
  },
};

const fixed = (text: string) => ({ aim: 'fixed' as const, value: typed(text) });

const plan = (pattern: PatternId, change: Partial<Brief>, shop: ShopSnapshot = exact): BuildDocument =>
  mustFit(startingBrief(pattern, shop, { trimWith: { machine: 'hand' }, ...change }), shop, {
    name: pattern,
    use: '',
  });

const inches = (mm: number) => mm / INCH;

const after = (build: BuildDocument, step: string) => {
  const found = run(build).steps.find(({ id }) => id === step);
  if (!found) throw new Error(`no step ${step}`);
  return found;
};

const cellsOf = (build: BuildDocument): readonly Cell[] => run(build).finished?.pieces[0].blank.cells ?? [];

describe('bricks 2 by 1 with 1/4 mortar, 5 to a row (job.md: shift 1 1/8, 9 7/8 squared)', () => {
  const build = plan('bricks', {
    length: fixed('15 7/8'),
    width: fixed('9 3/4'),
    module: typed('2'),
    measures: { height: typed('1'), mortar: typed('1/4'), perRow: 5, grain: 'face' },
  });
  it('13 rows, 16 high, 11 wide, shifted by 1 1/8', () => {
    const glue = build.steps.find(({ id }) => id === 'glue-block');
    if (glue?.kind !== 'glue') throw new Error();
    expect(inches(glue.shifts?.by.mm ?? 0)).toBeCloseTo(1.125, 9);
    expect(glue.parts?.filter(({ piece }) => piece.startsWith('slice'))).toHaveLength(13);
    expect(inches(after(build, 'flatten').greatest[1])).toBeCloseTo(11, 9);
    expect(inches(after(build, 'glue-block').greatest[0])).toBeCloseTo(16, 9);
    expect(inches(after(build, 'glue-block').greatest[1])).toBeCloseTo(12.125, 9);
  });
  it('4 mortar strips in the panel and 12 between the rows; 9 7/8 squared before the trims', () => {
    const [panel, mortar] = build.assemblies;
    expect(panel.slots.filter(({ species }) => species === 'maple_sugar')).toHaveLength(4);
    expect(mortar.slots).toHaveLength(12);
    const trim = build.steps.find(({ kind }) => kind === 'trim');
    if (trim?.kind !== 'trim') throw new Error();
    const shift = 1.125 * INCH;
    expect(inches(after(build, 'glue-block').greatest[1] - 2 * shift)).toBeCloseTo(9.875, 9);
    expect(inches(trim.near.mm - shift)).toBeCloseTo(1 / 16, 9);
    expect(run(build).finished?.greatest.map(inches)).toEqual(
      [15.875, 9.75, 1.375].map((v) => expect.closeTo(v, 9)),
    );
  });
});

describe('numbers of the design', () => {
  it('chevron panels at 30, 45 and 60 degrees come out as clean rectangles whose stripes meet', () => {
    for (const degrees of [30, 45, 60]) {
      const build = plan('chevron', { measures: { angle: degrees } });
      const timeline = run(build);
      expect(timeline.finished?.greatest.map(inches)).toEqual(
        [20, 10, 0.75].map((v) => expect.closeTo(v, 6)),
      );
      const blank = timeline.finished?.pieces[0].blank;
      if (!blank) throw new Error();
      // Across a joint between strips only pieces of one and the same stripe touch: no T where a corner should be.
      const across = contacts(blank).filter(({ normal }) => Math.abs(normal[1]) > 0.999);
      expect(across.length).toBeGreaterThan(20);
      const stripe = (cell: Cell) => cell.id.split('/')[0];
      for (const { a, b, areaMm2 } of across)
        if (areaMm2 > 0.1) expect(stripe(blank.cells[a])).toBe(stripe(blank.cells[b]));
    }
  });
  it('a chevron panel is (L + 2e) sin a + s cos a wide and (R s + (R - 1) k) / sin a + width cot a long', () => {
    const { width, length } = chevronPanel(500, 60, { count: 4, kerf: 3, degrees: 30 });
    expect(width).toBeCloseTo(250 + 60 * Math.sqrt(0.75), 9);
    expect(length).toBeCloseTo((240 + 9) / 0.5 + width * Math.sqrt(3), 9);
  });
  it('cubes of 30 mm with a kerf of 3.175: rip pitch 33.666, boards 25.981 thick', () => {
    expect(rhombus(30, 3.175).pitch).toBeCloseTo(33.666, 3);
    expect(rhombus(30, 3.175).thickness).toBeCloseTo((30 * Math.sqrt(3)) / 2, 9);
  });
  it('13 7/8 of 1 1/2 strips plus 3/8: stagger 3/8; best 1.4605 with 0.7303', () => {
    expect(staggerOf(1.5, 0.375)).toBeCloseTo(0.375, 12);
    expect(bestStagger(13.875, 9).strip).toBeCloseTo(1.4605, 4);
    expect(bestStagger(13.875, 9).narrow).toBeCloseTo(0.7303, 4);
    // And so it lies in the block: no seam of a row nearer than half a strip to one of the next.
    const build = plan('stagger', {});
    const entry = after(build, 'glue-block');
    const strip = bestStagger(11 * INCH, Math.round(11 / 1.25 - 0.5)).strip;
    const seams = (entry.laid ?? []).map(({ min, max }) =>
      entry.pieces[0].blank.cells
        .filter(({ vertices }) => vertices.every((v) => v[0] > min[0] - 1e-6 && v[0] < max[0] + 1e-6))
        .map((cell) => bounds({ cells: [cell] }).min[1])
        .filter((y) => y > 1e-6),
    );
    for (let i = 1; i < seams.length; i++)
      for (const y of seams[i])
        for (const other of seams[i - 1])
          expect(Math.abs(y - other)).toBeGreaterThan(strip / 2 - 2 * exact.allowances.trimEdge.mm);
  });
  it('a panel of 13/16 for 18 and 1 of trims needs 24 slices, of 3/4 needs 26', () => {
    const shop = {
      ...exact,
      allowances: {
        ...exact.allowances,
        trimEnd: typed('1/2'),
        sliceHead: typed('1/4'),
        sliceTail: typed('3'),
      },
    };
    const build = plan(
      'endGrain',
      { length: fixed('18'), thickness: fixed('1 1/2'), measures: { rows: 24 } },
      { ...shop, allowances: { ...shop.allowances, flattenBlock: typed('1/8') } },
    );
    const at = (thickness: string) =>
      fromPanel(build, { length: 45.375 * INCH, thickness: typed(thickness).mm });
    expect(at('13/16')?.needed).toBe(24);
    expect(at('3/4')?.needed).toBe(26);
    // The blank for 24 slices of the design: 45 3/8 exactly, so that it gives 24 and must be two slices longer for 26.
    expect(at('13/16')?.slices).toBe(24);
    expect(inches(at('13/16')?.longer ?? 1)).toBeCloseTo(0, 9);
    expect(inches(at('3/4')?.longer ?? 0)).toBeCloseTo(2 * 1.75, 9);
    expect(inches(at('3/4')?.keepsPattern ?? 0)).toBeCloseTo(19 / 24, 9);
  });
  it('a corner of 91 degrees: mitre 45.5, line 28.04 on 20', () => {
    const build = plan('corner', {
      width: fixed('20'),
      length: fixed('60'),
      measures: { angle: 91, second: typed('50') },
    });
    const mitre = build.steps.find(({ id }) => id === 'mitre-1');
    expect(mitre?.kind === 'oblique' && mitre.angleDegrees).toBe(45.5);
    const blank = run(build).finished?.pieces[0].blank;
    if (!blank) throw new Error();
    // All contacts whose plane leans are the mitre: their area over the thickness is its line.
    const line = contacts(blank)
      .filter(({ normal }) => Math.abs(normal[0]) > 0.1 && Math.abs(normal[1]) > 0.1)
      .reduce((sum, { areaMm2 }) => sum + areaMm2, 0);
    expect(inches(line / (1.125 * INCH))).toBeCloseTo(28.04, 2);
    // Stripes meet: across the mitre each piece touches its own number alone.
    for (const { a, b, normal, areaMm2 } of contacts(blank))
      if (Math.abs(normal[0]) > 0.1 && Math.abs(normal[1]) > 0.1 && areaMm2 > 1)
        expect(blank.cells[a].id.split('-strip-')[1]).toBe(blank.cells[b].id.split('-strip-')[1]);
  });
  it('layers to a thickness: as many as needed with what dressing takes, and the surplus said', () => {
    expect(stackFor(70, 19, 3)).toEqual({ layers: 4, each: 19, surplus: 6 });
    expect(stackFor(73, 19, 3)).toEqual({ layers: 4, each: 19, surplus: 3 });
    expect(stackFor(73.1, 19, 3).layers).toBe(5);
  });
});

describe('cells and joints by formula', () => {
  it('a chequer of 12 by 8 has 96 squares whose joints are all crosses', () => {
    const build = plan('endGrain', { measures: { rows: 12, columns: 8 } });
    const blank = run(build).finished?.pieces[0].blank;
    expect(blank?.cells).toHaveLength(96);
    expect(contacts(blank ?? { cells: [] })).toHaveLength(12 * 7 + 11 * 8);
  });
  it('which two hold: counts and squares, counts and size, size and squares', () => {
    const free = { aim: 'free' as const };
    const byCounts = plan('endGrain', {
      length: free,
      width: free,
      module: typed('1 1/2'),
      measures: { rows: 12, columns: 8 },
    });
    expect(run(byCounts).finished?.greatest.map(inches).slice(0, 2)).toEqual(
      [18, 12].map((v) => expect.closeTo(v, 9)),
    );
    const bySize = plan('endGrain', {
      length: fixed('18'),
      width: fixed('12'),
      module: typed('1'),
      measures: { rows: 12, columns: 8 },
    });
    expect(cellsOf(bySize)).toHaveLength(96);
    const bySquare = plan('endGrain', { length: fixed('18'), width: fixed('12'), module: typed('1 1/2') });
    expect(cellsOf(bySquare)).toHaveLength(96);
    expect(() => plan('endGrain', { measures: { rows: 12, columns: 7 } })).toThrow('7 is odd');
  });
  it('bricks meet in Ts alone: no seam of a row meets one of the next', () => {
    const build = plan('bricks', { measures: { mortar: { mm: 0 } } });
    const cells = cellsOf(build);
    const corners = new Map<string, number>();
    for (const cell of cells) {
      const { min, max } = bounds({ cells: [cell] });
      for (const x of [min[0], max[0]])
        for (const y of [min[1], max[1]]) {
          const key = `${x.toFixed(3)} ${y.toFixed(3)}`;
          corners.set(key, (corners.get(key) ?? 0) + 1);
        }
    }
    expect(Math.max(...corners.values())).toBe(2);
  });
  it('a mosaic keeps seams apart by the measure, so that no four corners meet', () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const build = plan(
        'mosaic',
        { measures: { seed, apart: typed('1/4') } },
        { ...exact, settingStep: typed('1/32') },
      );
      const laid = after(build, 'glue-block').laid ?? [];
      const block = after(build, 'glue-block').pieces[0].blank;
      const rows = laid.map(({ min, max }) =>
        block.cells
          .filter(({ vertices }) => vertices.every((v) => v[0] > min[0] - 1e-6 && v[0] < max[0] + 1e-6))
          .map((cell) => bounds({ cells: [cell] }).min[1])
          .filter((y) => y > 1e-6),
      );
      for (let i = 1; i < rows.length; i++)
        for (const y of rows[i])
          for (const other of rows[i - 1]) expect(Math.abs(y - other)).toBeGreaterThan(INCH / 4 - 1e-6);
    }
  });
  it('staggered lengths keep end joints of neighbours apart, and rows as long as asked', () => {
    for (const seed of [1, 7, 23]) {
      const build = plan('butcher', { measures: { seed } });
      const glue = build.steps.find(({ id }) => id === 'glue');
      if (glue?.kind !== 'glue') throw new Error();
      let at = 0;
      const rows = (glue.rows?.counts ?? []).map((count) => {
        const row = build.assemblies[0].slots.slice(at, at + count).map(({ length }) => length.mm);
        at += count;
        return row;
      });
      for (let i = 1; i < rows.length; i++)
        for (const a of jointsOf(rows[i]))
          for (const b of jointsOf(rows[i - 1])) expect(Math.abs(a - b)).toBeGreaterThan(4 * INCH - 1e-6);
      const lengths = rows.map((row) => row.reduce((sum, mm) => sum + mm, 0));
      for (const length of lengths) expect(length).toBeCloseTo(lengths[0], 6);
    }
  });
  it('cubes are hexagons of three, honeycombed without gap or overlap', () => {
    const build = plan('cubes', {});
    const block = after(build, 'glue-block').pieces[0].blank;
    const hexagons = after(build, 'glue-block').laid?.length ?? 0;
    expect(block.cells).toHaveLength(3 * hexagons);
    const side = typed('1 1/8').mm;
    const slice = extents(block)[2];
    const area = block.cells.length * side * side * (Math.sqrt(3) / 2);
    const volume = run(build).steps.find(({ id }) => id === 'glue-block');
    expect(volume?.pieces[0].blank.cells.reduce((sum, cell) => sum + boxlessVolume(cell), 0)).toBeCloseTo(
      area * slice,
      0,
    );
    expect(run(build).problems.filter(({ code }) => code === 'parts-overlap')).toEqual([]);
  });
  it('blocks share one separator between neighbours, none outside unless asked', () => {
    const lines = (outside: string) =>
      plan('blocks', { measures: { count: 4, outside } }).steps.find(({ id }) => id === 'slice-line');
    expect((lines('no') as { count: number }).count).toBe(3);
    expect((lines('yes') as { count: number }).count).toBe(5);
  });
  it('rows of a picture that disagree are answered with the difference', () => {
    expect(() => plan('blocks', { measures: { map: 'aab / aabb' } })).toThrow(
      'Row 2 of the picture has 4 squares and row 1 has 3: its panel would be 1 3/8 in wider.',
    );
    expect(() => plan('blocks', { measures: { map: 'aaz' } })).toThrow('“z” in row 1 is no wood');
  });
  it('angles near 0 and 90 degrees, steps larger than the strips, and impossible staggers are answered in words', () => {
    expect(() => plan('chevron', { measures: { angle: 4 } })).toThrow('from 15 to 80 degrees; it is 4');
    expect(() => plan('chevron', { measures: { angle: 89 } })).toThrow('it is 89');
    expect(() => plan('stepped', { measures: { step: typed('9') } })).toThrow(
      'more than one run of all woods',
    );
    expect(() => plan('stagger', { measures: { hold: 'given', narrow: typed('2') } })).toThrow(
      'narrower than the others',
    );
    expect(() =>
      plan('butcher', { measures: { longest: typed('6'), shortest: typed('5'), apart: typed('4') } }),
    ).toThrow('apart when no piece is longer than 6 in');
    expect(() => plan('match', { measures: { kind: 'book', leaves: 3 } })).toThrow('3 is odd');
    expect(() => plan('skinned', { measures: { skin: typed('1') } })).toThrow('nothing is left for the core');
    expect(() => plan('framed', { measures: { border: typed('9') } })).toThrow('leave no field');
  });
});

describe('several alike', () => {
  it.each([
    'panel',
    'endGrain',
    'stagger',
    'bricks',
    'basket',
    'stepped',
    'mosaic',
  ] as const)('three of “%s” are cut and sliced together, each exactly as asked, never with more wood than three by themselves', (pattern) => {
    const shop = { ...exact, settingStep: typed('1/32') };
    const one = run(plan(pattern, {}, shop));
    const build = plan(pattern, { quantity: 3 }, shop);
    const three = run(build);
    expect(three.problems.filter(({ severity }) => severity !== 'note')).toEqual([]);
    expect(three.finished?.pieces).toHaveLength(3);
    for (const { blank } of three.finished?.pieces ?? [])
      expect(extents(blank)).toEqual((one.finished?.greatest ?? []).map((mm) => expect.closeTo(mm, 6)));
    expect(three.woodInMm3).toBeLessThan(3 * one.woodInMm3 * (1 + 1e-9));
    expect(build.targets[0].quantity).toBe(3);
  });
  it('every pattern that offers it says so', () => {
    expect(PATTERNS.filter(({ batch }) => batch).map(({ id }) => id)).toHaveLength(7);
  });
});

/** Volume of a prism on its end: the area of its upper face times its height. */
function boxlessVolume(cell: Cell): number {
  const { min, max } = bounds({ cells: [cell] });
  const top = cell.faces.find(({ normal }) => normal[2] > 0.99);
  if (!top) throw new Error('no upper face');
  const points = top.loop.map((i) => cell.vertices[i]);
  const area = points.reduce((sum, p, i) => {
    const q = points[(i + 1) % points.length];
    return sum + (p[0] * q[1] - q[0] * p[1]) / 2;
  }, 0);
  return area * (max[2] - min[2]);
}
