import { describe, expect, it } from 'vitest';
import { mustEdit } from '../edit';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { blankVolume, cellVolume } from '../solid';
import { asGlueUp } from '../steps';
import { clampRounds, finishedVolume, ruleOf, sizeRange } from '.';

const panel = plannedFor(panelBrief({ sections: 1 }), shopWith());
const glue = (build = panel) => {
  const step = build.steps.map(asGlueUp).find((each) => each !== undefined);
  if (!step) throw new Error('no glue-up');
  return step;
};

describe('a lay-up for the screen', () => {
  it('as a rule: shares add up to one, turns and woods stay with their strips', () => {
    const [first, second] = panel.assemblies[0].slots;
    const turned = [
      { do: 'turnPart', step: 'glue', piece: first.id, turn: 'endForEnd' },
      {
        do: 'setSlot',
        step: 'rip',
        strip: second.id,
        change: { species: 'walnut_black', width: { mm: 2 * first.width.mm } },
      },
    ] as const;
    const build = turned.reduce(mustEdit, panel);
    const { name, strips } = ruleOf(build, glue(build), 'Mine');
    expect(name).toBe('Mine');
    expect(strips.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
    expect(strips[0]).toMatchObject({ endForEnd: true });
    expect(strips[0].rollOver).toBeUndefined();
    expect(strips[1].species).toBe('walnut_black');
    expect(strips[1].share / strips[0].share).toBeCloseTo(2, 9);
  });
  it('a range of sizes, or one where they are alike', () => {
    const { slots } = panel.assemblies[0];
    expect(sizeRange(slots, 'length').least).toBeUndefined();
    const [first, ...rest] = slots;
    const longer = [{ ...first, length: { mm: first.length.mm + 5 } }, ...rest];
    const { least = 0, most } = sizeRange(longer, 'length');
    expect(most - least).toBeCloseTo(5, 9);
  });
  it('the wood of the finished piece is that of its cells', () => {
    const timeline = run(panel);
    const cells = timeline.finished?.pieces.flatMap(({ blank }) => blank.cells) ?? [];
    expect(finishedVolume(timeline)).toBeCloseTo(
      cells.reduce((sum, cell) => sum + cellVolume(cell), 0),
      3,
    );
    expect(finishedVolume(timeline)).toBeCloseTo(blankVolume({ cells }), 3);
    const { finished: _finished, ...nothing } = timeline;
    expect(finishedVolume(nothing)).toBe(0);
  });
  it.each([
    [1, 1, 1],
    [3, 2, 2],
    [4, 2, 2],
    [5, 2, 3],
    [4, 0, 0],
  ])('%i glue-ups, %i at once: %i rounds', (blanks, atOnce, rounds) =>
    expect(clampRounds(blanks, atOnce)).toBe(rounds));
});
