import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Edit, isRefused, phraseText } from '../document';
import { applyEdit, mustEdit } from '../edit';
import { freeJob } from '../plan';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { brokenReferences, STEP_ROOMS } from '../steps';
import {
  type ChainAct,
  chainActs,
  interleaved,
  layingIn,
  layingOut,
  lineEdit,
  lyingAt,
  movesOf,
  partChanged,
  placeAfter,
  stepsAt,
  usualLine,
} from '.';

const shop = shopWith();
const inch = { system: 'inch', fraction: 32 } as const;
const panel = plannedFor(panelBrief({ sections: 1 }), shop);
const idOf = (build: BuildDocument, kind: string) =>
  build.steps.findLast((step) => step.kind === kind)?.id ?? '';
const mm = (value: number) => ({ mm: value });

describe('the menu of a place', () => {
  const place = { after: idOf(panel, 'glue') };
  const { lies, lines } = stepsAt(panel, run(panel), place);
  it('names every kind of step that does not begin a line, once, in the order of the work', () => {
    const kinds = STEP_ROOMS.filter(({ flow }) => !flow.source).map(({ kind }) => kind);
    expect(lines.map(({ kind }) => kind as string).toSorted()).toEqual(kinds.toSorted());
    expect(lies.map(({ name }) => name)).toEqual(['piece']);
  });
  it('says in figures what each would do, and does just that when it is taken', () => {
    const trim = lines.find(({ kind }) => kind === 'trim');
    expect(trim && phraseText(trim.words, inch)).toMatch(
      /^length 36 3\/8 in → 36 in, width .*; Table saw, full kerf$/,
    );
    for (const { edit, kind } of lines) {
      if (!edit) continue;
      const made = applyEdit(panel, edit);
      expect(isRefused(made), kind).toBe(false);
      if (isRefused(made)) continue;
      expect(
        run(made).steps.map((step) => step.kind),
        kind,
      ).toContain(kind);
    }
  });
  it('warns with the number before it is put in, and says why where it cannot be', () => {
    const resaw = lines.find(({ kind }) => kind === 'resaw');
    expect(resaw?.warns && phraseText(resaw.warns, inch)).toContain(
      'in high; Table saw, full kerf cuts 3 in deep',
    );
    const bare = { ...panel, shop: { ...shop, machines: [] } };
    const joint = stepsAt(bare, run(bare), { after: bare.steps[0].id }).lines.find(
      ({ kind }) => kind === 'joint',
    );
    expect(joint?.edit).toBeUndefined();
    expect(joint && phraseText(joint.words, inch)).toBe('The kit has no machine that joints edges.');
  });
});

describe('a step among its neighbours', () => {
  it('goes one place earlier or later, and to every place that takes it', () => {
    const flatten = idOf(panel, 'flatten');
    const step = panel.steps.find(({ id }) => id === flatten) ?? panel.steps[0];
    const { earlier, later } = chainActs(panel, step);
    const order = (act: ChainAct) =>
      'edit' in act ? mustEdit(panel, act.edit).steps.map(({ kind }) => kind) : act.why;
    expect(order(earlier)).toEqual(['rip', 'mill', 'flatten', 'glue', 'trim']);
    expect(order(later)).toEqual(['rip', 'mill', 'glue', 'trim', 'flatten']);
    const rip = chainActs(panel, panel.steps[0]);
    for (const act of [rip.earlier, rip.later, rip.remove])
      expect('why' in act && phraseText(act.why, inch)).toMatch(/\w/);
    const trim = panel.steps.at(-1) ?? panel.steps[0];
    expect(chainActs(panel, trim).later).toEqual({ why: ['Trim is the last on its line.'] });
    expect(movesOf(panel, flatten).map(({ words }) => words)).toEqual([
      'after Rip',
      'after Mill',
      'after Trim',
    ]);
    for (const { edit } of movesOf(panel, flatten))
      expect(brokenReferences(mustEdit(panel, edit))).toEqual([]);
  });
  it('the plus between two marks lies behind what the next one works on', () => {
    const [rip, mill, glue] = panel.steps;
    expect(placeAfter(panel, rip, mill)).toEqual({ after: rip.id, before: mill.id });
    expect(placeAfter(panel, glue, undefined)).toEqual({ after: glue.id });
  });
});

describe('what lies on the bench', () => {
  const glue = idOf(panel, 'glue');
  const strips = panel.assemblies[0].slots.map(({ id }) => id);
  it('is what a part held back becomes, and it can be laid in again, there or later', () => {
    const laid = strips;
    const back = layingOut(panel, { step: glue, laid, piece: strips[1] });
    const held = mustEdit(panel, back as Edit);
    const [heap] = lyingAt(held, run(held), glue);
    expect(heap.pieces.map(({ id }) => id)).toEqual([strips[1]]);
    expect(heap.goesTo).toBeUndefined();
    const later = mustEdit(held, {
      do: 'addStep',
      kind: 'glue',
      after: idOf(held, 'flatten'),
      settings: { along: 'width' },
    });
    const second = later.steps.find(({ kind, id }) => kind === 'glue' && id !== glue)?.id ?? '';
    const into = layingIn(later, { step: second, laid: ['panel'], output: heap.output, pieces: [strips[1]] });
    const joined = mustEdit(later, into as Edit);
    expect(brokenReferences(joined)).toEqual([]);
    const seen = run(joined).steps;
    expect(seen.find(({ id }) => id === second)?.entered.map(({ id }) => id)).toContain(strips[1]);
    expect(lyingAt(joined, run(joined), glue)[0].goesTo).toBeDefined();
    expect(layingOut(panel, { step: idOf(panel, 'trim'), laid, piece: strips[1] })).toBeUndefined();
  });
  it('a part is turned and moved by hand, and nothing else of the lay-up changes', () => {
    const laid = strips;
    const of = { step: glue, laid, piece: strips[1] };
    const parts = (edit: Edit | undefined) => (edit?.do === 'layParts' ? edit.parts : undefined);
    expect(parts(partChanged(panel, of, { to: 0 }))?.map(({ piece }) => piece)).toEqual([
      strips[1],
      strips[0],
      ...strips.slice(2),
    ]);
    expect(parts(partChanged(panel, of, { turn: 'rollOver' }))?.[1]).toEqual({
      piece: strips[1],
      rollOver: true,
    });
    expect(partChanged(panel, of, { to: -1 })).toBeUndefined();
    expect(partChanged(panel, of, { to: strips.length })).toBeUndefined();
    expect(partChanged(panel, { ...of, piece: 'nobody' }, { to: 0 })).toBeUndefined();
    expect(partChanged(panel, { ...of, step: idOf(panel, 'trim') }, { to: 0 })).toBeUndefined();
  });
  it('new ones are laid among old ones, one after every so many, and what is over at the end', () => {
    expect(interleaved(['a', 'b', 'c', 'd', 'e', 'f', 'g'], ['1', '2', '3'], 3)).toEqual(
      'abc1def2g3'.split(''),
    );
    expect(interleaved(['a'], ['1', '2'], 2)).toEqual(['a', '1', '2']);
  });
});

describe('a bench top without a pattern', () => {
  // Three softwood sections, each of strips, and a hardwood skin glued on their faces.
  const widths = (n: number) => Array.from({ length: n }, () => mm(60));
  const line = (
    build: BuildDocument,
    name: string,
    species: string,
    size: { widths: { mm: number }[]; t: number },
  ) =>
    mustEdit(
      build,
      lineEdit(build, 'rip', {
        ...usualLine(build),
        name,
        species,
        widths: size.widths,
        length: mm(1500),
        thickness: mm(size.t),
      }),
    );
  const glued = (build: BuildDocument, along = 'width') =>
    mustEdit(build, {
      do: 'addStep',
      kind: 'glue',
      after: build.steps.at(-1)?.id ?? '',
      settings: { along },
    });
  let build: BuildDocument = freeJob(shop, { name: 'Bench top', use: 'workbench' });
  for (const name of ['Section 1', 'Section 2', 'Section 3'])
    build = glued(line(build, name, 'pine_white_eastern', { widths: widths(3), t: 50 }));
  const sections = build.steps.filter(({ kind }) => kind === 'glue').map(({ output }) => output);
  build = glued(line(build, 'Skin', 'maple_sugar', { widths: widths(9), t: 12 }));
  const skin = build.steps.at(-1)?.output ?? '';
  // The three sections side by side, then the skin on them.
  build = mustEdit(build, {
    do: 'addStep',
    kind: 'glue',
    after: build.steps.find(({ output }) => output === sections[0])?.id ?? '',
    settings: { along: 'width' },
  });
  const core = build.steps.find(({ inputs }) => inputs.includes(sections[0]))?.id ?? '';
  for (const output of sections.slice(1)) build = mustEdit(build, { do: 'takeIn', step: core, output });
  build = mustEdit(build, { do: 'addStep', kind: 'glue', after: core, settings: { along: 'thickness' } });
  const top =
    build.steps.find(({ inputs }) => inputs.includes(build.steps.find(({ id }) => id === core)?.output ?? ''))
      ?.id ?? '';
  build = mustEdit(build, { do: 'takeIn', step: top, output: skin });
  build = mustEdit(build, {
    do: 'setTarget',
    target: 'piece',
    change: { output: build.steps.find(({ id }) => id === top)?.output },
  });
  it('comes out as its parts add up, with nothing left over', () => {
    const timeline = run(build);
    expect(brokenReferences(build)).toEqual([]);
    expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
    expect(timeline.finished?.greatest).toEqual([1500, 540, 62].map((v) => expect.closeTo(v, 6)));
    expect(timeline.leftOverMm3).toBe(0);
    expect(timeline.steps.find(({ id }) => id === top)?.glue).toMatchObject({
      joints: 1,
      areaMm2: expect.closeTo(1500 * 540, 3),
    });
  });
  it('may be joined only by what exists before it: no circle, nothing twice', () => {
    const first = build.steps.find(({ output }) => output === sections[0])?.id ?? '';
    const round = applyEdit(build, {
      do: 'takeIn',
      step: first,
      output: build.steps.find(({ id }) => id === top)?.output ?? '',
    });
    expect(isRefused(round) && phraseText(round.refused, inch)).toContain('wait for ever');
    const twice = mustEdit(build, { do: 'takeIn', step: top, output: sections[0] });
    expect(run(twice).problems.map(({ code }) => code)).toContain('used-twice');
  });
});
