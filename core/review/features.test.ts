import { describe, expect, it } from 'vitest';
import { type BuildDocument, phraseText } from '../document';
import { mustEdit } from '../edit';
import { defaultShop } from '../kit';
import { run } from '../run';
import type { Feature, FeatureStep } from '../steps';
import { build, GLUE, slot } from '../steps/steps.fixture';
import { findingsOf, review } from '.';
import { expectMended } from './mended.fixture';

/* Strips of 60, 30 thick: joints at 60 and 120 of 180. */
const strips = [slot('s1', 600, 60, 30), slot('s2', 600, 60, 30), slot('s3', 600, 60, 30)];
const at = (by: number) => ({ from: 'low' as const, by: { mm: by } });
const mm = (value: number) => ({ mm: value });
const hole = (id: string, u: number, v: number, diameter: number, more: object = {}): Feature =>
  ({ id, kind: 'hole', side: 'upper', u: at(u), v: at(v), diameter: mm(diameter), ...more }) as Feature;
const cutting = (features: Feature[], change: Partial<BuildDocument> = {}): BuildDocument =>
  build(
    strips,
    [
      GLUE,
      {
        id: 'cut',
        kind: 'feature',
        inputs: ['panel'],
        output: 'done',
        features,
        edges: 'finished',
      } satisfies FeatureStep,
    ],
    change,
  );
const of = (document: BuildDocument) =>
  findingsOf(document, run(document))
    .filter(({ step, code }) => step === 'cut' && /^(feature|cutter|large|no-such-cutter)/.test(code))
    .map(({ code, numbers }) => ({ code, ...numbers }));

describe('features against joints, edges and each other', () => {
  it('a hole of 20 at 65 lies on the joint at 60; at 73 it clears by 3', () => {
    expect(of(cutting([hole('h', 200, 65, 20)]))).toEqual([
      { code: 'feature-on-joint', into: 5, joints: 1, clear: 3, at: 0 },
    ]);
    expect(of(cutting([hole('h', 200, 73, 20)]))).toEqual([]);
    expectMended(cutting([hole('h', 200, 65, 20)]), 'feature-on-joint');
  });
  it('beside the wood, out of the edge, too near to it: with the wall that is left', () => {
    expect(of(cutting([hole('h', 900, 30, 20)]))).toEqual([
      { code: 'feature-beside', length: 600, width: 180, at: 0 },
    ]);
    expect(of(cutting([hole('h', 200, 8, 20)]))).toEqual([
      { code: 'feature-breaks-out', wall: expect.closeTo(-2, 9) as number, least: 3, at: 0 },
    ]);
    expect(of(cutting([hole('h', 200, 12, 20)]))).toEqual([
      { code: 'feature-thin-wall', wall: expect.closeTo(2, 9) as number, least: 3, at: 0 },
    ]);
    for (const v of [8, 12])
      expectMended(cutting([hole('h', 200, v, 20)]), v === 8 ? 'feature-breaks-out' : 'feature-thin-wall');
  });
  it('deeper than the wood, and too thin a floor', () => {
    expect(of(cutting([hole('h', 200, 30, 20, { depth: mm(34) })]))).toEqual([
      { code: 'feature-too-deep', depth: 34, thickness: 30, over: 4, at: 0 },
    ]);
    expect(of(cutting([hole('h', 200, 30, 20, { depth: mm(28.5) })]))).toEqual([
      { code: 'feature-thin-floor', floor: 1.5, least: 3, at: 0 },
    ]);
    expectMended(cutting([hole('h', 200, 30, 20, { depth: mm(28.5) })]), 'feature-thin-floor');
  });
  it('mortises 9 deep from both edges of 16 meet by 2', () => {
    const thin = build(
      [slot('s1', 400, 16, 40)],
      [
        GLUE,
        {
          id: 'cut',
          kind: 'feature',
          inputs: ['panel'],
          output: 'done',
          edges: 'now',
          features: (['near', 'far'] as const).map(
            (side): Feature => ({
              id: side,
              kind: 'mortise',
              side,
              u: at(200),
              v: at(20),
              length: mm(40),
              width: mm(8),
              depth: mm(9),
              ends: 'round',
              runs: 'along',
            }),
          ),
        } satisfies FeatureStep,
      ],
    );
    expect(of(thin)).toEqual([
      { code: 'features-meet', bridge: expect.closeTo(-2, 6) as number, least: 3, other: 0, at: 0 },
    ]);
  });
  it('a hand hold 16 deep breaks through to a groove 15 in; 12 deep leaves 3', () => {
    const both = (depth: number): Feature[] => [
      {
        id: 'j',
        kind: 'juice',
        side: 'upper',
        u: at(0),
        v: at(0),
        inset: mm(15),
        width: mm(10),
        depth: mm(20),
        radius: mm(10),
        floor: 'flat',
      },
      {
        id: 'g',
        kind: 'handHold',
        side: 'near',
        u: at(300),
        v: at(15),
        length: mm(110),
        height: mm(18),
        depth: mm(depth),
      },
    ];
    expect(of(cutting(both(16)))).toEqual([
      { code: 'features-meet', bridge: expect.closeTo(-1, 2) as number, least: 3, other: 0, at: 0 },
    ]);
    expect(of(cutting(both(14)))).toMatchObject([
      { code: 'features-near', bridge: expect.closeTo(1, 2) as number },
    ]);
    expect(of(cutting(both(12)))).toEqual([]);
  });
  it('an opening that leaves no bridge: the wall to the edge, and what stays between two', () => {
    const opening = (id: string, u: number, width: number): Feature => ({
      id,
      kind: 'opening',
      side: 'upper',
      u: at(u),
      v: at(90),
      shape: 'rectangle',
      length: mm(200),
      width: mm(width),
      radius: mm(10),
      cutter: mm(10),
    });
    expect(of(cutting([opening('o', 300, 180)]))).toEqual([
      { code: 'feature-thin-wall', wall: expect.closeTo(0, 9) as number, least: 3, at: 0 },
    ]);
    expect(of(cutting([opening('o', 300, 190)]))).toEqual([
      { code: 'feature-breaks-out', wall: expect.closeTo(-5, 9) as number, least: 3, at: 0 },
    ]);
    expect(of(cutting([opening('o', 180, 100), opening('p', 382, 100)]))).toMatchObject([
      { code: 'features-near', bridge: expect.closeTo(2, 6) as number, least: 3 },
    ]);
    expectMended(cutting([opening('o', 180, 100), opening('p', 382, 100)]), 'features-near');
  });
  it('five hundred holes are more than one step plans, and the others stay', () => {
    const row = (pitch: number) =>
      hole('h', 10, 90, 1, { row: { along: 'u', pitch: mm(pitch), keepOut: mm(10) } });
    const [note] = run(cutting([row(1.16), hole('g', 300, 30, 8)])).problems;
    expect(note).toMatchObject({ code: 'feature-not-cut', numbers: { count: 501, most: 400 } });
    expect(run(cutting([row(1.16), hole('g', 300, 30, 8)])).steps.at(-1)?.pieces).toHaveLength(1);
  });
  it('a cutter that stands out of its collet too far, and a bushing that it does not pass', () => {
    const shop = {
      ...defaultShop('s'),
      bits: [{ id: 'b', name: 'Spiral bit', kind: 'spiral' as const, diameter: mm(12), whole: mm(40) }],
    };
    const slot = (more: object): Feature =>
      ({
        id: 'm',
        kind: 'mortise',
        side: 'upper',
        u: at(300),
        v: at(90),
        length: mm(50),
        width: mm(12),
        depth: mm(24),
        ends: 'round',
        runs: 'along',
        ...more,
      }) as Feature;
    const codes = (own: Feature) =>
      findingsOf(cutting([own], { shop }), run(cutting([own], { shop })))
        .filter(({ step }) => step === 'cut')
        .map(({ code, numbers }) => ({ code, ...numbers }));
    // 40 in all, 19 of it held: 21 stand out.
    expect(codes(slot({}))).toMatchObject([
      { code: 'cutter-stands-out', standsOut: 24, reach: 21, grip: 19 },
    ]);
    expect(codes(slot({ depth: mm(20) }))).toEqual([]);
    const guide = { outer: mm(16), inner: mm(11), thick: mm(8) };
    expect(codes(slot({ depth: mm(12), guide }))).toMatchObject([
      { code: 'bushing-too-narrow', inner: 11, cutter: 12 },
    ]);
    expect(codes(slot({ depth: mm(15), guide: { ...guide, inner: mm(13) } }))).toMatchObject([
      { code: 'cutter-stands-out', standsOut: 23, reach: 21 },
    ]);
    expectMended(cutting([slot({})], { shop }), 'cutter-stands-out');
    expectMended(cutting([slot({ depth: mm(12), guide })], { shop }), 'bushing-too-narrow');
  });
  it('a cutter that is too short, one that turns slowly, and the usual order', () => {
    const { shop } = cutting([]);
    const bits = [
      { id: 'b', name: 'Spiral 12', kind: 'spiral', diameter: mm(12), cutting: mm(20), shank: mm(12) },
      { id: 'big', name: 'Wide bit', kind: 'roundOver', diameter: mm(57) },
    ] as NonNullable<typeof shop.bits>;
    const pocket: Feature = {
      id: 'p',
      kind: 'pocket',
      side: 'upper',
      u: at(300),
      v: at(90),
      length: mm(80),
      width: mm(60),
      depth: mm(24),
      radius: mm(6),
    };
    expect(of(cutting([pocket], { shop: { ...shop, bits } }))).toEqual([
      { code: 'cutter-too-short', cutting: 20, depth: 24, short: 4, body: 12, wide: 12, at: 0 },
    ]);
    const edge: Feature = {
      id: 'e',
      kind: 'edge',
      side: 'upper',
      u: at(0),
      v: at(0),
      profile: 'roundOver',
      size: mm(5),
      which: 'all',
      bit: 'big',
    };
    expect(
      of(cutting([edge, hole('h', 200, 30, 10)], { shop: { ...shop, bits } })).map(({ code }) => code),
    ).toEqual(['large-cutter', 'feature-order']);
    const gone = hole('h', 200, 30, 10, { bit: 'sold' });
    expect(of(cutting([gone], { shop: { ...shop, bits } }))).toEqual([
      { code: 'no-such-cutter', bits: 2, at: 0 },
    ]);
    // Any that fits is offered where the kit has one.
    const drill = { id: 'd', name: 'Drill 10', kind: 'bradPoint', diameter: mm(10) } as (typeof bits)[number];
    expectMended(cutting([gone], { shop: { ...shop, bits: [...bits, drill] } }), 'no-such-cutter');
    const wide: Feature = { ...pocket, depth: mm(10), radius: mm(4), bit: 'b' };
    expect(of(cutting([wide], { shop: { ...shop, bits } }))).toEqual([
      { code: 'cutter-of-other-width', diameter: 12, width: 8, at: 0 },
    ]);
    // A chamfer is not made with the round-over bit that the kit has.
    const chamfer: Feature = { ...edge, profile: 'chamfer', bit: undefined } as Feature;
    const asked = cutting([chamfer], { shop: { ...shop, bits } });
    const said = findingsOf(asked, run(asked)).map(({ message }) =>
      phraseText(message, { system: 'mm', fraction: 0 }),
    );
    expect(said.filter((words) => words.startsWith('Chamfer bit'))).toHaveLength(1);
    expect(said.some((words) => words.startsWith('Wide bit'))).toBe(false);
    const found = review(
      cutting([edge, hole('h', 200, 30, 10)]),
      run(cutting([edge, hole('h', 200, 30, 10)])),
    );
    const order = found.find(({ code }) => code === 'feature-order');
    expect(order?.fixes.map(({ label }) => label)).toEqual(['Put them in the usual order']);
    // Two holes stay in the order they were in, before the edge.
    const mixed = cutting([hole('h', 200, 30, 10), edge, hole('k', 300, 30, 10)]);
    expectMended(mixed, 'feature-order');
    const [fix] = review(mixed, run(mixed)).find(({ code }) => code === 'feature-order')?.fixes ?? [];
    const cut = mustEdit(mixed, fix.edit).steps.find((step): step is FeatureStep => step.kind === 'feature');
    expect(cut?.features.map(({ id }) => id)).toEqual(['h', 'k', edge.id]);
  });
});
