import { describe, expect, it } from 'vitest';
import { type BuildDocument, isRefused, phraseText } from '../document';
import { planned, randomFrom, SHOPS } from '../review/scenarios.fixture';
import { run } from '../run';
import { applyEdit, mustEdit } from '.';
import { spreadOut } from './again';

const block = planned('endGrain', SHOPS.inch, randomFrom(5)) as BuildDocument;
const parts = (names: string) => names.split('').map((piece) => ({ piece }));
const order = (laid: { piece: string }[]) => laid.map(({ piece }) => piece).join('');
const why = (edit: Parameters<typeof applyEdit>[1]) => {
  const made = applyEdit(block, edit);
  return isRefused(made) ? phraseText(made.refused, block.shop.display) : 'not refused';
};

describe('slices dealt out anew', () => {
  it('spreads new ones evenly over the places of their kind, each turn staying at its place', () => {
    const fresh = new Set('XY');
    const alike = new Set('abcdefghXY');
    expect(order(spreadOut(parts('XYabcdef'), fresh, alike))).toBe('abXcdeYf');
    // Pieces of another kind keep their places.
    expect(order(spreadOut(parts('X-a-b-c-d'), new Set('X'), new Set('Xabcd')))).toBe('a-b-X-c-d');
    const turned = parts('Xabc').map((part, i) => ({ ...part, endForEnd: i % 2 === 1 }));
    expect(spreadOut(turned, new Set('X'), new Set('Xabc')).map(({ endForEnd }) => endForEnd)).toEqual([
      false,
      true,
      false,
      true,
    ]);
  });
  it('loses none and makes none up, and changes nothing where all are new or none is', () => {
    const random = randomFrom(9);
    for (let n = 0; n < 200; n++) {
      const all = Array.from({ length: 2 + Math.floor(random() * 12) }, (_, i) => `p${i}`);
      const fresh = new Set(all.filter(() => random() < 0.3));
      const dealt = spreadOut(
        all.map((piece) => ({ piece })),
        fresh,
        new Set(all),
      ).map(({ piece }) => piece);
      expect(dealt.toSorted()).toEqual(all.toSorted());
      const old = (list: string[]) => list.filter((piece) => !fresh.has(piece));
      expect(old(dealt)).toEqual(old(all));
      if (fresh.size === 0 || fresh.size === all.length) expect(dealt).toEqual(all);
    }
  });
});

describe('made once more', () => {
  it('takes nothing of the first: no ticks, no readings, no boards, and its own names', () => {
    const begun: BuildDocument = {
      ...block,
      steps: block.steps.map((step) => ({ ...step, done: true, doneAt: '2027-01-01T00:00:00Z', note: 'n' })),
    };
    const after = mustEdit(begun, { do: 'makeAgain', into: 'glue-block', pieces: ['slice.2'] });
    const here = new Set(begun.steps.map(({ id }) => id));
    const added = after.steps.filter(({ id }) => !here.has(id));
    expect(added.length).toBeGreaterThan(4);
    for (const step of added) expect(step.done).toBeUndefined();
    const ids = after.steps.flatMap(({ id, output }) => (id === output ? [id] : [id, output]));
    expect(new Set(ids).size).toBe(ids.length);
    // The first line stays as it was.
    expect(after.steps.filter(({ id }) => here.has(id) && id !== 'glue-block')).toEqual(
      begun.steps.filter(({ id }) => id !== 'glue-block'),
    );
  });
  it('as short as asked, and no slice fewer', () => {
    const after = mustEdit(block, {
      do: 'makeAgain',
      into: 'glue-block',
      pieces: ['slice.2', 'slice.3'],
      shorterMm: 300,
    });
    const timeline = run(after);
    const first = run(block).steps.find(({ id }) => id === 'rip')?.greatest[0] ?? 0;
    expect(timeline.steps.find(({ id }) => id === 'rip-1')?.greatest[0]).toBeCloseTo(first - 300, 6);
    expect(timeline.steps.find(({ id }) => id === 'slice-1')?.pieces).toHaveLength(2);
  });
  it('says why not: a glue-up, a step or pieces that are gone', () => {
    expect(why({ do: 'makeAgain', into: 'gone', pieces: ['slice.1'] })).toContain('no longer in this job');
    expect(why({ do: 'makeAgain', into: 'glue-block', pieces: ['gone'] })).toContain(
      'not laid into this glue-up',
    );
    expect(why({ do: 'startAgain', step: 'gone' })).toContain('no longer in this job');
    expect(why({ do: 'glueAnew', step: 'glue', piece: 'gone', along: 'width', first: { mm: 10 } })).toContain(
      'gives no piece',
    );
  });
});
