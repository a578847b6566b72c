import { describe, expect, it } from 'vitest';
import { run } from '../run';
import type { Feature, FeatureStep } from '../steps';
import { build, GLUE, slot } from '../steps/steps.fixture';
import { featureSheet, largestOf, outlineSheet } from '.';

const mm = (value: number) => ({ mm: value });
const low = (by: number) => ({ from: 'low' as const, by: mm(by) });

describe('what a window draws of features', () => {
  it('sides with joints and finished edges, places from both edges, and where the piece balances once it is cut', () => {
    // One wood, 600 by 120 by 20: a hole of 100 x 60 cut out 150 left of the middle.
    const strips = [slot('a', 600, 60, 20), slot('b', 600, 60, 20)];
    const opening: Feature = {
      id: 'o',
      kind: 'opening',
      side: 'upper',
      u: low(140),
      v: low(50),
      shape: 'rectangle',
      length: mm(100),
      width: mm(60),
      radius: mm(0),
      cutter: mm(4),
    };
    const step: FeatureStep = {
      id: 'cut',
      kind: 'feature',
      inputs: ['panel'],
      output: 'done',
      features: [opening],
      edges: 'finished',
    };
    const made = build(strips, [
      GLUE,
      step,
      {
        id: 'trim',
        kind: 'trim',
        inputs: ['done'],
        output: 'trimmed',
        cutter: { saw: 'table-full' },
        start: mm(10),
        end: mm(10),
        near: mm(10),
        far: mm(10),
      },
    ]);
    const sheet = featureSheet(made, run(made), 'cut');
    const upper = sheet?.sides.find(({ side }) => side === 'upper');
    expect(upper).toMatchObject({
      long: 600,
      wide: 120,
      joints: { u: [], v: [60] },
      trims: { u: [10, 10], v: [10, 10] },
    });
    expect(sheet?.features[0]).toMatchObject({
      fromFinished: { u: 140, v: 50 },
      fromBlank: { u: 150, v: 60 },
      left: expect.arrayContaining([['right through'], ['crosses 1 joint']]) as unknown,
    });
    // What is left balances as the whole less what fell out: (72,000 x 300 - 6,000 x 150) / 66,000 along.
    expect(sheet?.after?.along).toBeCloseTo((72_000 * 300 - 6000 * 150) / 66_000, 6);
    expect(sheet?.after?.across).toBeCloseTo(60, 6);
    expect(featureSheet(made, run(made), 'nowhere')).toBeUndefined();
  });
});

describe('what a window draws of an outline', () => {
  const corners = (...xy: [number, number][]) => xy.map(([x, y]) => ({ x: mm(x), y: mm(y) }));
  it('its size, line and area, the blank it needs, and how far it reaches past the piece, arcs and all', () => {
    const outline = corners([0, 0], [200, 0], [200, 100], [0, 100]);
    expect(outlineSheet({ outline, cleanUp: mm(2) }, [300, 150])).toMatchObject({
      length: 200,
      width: 100,
      line: 600,
      area: 20_000,
      needs: { length: 204, width: 104 },
      past: 2,
    });
    const bulged = outline.map((corner, i) => (i === 2 ? { ...corner, rise: mm(30) } : corner));
    expect(outlineSheet({ outline: bulged }, [200, 120]).past).toBeCloseTo(10, 9);
    expect(outlineSheet({ outline: bulged }, [200, 130]).past).toBeUndefined();
    expect(outlineSheet({ outline: bulged, larger: mm(-80) }, [200, 130]).refused).toBeDefined();
    expect(
      outlineSheet({ outline: [bulged[0], { ...bulged[2], rise: mm(500) }, bulged[3]] }, [9, 9]).refused,
    ).toBeDefined();
    expect(outlineSheet({}, [9, 9])).toEqual({});
  });
  it('offers to turn it only where that gives more', () => {
    const square = corners([0, 0], [100, 0], [100, 100], [0, 100]);
    expect(largestOf({ outline: square }, [400, 300])).toMatchObject({ lying: { scale: 3 } });
    expect(largestOf({ outline: square }, [400, 300]).turned).toBeUndefined();
    expect(
      largestOf({ outline: corners([0, 0], [300, 0], [300, 30], [0, 30]) }, [200, 200]).turned?.scale,
    ).toBeGreaterThan(0.8);
  });
});
