import { describe, expect, it } from 'vitest';
import type { BuildDocument, Edit } from '../document';
import { mustEdit } from '../edit';
import { freeJob } from '../plan';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { blankVolume, extents } from '../solid';
import { lyingAt, parseRows, partChanged, partLines, partsShown, lineEdit, usualLine } from '.';
import { asGlueUp } from '../steps';

const shop = shopWith({ display: { system: 'mm', fraction: 0 } });
const mm = (value: number) => ({ mm: value });
const edited = (build: BuildDocument, edit: Edit | undefined): BuildDocument => {
  if (!edit) throw new Error('no edit');
  return mustEdit(build, edit);
};
const idOf = (build: BuildDocument, kind: string) =>
  build.steps.findLast((step) => step.kind === kind)?.id ?? '';
const glueOf = (build: BuildDocument) => {
  const glue = asGlueUp(build.steps.findLast(({ kind }) => kind === 'glue'));
  if (!glue) throw new Error('no glue-up');
  return glue;
};

/** Strips of these sizes, glued along one dimension, with nothing done to them before. */
function strips(list: readonly { length: number; width: number }[], along: string): BuildDocument {
  let build: BuildDocument = freeJob(shop, { name: 'well', use: '' });
  list.forEach(({ length, width }, i) => {
    const line = lineEdit(build, 'rip', {
      ...usualLine(build),
      name: `Board ${i + 1}`,
      species: 'maple_sugar',
      widths: [mm(width)],
      length: mm(length),
      thickness: mm(20),
    });
    build = mustEdit(build, line);
  });
  const outputs = build.steps.map(({ output }) => output);
  build = mustEdit(build, { do: 'addStep', kind: 'glue', after: build.steps[0].id, settings: { along } });
  for (const output of outputs.slice(1))
    build = mustEdit(build, { do: 'takeIn', step: idOf(build, 'glue'), output } as Edit);
  return build;
}

describe('a gap left open', () => {
  const build = strips(
    [
      { length: 600, width: 80 },
      { length: 200, width: 100 },
      { length: 250, width: 100 },
      { length: 600, width: 80 },
    ],
    'length',
  );
  const rows = parseRows('1, 2, 1', 'length', 4);
  it('rows are read as they are typed, and must hold all the parts', () => {
    expect(rows).toEqual({ rows: { counts: [1, 2, 1], across: 'width' } });
    expect(parseRows('2 x 2', 'width', 4)).toEqual({ rows: { counts: [2, 2], across: 'length' } });
    expect(parseRows('1, 2', 'length', 4)).toEqual({ why: 'these rows hold 3; there are 4 parts' });
    for (const bad of ['', 'x', '0, 4', '1,,x', '-1, 5'])
      expect(parseRows(bad, 'length', 4)).toHaveProperty('why');
  });
  it('within a layer makes a well: a row with a gap between whole boards', () => {
    if (!('rows' in rows)) throw new Error('no rows');
    let well = mustEdit(build, { do: 'setStep', step: idOf(build, 'glue'), change: { rows: rows.rows } });
    const lines = partLines(well, run(well), glueOf(well));
    expect(lines.map(({ name }) => name)).toEqual(
      [1, 2, 3, 4].map((n) => expect.stringContaining(`Board ${n}`)),
    );
    const laid = lines.map(({ piece }) => piece);
    well = edited(
      well,
      partChanged(well, { step: idOf(well, 'glue'), laid, piece: laid[2] }, { place: { spacer: mm(150) } }),
    );
    const timeline = run(well);
    const piece = timeline.finished?.pieces[0];
    // 200, a gap of 150, 250: the row ends with the boards beside it. The wood is that of the boards alone.
    expect(timeline.finished?.greatest).toEqual([600, 260, 20].map((v) => expect.closeTo(v, 6)));
    expect(piece && blankVolume(piece.blank)).toBeCloseTo((2 * 600 * 80 + 450 * 100) * 20, 3);
    expect(timeline.steps.at(-1)?.glue?.joints).toBe(4);
    expect(partsShown(well, timeline, idOf(well, 'glue'))?.[2].gapMm).toBe(150);
    // Taken out again it is the lay-up of before.
    const shut = edited(
      well,
      partChanged(well, { step: idOf(well, 'glue'), laid, piece: laid[2] }, { place: { spacer: undefined } }),
    );
    expect(glueOf(shut).parts?.every(({ place }) => place === undefined)).toBe(true);
  });
  it('that leaves a part without a joint is said, with the part', () => {
    const two = strips(
      [
        { length: 300, width: 60 },
        { length: 300, width: 60 },
      ],
      'width',
    );
    const step = idOf(two, 'glue');
    const laid = partLines(two, run(two), glueOf(two)).map(({ piece }) => piece);
    expect(run(two).problems).toEqual([]);
    const gap = edited(two, partChanged(two, { step, laid, piece: laid[1] }, { place: { spacer: mm(20) } }));
    expect(run(gap).problems).toMatchObject([{ code: 'parts-apart', numbers: { part: 2, parts: 2 } }]);
  });
  it('leaves what a rule turns turned', () => {
    const panel = plannedFor(panelBrief({ sections: 1 }), shop);
    const id = idOf(panel, 'glue');
    const turned = mustEdit(panel, {
      do: 'setRule',
      step: id,
      rule: { turn: 'endForEnd', every: 2, first: 2, except: [] },
    });
    const laid = run(turned).steps.find((step) => step.id === id)?.laid ?? [];
    const gap = edited(
      turned,
      partChanged(
        turned,
        { step: id, laid: laid.map(({ piece }) => piece), piece: laid[2].piece },
        { place: { spacer: mm(12) } },
      ),
    );
    const after = run(gap).steps.find((step) => step.id === id);
    expect(after?.laid?.map(({ endForEnd }) => endForEnd)).toEqual(laid.map(({ endForEnd }) => endForEnd));
    const width = (of: BuildDocument) =>
      extents(run(of).steps.find((step) => step.id === id)?.pieces[0].blank ?? { cells: [] })[1];
    expect(width(gap) - width(turned)).toBeCloseTo(12, 6);
  });
});

describe('what lies in clamps', () => {
  // Seen from the second section's glue-up, the first lies there as it was glued.
  const panel = ['joint-1', 'flatten-1'].reduce(
    (build, step) => mustEdit(build, { do: 'removeStep', step }),
    plannedFor(panelBrief({ sections: 2 }), shop),
  );
  const clampsOf = (build: BuildDocument) =>
    lyingAt(build, run(build), 'glue-2').find(({ step }) => step === 'glue-1')?.clamps;
  it('says for how long it will be', () => {
    const hours = clampsOf(panel)?.hours ?? 0;
    expect(hours).toBeGreaterThanOrEqual(0.5);
    expect(clampsOf(panel)).toEqual({ hours });
  });
  it('and until when, once it is clamped', () => {
    const clamped = '2027-03-01T08:00:00.000Z';
    const build = mustEdit(panel, { do: 'planGlue', step: 'glue-1', change: { clamped } });
    const { hours = 0, untilMs } = clampsOf(build) ?? {};
    expect(untilMs).toBe(Date.parse(clamped) + hours * 3_600_000);
  });
});
