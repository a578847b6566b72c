import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Edit, phraseText, type Step } from '../document';
import { mustEdit } from '../edit';
import type { Machine, Saw } from '../kit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { build as built, GLUE, slot } from '../steps/steps.fixture';
import { outlook, review } from '.';
import { expectMended } from './mended.fixture';
import { findingsOf } from './review';

const find = (build: BuildDocument) => findingsOf(build, run(build));
const of = (build: BuildDocument, code: string) =>
  review(build, run(build)).find((each) => each.code === code);
const words = (build: BuildDocument, code: string) => {
  const finding = find(build).find((each) => each.code === code);
  return finding ? phraseText(finding.message, build.shop.display) : '';
};
const metric = { system: 'mm' as const, fraction: 0 as const };
const shop = { ...shopWith(), display: metric, settingStep: { mm: 0.1 } };
const withMachine = (id: string, change: Partial<Machine>) => ({
  ...shop,
  machines: shop.machines.map((machine) => (machine.id === id ? { ...machine, ...change } : machine)),
});
const withSaw = (id: string, change: Partial<Saw>) => ({
  ...shop,
  saws: shop.saws.map((saw) => (saw.id === id ? { ...saw, ...change } : saw)),
});
/** A section of 44.0, flattened by what a test says. */
const section = (
  change: object,
  kit = shop,
  size: readonly [number, number, number] = [600, 125, 44],
): BuildDocument =>
  built(
    [slot('a', size[0], size[1], size[2]), slot('b', size[0], size[1], size[2])],
    [
      GLUE,
      {
        id: 'f',
        kind: 'flatten',
        inputs: ['panel'],
        output: 'flat',
        machine: 'planer',
        top: { mm: 0.3 },
        bottom: { mm: 0.3 },
        ...change,
      } as Step,
    ],
    { shop: kit },
  );
describe('a hollow against what comes off its face', () => {
  const to = { to: { mm: 42.5 }, rest: 'max', bottom: { mm: 0.3 } };
  it('1.8 in a 44.0 section for 42.5 with 0.3 off the other face is short by 0.6', () => {
    const build = section({ ...to, hollowTop: { mm: 1.8 } });
    const finding = expectMended(build, 'face-short');
    expect(finding.numbers.short).toBeCloseTo(0.6, 9);
    expect(finding.numbers.off).toBeCloseTo(1.2, 9);
    expect(words(build, 'face-short')).toContain('short by 0.6');
  });
  it('of 1.0 has 0.2 to spare', () => {
    const build = section({ ...to, hollowTop: { mm: 1 } });
    expect(of(build, 'face-short')).toBeUndefined();
    const [upper, lower] = outlook(build, 'f').steps.at(-1)?.reserves ?? [];
    expect(upper.offMm - upper.needMm).toBeCloseTo(0.2, 9);
    expect(lower.offMm - lower.needMm).toBeCloseTo(0.3, 9);
  });
  it('takes from the other face what that has over', () => {
    const build = section({ top: { mm: 0.5 }, bottom: { mm: 1 }, hollowTop: { mm: 0.9 } });
    const both = (bottom: number) =>
      of(
        section({
          top: { mm: 0.5 },
          bottom: { mm: bottom },
          hollowTop: { mm: 0.9 },
          hollowBottom: { mm: 0.3 },
        }),
        'face-short',
      )
        ?.fixes.map(({ label }) => label)
        .filter((label) => label.includes('less off the other')).length;
    // The other face has 0.4 to give only if that is over what it needs itself.
    expect([both(1), both(0.6)]).toEqual([1, 0]);
    const fix = of(build, 'face-short')?.fixes.find(({ label }) => label.includes('less off the other'));
    const after = mustEdit(build, fix?.edit as Edit);
    expect(after.steps.find(({ id }) => id === 'f')).toMatchObject({ top: { mm: 0.9 }, bottom: { mm: 0.6 } });
  });
  it('wind wants half of it off each face, and wedges where rollers would press it flat', () => {
    const build = section({ top: { mm: 0.5 }, bottom: { mm: 0.5 }, wind: { mm: 1.4 } });
    expect(of(build, 'face-short')?.numbers).toMatchObject({ need: 0.7, off: 0.5 });
    expect(expectMended(build, 'twisted-on-rollers').numbers.wedge).toBe(0.7);
  });
  it('deeper than the piece is said so, and nothing is offered', () => {
    const build = section({ hollowTop: { mm: 60 } });
    expect(of(build, 'face-short')?.fixes).toEqual([]);
    expect(words(build, 'face-short')).toContain('more than the piece is thick');
  });
  it('straightened on one face alone says how much thinner it is in the hollow', () => {
    const build = section({ top: { mm: 1.5 }, bottom: { mm: 0 }, hollowBottom: { mm: 0.8 } });
    expect(words(build, 'face-short')).toContain('the piece is 0.8 mm thinner in the hollow');
  });
  it('is expected of a glue-up without aids, and not once somebody measured', () => {
    const build = section({ top: { mm: 0.1 }, bottom: { mm: 0.1 } });
    const none: BuildDocument = mustEdit(build, {
      do: 'planGlue',
      step: 'glue',
      change: { aids: { kind: 'none' } },
    });
    expect(of(none, 'reserve-below-expected')?.numbers.need).toBeGreaterThanOrEqual(0.5);
    const measured = mustEdit(none, { do: 'setStep', step: 'f', change: { hollowTop: { mm: 0.05 } } });
    expect(of(measured, 'reserve-below-expected')).toBeUndefined();
  });
  it('of edges off a right angle goes when each pair is folded', () => {
    const build = section(
      { top: { mm: 0.1 }, bottom: { mm: 0.1 } },
      withSaw('table-full', { offSquare: 0.4 }),
    );
    const finding = expectMended(build, 'edges-out-of-square');
    expect(finding.numbers).toMatchObject({ error: 0.4, joints: 1, total: 0.8 });
    expect(finding.numbers.hollow).toBeCloseTo(125 * Math.sin((0.4 * Math.PI) / 180), 6);
  });
});

describe('a size to reach', () => {
  it('above what enters names the piece and what it lacks', () => {
    const build = section({ to: { mm: 45 } });
    expect(words(build, 'smaller-than-reached')).toContain('the piece lacks 1 mm');
    expectMended(build, 'smaller-than-reached');
  });
  it('on a dial coarser than the pass says so in turns, with both numbers', () => {
    // A crank of 2.0 a turn that stands at eighths, and 0.05 a pass wanted.
    const build = section(
      { bite: { mm: 0.05 } },
      withMachine('planer', { dial: { mm: 0.25 }, turn: { mm: 2 } }),
    );
    expect(words(build, 'dial-coarser-than-pass')).toMatch(/0\.25 mm \(1\/8 of a turn\), 5 times the 0\.05/);
    const free = section(
      { bite: { mm: 0.05 } },
      withMachine('planer', { dial: { mm: 0.25 }, turn: { mm: 0 } }),
    );
    expect(words(free, 'dial-coarser-than-pass')).not.toContain('turn');
  });
  it('takes less of hardwood a pass where the kit says so, and never more than the step', () => {
    const passes = (change: object, kit = shop) =>
      outlook(section({ top: { mm: 2 }, bottom: { mm: 2 }, ...change }, kit), 'f').steps.at(-1)?.passCount;
    const kit = withMachine('planer', { bite: { mm: 1 } });
    expect(passes({}, kit)).toBe(4);
    expect(passes({}, withMachine('planer', { bite: { mm: 1 }, hardBite: { mm: 0.5 } }))).toBe(8);
    expect(passes({ bite: { mm: 0.4 } }, kit)).toBe(10);
    expect(passes({ bite: { mm: 3 } }, kit)).toBe(4);
  });
  it('says when knives are worn before it is through: each pass is as long as the piece', () => {
    const kit = (knivesRanM: number) =>
      withMachine('planer', { bite: { mm: 1 }, knivesRanM, knivesLastM: 400 });
    const change = { top: { mm: 1 }, bottom: { mm: 1 } };
    // Two passes of 600 mm.
    expect(of(section(change, kit(398)), 'knives-worn')).toBeUndefined();
    expect(of(section(change, kit(399)), 'knives-worn')?.numbers).toMatchObject({
      meets: 1200,
      ran: 399_000,
    });
  });
});

describe('what a piece rides on', () => {
  it('snipe that no later cut takes is carried by sacrificial pieces', () => {
    const build = section({}, withMachine('planer', { snipe: { mm: 60 } }));
    expect(expectMended(build, 'snipe-stays').numbers).toMatchObject({ snipe: 60, cut: 0, short: 60 });
    const trim: Step = {
      id: 't',
      kind: 'trim',
      inputs: ['flat'],
      output: 'done',
      cutter: { saw: 'table-full' },
      near: { mm: 0 },
      far: { mm: 0 },
      start: { mm: 60 },
      end: { mm: 45 },
    };
    expect(of({ ...build, steps: [...build.steps, trim] }, 'snipe-stays')?.numbers.short).toBe(15);
    // A slicing cuts its head off one end, and what stays in hand off the other.
    const cut = (...later: object[]) =>
      of({ ...build, steps: [...build.steps, ...later] as Step[] }, 'snipe-stays')?.numbers.cut;
    expect(cut(trim)).toBe(45);
    const slice = (head: number, hold: number) => ({
      ...{ id: 'slices', kind: 'slice', inputs: trim.inputs, output: 'slices', saw: 'table-full', count: 2 },
      ...{ head: { mm: head }, thickness: { mm: 20 }, hold: { mm: hold } },
    });
    expect([cut(slice(7, 30)), cut(slice(30, 11)), cut(slice(0.5, 30)), cut(slice(30, 0))]).toEqual([
      7, 11, 0.5, 0,
    ]);
    // Cut apart it keeps its ends; trimmed first, it keeps what the trim left.
    const apart = (inputs: string[]) => ({
      ...{ id: 'apart', kind: 'cutApart', inputs, output: 'parts', saw: 'table-full' },
      ...{ along: 'width', first: { mm: 60 } },
    });
    expect([cut(apart(trim.inputs)), cut(trim, apart([trim.output]))]).toEqual([0, 45]);
  });
  it('a piece too short for its machine goes with runners, their wood and minutes apart', () => {
    const build = section({}, shop, [250, 60, 30]);
    const finding = of(build, 'shorter-than-machine');
    const fix = finding?.fixes.find(({ label }) => label.startsWith('Glue runners'));
    expect(fix).toBeDefined();
    const after = mustEdit(build, fix?.edit as Edit);
    expect(of(after, 'shorter-than-machine')).toBeUndefined();
    const step = after.steps.find(({ id }) => id === 'f') as {
      ends?: { mm: number };
      runners?: { mm: number };
    };
    const [ends, wide] = [step.ends?.mm ?? 0, step.runners?.mm ?? 0];
    const seen = outlook(after, 'f').steps.at(-1);
    expect(seen?.helpers?.woodMm3).toBeCloseTo(30 * 2 * wide * (250 + 2 * ends), 3);
    expect(seen?.minutes).toBeGreaterThan(outlook(build, 'f').steps.at(-1)?.minutes ?? Infinity);
    // The job's own wood is what it was.
    expect(run(after).woodInMm3).toBe(run(build).woodInMm3);
  });
  it('a cutter that comes down to what holds the piece is said', () => {
    const held = (high: number) => section({ machine: 'sled', hold: 'stops', holdHeight: { mm: high } });
    expect(of(held(40), 'cutter-meets-hold')).toBeUndefined();
    expect(of(held(43.4), 'cutter-meets-hold')?.numbers.over).toBeCloseTo(0, 9);
    expect(of(held(50), 'cutter-meets-hold')).toBeDefined();
  });
});

describe('end grain under knives', () => {
  const block = (change: object, endGrain: 'never' | 'light'): BuildDocument => {
    const kit = { ...shop, practice: { rings: 'bestFaces' as const, first: 'figure' as const, endGrain } };
    const planned = plannedFor(panelBrief({ ...CHEQUER, flattenWith: 'drum' }), kit);
    const last = planned.steps.findLast(({ kind }) => kind === 'flatten')?.id;
    const steps = planned.steps.map((step) =>
      step.id === last
        ? ({ ...step, machine: 'planer', top: { mm: 0.7 }, bottom: { mm: 0.35 }, ...change } as Step)
        : step,
    );
    return { ...planned, steps };
  };
  it('is not planned, and nothing of it is offered where the shop never does it', () => {
    const finding = of(block({}, 'never'), 'end-grain-in-planer');
    expect(finding).toBeDefined();
    expect(finding?.fixes.some(({ label }) => label.startsWith('Chamfer'))).toBe(false);
    // A chamfer alone makes no plan of it.
    expect(
      of(block({ chamfer: { mm: 2 }, bite: { mm: 0.05 } }, 'never'), 'end-grain-in-planer'),
    ).toBeDefined();
  });
  it('by choice: a chamfer of 0.45 under 0.7 in steps of 0.05 is gone with pass 9 of 14; 0.8 outlasts', () => {
    const gone = block({ chamfer: { mm: 0.45 }, bite: { mm: 0.05 } }, 'light');
    expect(expectMended(gone, 'chamfer-gone').numbers).toMatchObject({ pass: 9, passes: 14 });
    const lasts = block({ chamfer: { mm: 0.8 }, bite: { mm: 0.05 } }, 'light');
    expect(of(lasts, 'chamfer-gone')).toBeUndefined();
    expect(of(lasts, 'end-grain-in-planer')).toBeUndefined();
    expect(of(lasts, 'end-grain-by-choice')).toMatchObject({ severity: 'note', numbers: { passes: 21 } });
    expect(of(lasts, 'end-grain-by-choice')?.caution).toContain('throw it back');
  });
  it('by choice: coarser passes, or no chamfer, are no plan', () => {
    expect(
      of(block({ chamfer: { mm: 2 }, bite: { mm: 0.5 } }, 'light'), 'end-grain-in-planer'),
    ).toBeDefined();
    const bare = of(block({}, 'light'), 'end-grain-in-planer');
    expect(bare?.fixes.some(({ label }) => label.startsWith('Chamfer every edge'))).toBe(true);
  });
});

describe('cuts through thick pieces', () => {
  const cross = (
    thick: number,
    change: object = {},
    kit = withSaw('track', { depth: { mm: 55 }, freeDepth: { mm: 66 } }),
  ) =>
    built(
      [slot('a', 900, 120, thick), slot('b', 900, 120, thick)],
      [
        GLUE,
        {
          id: 'c',
          kind: 'crosscut',
          inputs: ['panel'],
          output: 'cut',
          saw: 'track',
          length: { mm: 800 },
          ...change,
        } as Step,
      ],
      { shop: kit },
    );
  it('90 meets from both faces with 20 over; the way is taken with one press', () => {
    const build = cross(90);
    expect(words(build, 'saw-cannot-reach')).toContain('meet with 20 mm to spare');
    const fix = of(build, 'saw-cannot-reach')?.fixes.find(({ label }) => label === 'From both faces');
    const after = mustEdit(build, fix?.edit as Edit);
    expect(of(after, 'saw-cannot-reach')).toBeUndefined();
    expect(of(after, 'cut-in-stages')?.numbers.over).toBe(20);
  });
  it('120 leaves 10, and a third cut without the guide meets with 1 over', () => {
    expect(words(cross(120), 'saw-cannot-reach')).toMatch(
      /leave 10 mm .* third cut .* 66 mm .* 1 mm to spare/,
    );
    expect(expectMended(cross(120, { way: 'both' }), 'cuts-do-not-meet').numbers.over).toBe(-10);
    expect(of(cross(120, { way: 'third' }), 'cut-in-stages')?.numbers.over).toBe(1);
    expect(words(cross(130, { way: 'hand' }), 'cut-in-stages')).toContain(
      '20 mm in the middle is sawn by hand',
    );
  });
  it('lists its cuts: which edge the square stands on, how deep from which face, and what holds it up', () => {
    const build = cross(120, { way: 'third', square: 'far' });
    const cuts = (outlook(build, 'c').steps.at(-1)?.cuts ?? []).map((phrase) => phraseText(phrase, metric));
    expect(cuts[0]).toContain('The square on the far edge: 800');
    expect(cuts[1]).toMatch(
      /from the lower face 55 mm deep, then from the upper face 55 mm deep, then from the upper face 66 mm deep without the guide/,
    );
    expect(cuts.at(-1)).toContain('supports');
  });
  it('of a trim come in order: long edges, then the end it is measured from, then the other', () => {
    const build = plannedFor(panelBrief(), shop);
    const seen = outlook(build, 'trim').steps.find(({ id }) => id === 'trim');
    const cuts = (seen?.cuts ?? []).map((phrase) => phraseText(phrase, metric));
    expect(cuts.map((each) => each.slice(0, 12))).toEqual([
      'The near edg',
      'The far edge',
      'The left end',
      'The right en',
      'Both sides o',
    ]);
  });
  it('ends before edges are said, and not once the edges are cut', () => {
    expect(of(cross(40), 'ends-before-edges')?.numbers.width).toBe(240);
    const trimmed = plannedFor(panelBrief(), shop);
    expect(of(trimmed, 'ends-before-edges')).toBeUndefined();
  });
});

describe('a leaf off the middle', () => {
  const resawn = (offMiddle: number, more: object = {}) =>
    built(
      [slot('a', 600, 240, 24)],
      [
        {
          id: 'r',
          kind: 'resaw',
          inputs: ['strips'],
          output: 'leaves',
          saw: 'table-full',
          leaves: 2,
          wanted: { mm: 9.5 },
          offMiddle: { mm: offMiddle },
          ...more,
        } as Step,
      ],
      { shop: withSaw('table-full', { kerf: { mm: 3 } }) },
    );
  it('by 0.8 has 0.2 to spare over 9.5; by 1.2 lacks 0.2', () => {
    expect(of(resawn(0.8), 'leaf-margin')).toMatchObject({ severity: 'note' });
    expect(of(resawn(0.8), 'leaf-margin')?.numbers.spare).toBeCloseTo(0.2, 9);
    expect(of(resawn(1.2), 'leaf-margin')).toMatchObject({ severity: 'warning' });
    expect(words(resawn(1.2), 'leaf-margin')).toContain('short by 0.2');
  });
  it('from both edges: heights, cuts and what is left', () => {
    const build = resawn(0, { edgesDeep: { mm: 70 }, raise: { mm: 25 } });
    expect(of(build, 'resawn-from-edges')?.numbers).toMatchObject({ heights: 3, cuts: 6, left: 100 });
  });
});
