import { describe, expect, it } from 'vitest';
import { type Brief, type BuildDocument, type Edit, must } from '../document';
import { typed } from '../kit';
import { mustFit, PATTERNS, startingBrief } from '../plan';
import { fixed, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { brokenReferences } from '../steps';
import { withPlayedOffers } from '../review/offers';
import { lostBy, mustEdit, plannedAgain } from '.';

const shop = shopWith();
const panel = plannedFor(panelBrief({ sections: 1 }), shop);
const WIDER = { width: fixed('12 1/2') };
const kinds = (build: BuildDocument) => build.steps.map(({ kind }) => kind);
const again = (build: BuildDocument, change: Record<string, unknown> = WIDER) =>
  mustEdit(build, { do: 'replan', change });
/** What planning again could not keep, by name. */
const lostByPlanning = (build: BuildDocument, change?: Partial<Brief>) =>
  must(plannedAgain(build, change), shop.display).lost;
const strips = panel.assemblies[0].slots.map(({ id }) => id);
const stops = (build: BuildDocument) => run(build).problems.filter(({ severity }) => severity === 'stop');

describe('planned again, the chain keeps what a hand did to it', () => {
  it('a step put in stays where it was, with its settings, note and begin time', () => {
    const rest = mustEdit(panel, { do: 'addStep', kind: 'rest', after: 'glue', settings: { hours: 30 } });
    const id = rest.steps.find(({ kind }) => kind === 'rest')?.id ?? '';
    const noted = mustEdit(rest, {
      do: 'setStep',
      step: id,
      change: { note: 'on stickers', begin: '2027-03-01T08:00:00Z' },
    });
    const next = again(noted);
    expect(kinds(next)).toEqual(['rip', 'mill', 'glue', 'rest', 'flatten', 'trim']);
    expect(next.steps.find((step) => step.id === id)).toMatchObject({
      ...{ hours: 30, note: 'on stickers', begin: '2027-03-01T08:00:00Z' },
    });
    expect(run(next).finished?.greatest[1]).toBeCloseTo(12.5 * 25.4, 6);
  });
  it('a step taken out stays out, one moved stays moved, one left out stays left out', () => {
    expect(kinds(again(mustEdit(panel, { do: 'removeStep', step: 'mill' })))).not.toContain('mill');
    const moved = mustEdit(panel, { do: 'moveStep', step: 'flatten', after: 'trim' });
    expect(kinds(again(moved))).toEqual(kinds(moved));
    const off = again(mustEdit(panel, { do: 'setStep', step: 'mill', change: { off: true } }));
    expect(off.steps.find(({ id }) => id === 'mill')?.off).toBe(true);
  });
  it('pieces sent another way and laid in again go the same way', () => {
    const edits: Edit[] = [
      {
        do: 'addStep',
        kind: 'crosscut',
        after: 'mill',
        only: strips.slice(0, 2),
        settings: { saw: 'table-full', length: typed('30') },
      },
      { do: 'addStep', kind: 'glue', after: 'flatten', settings: { along: 'width' } },
    ];
    let apart = edits.reduce((build, edit) => mustEdit(build, edit), panel);
    const [cut, second] = ['crosscut', 'glue'].map((kind) =>
      apart.steps.findLast((step) => step.kind === kind),
    );
    apart = mustEdit(apart, { do: 'takeIn', step: second?.id ?? '', output: cut?.output ?? '' });
    const next = again(apart);
    expect(brokenReferences(next)).toEqual([]);
    expect(stops(next)).toEqual([]);
    expect(next.steps.find(({ id }) => id === second?.id)?.inputs).toContain(cut?.output);
    expect(next.steps.find(({ id }) => id === cut?.id)?.only).toEqual(strips.slice(0, 2));
  });
  it('a line of its own and what it is laid into stay', () => {
    const one = mustEdit(panel, {
      do: 'addLine',
      kind: 'rip',
      name: 'Edging',
      settings: { saw: 'table-full', fence: 'shared' },
      slots: [
        { id: '', species: 'walnut_black', length: typed('37'), width: typed('1'), thickness: typed('1') },
      ],
    });
    const both = mustEdit(one, { do: 'takeIn', step: 'glue', output: one.steps.at(-1)?.output ?? '' });
    const next = again(both);
    expect(next.assemblies.map(({ name }) => name)).toContain('Edging');
    expect(next.steps.find(({ id }) => id === 'glue')?.inputs).toContain(one.steps.at(-1)?.output);
    expect(stops(next)).toEqual([]);
  });
  it('pieces wanted besides, and how many, stay', () => {
    const two = mustEdit(panel, { do: 'addTarget', purpose: 'Shelf', output: 'panel' });
    const next = again(mustEdit(two, { do: 'setTarget', target: 'piece', change: { quantity: 3 } }));
    expect(next.targets.map(({ purpose, quantity }) => [purpose, quantity])).toEqual([
      [panel.targets[0].purpose, 3],
      ['Shelf', 1],
    ]);
  });
  it('readings stay in the job, also of a step that is gone', () => {
    const read = mustEdit(panel, {
      do: 'measure',
      step: 'flatten',
      dimension: 'thickness',
      measured: typed('7/8'),
    });
    expect(again(mustEdit(read, { do: 'removeStep', step: 'flatten' })).readings).toEqual(read.readings);
  });
  it('what has no place in the new plan is told by name before it is dropped', () => {
    const split = plannedFor(panelBrief({ width: fixed('22'), sections: 2 }), shop);
    const joints = split.steps.filter(({ kind }) => kind === 'joint').map(({ id }) => id);
    expect(joints.length).toBeGreaterThan(0);
    const rest = mustEdit(split, { do: 'addStep', kind: 'rest', after: joints[0], settings: {} });
    expect(lostByPlanning(rest, {})).toEqual([]);
    expect(lostByPlanning(rest, { width: fixed('10'), sections: 1 })).toEqual(['Rest, Section 1']);
    const replan: Edit = { do: 'replan', change: { width: fixed('10'), sections: 1 } };
    expect(lostBy(rest, replan)).toEqual(['Rest, Section 1']);
    // The second of two that plan again has nothing left to drop.
    expect(lostBy(rest, { do: 'many', edits: [{ do: 'rename', name: 'x' }, replan, replan] })).toEqual([
      'Rest, Section 1',
    ]);
    expect(lostBy(rest, { do: 'rename', name: 'x' })).toEqual([]);
    expect(lostBy(rest, { do: 'replan', change: { woods: [] } })).toEqual([]);
    const [offered] = withPlayedOffers(
      rest,
      [
        {
          code: 'wider-than-machine',
          step: rest.steps[0].id,
          severity: 'warning',
          message: ['too wide'],
          numbers: {},
          fixes: [{ label: 'Narrower', edit: replan }],
        },
      ],
      () => [],
    );
    expect(offered.fixes).toEqual([{ label: 'Narrower', edit: replan, drops: ['Rest, Section 1'] }]);
  });
});

describe.each(
  PATTERNS.map(({ id }) => id).filter((id) => id !== 'ownRule'),
)('a %s planned again as it was', (id) => {
  it('keeps a step put in after each of its steps', () => {
    const planned = mustFit(startingBrief(id, shop), shop, { name: id, use: '' });
    for (const { id: after } of planned.steps) {
      const build = mustEdit(planned, { do: 'addStep', kind: 'rest', after, settings: {} });
      expect(lostByPlanning(build), after).toEqual([]);
      expect(
        again(build, {}).steps.map((step) => [step.id, step.inputs]),
        after,
      ).toEqual(build.steps.map((step) => [step.id, step.inputs]));
    }
  });
});
