import { describe, expect, it } from 'vitest';
import { circle, mirroredY, rectangle } from '../curve';
import { type Blank, boxBlank, type Form, glueBlanks, takeOut } from '../solid';
import { cameraAt, layOut, scanScene, shadeRows } from '.';

const board = (species: string): Blank =>
  boxBlank(
    [120, 40, 20],
    [0, 1, 0, -20, 0, 0, 1, 60, 1, 0, 0, 0],
    { board: species, species, seed: 3, shade: 1 },
    species,
  );
const panel = glueBlanks([board('maple_sugar'), board('walnut_black')], 1);
const from = (blank: Blank, form: Form) =>
  takeOut(blank, 'f', { form, toForm: [1, 0, 0, 0, 0, -1, 0, 0, 0, 0, -1, 20] }).blank;
const seen = (blank: Blank, view: 'face' | 'underside' | ReturnType<typeof cameraAt> = 'face') => {
  const scan = scanScene(layOut([{ id: 'p', blank }]), view, 1);
  const rgba = new Uint8ClampedArray(scan.width * scan.height * 4);
  shadeRows(scan, 0, scan.height, 1, rgba);
  const at = (x: number, y: number) => [
    ...rgba.slice((y * scan.width + x) * 4, (y * scan.width + x) * 4 + 4),
  ];
  return {
    at,
    scan,
    light: (x: number, y: number) =>
      at(x, y)
        .slice(0, 3)
        .reduce((a, b) => a + b),
  };
};

describe('what is hollow in the picture', () => {
  const hole = from(panel, {
    kind: 'prism',
    region: mirroredY([circle({ x: 30, y: 40 }, 8)]),
    z0: 0,
    z1: 20,
  });
  it('a hole right through shows nothing, from above and from below, over the joint too', () => {
    for (const view of ['face', 'underside'] as const) {
      const { at } = seen(hole, view);
      for (const [x, y] of [
        [30, 40],
        [30, 34],
        [30, 46],
      ])
        expect(at(x, y)[3], `${view} ${x} ${y}`).toBe(0);
      expect(at(45, 40)[3]).toBe(255);
    }
  });
  it('a recess shows the wood under it, darker than beside it, and leaves the rest as it was', () => {
    const plain = seen(panel);
    const deep = seen(
      from(panel, { kind: 'prism', region: mirroredY([rectangle({ x: 60, y: 50 }, 30, 20)]), z0: 0, z1: 12 }),
    );
    // The walnut lies at the far edge, the upper half of the picture.
    expect(deep.light(75, 20)).toBeLessThan(plain.light(75, 20));
    expect(deep.at(75, 20)[3]).toBe(255);
    expect(deep.at(20, 60)).toEqual(plain.at(20, 60));
    expect(deep.at(100, 20)).toEqual(plain.at(100, 20));
  });
  it('looked at askew, the wall of a hole is seen in the wood that it goes through', () => {
    const { at } = seen(hole, cameraAt(0, 60));
    const plain = seen(panel, cameraAt(0, 60));
    // The hole's middle on the face lies 40 sin 60 + 20 cos 60 = 44.6 above the frame's foot, 34.7 below its head.
    expect(at(30, 37)).not.toEqual(plain.at(30, 37));
    expect(at(30, 37)[3]).toBe(255);
  });
});
