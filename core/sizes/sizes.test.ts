import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { BuildDocument, DependentSize } from '../document';
import { mustEdit } from '../edit';
import { inSystem, typed } from '../kit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { review } from '../review';
import { run } from '../run';
import { dependentSizes, outputSizes } from '.';
import { FormulaError, readFormula, workOut } from './formula';

const SIZES: Record<string, number> = { overall: 780, top: 38, tenon: 32, 'wall gap': 12 };
const known = Object.keys(SIZES);
const mm = (text: string, system: 'mm' | 'inch' = 'mm') =>
  workOut(readFormula(text, known, system), (name) => SIZES[name]);

describe('a formula as a maker writes it', () => {
  it.each([
    ['overall - top + tenon', 774],
    ['780 - 38 + 32', 774],
    ['overall − top', 742],
    ['(overall - top) / 2', 371],
    ['2 × tenon', 64],
    ['tenon * 1 1/2', 48],
    ['overall - wall gap', 768],
    ['Overall - WALL  gap', 768],
    ['3 cm + 2 mm', 32],
    ['-top + overall', 742],
    ['overall / top * 10 mm', (780 / 38) * 10],
    ['0 + top', 38],
  ])('%s', (text, value) => expect(mm(text)).toBeCloseTo(value, 9));
  it.each([
    ['1 1/2', 38.1],
    ['3/4"', 19.05],
    ['2\' 3"', 685.8],
    ['1\' 1/2"', 317.5],
    ['2 - 1/2', 38.1],
    ['1½', 38.1],
    ['10 mm', 10],
    ['1/2 + 3 mm', 15.7],
  ])('in inches: %s', (text, value) => expect(mm(text, 'inch')).toBeCloseTo(value, 9));
  it.each([
    ['overall * top', 'an area'],
    ['2 / top', 'units do not fit'],
    ['overall / top', 'number without a length'],
    ['overall / top + tenon', 'units do not fit'],
    ['overall - tennon', '“tennon” is no size of this job'],
    ['wall', '“wall” has several sizes: write “wall gap”'],
    ['overall -', 'missing at the end'],
    ['overall top', '+ - * or / is missing'],
    ['(overall', 'bracket is not closed'],
    ['overall)', 'nothing should'],
    ['overall $ 2', '“$”'],
    ['', 'Write a size'],
    ['top / 0', 'divided by nothing'],
    ['top / (tenon - tenon)', 'divided by nothing'],
    ['('.repeat(90), 'brackets'],
    ['1'.repeat(201), 'at most 200'],
  ])('refuses %s', (text, words) => expect(() => mm(text)).toThrow(words));
  it('reads any text, or says in words why not', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            'top',
            'overall',
            ' ',
            '+',
            '-',
            '*',
            '/',
            '(',
            ')',
            '1',
            '3/4',
            '"',
            "'",
            'mm',
            'ft',
            '½',
            ',',
            'x',
          ),
          {
            maxLength: 14,
          },
        ),
        (parts) => {
          try {
            expect(Number.isFinite(mm(parts.join('')))).toBe(true);
          } catch (error) {
            expect(error).toBeInstanceOf(FormulaError);
          }
        },
      ),
      { numRuns: 600, seed: 20261131 },
    );
  });
});

const size = (name: string, formula: string, more: Partial<DependentSize> = {}): DependentSize => ({
  id: name.replaceAll(' ', '-'),
  name,
  formula,
  ...more,
});
/** A panel to 38 mm in a metric shop, with sizes of its own. */
const top = (sizes: DependentSize[]): BuildDocument => {
  const shop = {
    ...inSystem(shopWith(), 'mm'),
    display: { system: 'mm' as const, fraction: 0 as const },
    settingStep: { mm: 0.5 },
  };
  const fixed = (value: number) => ({ aim: 'fixed' as const, value: { mm: value } });
  const brief = {
    ...panelBrief(),
    length: fixed(900),
    width: fixed(250),
    thickness: fixed(38),
    module: { mm: 60 },
  };
  return { ...plannedFor(brief, shop), sizes };
};
const outcome = (build: BuildDocument, name: string) =>
  dependentSizes(build, run(build)).find((each) => each.name === name);
const LEG = [size('overall', '780'), size('tenon', '32'), size('leg', 'overall - thickness + tenon')];

describe('sizes that follow', () => {
  it('a leg is 780 - 38 + 32 = 774, and 775.5 once the top is measured at 36.5', () => {
    const build = top(LEG);
    expect(outcome(build, 'leg')?.mm).toBeCloseTo(774, 6);
    const last = run(build).finished?.id ?? '';
    const thinner = mustEdit(build, {
      do: 'measure',
      step: last,
      dimension: 'thickness',
      measured: { mm: 36.5 },
    });
    expect(outcome(thinner, 'leg')?.mm).toBeCloseTo(775.5, 6);
    expect(outcome(build, 'leg')?.follows).toEqual([
      { output: expect.objectContaining({ dimension: 'thickness' }), rate: expect.closeTo(-1, 6) },
    ]);
  });
  it('a circle is refused with its members; what uses one says so, and the others still come out', () => {
    const build = top([
      size('a', 'b + 10'),
      size('b', 'c'),
      size('c', 'a - 1'),
      size('d', 'a'),
      size('e', '5'),
    ]);
    expect(outcome(build, 'a')?.error).toBe('These follow from one another in a circle: a → b → c → a.');
    expect(outcome(build, 'd')?.error).toContain('follows from itself');
    expect(outcome(build, 'e')?.mm).toBe(5);
    expect(outcome(top([size('a', 'a + 1')]), 'a')?.error).toContain('a → a');
  });
  it('names that stand twice, are no names, or are not there are said on their own line', () => {
    const build = top([
      size('leg', '10'),
      size('Leg', '12'),
      size('2x', '3'),
      size('f', 'nothing'),
      size('g', 'leg - 20'),
    ]);
    expect(dependentSizes(build, run(build)).map(({ error }) => error)).toEqual([
      undefined,
      expect.stringContaining('twice'),
      expect.stringContaining('begins with a letter'),
      expect.stringContaining('is no size of this job'),
      expect.stringContaining('less than nothing'),
    ]);
  });
  it('what comes out has names: of the first piece plain, and each by what it is called', () => {
    const names = outputSizes(top([]), run(top([]))).map(({ name }) => name);
    expect(names.slice(0, 1)).toEqual(['length']);
    expect(names).toContain('thickness');
  });
  it('one that must be something asks what to thin, and the way out brings it there', () => {
    // A template fits 37: the top is 1 too thick for it.
    const build = top([size('gap', 'thickness', { wanted: { aim: 'atMost', value: { mm: 37 } } })]);
    const finding = review(build, run(build)).find(({ code }) => code === 'size-missed');
    expect(finding?.numbers.off).toBeCloseTo(1, 6);
    const fix = finding?.fixes.find(({ label }) => label === 'Bring the thickness to 37 mm');
    expect(fix).toBeDefined();
    const after = mustEdit(build, fix?.edit as never);
    expect(outcome(after, 'gap')?.mm).toBeCloseTo(37, 6);
    expect(outcome(after, 'gap')?.missesMm).toBeUndefined();
  });
  it('stays with the job when it is planned again, and in inches', () => {
    const build = { ...plannedFor(panelBrief(), shopWith()), sizes: [size('leg', '30 3/4 - thickness')] };
    const again = mustEdit(build, {
      do: 'replan',
      change: { thickness: { aim: 'fixed', value: typed('3/4') } },
    });
    expect(again.sizes).toEqual(build.sizes);
    expect(outcome(again, 'leg')?.mm).toBeCloseTo(30 * 25.4, 6);
  });
});
