import { describe, expect, it } from 'vitest';
import type { Step } from '../document';
import { mustFit, PATTERNS, patternOf, startingBrief } from '../plan';
import { shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { asGlueUp, asSlicing, milledAfter, rips, type SliceStep, sliceBefore, sliceIds, sparesOf } from '.';
import { build as built, GLUE, three } from './steps.fixture';

const shop = shopWith();

describe.each(PATTERNS.map(({ id }) => id).filter((id) => id !== 'ownRule'))('slices of a %s', (id) => {
  const quantities = patternOf(id).batch ? [1, 3] : [1];
  it.each(quantities)('are called as they come out, made %i at once', (quantity) => {
    const build = mustFit(startingBrief(id, shop, { quantity, extraSlices: 2 }), shop, { name: id, use: '' });
    const timeline = run(build);
    for (const step of build.steps) {
      const slicing = asSlicing(step);
      if (!slicing) continue;
      const pieces = timeline.steps.find((entry) => entry.id === step.id)?.pieces.map((piece) => piece.id);
      expect(sliceIds(build, slicing)).toEqual(pieces);
    }
    // Spares are what a glue-up of slices leaves: none of them is laid, and with what is laid they are all.
    for (const step of build.steps) {
      const glue = asGlueUp(step);
      const slice = glue && sliceBefore(build, glue);
      if (!glue || !slice || glue.inputs.length > 1) continue;
      const laid = glue.parts?.map(({ piece }) => piece) ?? sliceIds(build, slice);
      const spares = sparesOf(build, glue);
      expect(spares.filter((piece) => laid.includes(piece))).toEqual([]);
      expect(
        new Set([...spares, ...laid.filter((piece) => sliceIds(build, slice).includes(piece))]).size,
      ).toBe(sliceIds(build, slice).length);
    }
  });
});

describe('slices without a glue-up before them', () => {
  it('are counted strip by strip as they were ripped, or of the one board that is there', () => {
    const slice = {
      id: 'slice',
      kind: 'slice',
      inputs: ['strips'],
      output: 'slices',
      saw: 'table-full',
      head: { mm: 5 },
      count: 3,
      thickness: { mm: 40 },
    } as SliceStep;
    const ripped = built(three, [slice]);
    const played = run(ripped)
      .steps.at(-1)
      ?.pieces.map(({ id }) => id);
    expect(sliceIds(ripped, slice)).toHaveLength(3 * three.length);
    expect(sliceIds(ripped, slice)).toEqual(played);
    // Nothing is known of what comes in: one blank.
    const nowhere = { ...slice, inputs: ['nowhere'] };
    expect(sliceIds({ ...ripped, steps: [nowhere] }, nowhere)).toHaveLength(3);
  });
});

it('strips that are not milled before they are glued lose nothing of their faces', () => {
  const rough = built(three, [GLUE]);
  const [rip] = rips(rough);
  expect(milledAfter(rough, rip)).toBe(0);
  const mill: Step = {
    id: 'm',
    kind: 'mill',
    inputs: ['strips'],
    output: 'milled',
    machine: 'planer',
    face: { mm: 1.5 },
    edge: { mm: 1 },
  } as Step;
  const milled = built(three, [mill, { ...GLUE, inputs: ['milled'] } as Step]);
  expect(milledAfter(milled, rips(milled)[0])).toBe(1.5);
});
