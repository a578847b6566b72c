import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Edit, isRefused, makerOf, phraseText, type StepKind } from '../document';
import { mustFit, PATTERNS, startingBrief } from '../plan';
import { plannedFor, panelBrief, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { blankVolume, CAUSES, compensatedSum, extents, lostTo } from '../solid';
import { brokenReferences, roomOf, STEP_ROOMS, type Timeline } from '../steps';
import { applyEdit, mustEdit } from '.';

const layUps = [
  {
    id: 'two',
    name: 'Two woods',
    strips: [
      { species: 'maple_sugar', share: 0.6 },
      { species: 'walnut_black', share: 0.4, endForEnd: true },
    ],
  },
];
const shop = shopWith({ layUps });
const inch = { system: 'inch', fraction: 32 } as const;
const panel = plannedFor(panelBrief({ sections: 1 }), shop);
const SLAB = {
  ...{ species: 'walnut_black', count: 1 },
  ...{ length: { mm: 600 }, width: { mm: 200 }, thickness: { mm: 40 } },
};
const kinds = (build: BuildDocument) => build.steps.map(({ kind }) => kind);
const why = (build: BuildDocument, edit: Edit): string => {
  const made = applyEdit(build, edit);
  return isRefused(made) ? phraseText(made.refused, inch) : '';
};

/** Sizes and losses of a timeline, without ids. */
const told = ({ steps, woodInMm3, ledger, leftOverMm3, problems }: Timeline) => ({
  steps: steps.map(({ kind, least, greatest, pieces, massKg, lost }) => ({
    ...{ kind, least, greatest, massKg, lost },
    sizes: pieces.map(({ blank }) => extents(blank)),
  })),
  ...{ woodInMm3, ledger, leftOverMm3 },
  problems: problems.map(({ code, severity }) => ({ code, severity })),
});

/** How far wood in differs from what came out, lay over or was lost, as a share. */
function unaccounted(timeline: Timeline): number {
  const finished = compensatedSum((timeline.finished?.pieces ?? []).map(({ blank }) => blankVolume(blank)));
  const lost = compensatedSum(CAUSES.map((cause) => lostTo(timeline.ledger, cause)));
  const out = finished + lost + timeline.leftOverMm3;
  return timeline.woodInMm3 > 0 ? Math.abs(out - timeline.woodInMm3) / timeline.woodInMm3 : 0;
}

describe('a step put in', () => {
  const after = panel.steps.find(({ kind }) => kind === 'glue')?.id ?? '';
  it('takes what lay there and gives it on to what came after', () => {
    const next = mustEdit(panel, { do: 'addStep', kind: 'rest', after });
    const at = next.steps.findIndex(({ id }) => id === after);
    expect(next.steps[at + 1]).toMatchObject({ kind: 'rest', inputs: [next.steps[at].output] });
    expect(next.steps[at + 2].inputs).toEqual([next.steps[at + 1].output]);
    expect(run(next).finished?.greatest).toEqual(run(panel).finished?.greatest);
  });
  it('has settings of this shop that suit what lies there', () => {
    const next = mustEdit(panel, { do: 'addStep', kind: 'crosscut', after });
    const step = next.steps.find(({ kind }) => kind === 'crosscut');
    const lies = run(panel).steps.find(({ id }) => id === after)?.least[0] ?? 0;
    const length = (step as unknown as { length: { mm: number } }).length.mm;
    expect(length).toBeLessThan(lies);
    expect(length).toBeGreaterThan(lies - 2 * shop.allowances.trimEnd.mm);
    expect(run(next).problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
  });
  it('at the end of the line becomes what the piece is measured on', () => {
    const last = panel.steps.at(-1)?.id ?? '';
    const next = mustEdit(panel, {
      do: 'addStep',
      kind: 'turn',
      after: last,
      settings: { turn: 'tipOnEdge' },
    });
    expect(next.targets[0].output).toBe(next.steps.at(-1)?.output);
    const [now, before] = [next, panel].map((build) => run(build).finished?.greatest);
    expect(now).toEqual([before?.[0], before?.[2], before?.[1]]);
  });
  it('is refused, with the reason, where it cannot be', () => {
    expect(why(panel, { do: 'addStep', kind: 'rip', after })).toContain('begins a line of its own');
    expect(why(panel, { do: 'addStep', kind: 'rest', after: 'nobody' })).toContain('no longer in this job');
    expect(why(panel, { do: 'addStep', kind: 'rest', after, before: panel.steps[0].id })).toContain(
      'does not work on what',
    );
    const short = mustEdit(panel, {
      do: 'addStep',
      kind: 'crosscut',
      after,
      settings: { saw: 'table-full', length: { mm: 30 } },
    });
    const cut = short.steps.find(({ kind }) => kind === 'crosscut')?.id ?? '';
    expect(why(short, { do: 'addStep', kind: 'slice', after: cut })).toMatch(
      /Not one slice of .* fits: the blank is 1 3\/16 in long/,
    );
    const bare = { ...panel, shop: { ...shop, machines: [] } };
    expect(why(bare, { do: 'addStep', kind: 'flatten', after: panel.steps[0].id })).toBe(
      'The kit has no machine that flattens faces.',
    );
  });
  it('is refused past the two hundredth', () => {
    let full: BuildDocument = panel;
    while (full.steps.length < 200)
      full = mustEdit(full, { do: 'addStep', kind: 'rest', after, settings: {} });
    expect(why(full, { do: 'addStep', kind: 'rest', after, settings: {} })).toBe(
      'A job holds at most 200 steps.',
    );
    expect(why(full, { do: 'duplicateStep', step: 'flatten' })).toBe('A job holds at most 200 steps.');
  });
});

describe('a step taken out', () => {
  it.each(
    panel.steps.filter(({ inputs }) => inputs.length > 0).map(({ id }) => id),
  )('%s lets what followed take what it took, and comes back the same', (id) => {
    const step = panel.steps.find((each) => each.id === id);
    const at = panel.steps.findIndex((each) => each.id === id);
    const without = mustEdit(panel, { do: 'removeStep', step: id });
    expect(without.steps.some((each) => each.id === id)).toBe(false);
    expect(brokenReferences(without)).toEqual([]);
    const { id: _i, kind, inputs: _in, output: _o, ...settings } = step as never as Record<string, unknown>;
    const again = mustEdit(without, {
      do: 'addStep',
      kind: kind as StepKind,
      after: panel.steps[at - 1].id,
      settings,
    });
    expect(told(run(again))).toEqual(told(run(panel)));
  });
  it('that gives another one all it has is not taken out alone: it says which', () => {
    expect(why(panel, { do: 'removeStep', step: panel.steps[0].id })).toMatch(/all there is to work on/);
  });
  it('keeps its readings aside, and no new step gets its name', () => {
    const flatten = panel.steps.find(({ kind }) => kind === 'flatten')?.id ?? '';
    const measured = mustEdit(panel, {
      do: 'measure',
      step: flatten,
      dimension: 'thickness',
      measured: { mm: 24 },
    });
    const without = mustEdit(measured, { do: 'removeStep', step: flatten });
    expect(without.readings).toEqual(measured.readings);
    expect(run(without).problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
  });
});

describe('a step moved', () => {
  it('lies where it was put, and works on what lies there', () => {
    const [glue, flatten, trim] = ['glue', 'flatten', 'trim'].map(
      (kind) => panel.steps.find((s) => s.kind === kind)?.id ?? '',
    );
    const next = mustEdit(panel, { do: 'moveStep', step: flatten, after: trim });
    expect(kinds(next).indexOf('flatten')).toBeGreaterThan(kinds(next).indexOf('trim'));
    expect(next.steps.find(({ id }) => id === trim)?.inputs).toEqual(
      panel.steps.find(({ id }) => id === flatten)?.inputs,
    );
    expect(why(panel, { do: 'moveStep', step: panel.steps[0].id, after: glue })).toContain('begins its line');
    expect(mustEdit(panel, { do: 'moveStep', step: flatten, after: flatten })).toBe(panel);
  });
});

describe('a step left out', () => {
  it.each(
    panel.steps.filter(({ inputs }) => inputs.length > 0).map(({ id }) => id),
  )('%s counts as if it were not there, and back in as it was', (id) => {
    const off = mustEdit(panel, { do: 'setStep', step: id, change: { off: true } });
    const sizes = (build: BuildDocument) => run(build).finished?.greatest;
    expect(sizes(off)).toEqual(sizes(mustEdit(panel, { do: 'removeStep', step: id })));
    const on = mustEdit(off, { do: 'setStep', step: id, change: { off: undefined } });
    expect(told(run(on))).toEqual(told(run(panel)));
  });
  it('that begins a line leaves boards whole: what follows says it has nothing', () => {
    const off = mustEdit(panel, { do: 'setStep', step: panel.steps[0].id, change: { off: true } });
    const { woodInMm3, problems } = run(off);
    expect(woodInMm3).toBe(0);
    expect(problems.map(({ code }) => code)).toContain('no-input');
  });
});

describe('pieces sent another way', () => {
  const glue = panel.steps.find(({ kind }) => kind === 'glue');
  const [rip] = panel.steps;
  const strips = panel.assemblies[0].slots.map(({ id }) => id);
  const two = [strips[0], strips.at(-1) ?? ''];
  const strip = run(panel).steps[0].least[0];
  const apart = mustEdit(panel, {
    do: 'addStep',
    kind: 'crosscut',
    after: rip.id,
    only: two,
    settings: { saw: 'table-full', length: { mm: strip - 200 } },
  });
  const cut = apart.steps.find(({ kind }) => kind === 'crosscut');
  it('leave the others as they were, and lie on the bench', () => {
    const timeline = run(apart);
    const laid = timeline.steps.find(({ id }) => id === glue?.id)?.laid?.map(({ piece }) => piece);
    expect(laid).toEqual(strips.filter((id) => !two.includes(id)));
    expect(timeline.leftOverMm3).toBeGreaterThan(0);
    expect(unaccounted(timeline)).toBeLessThan(1e-9);
  });
  it('are laid in again later, shorter', () => {
    const later = mustEdit(
      mustEdit(apart, { do: 'addStep', kind: 'glue', after: glue?.id ?? '', settings: { along: 'width' } }),
      { do: 'rename', name: 'with ears' },
    );
    const second = later.steps.find(({ kind, id }) => kind === 'glue' && id !== glue?.id)?.id ?? '';
    const joined = mustEdit(later, { do: 'takeIn', step: second, output: cut?.output ?? '' });
    expect(brokenReferences(joined)).toEqual([]);
    const timeline = run(joined);
    const seen = timeline.steps.find(({ id }) => id === second);
    expect(seen?.laid).toHaveLength(3);
    expect(seen?.glue?.joints).toBe(2);
    expect(timeline.leftOverMm3).toBe(0);
    expect(unaccounted(timeline)).toBeLessThan(1e-9);
    // The way back: taken out, the two strips come as they were ripped, and the first glue-up still lays the others.
    const whole = mustEdit(joined, { do: 'removeStep', step: cut?.id ?? '' });
    const back = run(whole).steps;
    expect(back.find(({ id }) => id === glue?.id)?.laid).toHaveLength(strips.length - 2);
    expect(back.find(({ id }) => id === second)?.laid).toHaveLength(3);
  });
  it('that are gone stop the step that was to take them, and say so', () => {
    const gone = mustEdit(apart, { do: 'removeStrip', step: rip.id, strip: two[0] });
    const none = mustEdit(gone, { do: 'removeStrip', step: rip.id, strip: two[1] });
    const { problems } = run(none);
    expect(problems.map(({ code }) => code)).toContain('pieces-gone');
    const [fix] = problems.find(({ code }) => code === 'pieces-gone')?.fixes ?? [];
    expect(run(mustEdit(none, fix.edit)).problems.map(({ code }) => code)).not.toContain('pieces-gone');
  });
  it('do not come into what they wait for', () => {
    const flat = panel.steps.find(({ kind }) => kind === 'flatten');
    expect(why(panel, { do: 'takeIn', step: glue?.id ?? '', output: flat?.output ?? '' })).toContain(
      'wait for ever',
    );
    expect(why(panel, { do: 'leaveAside', step: glue?.id ?? '', output: glue?.inputs[0] ?? '' })).toContain(
      'nothing left',
    );
  });
});

describe('a line of its own', () => {
  it('begins from strips or from what is there, and is laid in where it is wanted', () => {
    const slots = [
      { id: 'x', species: 'oak_white', length: { mm: 900 }, width: { mm: 30 }, thickness: { mm: 20 } },
    ];
    const one = mustEdit(panel, {
      do: 'addLine',
      kind: 'rip',
      settings: { saw: 'table-full', fence: 'shared' },
      slots,
      name: 'Edging',
    });
    const ripped = one.steps.at(-1);
    expect(one.assemblies.at(-1)).toMatchObject({ name: 'Edging', repeat: 1 });
    const glue = panel.steps.find(({ kind }) => kind === 'glue');
    const both = mustEdit(one, { do: 'takeIn', step: glue?.id ?? '', output: ripped?.output ?? '' });
    expect(brokenReferences(both)).toEqual([]);
    expect(makerOf(both, ripped?.output ?? '')).toBeDefined();
    const laid = run(both).steps.find(({ id }) => id === glue?.id)?.laid?.length;
    expect(laid).toBe((run(panel).steps.find(({ id }) => id === glue?.id)?.laid?.length ?? 0) + 1);
    expect(why(panel, { do: 'addLine', kind: 'mill', settings: {} })).toContain('begins no line');
  });
  it('is the piece itself where the job is still empty', () => {
    const empty: BuildDocument = { ...panel, assemblies: [], steps: [], readings: [] };
    const begun = mustEdit(empty, { do: 'addLine', kind: 'have', settings: SLAB });
    expect(run(begun).finished?.pieces).toHaveLength(1);
    expect(begun.targets[0].output).toBe(begun.steps[0].output);
  });
});

/** A hand's edits of a chain, drawn: each of them one that a screen would offer. */
type Draw = { what: number; where: number; kind: number };
const ADDED = STEP_ROOMS.filter(({ flow, run: plays }) => !flow.source && plays).map(
  ({ kind }) => kind as StepKind,
);

function drawnEdit(build: BuildDocument, { what, where, kind }: Draw): Edit {
  const { steps } = build;
  const step = steps[where % steps.length];
  const single = steps.filter(({ inputs }) => inputs.length === 1);
  const some = single[where % Math.max(1, single.length)] ?? step;
  const other = steps[kind % steps.length];
  switch (what % 8) {
    case 0:
      return { do: 'addStep', kind: ADDED[kind % ADDED.length], after: step.id };
    case 1:
      return { do: 'removeStep', step: some.id };
    case 2:
      return { do: 'moveStep', step: some.id, after: other.id };
    case 3: {
      const pieces =
        run(build)
          .steps.find(({ id }) => id === step.id)
          ?.pieces.map(({ id }) => id) ?? [];
      return {
        do: 'addStep',
        kind: 'rest',
        after: step.id,
        only: pieces.slice(0, 1 + (kind % 2)),
        settings: {},
      };
    }
    case 4: {
      const at = steps.findIndex(({ kind: each }) => roomOf({ kind: each }).flow.joins);
      return {
        do: 'takeIn',
        step: (steps[Math.max(0, at)] ?? step).id,
        output: steps[where % Math.max(1, at)].output,
      };
    }
    case 5:
      return {
        do: 'duplicateStep',
        step: (
          single.filter((each) => !roomOf({ kind: each.kind }).flow.joins)[where % single.length] ?? some
        ).id,
      };
    case 6:
      return { do: 'setStep', step: some.id, change: { off: some.off ? undefined : true } };
    default:
      return { do: 'addLine', kind: 'have', settings: SLAB };
  }
}

const NAMES = ['add', 'remove', 'move', 'branch', 'join', 'duplicate', 'off and on', 'line'];

describe.each(PATTERNS.map(({ id }) => id))('any edits of the chain of a %s', (id) => {
  const planned = mustFit(startingBrief(id, shop), shop, { name: id, use: '' });
  it('leave a valid job that plays, in which no wood is lost, and undo brings back the very same', () => {
    let drawn = 0;
    let taken = 0;
    const done = new Set<number>();
    fc.assert(
      fc.property(
        fc.array(fc.record({ what: fc.nat(7), where: fc.nat(40), kind: fc.nat(40) }), {
          minLength: 1,
          maxLength: 20,
        }),
        (draws) => {
          let build = planned;
          for (const draw of draws) {
            const before = JSON.stringify(build);
            const made = applyEdit(build, drawnEdit(build, draw));
            expect(JSON.stringify(build)).toBe(before);
            drawn += 1;
            if (isRefused(made)) {
              expect(phraseText(made.refused, inch)).not.toBe('');
              continue;
            }
            taken += 1;
            done.add(draw.what);
            build = made;
          }
          expect(brokenReferences(build)).toEqual([]);
          expect(unaccounted(run(build))).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 12, seed: 20261128 },
    );
    expect(taken / drawn).toBeGreaterThanOrEqual(0.8);
    expect([...done].map((what) => NAMES[what]).toSorted()).toEqual([...NAMES].toSorted());
  });
});
