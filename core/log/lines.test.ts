import { describe, expect, it } from 'vitest';
import type { BuildDocument, Check, Reading } from '../document';
import { mustEdit } from '../edit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { extents } from '../solid';
import { demoJobs } from '../../demo/jobs';
import { linesOf, type LogLine } from '.';
import { stepOf } from './fineness';
import { randomOf } from './shop.fixture';

const AT = '2026-03-02T10:00:00.000Z';
const block = (): BuildDocument => plannedFor(panelBrief({ ...CHEQUER }), shopWith());
const stepOfKind = (build: BuildDocument, kind: string) => {
  const step = build.steps.find((each) => each.kind === kind);
  if (!step) throw new Error(`no step ${kind}`);
  return step;
};
const mm = (value: number) => ({ mm: value, typed: { text: value.toFixed(1), system: 'mm' as const } });
const reading = (
  step: string,
  dimension: Reading['dimension'],
  value: number,
  more: Partial<Reading> = {},
): Reading => ({
  id: `${step}.${dimension}.${more.piece ?? ''}`,
  step,
  dimension,
  measured: mm(value),
  taken: AT,
  ...more,
});
const sizes = (lines: readonly LogLine[]) => lines.filter(({ kind }) => kind === 'size');
const rows = (lines: readonly LogLine[]) => lines.flatMap((line) => line.rows);

describe('lines of the log', () => {
  it('hold each reading against what was predicted just before it, with the saw, the wood and the band', () => {
    const build = block();
    const rip = stepOfKind(build, 'rip');
    const [strip] = build.assemblies[0].slots;
    const lines = linesOf(
      {
        ...build,
        readings: [reading(rip.id, 'width', strip.width.mm + 0.4, { piece: strip.id, who: 'Ada' })],
      },
      AT,
    );
    expect(sizes(lines)).toEqual([
      expect.objectContaining({
        id: `size:${rip.id}.width.${strip.id}`,
        step: rip.id,
        stepKind: 'rip',
        tool: 'table-full',
        at: AT,
        who: 'Ada',
        predicted: strip.width.mm,
        measured: strip.width.mm + 0.4,
      }),
    ]);
    const [{ likely, wood, rows: taught }] = sizes(lines);
    // The fence's own band, and what a caliper read to a tenth adds.
    expect(likely).toBeCloseTo(Math.hypot(0.2032, 1.6448536 * Math.sqrt(0.03 ** 2 + 0.01 / 12)), 4);
    expect(['walnut_black', 'maple_sugar']).toContain(wood);
    expect(taught).toEqual([
      {
        y: expect.closeTo(0.4, 6),
        a: { 'bias:table-full:fence': 1 },
        b: { 'setting:table-full': 1, 'piece:shop': 1 },
        g2: expect.closeTo(0.0009 + 0.01 / 12, 9),
        kind: 'setting:table-full mean',
        used: {},
      },
    ]);
  });
  it('make one row of strips of one setting, and one of how far they lie apart', () => {
    const build = block();
    const rip = stepOfKind(build, 'rip');
    const width = build.assemblies[0].slots[1].width.mm;
    const alike = build.assemblies[0].slots
      .filter((slot) => Math.abs(slot.width.mm - width) < 1e-6)
      .slice(0, 4);
    const off = [0.2, 0.3, 0.4, 0.3];
    const taught = rows(
      linesOf(
        {
          ...build,
          readings: alike.map(({ id }, i) => reading(rip.id, 'width', width + off[i], { piece: id })),
        },
        AT,
      ),
    );
    expect(taught).toHaveLength(2);
    expect(taught[0]).toMatchObject({
      y: expect.closeTo(0.3, 6),
      b: { 'setting:table-full': 1, 'piece:shop': 0.25 },
    });
    expect(taught[1]).toMatchObject({ df: 3, y: expect.closeTo(0.02 / 3, 6), a: {} });
  });
  it('a width of glued strips teaches what the joints gain, once strips were read', () => {
    const build = block();
    const mill = stepOfKind(build, 'mill');
    const glue = build.steps.find(({ kind }) => kind === 'glue');
    const planned = run(build);
    const milled = planned.steps.find(({ id }) => id === mill.id)?.pieces ?? [];
    const wide = planned.steps.find(({ id }) => id === glue?.id)?.greatest[1] ?? 0;
    const readings = [
      ...milled
        .slice(0, 2)
        .map(({ id, blank }) => reading(mill.id, 'width', extents(blank)[1] - 0.1, { piece: id })),
      reading(glue?.id ?? '', 'width', wide),
    ];
    const n = milled.length;
    const row = rows(linesOf({ ...build, readings }, AT)).find(({ a }) => 'joint:shop' in a);
    // All strips are taken to be 0.1 mm narrower; the panel is as planned: the joints gained it.
    expect(row).toMatchObject({
      y: expect.closeTo(0.1 * n, 6),
      a: { 'joint:shop': n - 1 },
      b: { 'piece:shop': n - 2 + 2 * (1 - n / 2) ** 2 },
    });
  });
  it('a thickness before and after teaches what comes off; one that was not read before, what the scale is off by', () => {
    const build = block();
    const glue = build.steps.find(({ kind }) => kind === 'glue');
    const flatten = stepOfKind(build, 'flatten') as {
      id: string;
      top: { mm: number };
      bottom: { mm: number };
    };
    const planned = run(build);
    const thick = planned.steps.find(({ id }) => id === glue?.id)?.greatest[2] ?? 0;
    const off = flatten.top.mm + flatten.bottom.mm;
    const after = reading(flatten.id, 'thickness', thick - 0.5 - off - 0.4);
    const both = rows(
      linesOf({ ...build, readings: [reading(glue?.id ?? '', 'thickness', thick - 0.5), after] }, AT),
    );
    expect(both.at(-1)).toMatchObject({
      y: expect.closeTo(-0.4, 6),
      a: { 'takeOff:flattenPanel': -1 },
      b: { [`setting:planer`]: 1 },
      used: { 'takeOff:flattenPanel': expect.closeTo(off, 9) },
    });
    const [alone] = rows(linesOf({ ...build, readings: [after] }, AT));
    expect(alone).toMatchObject({ y: expect.closeTo(-0.9, 6), a: { 'bias:planer:scale': 1 } });
  });
  it('a test cut and what is left of a blank teach the kerf', () => {
    const build = block();
    const slice = stepOfKind(build, 'slice') as { id: string; kind: string; count: number };
    const check = (kind: Check['kind'], value: number): Check => ({
      id: kind,
      step: slice.id,
      kind,
      values: [value],
      taken: AT,
    });
    const planned = run(build);
    const entry = planned.steps.find(({ id }) => id === slice.id);
    const saw = build.shop.saws[0];
    const cuts = slice.count + 1;
    const lost = linesOf({ ...build, checks: [check('kerf', 3.05)] }, AT);
    expect(lost).toEqual([
      expect.objectContaining({
        kind: 'check',
        measured: 3.05,
        predicted: saw.kerf.mm,
        words: expect.stringMatching(/test cut/),
      }),
    ]);
    expect(rows(lost)[0]).toMatchObject({
      y: expect.closeTo(3.05 - saw.kerf.mm, 9),
      a: { 'kerf:table-full': 1 },
    });
    // The blade takes 0.1 mm less at every cut: so much more is left, and that is what the row says.
    const { head, thickness } = slice as unknown as { head: { mm: number }; thickness: { mm: number } };
    const blank = extents(entry?.entered[0].blank ?? { cells: [] })[0];
    const left = blank - head.mm - slice.count * thickness.mm - cuts * (saw.kerf.mm - 0.1);
    const [row] = rows(linesOf({ ...build, checks: [check('tail', left)] }, AT));
    expect(row).toMatchObject({
      y: expect.closeTo(0.1 * cuts, 6),
      a: { 'kerf:table-full': -cuts, 'bias:table-full:stop': -slice.count },
    });
  });
  it('glue that was weighed teaches how much is taken', () => {
    const adhesives = [{ id: 'g', name: 'Yellow PVA', class: 'pva_yellow', leftG: 900 }];
    const build = plannedFor(panelBrief({ ...CHEQUER }), shopWith({ adhesives }));
    const glue = build.steps.find(({ kind }) => kind === 'glue');
    const weighed = (kg: number) =>
      linesOf(
        { ...build, checks: [{ id: 'w', step: glue?.id ?? '', kind: 'glueUsed', values: [kg], taken: AT }] },
        AT,
      );
    const [
      {
        rows: [one],
        words,
      },
    ] = weighed(0.05);
    const [
      {
        rows: [twice],
      },
    ] = weighed(0.1);
    expect(one).toMatchObject({ a: { 'glue:g': 1 }, b: { 'scatter:glue': 1 } });
    expect(twice.y - one.y).toBeCloseTo(Math.log(2), 9);
    expect(words).toMatch(/^Glue used: /);
    expect(rows(weighed(0))).toEqual([]);
  });
  it('minutes are told by what was planned, and not where a step was ticked at once; failures stand in their words', () => {
    const build = block();
    const rip = stepOfKind(build, 'rip');
    const worked = (minutes: number) =>
      linesOf(
        {
          ...build,
          steps: build.steps.map((step) =>
            step.id === rip.id
              ? {
                  ...step,
                  done: true,
                  work: [{ from: AT, to: new Date(Date.parse(AT) + minutes * 60_000).toISOString() }],
                }
              : step,
          ),
          failures: [{ id: 'f', step: rip.id, kind: 'spoiltStrip', at: AT, way: 'Rip it again' }],
        },
        AT,
      );
    const [line, failure] = worked(33);
    expect(line).toMatchObject({ kind: 'minutes', measured: 33, stepKind: 'rip' });
    expect(line.rows[0].y).toBeCloseTo(Math.log(33 / (line.predicted ?? 0)), 9);
    expect(failure).toMatchObject({ kind: 'failure', words: expect.stringMatching(/Rip it again/) });
    expect(worked(0.2).map(({ kind }) => kind)).toEqual(['failure']);
  });
  it('say nothing of pieces that are gone and of readings of nothing, and stand with the job’s own time where none was written', () => {
    const build = block();
    const rip = stepOfKind(build, 'rip');
    expect(linesOf({ ...build, readings: [reading(rip.id, 'width', 40, { piece: 'gone' })] }, AT)).toEqual(
      [],
    );
    expect(linesOf({ ...build, readings: [reading(rip.id, 'width', 0)] }, AT)).toEqual([]);
    const [strip] = build.assemblies[0].slots;
    const undated = { ...reading(rip.id, 'width', strip.width.mm, { piece: strip.id }), taken: 'yesterday' };
    expect(linesOf({ ...build, readings: [undated] }, AT)[0].at).toBe(AT);
    expect(linesOf(mustEdit(build, { do: 'rename', name: 'x' }), AT)).toEqual([]);
  });
  it('are given for every kind of step and whatever was read there: every number finite, nothing thrown', () => {
    const { next } = randomOf(19);
    for (const build of demoJobs as BuildDocument[]) {
      const readings = build.steps.flatMap((step, i) =>
        (['length', 'width', 'thickness'] as const).map((dimension) => ({
          ...reading(step.id, dimension, 1 + 600 * next() ** 2),
          id: `${i}.${dimension}`,
        })),
      );
      const checks = build.steps.flatMap((step) =>
        (['kerf', 'tail', 'glueUsed'] as const).map((kind) => ({
          id: `${step.id}.${kind}`,
          step: step.id,
          kind,
          values: [600 * next()],
        })),
      );
      const lines = linesOf({ ...build, readings, checks }, AT);
      for (const row of rows(lines))
        for (const value of [row.y, row.g2, ...Object.values(row.a), ...Object.values(row.b)])
          expect(Number.isFinite(value), `${build.name}: ${JSON.stringify(row)}`).toBe(true);
      expect(new Set(lines.map(({ id }) => id)).size).toBe(lines.length);
    }
  });
  it('know how finely a size was read by how it was typed', () => {
    const typed = (text: string, system: 'inch' | 'mm') => stepOf({ mm: 1, typed: { text, system } });
    expect(typed('1 3/8', 'inch')).toBeCloseTo(25.4 / 8, 9);
    expect(typed('38.1', 'mm')).toBeCloseTo(0.1, 9);
    expect(typed('38,25', 'mm')).toBeCloseTo(0.01, 9);
    expect(typed('1.250', 'inch')).toBeCloseTo(0.0254, 9);
    expect(typed('38', 'mm')).toBe(1);
    expect(stepOf({ mm: 38 })).toBe(0.1);
  });
});
