import { describe, expect, it } from 'vitest';
import { type BuildDocument, copiesOf, isRefused, phraseText, timesMade } from '../document';
import { mustFit, PATTERNS, startingBrief } from '../plan';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { blankVolume, extents } from '../solid';
import { brokenReferences } from '../steps';
import { demandOf } from '../stock';
import { applyEdit, mustEdit } from '.';

const shop = shopWith();
const panel = plannedFor(panelBrief({ sections: 1 }), shop);
const wanting = (build: BuildDocument, quantity: number) =>
  mustEdit(build, { do: 'setTarget', target: 'piece', change: { quantity } });
const refusal = (build: BuildDocument, edit: 'makeEach' | 'fromOneLength') => {
  const made = applyEdit(build, { do: edit, target: 'piece' });
  return isRefused(made) ? phraseText(made.refused, shop.display) : '';
};
const stops = (build: BuildDocument) => run(build).problems.filter(({ severity }) => severity === 'stop');

describe('each by itself', () => {
  const patterns = PATTERNS.map(({ id }) => id).filter((id) => id !== 'ownRule');
  const planned = patterns.map(
    (id) => [id, mustFit(startingBrief(id, shop), shop, { name: id, use: '' })] as const,
  );
  it.each(planned)('three of a %s are three of the same piece, or it says at which step not', (_, build) => {
    const three = wanting(build, 3);
    const made = applyEdit(three, { do: 'makeEach', target: 'piece' });
    if (isRefused(made)) {
      expect(phraseText(made.refused, shop.display)).toMatch(/does not give the same 3 times|at most/);
      return;
    }
    expect(brokenReferences(made)).toEqual([]);
    expect(stops(made)).toEqual([]);
    const [one, all] = [run(build), run(made)];
    expect(all.finished?.pieces).toHaveLength(3 * (one.finished?.pieces.length ?? 0));
    for (const { blank } of all.finished?.pieces ?? [])
      expect(extents(blank)).toEqual(one.finished?.greatest.map((mm) => expect.closeTo(mm, 5)));
    const wood = (of: typeof one) =>
      of.finished?.pieces.reduce((sum, { blank }) => sum + blankVolume(blank), 0) ?? 0;
    expect(wood(all) / wood(one)).toBeCloseTo(3, 9);
    // Nothing is asked twice: what is written out is not multiplied any more.
    expect(timesMade(made, made.targets[0])).toBe(1);
    expect(demandOf([made]).strips).toHaveLength(demandOf([three]).strips.length);
  });
  it('is possible in most patterns', () => {
    const possible = planned.filter(
      ([, build]) => !isRefused(applyEdit(wanting(build, 2), { do: 'makeEach', target: 'piece' })),
    );
    expect(possible.length / planned.length).toBeGreaterThan(0.8);
  });
  it('each has a reading of its own, which the others do not feel', () => {
    const made = mustEdit(wanting(panel, 3), { do: 'makeEach', target: 'piece' });
    const [first, second] = run(made).finished?.pieces ?? [];
    const read = mustEdit(made, {
      do: 'measure',
      step: 'flatten',
      dimension: 'thickness',
      measured: { mm: extents(first.blank)[2] - 0.8 },
      piece: second.id.replace('piece', 'flat'),
    });
    const target = run(made).steps.find(({ id }) => id === 'flatten')?.pieces[1].id;
    const own = {
      ...read,
      readings: read.readings.map((each) => ({ ...each, piece: target })),
    } as BuildDocument;
    const thick = run(own).finished?.pieces.map(({ blank }) => extents(blank)[2]) ?? [];
    expect(thick[0]).toBeCloseTo(extents(first.blank)[2], 6);
    expect(thick[1]).toBeCloseTo(extents(first.blank)[2] - 0.8, 6);
    expect(thick[2]).toBeCloseTo(thick[0], 6);
  });
  it('a reading that was there is the first one’s', () => {
    const glued = mustEdit(panel, {
      do: 'measure',
      step: 'glue',
      dimension: 'width',
      measured: { mm: (run(panel).steps.find(({ id }) => id === 'glue')?.greatest[1] ?? 0) - 1 },
      piece: run(panel).steps.find(({ id }) => id === 'glue')?.pieces[0].id,
    });
    const made = mustEdit(wanting(glued, 2), { do: 'makeEach', target: 'piece' });
    const pieces = run(made).steps.find(({ id }) => id === 'glue')?.pieces ?? [];
    expect(made.readings[0].piece).toBe(pieces[0].id);
    expect(extents(pieces[1].blank)[1] - extents(pieces[0].blank)[1]).toBeCloseTo(1, 6);
  });
  it('a lay-up that an earlier file repeats is written out as often, and the note about it is gone', () => {
    const repeated = {
      ...panel,
      assemblies: panel.assemblies.map((assembly) => ({ ...assembly, repeat: 4 })),
    };
    expect(copiesOf(repeated, repeated.assemblies[0])).toBe(4);
    const note = run(repeated).problems.find(({ code }) => code === 'not-run-yet');
    expect(note?.fixes).toHaveLength(1);
    const made = mustEdit(repeated, note?.fixes[0].edit ?? { do: 'rename', name: '' });
    expect(run(made).finished?.pieces).toHaveLength(4);
    expect(run(made).problems.some(({ code }) => code === 'not-run-yet')).toBe(false);
  });
  it('what the breakdown has placed for a copy is that copy’s strip then', () => {
    const [slot] = panel.assemblies[0].slots;
    const board = {
      id: 'b',
      label: 'B',
      species: slot.species,
      length: { mm: 2000 },
      width: { mm: 200 },
      thickness: { mm: 60 },
      taken: [
        { label: '1·2', slot: slot.id, copy: 1, x: 30, y: 20, length: 900, width: 60, thickness: 25 },
        {
          label: 'other',
          of: 'Other job',
          slot: 'x',
          copy: 0,
          x: 1500,
          y: 20,
          length: 300,
          width: 60,
          thickness: 25,
        },
      ],
    };
    const made = mustEdit({ ...wanting(panel, 2), boards: [board] }, { do: 'makeEach', target: 'piece' });
    const twin = made.assemblies[0].slots[panel.assemblies[0].slots.length];
    expect(twin.strip).toEqual({ board: 'b', at: { x: 30, y: 20 } });
    expect(made.boards[0].taken).toEqual([board.taken[1]]);
  });
  it('is refused with the number where it is one, too many, or shares its steps', () => {
    expect(refusal(panel, 'makeEach')).toMatch(/is made once: 1 are wanted/);
    const ripped = mustEdit(wanting(panel, 3), { do: 'setStep', step: 'rip', change: { done: true } });
    for (const edit of ['makeEach', 'fromOneLength'] as const)
      expect(refusal(ripped, edit)).toMatch(/^Rip.* is done already/);
    expect(refusal(wanting(panel, 400), 'makeEach')).toMatch(/400 times \d+ strips are \d+; .* at most 500/);
    const two = mustEdit(
      mustEdit(wanting(panel, 2), { do: 'addTarget', purpose: 'Shelf', output: 'blank' }),
      {
        do: 'setTarget',
        target: 'piece-2',
        change: { output: 'blank' },
      },
    );
    expect(refusal(two, 'makeEach')).toMatch(/gone through for “Shelf” too/);
  });
});

describe('cut from one long piece', () => {
  const four = wanting(
    plannedFor(panelBrief({ sections: 1, length: { aim: 'fixed', value: { mm: 500 } } }), shop),
    4,
  );
  it('four of 500 mm come out of one of four lengths and three kerfs', () => {
    const made = mustEdit(four, { do: 'fromOneLength', target: 'piece' });
    const kerf = shop.saws.find(({ id }) => id === (made.steps[0] as { saw?: string }).saw)?.kerf.mm ?? 0;
    const long = made.assemblies[0].slots[0].length.mm - four.assemblies[0].slots[0].length.mm;
    expect(long).toBeCloseTo(3 * (500 + kerf), 9);
    const { finished, problems } = run(made);
    expect(problems).toEqual([]);
    expect(finished?.pieces.map(({ blank }) => extents(blank)[0])).toEqual(
      Array.from({ length: 4 }, () => expect.closeTo(500, 4)),
    );
    expect(timesMade(made, made.targets[0])).toBe(1);
    // The strips of one glue-up, not of four.
    expect(demandOf([made]).strips).toHaveLength(four.assemblies[0].slots.length);
  });
  it('is refused where boards are not sold so long, or the piece is put together from several lines', () => {
    expect(refusal(wanting(four, 20), 'fromOneLength')).toMatch(/Strips for all 20 would be .* long; boards/);
    const sections = wanting(plannedFor(panelBrief({ sections: 2 }), shop), 2);
    expect(refusal(sections, 'fromOneLength')).toMatch(/from 2 lines/);
  });
});
