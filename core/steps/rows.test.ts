import { describe, expect, it } from 'vitest';
import { mustFit, PATTERNS, patternOf, startingBrief } from '../plan';
import { shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { asGlueUp, asSlicing, sliceBefore, sliceIds, sparesOf } from '.';

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
