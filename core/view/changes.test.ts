import { describe, expect, it } from 'vitest';
import { type BuildDocument, type Edit, isRefused, phraseText } from '../document';
import { applyEdit, mustEdit } from '../edit';
import { typed } from '../kit';
import { CHEQUER, panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { changesBetween } from '.';

const shop = shopWith();
const panel = plannedFor(panelBrief({}), shop);
const block = plannedFor(panelBrief(CHEQUER), shop);
const inch = { system: 'inch', fraction: 32 } as const;
const said = (before: BuildDocument, after: BuildDocument) =>
  changesBetween(before, after).map((line) => phraseText(line, inch));
const after = (edit: Edit, build = panel) => said(build, mustEdit(build, edit));
const rip = panel.steps[0].id;
const glue = panel.steps.find(({ kind }) => kind === 'glue')?.id ?? '';
const strips = panel.assemblies[0].slots;

describe('what a kept version says was changed', () => {
  it('is the edit that was made: a wood, a width, a wanted size, a name', () => {
    expect(
      after({ do: 'setSlot', step: rip, strip: strips[2].id, change: { species: 'walnut_black' } }),
    ).toEqual(['strip 3: wood Black walnut, was Black cherry']);
    expect(
      after({ do: 'setSlot', step: rip, strip: strips[0].id, change: { width: typed('2 1/8') } }),
    ).toEqual([`strip 1: width 2 1/8 in, was ${phraseText([strips[0].width], inch)}`]);
    expect(after({ do: 'setAim', dimension: 'length', aim: { aim: 'fixed', value: typed('42') } })).toEqual([
      `wanted: length 42 in, was ${phraseText([panel.targets[0].length.value ?? ''], inch)}`,
    ]);
    expect(after({ do: 'rename', name: 'Lid' })).toEqual([`named “Lid”, was “${panel.name}”`]);
  });

  it('says of strips that changed alike one line', () => {
    expect(after({ do: 'setAllSlots', step: rip, change: { species: 'walnut_black' } })).toEqual([
      'all strips: wood Black walnut, was Black cherry',
    ]);
    const two = mustEdit(panel, {
      do: 'setSlots',
      strips: [strips[0].id, strips[1].id],
      change: { thickness: typed('1 1/4') },
    });
    expect(said(panel, two)).toEqual([
      `strips 1, 2: thickness 1 1/4 in, was ${phraseText([strips[0].thickness], inch)}`,
    ]);
  });

  it('says strips that came, went and moved, and parts that were turned', () => {
    expect(after({ do: 'addStrip', step: rip })[0]).toMatch(
      new RegExp(`^strip ${strips.length + 1} added: Black cherry, .* in wide$`),
    );
    expect(after({ do: 'removeStrip', step: rip, strip: strips[1].id })).toContain(
      'strip 2 (Black cherry) taken out',
    );
    expect(after({ do: 'moveStrip', step: rip, from: 0, to: 2 })).toContain(
      'Glue-up: parts in another order',
    );
    const piece = panel.steps.flatMap((step) => (step.kind === 'glue' ? (step.parts ?? []) : []))[0]?.piece;
    if (piece)
      expect(after({ do: 'turnPart', step: glue, piece, turn: 'endForEnd' })).toEqual([
        expect.stringContaining('part 1 turned end for end'),
      ]);
  });

  it('calls settings of a step as its card does', () => {
    const trim = panel.steps.find(({ kind }) => kind === 'trim');
    expect(trim).toBeDefined();
    expect(after({ do: 'setStep', step: trim?.id ?? '', change: { start: typed('5/8') } })).toEqual([
      expect.stringMatching(/: Off the left end 5\/8 in, was /),
    ]);
    const saw = shop.saws[1];
    expect(after({ do: 'useSaw', step: rip, saw: saw.id }).join()).toContain(saw.name);
    expect(
      after({ do: 'setStep', step: rip, change: { done: true, doneAt: '2026-03-01T10:00:00Z' } }),
    ).toEqual([expect.stringMatching(/: done$/)]);
    expect(after({ do: 'measure', step: rip, dimension: 'width', measured: typed('2') })).toEqual([
      expect.stringMatching(/^measured after .*: width 2 in$/),
    ]);
  });

  it('is nothing where the work is the same, however a length was typed', () => {
    expect(said(panel, structuredClone(panel))).toEqual([]);
    const retyped = JSON.parse(
      JSON.stringify(panel, (key, value: unknown) => (key === 'typed' ? undefined : value)),
    ) as BuildDocument;
    expect(said(panel, retyped)).toEqual([]);
  });

  it('is never nothing where it differs: any value of the document that is another is said', () => {
    /** The document with one of its values changed, for every value of it. */
    function* others(value: unknown): Generator<unknown> {
      if (typeof value === 'number') yield value + 1;
      else if (typeof value === 'string') yield `${value}x`;
      else if (typeof value === 'boolean') yield !value;
      else if (Array.isArray(value)) {
        for (const [i, each] of value.entries()) for (const other of others(each)) yield value.with(i, other);
        if (value.length > 0) yield value.slice(1);
      } else if (value && typeof value === 'object')
        for (const [key, each] of Object.entries(value))
          if (key !== 'typed') for (const other of others(each)) yield { ...value, [key]: other };
    }
    let tried = 0;
    for (const build of [panel, block]) {
      const { format, version, ...work } = build;
      for (const other of others(work)) {
        tried += 1;
        const changed = { ...(other as BuildDocument), format, version };
        expect(changesBetween(build, changed)).not.toEqual([]);
        expect(changesBetween(changed, build)).not.toEqual([]);
      }
    }
    expect(tried).toBeGreaterThan(500);
  });

  it('an edit that is refused changes nothing, one that is made is said', () => {
    const edits: Edit[] = [
      { do: 'duplicateStrip', step: rip, strip: strips[0].id },
      { do: 'useMachine', step: glue, machine: 'none' },
      { do: 'setTarget', target: panel.targets[0].id, change: { quantity: 3 } },
      { do: 'makeEach', target: panel.targets[0].id },
      { do: 'useShop', shop: { ...shop, woodMoisturePct: 11 } },
    ];
    for (const edit of edits) {
      const next = applyEdit(panel, edit);
      if (isRefused(next)) continue;
      expect(said(panel, next).length > 0).toBe(JSON.stringify(next) !== JSON.stringify(panel));
    }
  });
});
