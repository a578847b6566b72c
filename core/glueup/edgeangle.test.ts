import { describe, expect, it } from 'vitest';
import type { BuildDocument, EdgePairing } from '../document';
import { panelBrief, plannedFor, shopWith } from '../plan/briefs.fixture';
import { run } from '../run';
import { edgeAngles, glueUpOf, hollowOfTurns, jointDegrees } from '.';

const off = (offSquare: number, how?: EdgePairing): BuildDocument => {
  const shop = shopWith();
  const machines = shop.machines.map((machine) =>
    machine.id === 'planer' ? { ...machine, offSquare } : machine,
  );
  const saws = shop.saws.map((saw) => ({ ...saw, offSquare }));
  const build = plannedFor(panelBrief({ sections: 1 }), { ...shop, machines, saws });
  return how
    ? { ...build, shop: { ...build.shop, gluing: { ...shop.gluing, pairing: how } as never } }
    : build;
};
const anglesOf = (build: BuildDocument) => {
  const glueUp = glueUpOf(build, run(build), 'glue');
  return glueUp && edgeAngles(build, glueUp);
};

describe('edges that are off a right angle', () => {
  it('by 0.4 degrees turn a joint by 0.8, and by nothing where the pair was folded or opposed', () => {
    expect(jointDegrees(0.4, 'single')).toBe(0.8);
    expect(jointDegrees(0.4, 'folded')).toBe(0);
    expect(jointDegrees(0.4, 'opposed')).toBe(0);
  });
  it('add up over all joints: four of them to 3.2', () => {
    const angles = anglesOf(off(0.4));
    const joints = angles?.joints.length ?? 0;
    expect(joints).toBeGreaterThan(3);
    expect(angles?.totalDeg).toBeCloseTo(0.8 * joints, 9);
    expect(4 * jointDegrees(0.4, 'single')).toBeCloseTo(3.2, 9);
  });
  it('make a hollow as deep as the arc that the boards lie along (geometry: R (1 - cos of half the angle))', () => {
    // Boards so narrow that their corners lie on the arc.
    const n = 400;
    const total = 3.2;
    const deep = hollowOfTurns(
      Array.from({ length: n }, () => 500 / n),
      Array.from({ length: n - 1 }, () => total / (n - 1)),
    );
    const half = ((total / 2) * Math.PI) / 180;
    expect(deep).toBeCloseTo((500 / (2 * half)) * (1 - Math.cos(half)), 1);
    // Two boards of 100 that turn by 2 degrees: the joint lies 100 sin 1 degree under the line.
    expect(hollowOfTurns([100, 100], [2])).toBeCloseTo(100 * Math.sin(Math.PI / 180), 9);
    expect(hollowOfTurns([100, 100], [0])).toBe(0);
  });
  it('are nothing in a shop that folds its pairs, or that nobody said is off', () => {
    expect(anglesOf(off(0.4, 'folded'))?.hollowMm).toBe(0);
    expect(anglesOf(off(0))).toBeUndefined();
  });
});
