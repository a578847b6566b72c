import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Axis,
  boxBlank,
  compose,
  moveBlank,
  movementMismatch,
  principalStrains,
  type Rigid,
  rotation,
  strainDifference,
  translation,
  turnDirection,
  type Vec3,
} from '.';

const OAK = { radial: 0.0018, tangential: 0.00365, along: 0.00002 };
const SHEET = { radial: 0.003, tangential: 0.00015, along: 0.00015 };
const angle = fc.double({ min: -3, max: 3, noNaN: true });
const turned = fc
  .tuple(angle, angle, angle)
  .map(([a, b, c]) =>
    [a, b, c].reduce((m, by, axis) => compose(rotation(axis as Axis, by), m), translation([0, 0, 0])),
  );
const origin = { board: 'b', species: 'oak_white', seed: 1, shade: 1 };

/** A box whose log stands as turned, its middle so far from the pith. */
const box = (toLog: Rigid) => boxBlank([200, 100, 20], compose(translation([40, 70, 0]), toLog), origin, 'x');
describe('the difference in movement at a joint', () => {
  it('is the same however the piece lies on the bench', () => {
    fc.assert(
      fc.property(turned, turned, turned, (one, other, lie) => {
        const [a, b] = [box(one), box(other)];
        const normal: Vec3 = [0, 1, 0];
        const seen = (m: Rigid) =>
          principalStrains(
            strainDifference(moveBlank(a, m).cells[0], moveBlank(b, m).cells[0], turnDirection(m, normal), {
              ma: OAK,
              mb: SHEET,
            }),
          ).map(({ strain }) => strain);
        const still = seen(translation([0, 0, 0]));
        expect(seen(lie)).toEqual(still.map((strain) => expect.closeTo(strain, 9)));
      }),
      { seed: 20261128, numRuns: 200 },
    );
  });
  it('is nothing between two of one wood that lie in one log alike, and the same whichever is looked at first', () => {
    fc.assert(
      fc.property(turned, turned, (one, other) => {
        const [a, b] = [box(one).cells[0], box(other).cells[0]];
        const normal: Vec3 = [0, 0, 1];
        expect(movementMismatch(a, a, normal, { ma: OAK, mb: OAK })).toBeCloseTo(0, 12);
        expect(movementMismatch(a, b, normal, { ma: OAK, mb: SHEET })).toBeCloseTo(
          movementMismatch(b, a, normal, { ma: SHEET, mb: OAK }),
          12,
        );
      }),
      { seed: 20261128 },
    );
  });
  it('along the grain it is what both move there', () => {
    // Log and board share their axes: x across, y from the pith, z along; the joint lies in the plane of x and z.
    const cell = boxBlank([20, 20, 200], translation([-10, 1e6, 0]), origin, 'x').cells[0];
    const strains = principalStrains(strainDifference(cell, cell, [0, 1, 0], { ma: OAK, mb: SHEET }))
      .map(({ strain }) => strain)
      .toSorted((a, b) => a - b);
    expect(strains).toEqual([0.00002 - 0.00015, 0.00365 - 0.00015].map((v) => expect.closeTo(v, 7)));
  });
});
