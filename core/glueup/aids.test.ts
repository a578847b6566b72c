import { describe, expect, it } from 'vitest';
import type { Brief, BuildDocument, Edit } from '../document';
import { mustEdit } from '../edit';
import { typed } from '../kit';
import { CHEQUER, fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
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
