import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { phraseText } from '../../document';
import type { Bit } from '../../kit';
import { mustEdit } from '../../edit';
import { run } from '../../run';
import { across, blankVolume, lostTo, splitBlank } from '../../solid';
import { featureCuts } from '../featurecuts';
import type { TimelineStep } from '../timeline';
import type { TrimStep } from '../trim/trim';
import { build, closes, GLUE, last, size, slot, three } from '../steps.fixture';
import type { Feature } from './model';
import type { FeatureStep } from './feature';
import { beginFeature, FEATURE_LIST, kindOf } from './kinds';
import { tailOf } from './kinds/dovetails';
import { layFeatures, type Ground } from './lay';
import { standsAt } from './place';

/* The panel is 500 by 150 by 25. */
const at = (by: number) => ({ from: 'low' as const, by: { mm: by } });
const mm = (value: number) => ({ mm: value });
const hole = (u: number, v: number, diameter: number, more: Partial<Feature> = {}): Feature =>
  ({ id: 'h', kind: 'hole', side: 'upper', u: at(u), v: at(v), diameter: mm(diameter), ...more }) as Feature;
const step = (features: Feature[], change: Partial<FeatureStep> = {}): FeatureStep => ({
  id: 'cutting',
  kind: 'feature',
  inputs: ['panel'],
  output: 'cut',
  features,
  edges: 'finished',
  ...change,
});
const trim = (by: number): TrimStep => ({
  id: 'trim',
  kind: 'trim',
  inputs: ['cut'],
  output: 'trimmed',
  cutter: { saw: 'table-full' },
  start: mm(by),
  end: mm(by),
  near: mm(by),
  far: mm(by),
});
const ground = (long: number, wide: number, thick: number, over = 0, joints: number[] = []): Ground => ({
  size: [long, wide, thick],
  trims: { upper: 0, lower: 0, near: over, far: over, left: over, right: over },
  joints: () => [[], joints, []],
});
const spots = (feature: Feature, on: Ground) => layFeatures([feature], on)[0].spots;

/** One feature of every kind that can be, on a panel of 500 x 150 x 25. */
const ONE_OF_EACH: Feature[] = FEATURE_LIST.map((kind, i) => {
  const side = kind.sides?.[0] ?? 'upper';
  const [long, wide, deep] =
    side === 'left' ? [150, 25, 500] : side === 'near' ? [500, 25, 150] : [500, 150, 25];
  const size = { side, long, wide, deep, trims: { u: [0, 0], v: [0, 0], n: 0 } } as const;
  return {
    id: `f${i}`,
    kind: kind.kind,
    side,
    u: { from: 'middle', by: mm(0) },
    v: { from: 'middle', by: mm(0) },
    ...kind.begin(size),
  } as Feature;
});

describe('places', () => {
  it('stay so far from what they are measured from, however long and wide the piece comes and whatever is trimmed later', () => {
    const side = fc.record({
      long: fc.integer({ min: 200, max: 3000 }),
      wide: fc.integer({ min: 100, max: 900 }),
      off: fc.record({
        near: fc.integer({ min: 0, max: 30 }),
        far: fc.integer({ min: 0, max: 30 }),
        left: fc.integer({ min: 0, max: 40 }),
        right: fc.integer({ min: 0, max: 40 }),
      }),
    });
    const from = fc.constantFrom('low', 'high', 'middle');
    fc.assert(
      fc.property(side, side, from, from, fc.integer({ min: -400, max: 400 }), (one, two, u, v, by) => {
        const own = hole(0, 0, 10, { u: { from: u, by: mm(by / 4) }, v: { from: v, by: mm(by / 5) } });
        // How far the middle lies from the edge, or the middle, of the finished piece.
        const told = ({ long, wide, off }: typeof one) => {
          const trims = { upper: 0, lower: 0, ...off };
          const [at] = layFeatures([own], { size: [long, wide, 25], trims, joints: () => [[], [], []] })[0]
            .spots;
          const away = (place: number, [low, high]: [number, number], how: typeof u) =>
            how === 'low' ? place - low : how === 'high' ? high - place : place - (low + high) / 2;
          return [away(at.u, [off.left, long - off.right], u), away(at.v, [off.near, wide - off.far], v)];
        };
        for (const piece of [one, two]) {
          const [along, across] = told(piece);
          expect(along).toBeCloseTo(by / 4, 9);
          expect(across).toBeCloseTo(by / 5, 9);
        }
      }),
      { seed: 20261129 },
    );
  });
  it('a row from 100 at 175 with 100 kept clear of 1200: six, the last at 975', () => {
    const row = hole(100, 50, 20, { row: { along: 'u', pitch: mm(175), keepOut: mm(100) } });
    const found = spots(row, ground(1200, 600, 40));
    expect(found.map(({ u }) => u)).toEqual([100, 275, 450, 625, 800, 975]);
    expect(standsAt(8, 6, 72 - 8)).toBe(10);
  });
  it('five between margins of 80 on 920 stand 190 apart', () => {
    const row = hole(80, 50, 20, { row: { along: 'u', count: 5, margin: mm(80) } });
    expect(spots(row, ground(920, 600, 40)).map(({ u }) => u)).toEqual([80, 270, 460, 650, 840]);
  });
  it('a second row stands halfway at every n-th, and a mirror doubles all but the middle', () => {
    const row = hole(100, 50, 20, {
      row: { along: 'u', pitch: mm(200), keepOut: mm(100), second: { off: mm(100), every: 2 } },
    });
    expect(
      spots(row, ground(1200, 600, 40))
        .filter(({ v }) => v === 150)
        .map(({ u }) => u),
    ).toEqual([200, 600, 1000]);
    const middle: Feature = { ...hole(0, 50, 20), u: { from: 'middle', by: mm(0) }, mirror: 'both' };
    expect(spots(middle, ground(1200, 600, 40))).toEqual([
      { u: 600, v: 50 },
      { u: 600, v: 550 },
    ]);
  });
  it('from a joint, from another feature, and what is not there is refused with its number', () => {
    const on = ground(1200, 600, 40, 0, [60, 120]);
    const beside: Feature = { ...hole(100, 0, 20), v: { from: 'joint', joint: 2, by: mm(13) } };
    expect(spots(beside, on)).toEqual([{ u: 100, v: 133 }]);
    const after: Feature = {
      ...hole(0, 0, 10, { id: 'x' }),
      u: { from: 'feature', feature: 'h', by: mm(40) },
      v: at(5),
    };
    expect(layFeatures([beside, after], on)[1].spots).toEqual([{ u: 140, v: 5 }]);
    expect(layFeatures([after, beside], on)[0].refused?.numbers).toEqual({ placed: 0 });
    const none: Feature = { ...beside, v: { from: 'joint', joint: 3, by: mm(0) } };
    expect(layFeatures([none], on)[0].refused?.numbers).toEqual({ joint: 3, joints: 2 });
  });
  it('a groove inset 15, 10 wide, with 12 over per side begins 27 from the blank’s edge', () => {
    const [laid] = layFeatures(
      [
        {
          id: 'j',
          kind: 'juice',
          side: 'upper',
          u: at(0),
          v: at(0),
          inset: mm(15),
          width: mm(10),
          depth: mm(4),
          radius: mm(10),
          floor: 'flat',
        },
      ],
      ground(424, 324, 30, 12),
    );
    const xs = laid.cuts[0][0].region.flat().map(({ x }) => x);
    expect(Math.min(...xs)).toBeCloseTo(27, 9);
    expect(Math.max(...xs)).toBeCloseTo(397, 9);
  });
  it('keeps its place on the finished piece through trims and another size', () => {
    for (const by of [0, 12, 20]) {
      const trimmed = last(build(three, [GLUE, step([hole(40, 30, 20)]), trim(by)]));
      const [{ blank }] = trimmed.pieces;
      const box = [500 - 2 * by, 150 - 2 * by];
      expect(size(trimmed).slice(0, 2)).toEqual(box.map((v) => expect.closeTo(v, 9)));
      // Cut in two through its own middle, each half lacks half of it: along at 40, across at 30.
      for (const [axis, at, wide] of [
        [0, 40, box[1]],
        [1, 30, box[0]],
      ] as const) {
        const [half] = splitBlank(blank, across(axis, at));
        expect(at * wide * 25 - blankVolume(half), `${by} ${axis}`).toBeCloseTo((Math.PI * 100 * 25) / 2, 4);
      }
      expect(box[0] * box[1] * 25 - blankVolume(blank)).toBeCloseTo(Math.PI * 100 * 25, 4);
    }
  });
});

describe('what is cut', () => {
  it.each(
    ONE_OF_EACH.map((feature) => [feature.kind, feature] as const),
  )('%s takes wood, and none is lost', (_kind, feature) => {
    const document = build(three, [GLUE, step([feature])]);
    const played = last(document);
    expect(run(document).problems).toEqual([]);
    expect(lostTo(played.lost, 'chips')).toBeGreaterThan(0);
    expect(size(played)).toEqual([500, 150, 25].map((v) => expect.closeTo(v, 9)));
    closes(document);
  });
  it('an opening gives its plug as an offcut and its line as chips', () => {
    const feature: Feature = {
      id: 'o',
      kind: 'opening',
      side: 'upper',
      u: at(250),
      v: at(75),
      shape: 'rectangle',
      length: mm(200),
      width: mm(80),
      radius: mm(10),
      cutter: mm(10),
    };
    const played = last(build(three, [GLUE, step([feature])]));
    const whole = 200 * 80 - (4 - Math.PI) * 100;
    expect(lostTo(played.lost, 'offcut')).toBeCloseTo(180 * 60 * 25, 4);
    expect(lostTo(played.lost, 'chips')).toBeCloseTo((whole - 180 * 60) * 25, 4);
  });
  it('a tenon in 38 begins at a third, 12.67; two off one piece leave it between them', () => {
    const kind = kindOf({ kind: 'tenon' });
    const side = {
      side: 'left',
      long: 90,
      wide: 38,
      deep: 600,
      trims: { u: [0, 0], v: [0, 0], n: 0 },
    } as const;
    expect((kind.begin(side) as { thickness: { mm: number } }).thickness.mm).toBeCloseTo(12.67, 1);
    const tenon: Feature = {
      id: 't',
      kind: 'tenon',
      side: 'right',
      u: { from: 'middle', by: mm(0) },
      v: { from: 'middle', by: mm(0) },
      length: mm(30),
      thickness: mm(8),
      width: mm(100),
    };
    const played = last(build(three, [GLUE, step([tenon])]));
    expect(lostTo(played.lost, 'chips')).toBeCloseTo(30 * (150 * 25 - 100 * 8), 4);
  });
  it('a dovetail row cuts what lies between its tails: trapezoids through the thickness', () => {
    const feature: Feature = {
      id: 'd',
      kind: 'dovetails',
      side: 'upper',
      u: at(0),
      v: at(0),
      tails: 3,
      length: mm(20),
      pin: mm(10),
      half: mm(6),
      slope: 8,
    };
    const played = last(build(three, [GLUE, step([feature])]));
    // Pins grow by length / slope to each side; half pins to one.
    const pins = 2 * (10 + 20 / 8) * 20 + 2 * (6 + 20 / 16) * 20;
    expect(lostTo(played.lost, 'chips')).toBeCloseTo(pins * 25, 3);
  });
  it('what cannot be is left out and said with its numbers: thicker, larger, negative, too many', () => {
    const problem = (feature: Partial<Feature> & { kind: Feature['kind'] }) =>
      run(
        build(three, [
          GLUE,
          step([{ ...ONE_OF_EACH.find(({ kind }) => kind === feature.kind), ...feature } as Feature]),
        ]),
      ).problems.map(({ code, numbers }) => ({ code, numbers }));
    expect(problem({ kind: 'tenon', thickness: mm(25) })).toEqual([
      { code: 'feature-not-cut', numbers: { tenon: 25, thickness: 25 } },
    ]);
    expect(problem({ kind: 'juice', inset: mm(-2) })).toEqual([
      { code: 'feature-not-cut', numbers: { inset: -2, least: 0 } },
    ]);
    expect(problem({ kind: 'pocket', radius: mm(70) })[0].numbers.radius).toBe(70);
    expect(problem({ kind: 'hole', passes: mm(12) })[0].numbers).toEqual({ passes: 12, diameter: 10 });
    const many = Array.from({ length: 5 }, (_, i) =>
      hole(1, 10 + i, 1, { id: `h${i}`, row: { along: 'u', count: 100, margin: mm(1) } }),
    );
    expect(run(build(three, [GLUE, step(many)])).problems).toMatchObject([
      { code: 'too-many-features', numbers: { count: 500, most: 400 } },
    ]);
  });
  it('kinds drawn at random, moved and trimmed: the ledger closes', () => {
    fc.assert(
      fc.property(
        fc.subarray(ONE_OF_EACH, { minLength: 1 }),
        fc.integer({ min: 0, max: 20 }),
        fc.integer({ min: -300, max: 300 }),
        (features, over, move) => {
          const moved = features.map((each) => ({ ...each, u: { ...each.u, by: mm(move) } }));
          closes(build(three, [GLUE, step(moved), trim(over)]));
        },
      ),
      { numRuns: 12, seed: 1620 },
    );
  });
  it('undone, all is as it was; re-scaled, a place from the middle stays in the middle', () => {
    const document = build([slot('s1', 900, 80, 25), slot('s2', 900, 80, 25)], [GLUE, step([])]);
    const feature: Feature = {
      ...hole(0, 0, 20),
      u: { from: 'middle', by: mm(0) },
      v: { from: 'high', by: mm(30) },
    };
    const next = mustEdit(document, { do: 'setStep', step: 'cutting', change: { features: [feature] } });
    expect(lostTo(last(next).lost, 'chips')).toBeCloseTo(Math.PI * 100 * 25, 5);
    const undone = mustEdit(next, { do: 'setStep', step: 'cutting', change: { features: [] } });
    expect(blankVolume(last(undone).pieces[0].blank)).toBe(blankVolume(last(document).pieces[0].blank));
    expect(spots(feature, ground(900, 160, 25))).toEqual([{ u: 450, v: 130 }]);
    expect(spots(feature, ground(600, 240, 25))).toEqual([{ u: 300, v: 210 }]);
  });
  it('is told as it is marked out: sizes, and middles from the finished edges', () => {
    const document = build(three, [
      GLUE,
      step([hole(40, 30, 20, { row: { along: 'u', count: 3, margin: mm(60) } } as Partial<Feature>)]),
      trim(12),
    ]);
    const played = run(document).steps.find(({ id }) => id === 'cutting') as TimelineStep;
    const [words] = featureCuts(document.steps[2], played, document);
    expect(phraseText(words, { system: 'mm', fraction: 0 })).toBe(
      'Hole in the upper face: diameter 20 mm; its middle 40 mm from the left end, 30 mm from the near edge; 3 in all, the next 188 mm on.',
    );
  });
});

it('what a feature is narrowest at decides the cutter: an inside corner, else the feature itself', () => {
  const narrowest = (kind: string, settings: object) =>
    kindOf({ kind } as Feature).narrowest?.({ kind, ...settings } as Feature);
  const [l, w] = [mm(40), mm(30)];
  // A corner of radius r is cut by nothing wider than 2 r, however small it is.
  for (const r of [0.5, 1, 6]) {
    expect(narrowest('pocket', { length: l, width: w, radius: mm(r) })).toBe(2 * r);
    expect(narrowest('inlay', { length: l, width: w, radius: mm(r) })).toBe(2 * r);
  }
  expect(narrowest('pocket', { length: l, width: w, radius: mm(0) })).toBe(30);
  expect(narrowest('pocket', { length: w, width: l, radius: mm(0) })).toBe(30);
  expect(narrowest('inlay', { length: l, width: w, radius: mm(0) })).toBe(30);
  expect(narrowest('vise', { screw: mm(36), rods: mm(20) })).toBe(20);
  expect(narrowest('vise', { screw: mm(36) })).toBe(36);
});

it('tails share what half pins and pins leave', () => {
  const joint = { tails: 3, pin: mm(10), half: mm(5) } as Parameters<typeof tailOf>[0];
  expect(tailOf(joint, 120)).toBe(30);
  expect(tailOf({ ...joint, tails: 1 }, 120)).toBe(110);
});

it('stand as often as their pitch goes into the way, to a thousandth of a thousandth', () => {
  for (const [start, pitch, last, count] of [
    [0, 10, 30, 4],
    [0, 10, 29.9999995, 4],
    [0, 10, 29.999995, 3],
    [5, 10, 30, 3],
    [0, 10, 0, 1],
    [0, 10, -1, 0],
    [12, 0.5, 13, 3],
  ])
    expect(standsAt(start, pitch, last), `${start} ${pitch} ${last}`).toBe(count);
});

it('begins with the cutter that comes nearest to it; of two as near, the kind it is usually made with', () => {
  const trims = { u: [0, 0], v: [0, 0], n: 0 } as const;
  const side = { side: 'upper', long: 400, wide: 300, deep: 20, trims } as const;
  const bit = (id: string, kind: string, diameter: number) =>
    ({ id, kind, name: id, diameter: mm(diameter) }) as Bit;
  let met = 0;
  for (const kind of FEATURE_LIST) {
    const begin = (bits: Bit[]) => beginFeature(kind, side, { id: 'a', system: 'mm', bits });
    const wish = kind.bitMm?.(begin([]));
    const [usual, other] = kind.bits;
    if (wish === undefined || !usual) continue;
    const taken = (...bits: Bit[]) => (begin(bits) as { bit?: string }).bit;
    const [near, far] = [bit('near', usual, wish - 1), bit('far', usual, wish + 1.25)];
    expect([taken(far, near), taken(near, far)], kind.kind).toEqual(['near', 'near']);
    const [above, below] = [bit('near', usual, wish + 1), bit('far', usual, wish - 1.25)];
    expect([taken(below, above), taken(above, below)], kind.kind).toEqual(['near', 'near']);
    if (!other) continue;
    met += 1;
    const [second, first] = [bit('second', other, wish + 1), bit('first', usual, wish - 1)];
    expect([taken(second, first), taken(first, second)], kind.kind).toEqual(['first', 'first']);
  }
  expect(met).toBeGreaterThan(0);
});
