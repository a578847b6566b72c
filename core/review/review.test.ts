import { describe, expect, it } from 'vitest';
import { type Brief, type BuildDocument, type Edit, type Finding, phraseText, type Step } from '../document';
import { mustEdit } from '../edit';
import { DEFAULT_GLUE_PRACTICE, defaultShop, typed } from '../kit';
import { mustFit } from '../plan';
import { run } from '../run';
import { build as built, slot } from '../steps/steps.fixture';
import { INCH } from '../units';
import { compareTarget, review } from '.';
import { findingsOf } from './review';

const fixed = (text: string) => ({ aim: 'fixed' as const, value: typed(text) });
const brief = (change: Partial<Brief>): Brief => ({
  pattern: 'endGrain',
  length: fixed('15'),
  width: fixed('10'),
  thickness: fixed('1 3/4'),
  woods: ['walnut_black', 'maple_sugar'],
  module: typed('1 1/4'),
  saw: 'table-full',
  flattenWith: 'planer',
  trimWith: { saw: 'table-full' },
  chequer: true,
  extraSlices: 0,
  sections: 0,
  ...change,
});
const shop = { ...defaultShop('s'), gluing: { ...DEFAULT_GLUE_PRACTICE, hands: 2 as const } };
const plan = (change: Partial<Brief> = {}) => mustFit(brief(change), shop, { name: 'test', use: '' });
const panel = (change: Partial<Brief> = {}) =>
  plan({
    pattern: 'panel',
    length: fixed('30'),
    width: fixed('11'),
    thickness: fixed('7/8'),
    module: typed('2 1/4'),
    ...change,
  });
const findings = (build: BuildDocument): Finding[] => review(build, run(build));
const codes = (build: BuildDocument) => findings(build).map((f) => f.code);
const edit = (build: BuildDocument, ...edits: Edit[]) => edits.reduce(mustEdit, build);

/** The finding is there, its numbers are in its words, and one of its fixes makes it go away. */
function expectFixable(build: BuildDocument, code: string): Finding {
  const found = findings(build).find((f) => f.code === code);
  expect(found, `${code} among ${codes(build).join(', ')}`).toBeDefined();
  const finding = found as Finding;
  expect(phraseText(finding.message, build.shop.display)).toMatch(/\d/);
  expect(Object.values(finding.numbers).length).toBeGreaterThan(0);
  expect(finding.fixes.length).toBeGreaterThan(0);
  for (const fix of finding.fixes)
    expect(codes(edit(build, fix.edit)), `${code}: ${fix.label}`).not.toContain(code);
  return finding;
}

describe('planned builds', () => {
  it('carry no finding of their own', () => {
    expect(findings(plan())).toEqual([]);
    expect(findings(panel())).toEqual([]);
  });
  it('compare with what was asked', () => {
    const build = plan();
    expect(compareTarget(build, run(build))).toMatchObject([
      { fits: true, differenceMm: expect.closeTo(0, 6) },
      { fits: true },
      { fits: true },
    ]);
  });
});

describe('findings name their number and can be mended', () => {
  it('wider than the planer, with the sections that would pass', () => {
    const wide = edit(panel({ width: fixed('34'), sections: 1 }));
    const finding = expectFixable(wide, 'wider-than-machine');
    expect(finding.numbers.limit).toBeCloseTo(13 * INCH, 9);
    expect(finding.numbers.sections).toBe(3);
    expect(finding.step).toBe('flatten');
    expect(finding.fixes[0].label).toBe('Glue as 3 sections');
  });
  it('shorter than the planer’s least length', () => {
    const build = edit(panel({ length: fixed('9') }));
    expect(
      findings(build).find((f) => f.code === 'shorter-than-machine' && f.step === 'flatten')?.fixes.length,
    ).toBeGreaterThan(0);
    const fixedUp = edit(build, { do: 'useMachine', step: 'flatten', machine: 'drum' });
    expect(
      findings(fixedUp).filter((f) => f.code === 'shorter-than-machine' && f.step === 'flatten'),
    ).toEqual([]);
  });
  it('thinner than the planer’s least thickness', () => {
    const finding = expectFixable(edit(panel({ thickness: fixed('3/16') })), 'thinner-than-machine');
    expect(finding.numbers.thickness).toBeCloseTo((3 / 16) * INCH, 6);
    expect(finding.caution).toContain('carrier');
  });
  it('slices that do not mustFit, and by how much the blank is short', () => {
    const finding = expectFixable(
      edit(plan(), { do: 'setAllSlots', step: 'rip', change: { length: typed('20') } }),
      'slices-do-not-fit',
    );
    expect(finding.numbers.wanted).toBe(12);
    expect(finding.numbers.short).toBeCloseTo(finding.numbers.needed - 20 * INCH, 9);
  });
  it('too few slices for the length asked', () => {
    const finding = expectFixable(
      edit(plan(), { do: 'setStep', step: 'slice', change: { count: 10 } }),
      'too-few-slices',
    );
    expect(finding.numbers.missing).toBe(2);
  });
  it('too few slices because the panel came out thinner', () => {
    const thinner = edit(plan(), { do: 'setStep', step: 'flatten', change: { top: typed('3/16') } });
    expect(codes(thinner)).toContain('too-few-slices');
  });
  it('target overshot and not reached', () => {
    const long = edit(panel(), { do: 'setAllSlots', step: 'rip', change: { length: typed('31') } });
    expect(expectFixable(long, 'target-overshot').numbers.difference).toBeCloseTo(0.625 * INCH, 6);
    const short = edit(panel(), { do: 'removeStrip', step: 'rip', strip: 'strip-1' });
    expect(expectFixable(short, 'target-not-reached').dimension).toBe('width');
  });
  it('a margin below the tolerance it has to absorb', () => {
    const shop = defaultShop('s');
    shop.allowances.trimEnd = typed('0.01');
    shop.settingStep = { mm: 0 };
    const build = mustFit(brief({}), shop, { name: 't', use: '' });
    const finding = findings(build).find((f) => f.code === 'margin-below-tolerance');
    expect(finding?.numbers.margin).toBeLessThan(finding?.numbers.likely ?? 0);
    expect(finding?.numbers.likely).toBeCloseTo(12 * 0.005 * INCH, 6);
  });
  it('a thickness step between neighbours', () => {
    const build = edit(
      panel(),
      { do: 'setSlot', step: 'rip', strip: 'strip-2', change: { thickness: typed('1 1/16') } },
      { do: 'setStep', step: 'mill', change: { face: { mm: 0 } } },
    );
    const finding = expectFixable(build, 'thickness-step');
    expect(finding.numbers.step).toBeGreaterThan(INCH / 64);
  });
  it('a chequer with an odd number of columns', () => {
    const finding = expectFixable(
      edit(plan(), { do: 'removeStrip', step: 'rip', strip: 'strip-8' }),
      'odd-columns',
    );
    expect(finding.numbers.columns).toBe(7);
  });
  it('trims that are not symmetric', () => {
    const finding = expectFixable(
      edit(panel(), { do: 'setStep', step: 'trim', change: { near: typed('1/2') } }),
      'lopsided-trim',
    );
    expect(finding.numbers.drift).toBeGreaterThan(0);
  });
  it('a sawn trim thinner than the kerf', () => {
    expectFixable(
      edit(panel(), { do: 'setStep', step: 'trim', change: { near: typed('1/64'), far: typed('1/64') } }),
      'trim-thinner-than-kerf',
    );
  });
  it('a cut deeper than the saw reaches', () => {
    expectFixable(
      edit(panel({ thickness: fixed('2 1/4') }), { do: 'useSaw', step: 'trim', saw: 'track' }),
      'saw-cannot-reach',
    );
  });
  it('ragged ends', () => {
    expectFixable(
      edit(panel(), { do: 'setSlot', step: 'rip', strip: 'strip-2', change: { length: typed('25') } }),
      'ragged-ends',
    );
  });
  it('a kerf thicker than the strip', () => {
    const build = edit(
      panel(),
      { do: 'setStep', step: 'mill', change: { edge: { mm: 0 } } },
      { do: 'setSlot', step: 'rip', strip: 'strip-2', change: { width: typed('1/10') } },
    );
    expectFixable(build, 'kerf-thicker-than-strip');
  });
  it('end grain in the planer: a caution, and never offered as a fix', () => {
    const finding = expectFixable(
      edit(plan(), { do: 'useMachine', step: 'flatten-block', machine: 'planer' }),
      'end-grain-in-planer',
    );
    expect(finding.caution).toContain('thr');
    for (const build of [
      plan(),
      edit(plan(), { do: 'useMachine', step: 'flatten-block', machine: 'planer' }),
    ])
      for (const f of findings(build).filter(({ step }) => step === 'flatten-block'))
        for (const { edit: e } of f.fixes) expect(e).not.toMatchObject({ machine: 'planer' });
  });
  it('what is not run yet is said, not dropped', () => {
    const build = plan();
    const shaped: BuildDocument = {
      ...build,
      steps: [
        ...build.steps,
        { id: 'groove', kind: 'shape', inputs: ['piece'], output: 'grooved', settings: { depth: 6 } },
      ],
    };
    expect(codes(shaped)).toContain('not-run-yet');
    expect(run(shaped).steps.at(-1)?.greatest).toEqual(run(build).finished?.greatest);
  });
});

describe('of pieces that differ', () => {
  const strips = [slot('a', 900, 60, 25), slot('b', 800, 420, 25), slot('c', 700, 90, 22)];
  const mill = { id: 'mill', kind: 'mill', inputs: ['strips'], output: 'milled', machine: 'planer' } as const;
  const own = built(strips, [{ ...mill, face: { mm: 1 }, edge: { mm: 0 } } as unknown as Step]);
  const widest = (document: BuildDocument) =>
    findingsOf(document, run(document)).find(({ code }) => code === 'wider-than-machine')?.numbers.width;
  it('the widest is held against what a machine takes, wherever it stands', () => {
    for (const slots of [strips, strips.toReversed()]) {
      const document = { ...own, assemblies: [{ ...own.assemblies[0], slots }] };
      expect(run(document).problems).toEqual([]);
      expect(widest(document)).toBe(420);
    }
  });
  it('the one that is farthest off is held against what was asked', () => {
    const asked = (mm: number) => {
      const [length, thickness] = [{ aim: 'free' as const }, { aim: 'free' as const }];
      const target = { id: 't', purpose: 'strips', quantity: 1, output: 'milled', length, thickness };
      const document = { ...own, targets: [{ ...target, width: { aim: 'fixed' as const, value: { mm } } }] };
      const compared = compareTarget(document, run(document));
      return compared?.find(({ dimension }) => dimension === 'width')?.predictedMm;
    };
    expect([asked(80), asked(239), asked(241), asked(400)]).toEqual([420, 420, 60, 60]);
  });
});
