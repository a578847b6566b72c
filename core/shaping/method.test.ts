import { describe, expect, it } from 'vitest';
import type { Display } from '../units';
import { phraseText } from '../document';
import type { Bit } from '../kit';
import { run } from '../run';
import { type Feature, type FeatureStep, fromStock } from '../steps';
import { build, GLUE, three } from '../steps/steps.fixture';
import { colletReach, featureReport, guideReport, methodOf, standsOut } from '.';

/* The panel is 500 by 150 by 25. */
const mm = (value: number) => ({ mm: value });
const middle = { from: 'middle' as const, by: mm(0) };
const DISPLAY: Display = { system: 'mm' } as Display;
const feature = (own: Record<string, unknown>): Feature =>
  ({ id: 'f', side: 'upper', u: middle, v: middle, ...own }) as unknown as Feature;
const bit = (own: Partial<Bit>): Bit => ({ id: 'b', name: 'Bit', kind: 'spiral', diameter: mm(12), ...own });
const reportOf = (own: Feature, bits: Bit[] = []) => {
  const step: FeatureStep = {
    id: 'cutting',
    kind: 'feature',
    inputs: ['panel'],
    output: 'cut',
    features: [own],
    edges: 'now',
  };
  const made = build(three, [GLUE, step]);
  const document = { ...made, shop: { ...made.shop, bits } };
  const entry = run(document).steps.find(({ id }) => id === 'cutting');
  const report = entry && featureReport(document, step, entry);
  if (!report) throw new Error('not played');
  return report.features[0];
};
const lines = (own: Feature, bits: Bit[] = []): string =>
  methodOf(reportOf(own, bits))
    .map((line) => phraseText(line, DISPLAY))
    .join('\n');

describe('how a feature is made', () => {
  it('an opening: corner holes, plunge cuts, what a round blade leaves below, and what falls out', () => {
    const opening = (own: object) =>
      feature({
        kind: 'opening',
        shape: 'rectangle',
        length: mm(300),
        width: mm(110),
        radius: mm(10),
        cutter: mm(3),
        ...own,
      });
    expect(lines(opening({}))).toContain(
      'Bore the four corners first: holes of 20 mm, their middles 10 mm in',
    );
    expect(lines(opening({}))).toContain('strip across what falls out');
    // A blade of 160 that reaches 3 below 25: half chords sqrt(80² - 52²) = 60.79 above, sqrt(80² - 77²) = 21.70 below.
    expect(lines(opening({ blade: mm(160) }))).toContain(
      'shortest straight side 90 mm: saw that one by hand',
    );
    expect(lines(opening({ blade: mm(160), width: mm(145) }))).toMatch(/leaves 39\.\d+ mm at each end below/);
    expect(lines(opening({ blade: mm(50) }))).toContain('does not reach through 25 mm');
    expect(lines(opening({ radius: mm(0) }))).toContain('round, radius 1.5 mm; a chisel squares them');
  });
  it('a tenon: its third, stop, cheeks and passes; a third of 38 is 12.67 (the issue’s value)', () => {
    const tenon = feature({ kind: 'tenon', side: 'right', length: mm(30), thickness: mm(8) });
    expect(lines(tenon, [bit({ kind: 'straight' })])).toContain('A third of the thickness is 8.3 mm');
    expect(38 / 3).toBeCloseTo(12.67, 2);
    expect(lines(tenon, [bit({ kind: 'straight' })])).toContain('Set the stop 30 mm from the end');
    expect(lines(tenon, [bit({ kind: 'straight' })])).toContain(
      '8.5 mm and 8.5 mm deep, 3 passes side by side',
    );
    const bare = feature({
      kind: 'tenon',
      side: 'right',
      length: mm(30),
      thickness: mm(8),
      v: { from: 'low', by: mm(4) },
    });
    expect(lines(bare)).toContain('Take one cheek off: 17 mm deep');
  });
  it('a shaped edge: the blade first where much comes off, the ends first, a block at the corner', () => {
    const edge = (own: object) =>
      feature({ kind: 'edge', profile: 'chamfer', size: mm(12), which: 'all', ...own });
    expect(lines(edge({}))).toContain('with the blade leaning');
    expect(lines(edge({}))).toContain(
      'The ends first, then the long edges. Clamp a block flush with the far corner, at least 12 mm thick',
    );
    expect(lines(edge({ size: mm(3) }))).not.toContain('blade leaning');
    expect(lines(edge({ size: mm(3), which: 'near' }))).not.toContain('block');
  });
  it('passes, where it tears out, a row of tails, an inlay and a vise', () => {
    const groove = feature({ kind: 'groove', runs: 'across', width: mm(12), depth: mm(15), floor: 'flat' });
    const said = lines(groove, [bit({})]);
    expect(said).toContain('3 passes of 5 mm, with the bit');
    expect(said).toContain('at the far edge: clamp a strip');
    expect(lines(feature({ kind: 'hole', diameter: mm(10) }))).toContain(
      'comes out at the lower face: back that side up',
    );
    const tails = feature({ kind: 'dovetails', tails: 3, length: mm(16), pin: mm(8), half: mm(6), slope: 8 });
    // (150 - 12 - 16) / 3 at the end, less 2 x 16 / 8 at the shoulder; 1 in 8 is 7.1 degrees.
    expect(lines(tails)).toMatch(
      /3 tails, 40\.7 mm at the end and 36\.7 mm at the shoulder, at 7\.1 degrees/,
    );
    expect(
      lines(
        feature({
          kind: 'inlay',
          of: 'metal',
          runs: 'along',
          length: mm(200),
          width: mm(6),
          depth: mm(4),
          radius: mm(0),
          fit: mm(0.2),
          proud: mm(1),
        }),
      ),
    ).toContain('Inlay of metal: 199.8 mm by 5.8 mm by 5 mm thick');
    const vise = {
      kind: 'vise',
      side: 'near',
      jawLength: mm(150),
      jawHeight: mm(60),
      jawDepth: mm(12),
      screw: mm(16),
      bore: mm(60),
      block: mm(20),
      bolt: mm(38),
    };
    expect(lines(feature(vise))).toContain(
      'The jaw hangs 35 mm below the top. Block of 20 mm under the top. Bolts go 18 mm into it; 7 mm stays over them.',
    );
    expect(reportOf(feature({ ...vise, bolt: mm(45) })).laid.refused?.numbers).toEqual({
      into: 25,
      thickness: 25,
      least: 3,
    });
    expect(reportOf(feature({ ...vise, bolt: mm(18) })).laid.refused?.numbers).toEqual({
      bolt: 18,
      block: 20,
    });
    expect(reportOf(feature({ ...vise, rods: mm(12), apart: mm(20) })).laid.refused?.numbers).toEqual({
      apart: 20,
      least: 28,
    });
  });
});

describe('pegs', () => {
  it('of 80 with a kerf of 3.2 from 745.6: exactly nine, nothing to spare', () => {
    expect(fromStock(745.6, 80, 3.2)).toEqual({ count: 9, over: expect.closeTo(0, 9) as number });
    expect(fromStock(745.5, 80, 3.2).count).toBe(8);
    expect(fromStock(79, 80, 3.2)).toEqual({ count: 0, over: 79 });
    const row = (stock: number) =>
      lines(
        feature({
          kind: 'hole',
          diameter: mm(10),
          u: { from: 'low', by: mm(30) },
          row: { along: 'u', count: 9, margin: mm(30) },
          peg: mm(80),
          stock: mm(stock),
          kerf: mm(3.2),
        }),
      );
    expect(row(745.6)).toContain(
      '9 pegs of 80 mm: 745.6 mm of stock with its kerfs. 745.6 mm gives exactly 9, nothing to spare.',
    );
    expect(row(700)).toContain('gives 8, with 37.6 mm over: 1 too few.');
  });
});

describe('bushings and collets', () => {
  const guide = { outer: mm(16), inner: mm(13), thick: mm(12) };
  it('a router’s template stands (outer - cutter) / 2 off the cut, and its inner corners turn with the bushing', () => {
    const groove = feature({
      kind: 'pocket',
      length: mm(80),
      width: mm(40),
      depth: mm(6),
      radius: mm(6),
      guide,
    });
    expect(guideReport(groove, 6, bit({}))).toEqual({ guide, offset: 2, leastRadius: 6 });
    expect(lines(groove, [bit({})])).toContain(
      '2 mm larger all round than the cut; its inner corners are round, radius 8 mm or more',
    );
    expect(guideReport(groove, 6, bit({ diameter: mm(14) }))?.stuck).toBeCloseTo(1, 9);
  });
  it('a drill whose body is thinner than its tip plays in the bushing, and wanders with the depth', () => {
    const hole = feature({ kind: 'hole', diameter: mm(13), depth: mm(18), guide });
    const drill = bit({ kind: 'bradPoint', diameter: mm(13), body: mm(12.4) });
    // Leaning from rim to rim of 12: 0.6 (1/2 + 18 / 12).
    const report = guideReport(hole, 18, drill);
    expect(report?.play).toBeCloseTo(0.6, 9);
    expect(report?.wander).toBeCloseTo(1.2, 9);
  });
  it('stands out by the depth and the template; three quarters of an inch stay in the collet', () => {
    expect(standsOut(feature({ kind: 'hole', diameter: mm(13), guide }), 18)).toBe(30);
    expect(colletReach(bit({ whole: mm(60) }))).toBe(41);
    expect(colletReach(bit({}))).toBeUndefined();
  });
});
