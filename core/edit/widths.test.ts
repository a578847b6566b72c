import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isRefused } from '../document';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { extents } from '../solid';
import { asGlueUp, brokenReferences } from '../steps';
import { applyEdit, mustEdit } from '.';

const panel = plannedFor(panelBrief({ sections: 1 }), shopWith());
const ids = panel.assemblies[0].slots.map(({ id }) => id);
const setWidths = (widths: readonly number[], build = panel) =>
  mustEdit(build, { do: 'setWidths', step: 'rip', strips: ids, widths: widths.map((mm) => ({ mm })) });

describe('widths of a lay-up in one line', () => {
  it('are those of the strips as they are laid, whatever was there before', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 12, max: 80 }), { minLength: 1, maxLength: 9 }), (widths) => {
        const build = setWidths(widths);
        expect(brokenReferences(build)).toEqual([]);
        const glue = build.steps.find((step) => asGlueUp(step));
        const ripped = run(build).steps.find(({ id }) => id === 'rip')?.pieces ?? [];
        const laid = (asGlueUp(glue)?.parts ?? ripped.map(({ id }) => ({ piece: id }))).map(
          ({ piece }) => piece,
        );
        const wide = new Map(ripped.map(({ id, blank }) => [id, extents(blank)[1]]));
        expect(laid.map((piece) => wide.get(piece))).toEqual(widths.map((mm) => expect.closeTo(mm, 6)));
      }),
      { seed: 20261128, numRuns: 40 },
    );
  });
  it('leave one strip at least, and the build they are set in untouched', () => {
    const before = JSON.stringify(panel);
    const none = applyEdit(panel, { do: 'setWidths', step: 'rip', strips: ids, widths: [] });
    expect(isRefused(none)).toBe(true);
    setWidths([20, 30]);
    expect(JSON.stringify(panel)).toBe(before);
  });
});
