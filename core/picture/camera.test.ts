import { describe, expect, it } from 'vitest';
import type { BoardStock } from '../document';
import { boxBlank, cross, dot, IDENTITY } from '../solid';
import { boardBlank } from '../steps';
import { colourDifference, lookOf, oil, OIL, type OkLab, toneOf } from '../wood';
import { axesOf, cameraAt, layOut, type Scan, scanScene, shadeRows, viewFrame, VIEWS } from '.';

const origin = { board: 'b', species: 'walnut_black', seed: 3, shade: 3 };
const scene = layOut([
  { id: 'a', blank: boxBlank([120, 60, 20], [0, 1, 0, -30, 0, 0, 1, 40, 1, 0, 0, 0], origin, 'a') },
]);
const shaded = (scan: Scan) => {
  const rgba = new Uint8ClampedArray(scan.width * scan.height * 4);
  shadeRows(scan, 0, scan.height, 1, rgba);
  return rgba;
};
const meanOf = (rgba: Uint8ClampedArray): number[] => {
  const sums = [0, 0, 0, 0];
  for (let i = 0; i < rgba.length; i += 4)
    if (rgba[i + 3] === 255) for (let k = 0; k < 4; k++) sums[k] += k < 3 ? rgba[i + k] : 1;
  return sums.slice(0, 3).map((sum) => sum / sums[3]);
};

describe('an eye anywhere', () => {
  it.each([
    [0, 90],
    [33, 20],
    [200, -45],
    [359, 0],
  ])('at %d and %d degrees has three axes of length one at right angles, right-handed', (yaw, pitch) => {
    const { right, up, eye } = cameraAt(yaw, pitch);
    for (const [a, b] of [
      [right, up],
      [up, eye],
      [eye, right],
    ])
      expect(dot(a, b)).toBeCloseTo(0, 12);
    for (const axis of [right, up, eye]) expect(dot(axis, axis)).toBeCloseTo(1, 12);
    expect(dot(cross(right, up), eye)).toBeCloseTo(1, 12);
  });
  it('straight down sees the face, level from the front the near edge, from below the underside', () => {
    const near = (a: readonly number[], b: readonly number[]) =>
      a.forEach((v, i) => {
        expect(v).toBeCloseTo(b[i], 12);
      });
    near(cameraAt(0, 90).eye, VIEWS.face.eye);
    near(cameraAt(0, 90).up, VIEWS.face.up);
    near(cameraAt(0, 0).eye, VIEWS.edge.eye);
    near(cameraAt(90, 0).eye, VIEWS.end.eye);
    near(cameraAt(0, -90).eye, VIEWS.underside.eye);
    expect(axesOf('face')).toBe(VIEWS.face);
  });
  it('frames the whole piece from every side', () => {
    for (let yaw = 0; yaw < 360; yaw += 40) {
      const camera = cameraAt(yaw, 35);
      const frame = viewFrame(scene, camera);
      for (const { vertices } of scene.cells)
        for (const v of vertices) {
          expect(dot(v, camera.right)).toBeGreaterThanOrEqual(frame.left - 1e-9);
          expect(dot(v, camera.right)).toBeLessThanOrEqual(frame.right + 1e-9);
          expect(dot(v, camera.up)).toBeLessThanOrEqual(frame.top + 1e-9);
        }
    }
  });
  it('a part looked at closely is the same as that part of the whole', () => {
    const whole = scanScene(scene, 'face', 1);
    const part = scanScene(scene, 'face', 1, { left: 20, right: 60, bottom: 10, top: 50 });
    const [a, b] = [shaded(whole), shaded(part)];
    expect([part.width, part.height]).toEqual([40, 40]);
    for (const [x, y] of [
      [0, 0],
      [13, 7],
      [39, 39],
    ])
      for (let k = 0; k < 4; k++)
        expect(b[(y * 40 + x) * 4 + k]).toBe(a[((y + 10) * whole.width + x + 20) * 4 + k]);
  });
  it('past the piece there is nothing', () => {
    const rgba = shaded(scanScene(scene, 'face', 1, { left: 100, right: 160, bottom: 0, top: 60 }));
    expect(rgba[(5 * 60 + 50) * 4 + 3]).toBe(0);
    expect(rgba[(5 * 60 + 5) * 4 + 3]).toBe(255);
  });
  it('a solid seen from a corner shows a lit face and shaded sides', () => {
    const even = layOut([
      { id: 'a', blank: boxBlank([60, 60, 60], IDENTITY, { ...origin, species: 'holly_american' }, 'a') },
    ]);
    const scan = scanScene(even, cameraAt(45, 35), 1);
    const rgba = shaded(scan);
    const of = (face: (n: readonly number[]) => boolean) => {
      const only = new Uint8ClampedArray(rgba);
      scan.hit.forEach((hit, i) => {
        if (hit < 0 || !face(scan.faces[hit].normal)) only[i * 4 + 3] = 0;
      });
      return meanOf(only)[1];
    };
    expect(of((n) => n[2] > 0.9)).toBeGreaterThan(of((n) => n[0] > 0.9));
  });
});

describe('colours of one’s own boards, and oil', () => {
  const board = (colour?: string): BoardStock => ({
    id: 'b1',
    label: '1',
    species: 'cherry_black',
    length: { mm: 300 },
    width: { mm: 120 },
    thickness: { mm: 20 },
    ...(colour ? { colour } : {}),
  });
  const mean = (colour?: string) =>
    meanOf(shaded(scanScene(layOut([{ id: 'b', blank: boardBlank(board(colour)) }]), 'face', 2)));
  it('a board drawn with a measured colour comes out near it, whatever the wood is usually like', () => {
    for (const colour of ['#8a5a3c', '#d9a777']) {
      const wanted = [1, 3, 5].map((i) => Number.parseInt(colour.slice(i, i + 2), 16));
      mean(colour).forEach((value, k) => {
        expect(Math.abs(value - wanted[k])).toBeLessThan(16);
      });
    }
    expect(toneOf(undefined, lookOf('cherry_black'))).toBeUndefined();
    expect(toneOf('cherry', lookOf('cherry_black'))).toBeUndefined();
  });
  it('oil darkens and strengthens by its two constants, and leaves the bare picture alone', () => {
    const lab = new Float64Array([0.6, 0.04, 0.08]);
    oil(lab);
    expect([...lab]).toEqual([0.6 * OIL.lightness, 0.04 * OIL.chroma, 0.08 * OIL.chroma]);
    const scan = scanScene(scene, 'face', 2);
    const [bare, oiled] = [meanOf(shaded(scan)), meanOf(shaded({ ...scan, oiled: true }))];
    expect(oiled[0]).toBeLessThan(bare[0]);
    expect(meanOf(shaded(scan))).toEqual(bare);
  });
  it('differences are the same however often one colour is compared', () => {
    const [a, b]: OkLab[] = [
      [0.6, 0.02, 0.05],
      [0.7, 0.03, 0.06],
    ];
    expect(colourDifference(a, b)).toBe(colourDifference(a, b));
    expect(colourDifference(a, a)).toBe(0);
  });
});
