import { describe, expect, it } from 'vitest';
import { type BuildDocument, phraseText } from '../document';
import { mustEdit } from '../edit';
import { glueUpsOf, layAids } from '../glueup';
import { run } from '../run';
import { type FeatureStep, isOf } from '../steps';
import { build, GLUE, slot } from '../steps/steps.fixture';
import { findClearings, WISH_NAMES, type WishName } from '.';

const mm = (value: number) => ({ mm: value });
const DISPLAY = { system: 'mm', denominator: 32 } as never;

/** A counter of 1500 by 560 by 40 in five boards of 112, with an opening of 480 by 360 and biscuits that reach so far into each board. */
function counter(into: number, v = 280) {
  const boards = Array.from({ length: 5 }, (_, i) => slot(`b${i}`, 1500, 112, 40));
  const glue = {
    ...GLUE,
    plan: {
      aids: {
        kind: 'biscuits' as const,
        own: { thick: mm(4), into: mm(into), along: mm(56) },
        places: [1, 2, 3, 4].map((joint) => ({ joint, at: mm(750) })),
      },
    },
  };
  const opening: FeatureStep = {
    id: 'cutting',
    kind: 'feature',
    inputs: [GLUE.output],
    output: 'cut',
    edges: 'finished',
    features: [
      {
        id: 'sink',
        kind: 'opening',
        side: 'upper',
        u: { from: 'middle', by: mm(0) },
        v: { from: 'low', by: mm(v) },
        shape: 'rectangle',
        length: mm(480),
        width: mm(360),
        radius: mm(20),
        cutter: mm(10),
      },
    ],
  };
  const made = build(boards, [glue, opening]);
  return { ...made, shop: { ...made.shop, settingStep: mm(1) } };
}
const look = (made: ReturnType<typeof counter>, may: readonly WishName[], limitMm = 60) => {
  const step = made.steps.find((each) => isOf(each, 'feature'))?.id ?? '';
  const found = findClearings(made, step, 'sink', { may, limitMm });
  if (!found) throw new Error('no search');
  return found;
};
/** What is wrong with the aids of a build. */
const badAids = (made: BuildDocument) => {
  const timeline = run(made);
  return glueUpsOf(made, timeline).flatMap((glueUp) =>
    layAids(made, timeline, glueUp).aids.filter(({ bad }) => bad && bad.kind !== 'waste'),
  );
};

describe('a layout in which an opening clears the aids', () => {
  it('is found for each wish that may give way, and each one clears when it is taken', () => {
    const made = counter(14);
    expect(badAids(made).length).toBeGreaterThan(0);
    for (const wish of WISH_NAMES) {
      const { found, problems, excluded } = look(made, [wish]);
      expect(problems.length).toBeGreaterThan(0);
      expect(excluded).toEqual([]);
      expect(found.length, wish).toBeGreaterThan(0);
      for (const { edit, changes } of found) {
        expect(changes).toEqual([wish]);
        const next = mustEdit(made, edit);
        expect(badAids(next)).toEqual([]);
        expect(run(next).problems.filter(({ severity }) => severity === 'stop')).toEqual([]);
      }
    }
  });
  it('the least change comes first, in words with its numbers', () => {
    const { found } = look(counter(14), ['place']);
    // Joints at 112 and 448, edges at 100 and 460: either way one biscuit of 14 sticks out, until the other edge has passed its own by 3.
    expect(phraseText(found[0].words, DISPLAY)).toMatch(
      /^Move the opening (29|30) mm towards the (near|far) edge$/,
    );
  });
  it('nothing is looked for where it clears', () => {
    const made = counter(10);
    expect(look(made, ['place'])).toMatchObject({ problems: [], found: [], excluded: [], trials: 1 });
  });
  it('where nothing that may change helps, it says which two wishes exclude each other', () => {
    // Hardly any room to move: place and boards by 1 only, the aids are asked to stay.
    const { found, excluded, trials } = look(counter(14), ['place', 'boards'], 1);
    expect(found).toEqual([]);
    expect(excluded).toContainEqual(['place', 'aids']);
    expect(excluded).toContainEqual(['boards', 'aids']);
    expect(excluded).not.toContainEqual(['place', 'boards']);
    expect(trials).toBeLessThanOrEqual(400);
  });
  it('is asked of a feature that is there', () => {
    const made = counter(14);
    expect(findClearings(made, 'nowhere', 'sink', { may: [], limitMm: 9 })).toBeUndefined();
  });
});
