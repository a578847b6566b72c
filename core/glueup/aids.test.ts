import { describe, expect, it } from 'vitest';
import type { Brief, BuildDocument, Edit, KeptClear, OwnAidSize } from '../document';
import { mustEdit } from '../edit';
import { typed } from '../kit';
import { CHEQUER, fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import type { Feature, FeatureStep, GlueStep } from '../steps';
import { build as fixtureBuild, GLUE, slot } from '../steps/steps.fixture';
import { INCH } from '../units';
import { layAids } from './aids';
import { type GlueUp, glueUpOf } from './glueup';

const planned = (change: Partial<Brief> = {}): BuildDocument => plannedFor(panelBrief(change), shopWith());
const block = () => planned(CHEQUER);
const first = (build: BuildDocument): GlueUp => glueUpOf(build, run(build), 'glue') as GlueUp;
const edit = (build: BuildDocument, ...edits: Edit[]) => edits.reduce(mustEdit, build);

describe('alignment aids', () => {
  const withAids = (
    build: BuildDocument,
    kind: 'biscuits' | 'dowels' | 'splines',
    places?: [number, number][],
  ) =>
    edit(build, {
      do: 'planGlue',
      step: 'glue',
      change: {
        aids: {
          kind,
          ...(places ? { places: places.map(([joint, at]) => ({ joint, at: { mm: at } })) } : {}),
        },
      },
    });
  const laid = (build: BuildDocument) => layAids(build, run(build), first(build));
  it('keep clear of the trims at both ends, and stay in wood to the end', () => {
    const layout = laid(withAids(planned(), 'biscuits'));
    expect(layout.aids.length).toBeGreaterThanOrEqual(4 * 4);
    const glueUp = first(planned());
    const trim = (3 * INCH) / 16;
    for (const { at, along, bad } of layout.aids) {
      expect(bad).toBeUndefined();
      expect(at - along / 2).toBeGreaterThan(trim);
      expect(at + along / 2).toBeLessThan(glueUp.lengthMm - trim);
    }
    expect(layout.centreMm).toBeCloseTo(glueUp.heightMm / 2, 9);
  });
  it('that a slice would open are found, with the step that opens them; none are placed in its way', () => {
    const sliced = withAids(block(), 'dowels', [[1, 65]]);
    const bad = laid(sliced).aids[0].bad;
    expect(bad?.kind).toBe('cut');
    expect(bad?.step).toBe('Slice');
    // Every place along the panel is sliced within 45 mm: dowels fit between, biscuits of 62 mm never.
    const dowels = laid(withAids(block(), 'dowels'));
    expect(dowels.aids.length).toBeGreaterThan(0);
    expect(dowels.aids.every((aid) => aid.bad === undefined)).toBe(true);
    const biscuits = laid(withAids(block(), 'biscuits'));
    expect(biscuits.aids).toEqual([]);
    expect(biscuits.bare).toHaveLength(first(block()).lines.length);
  });
  it('that hang over an end, lie on one another or in what is kept clear are found', () => {
    const build = planned();
    const problems = laid(
      withAids(build, 'biscuits', [
        [1, 10],
        [2, 300],
        [2, 320],
      ]),
    ).aids.map(({ bad }) => bad?.kind);
    expect(problems).toEqual(['end', 'aid', 'aid']);
    const clear = edit(build, {
      do: 'planGlue',
      step: 'glue',
      change: {
        aids: {
          kind: 'dowels',
          places: [{ joint: 1, at: { mm: 400 } }],
          keepOut: [{ from: { mm: 380 }, to: { mm: 500 }, why: 'sink' }],
        },
      },
    });
    expect(laid(clear).aids[0].bad?.kind).toBe('keepOut');
  });
  /* A counter of five boards of 112, 1500 long, with an opening of 480 x 360 in its middle: 100 to 460 across. */
  const counter = (into: number, more: Partial<OwnAidSize> = {}, features: Feature[] = [SINK]) =>
    fixtureBuild(
      [1, 2, 3, 4, 5].map((i) => slot(`s${i}`, 1500, 112, 30)),
      [
        {
          ...GLUE,
          plan: {
            aids: {
              kind: 'biscuits',
              places: [{ joint: 4, at: { mm: 750 } }],
              own: { thick: { mm: 4 }, into: { mm: into }, along: { mm: 50 }, ...more },
            },
          },
        },
        {
          id: 'cut',
          kind: 'feature',
          inputs: ['panel'],
          output: 'cut',
          features,
          edges: 'finished',
        } satisfies FeatureStep,
      ],
    );
  const SINK: Feature = {
    id: 'sink',
    kind: 'opening',
    side: 'upper',
    u: { from: 'middle', by: { mm: 0 } },
    v: { from: 'middle', by: { mm: 0 } },
    shape: 'rectangle',
    length: { mm: 480 },
    width: { mm: 360 },
    radius: { mm: 25 },
    cutter: { mm: 10 },
  };
  it('at an opening from 100: 14 into the strips of the joint at 112 is exposed by 2, 12 by 0, 10 falls away', () => {
    const bad = (into: number) => laid(counter(into)).aids[0].bad;
    // The joint at 112 from the near edge is the fourth from the far one.
    expect(first(counter(14)).lines.find(({ joint }) => joint === 4)?.at).toBeCloseTo(112, 6);
    expect(bad(14)).toMatchObject({
      kind: 'cut',
      step: 'Bore and rout',
      shortMm: expect.closeTo(5, 6) as number,
    });
    expect(bad(14)?.words).toContainEqual({ mm: expect.closeTo(2, 6) as number });
    expect(bad(12)).toMatchObject({ kind: 'cut', shortMm: expect.closeTo(3, 6) as number });
    expect(bad(10)?.kind).toBe('waste');
    // By themselves, none is put where it would be opened or fall away.
    const build = counter(14);
    const free = mustEdit(build, {
      do: 'planGlue',
      step: 'glue',
      change: { aids: { kind: 'biscuits', own: { thick: { mm: 4 }, into: { mm: 14 }, along: { mm: 50 } } } },
    });
    const all = laid(free);
    expect(all.aids.length).toBeGreaterThan(10);
    expect(all.aids.every((aid) => aid.bad === undefined)).toBe(true);
    for (const { joint, at } of all.aids.filter((aid) => aid.joint === 4 || aid.joint === 1))
      expect(Math.abs(at - 750), `joint ${joint} at ${at}`).toBeGreaterThan(240 + 25);
  });
  it('take the number, pitch and first place that were entered, and keep clear of a joint or a height alone', () => {
    const own = counter(10, { pitch: { mm: 300 }, first: { mm: 90 }, count: 3 }, []);
    const free = mustEdit(own, {
      do: 'planGlue',
      step: 'glue',
      change: { aids: { ...(own.steps[1] as GlueStep).plan?.aids, kind: 'biscuits', places: undefined } },
    });
    expect(
      laid(free)
        .aids.filter(({ joint }) => joint === 2)
        .map(({ at }) => at),
    ).toEqual([90, 390, 690]);
    const clear = (zone: Partial<KeptClear>) =>
      laid(
        mustEdit(own, {
          do: 'planGlue',
          step: 'glue',
          change: {
            aids: {
              kind: 'biscuits',
              places: [{ joint: 4, at: { mm: 750 } }],
              own: (own.steps[1] as GlueStep).plan?.aids?.own,
              keepOut: [{ from: { mm: 700 }, to: { mm: 800 }, why: 'a bolt', ...zone }],
            },
          },
        }),
      ).aids[0].bad?.kind;
    expect(clear({})).toBe('keepOut');
    expect(clear({ joint: 4 })).toBe('keepOut');
    expect(clear({ joint: 3 })).toBeUndefined();
    expect(clear({ low: { mm: 20 } })).toBeUndefined();
    expect(clear({ high: { mm: 10 } })).toBeUndefined();
  });
  it('never meet in a thin strip: those of neighbouring joints are set apart', () => {
    const narrow = withAids(planned({ module: typed('1') }), 'biscuits');
    const { aids, size } = laid(narrow);
    expect(aids.length).toBeGreaterThan(0);
    const strip = first(narrow).courses[1];
    const room = strip.to - strip.from - 2 * (size?.into ?? 0);
    // Less wood between two that face each other than must stay: the case the test is about.
    expect(room).toBeLessThan(3);
    for (const a of aids)
      for (const b of aids)
        if (b.joint === a.joint + 1)
          expect(Math.abs(a.at - b.at)).toBeGreaterThanOrEqual((a.along + b.along) / 2 + 3 - 1e-6);
    expect(aids.every(({ bad }) => bad === undefined)).toBe(true);
  });
  it('are centred on the measured thickness, and refused where the joint is too thin', () => {
    const measured = edit(withAids(planned(), 'biscuits'), {
      do: 'measure',
      step: 'glue',
      dimension: 'thickness',
      measured: typed('7/8'),
    });
    expect(laid(measured).centreMm).toBeCloseTo((7 / 16) * INCH, 6);
    const thin = laid(withAids(planned({ thickness: fixed('1/4') }), 'dowels'));
    expect(thin.aids).toEqual([]);
    expect(thin.bare.length).toBeGreaterThan(0);
  });
  it('as splines stop short of what will be trimmed', () => {
    const { aids } = laid(withAids(planned(), 'splines'));
    expect(aids).toHaveLength(4);
    for (const { at, along } of aids) expect(at - along / 2).toBeGreaterThan((3 / 16) * INCH);
  });
});
