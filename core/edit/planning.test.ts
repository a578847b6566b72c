import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Edit, isRefused, MOST_STEPS, phraseText } from '../document';
import { freeJob, mustFit, PATTERNS, startingBrief } from '../plan';
import { fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { asGlueUp, brokenReferences } from '../steps';
import { applyEdit, mustEdit } from '.';

const shop = shopWith();
const panel = plannedFor(panelBrief({ sections: 1 }), shop);
const added = (build: BuildDocument, edit: Partial<Extract<Edit, { do: 'addPlan' }>> = {}) =>
  mustEdit(build, { do: 'addPlan', brief: startingBrief('panel', shop), name: 'Second', ...edit });

describe.each(
  PATTERNS.map(({ id }) => id).filter((id) => id !== 'ownRule'),
)('a %s put into a job beside what is there', (id) => {
  const brief = startingBrief(id, shop);
  const alone = run(mustFit(brief, shop, { name: id, use: id }));
  const both = added(panel, { brief, name: id });
  const timeline = run(both);
  it('comes out as it does alone, step by step, and leaves the other as it was', () => {
    expect(brokenReferences(both)).toEqual([]);
    expect(timeline.problems.map(({ code, numbers }) => [code, numbers])).toEqual(
      [...run(panel).problems, ...alone.problems].map(({ code, numbers }) => [code, numbers]),
    );
    const own = timeline.steps.slice(panel.steps.length);
    expect(own.map(({ greatest, pieces }) => [greatest, pieces.length])).toEqual(
      alone.steps.map(({ greatest, pieces }) => [greatest.map((mm) => expect.closeTo(mm, 6)), pieces.length]),
    );
    expect(timeline.steps.slice(0, panel.steps.length).map(({ greatest }) => greatest)).toEqual(
      run(panel).steps.map(({ greatest }) => greatest),
    );
  });
  it('stays when the first is planned again', () => {
    const again = mustEdit(both, { do: 'replan', change: { width: fixed('10') } });
    const ids = (build: BuildDocument) =>
      build.steps.map((step) => step.id).filter((each) => each.startsWith('p2-'));
    expect(ids(again)).toEqual(ids(both));
    expect(again.targets.map(({ purpose }) => purpose)).toContain(id);
    expect(run(again).problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
  });
});

describe('patterns combined', () => {
  it('a book match as a skin on a panel: one glue-up more, as thick as both', () => {
    const brief = startingBrief('match', shop, {
      length: panel.targets[0].length,
      width: panel.targets[0].width,
    });
    const both = added(panel, { brief, name: 'Skin' });
    const skin = both.targets.at(-1);
    const glued = mustEdit(both, {
      do: 'addStep',
      kind: 'glue',
      after: 'trim',
      settings: { along: 'thickness' },
    });
    const glue = glued.steps.find((step) => asGlueUp(step) && !both.steps.some(({ id }) => id === step.id));
    const whole = mustEdit(glued, { do: 'takeIn', step: glue?.id ?? '', output: skin?.output ?? '' });
    const timeline = run(whole);
    const entry = timeline.steps.find(({ id }) => id === glue?.id);
    const [core, leaf] = [panel.targets[0], skin].map((target) => target?.thickness.value?.mm ?? 0);
    expect(entry?.greatest[2]).toBeCloseTo(core + leaf, 6);
    expect(timeline.problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
    expect(brokenReferences(whole)).toEqual([]);
  });
  it('a third has ids of its own, and a set of strips stays its own', () => {
    const three = added(added(panel), { brief: startingBrief('match', shop), name: 'Third' });
    expect(brokenReferences(three)).toEqual([]);
    expect(three.steps.some(({ id }) => id.startsWith('p3-'))).toBe(true);
    const sets = three.assemblies.flatMap(({ slots }) => slots.flatMap(({ set }) => (set ? [set] : [])));
    expect(sets.every((set) => set.startsWith('p3-'))).toBe(true);
  });
  it('the first in an empty job is the piece that was waited for', () => {
    const empty = freeJob(shop, { name: 'empty', use: '' });
    const one = added(empty);
    expect(one.targets.map(({ purpose }) => purpose)).toEqual(['Second']);
    expect(run(one).finished?.greatest[0]).toBeCloseTo(startingBrief('panel', shop).length.value?.mm ?? 0, 6);
  });
  it('a piece that something is asked of already stays wanted', () => {
    const empty = mustEdit(freeJob(shop, { name: 'empty', use: '' }), {
      do: 'setAim',
      target: 'piece',
      dimension: 'width',
      aim: fixed('10'),
    });
    expect(added(empty).targets.map(({ id }) => id)).toEqual(['piece', 'p2-piece']);
  });
  it('what cannot be planned or would be too much is refused with the number, and nothing changes', () => {
    const none = applyEdit(panel, {
      do: 'addPlan',
      brief: startingBrief('panel', shop, { woods: [] }),
      name: 'x',
    });
    expect(isRefused(none)).toBe(true);
    let full = panel;
    let last: ReturnType<typeof applyEdit> = panel;
    for (let i = 0; i < 60 && !isRefused(last); i++) {
      full = last;
      last = applyEdit(full, { do: 'addPlan', brief: startingBrief('panel', shop), name: `n${i}` });
    }
    expect(isRefused(last) && phraseText(last.refused, shop.display)).toMatch(/at most (200|50|20)/);
    expect(full.steps.length).toBeLessThanOrEqual(MOST_STEPS);
  });
});
