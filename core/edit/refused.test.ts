import { describe, expect, it } from 'vitest';
import { attempt, type Edit, isRefused, must, phraseText, Refusal } from '../document';
import { fit, PATTERNS, startingBrief } from '../plan';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { applyEdit, applyEdits, mustEdit } from '.';

const inch = { system: 'inch', fraction: 32 } as const;
const mm = { system: 'mm', fraction: 0 } as const;

describe('a refusal is a value', () => {
  const shop = shopWith();
  const panel = plannedFor(panelBrief({ sections: 1 }), shop);
  it('with its numbers, in the units of whoever reads it', () => {
    const brief = startingBrief('match', shop, { module: { mm: 25.4 } });
    const made = fit(brief, shop, { name: 'm', use: '' });
    expect(isRefused(made)).toBe(true);
    if (!isRefused(made)) return;
    expect(phraseText(made.refused, inch)).toContain('the one on the rack is 1 in');
    expect(phraseText(made.refused, mm)).toContain('the one on the rack is 25.4 mm');
  });
  it('an edit that is refused leaves the build as it was, and one of several refuses them all', () => {
    const before = JSON.stringify(panel);
    const bad: Edit = { do: 'replan', change: { woods: [] } };
    const rename: Edit = { do: 'rename', name: 'Other' };
    for (const made of [
      applyEdit(panel, bad),
      applyEdit(panel, { do: 'many', edits: [rename, bad] }),
      applyEdits(panel, [rename, bad]),
    ]) {
      expect(isRefused(made) && phraseText(made.refused, inch)).toBe('Choose at least one wood.');
    }
    expect(JSON.stringify(panel)).toBe(before);
    expect(() => mustEdit(panel, bad)).toThrow('Choose at least one wood.');
  });
  it('a fault of the program is none, and passes through', () => {
    const broken = { ...panel, steps: undefined } as never;
    expect(() => applyEdit(broken, { do: 'setStep', step: 'flatten', change: { name: 'x' } })).toThrow(
      TypeError,
    );
    expect(() =>
      attempt(() => {
        throw new RangeError('a slip');
      }),
    ).toThrow(RangeError);
    expect(attempt(() => 5)).toBe(5);
    expect(isRefused(attempt(() => [new Refusal(['no'])]))).toBe(false);
    expect(() => must({ refused: [{ mm: 25.4 }, ' is too much'] }, inch)).toThrow('1 in is too much');
  });
  it('a lay-up that is full says how many it holds', () => {
    const shop2 = shopWith();
    const full = plannedFor(panelBrief({ sections: 1 }), shop2);
    const [layUp] = full.assemblies;
    const [slot] = layUp.slots;
    const many = {
      ...full,
      assemblies: [{ ...layUp, slots: Array.from({ length: 2000 }, (_, i) => ({ ...slot, id: `s${i}` })) }],
    };
    const made = applyEdit(many, { do: 'addStrip', step: 'rip' });
    expect(isRefused(made) && phraseText(made.refused, inch)).toMatch(
      /^A lay-up holds at most \d+ strips\.$/,
    );
  });
  it.each(
    PATTERNS.map(({ id }) => [id]),
  )('%s, asked for a thickness below nothing, is refused in words', (id) => {
    const brief = startingBrief(id, shop, { thickness: { aim: 'fixed', value: { mm: -3 } } });
    const made = fit(brief, shop, { name: id, use: '' });
    expect(isRefused(made) && phraseText(made.refused, inch)).toMatch(/\S.*\.$/);
  });
});
