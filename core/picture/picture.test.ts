import { describe, expect, it } from 'vitest';
import { demoJobs } from '../../demo/jobs';
import type { Fault } from '../document';
import { run } from '../run';
import { boxBlank, glueBlanks, moveBlank, rotation, translation } from '../solid';
import { boardBlank } from '../steps';
import { layOut, scanScene, shadeRows, type View, viewFrame } from '.';

const toLog = [0, 1, 0, -20, 0, 0, 1, 60, 1, 0, 0, 0];
const strip = (species: string, l = 200, w = 40, t = 20) =>
  boxBlank([l, w, t], toLog, { board: species, species, seed: 3, shade: 1 }, species);
const shade = (blank: ReturnType<typeof strip>, view: View, px = 1) => {
  const scan = scanScene(layOut([{ id: 'p', blank }]), view, px);
  const rgba = new Uint8ClampedArray(scan.width * scan.height * 4);
  shadeRows(scan, 0, scan.height, 1, rgba);
  const at = (x: number, y: number) => [
    ...rgba.slice((y * scan.width + x) * 4, (y * scan.width + x) * 4 + 3),
  ];
  return { scan, rgba, at, light: (x: number, y: number) => at(x, y).reduce((a, b) => a + b) };
};

describe('true projection', () => {
  const panel = glueBlanks([strip('maple_sugar'), strip('walnut_black')], 1);

  it('has the size of the piece in every view', () => {
    expect([shade(panel, 'face').scan.width, shade(panel, 'face').scan.height]).toEqual([200, 80]);
    expect([shade(panel, 'edge').scan.width, shade(panel, 'edge').scan.height]).toEqual([200, 20]);
    expect([shade(panel, 'end').scan.width, shade(panel, 'end').scan.height]).toEqual([20, 80]);
  });
  it('leaves no pixel of a box open and none doubled', () => {
    for (const view of ['face', 'underside', 'edge', 'end'] as const)
      expect(shade(panel, view, 0.7).scan.hit.every((face) => face >= 0)).toBe(true);
  });
  it('shows the far strip at the top of the face, at the bottom of the underside, and only the near one from the edge', () => {
    const [face, under, edge] = [shade(panel, 'face'), shade(panel, 'underside'), shade(panel, 'edge')];
    expect(face.light(100, 10)).toBeLessThan(face.light(100, 70));
    expect(under.light(100, 10)).toBeGreaterThan(under.light(100, 70));
    expect(edge.light(100, 10)).toBeGreaterThan(face.light(100, 10));
  });
  it('draws the same bytes in bands as in one go', () => {
    const whole = shade(panel, 'face');
    const banded = new Uint8ClampedArray(whole.rgba.length);
    for (let y = 0; y < whole.scan.height; y += 7) {
      const to = Math.min(whole.scan.height, y + 7);
      const band = new Uint8ClampedArray(whole.scan.width * (to - y) * 4);
      shadeRows(whole.scan, y, to, 1, band);
      banded.set(band, y * whole.scan.width * 4);
    }
    expect(banded).toEqual(whole.rgba);
  });
  it('shows what is nearer where pieces overlap, and turned pieces with open corners', () => {
    const high = moveBlank(strip('walnut_black', 60, 40, 10), translation([70, 20, 20]));
    const both = shade({ cells: [...panel.cells.slice(0, 1), ...high.cells] }, 'face');
    expect(both.light(100, both.scan.height - 30)).toBeLessThan(both.light(20, both.scan.height - 30));
    const turned = shade(moveBlank(strip('maple_sugar'), rotation(2, 0.5)), 'face');
    expect(turned.at(0, 0)).toEqual([0, 0, 0]);
    expect([...turned.scan.hit].filter((f) => f >= 0).length / (200 * 40)).toBeCloseTo(1, 1);
  });
});

describe('laying out', () => {
  it('puts loose strips one behind the other and slices in a row, none over another', () => {
    const block = demoJobs.find(({ name }) => name === 'Galley chopping block');
    if (!block) throw new Error();
    for (const step of run(block).steps) {
      const scene = layOut(step.pieces);
      scene.pieces.forEach((a, i) =>
        scene.pieces.slice(i + 1).forEach((b) => {
          const apart = [0, 1].some(
            (axis) => a.box.max[axis] <= b.box.min[axis] + 1e-9 || b.box.max[axis] <= a.box.min[axis] + 1e-9,
          );
          expect(apart).toBe(true);
        }),
      );
      const frame = viewFrame(scene, 'face');
      expect(frame.right - frame.left).toBeGreaterThan(0);
    }
  });
  it('an empty bench is no error', () => {
    expect(layOut([]).cells).toEqual([]);
  });
});

describe('what was found on a board', () => {
  const board = (faults: Fault[]) => ({
    id: 'b',
    label: '1',
    species: 'maple_sugar',
    length: { mm: 300 },
    width: { mm: 100 },
    thickness: { mm: 25 },
    faults,
  });
  const knot: Fault = { id: 'k', kind: 'knot', face: 'up', x: 180, y: 30, length: 40, width: 30 };
  const whole = (faults: Fault[], view: View = 'face') => shade(boardBlank(board(faults)), view);

  it('shows a knot at its place on its face and nowhere else', () => {
    const [clean, marked] = [whole([]), whole([knot])];
    // The far edge is at the top: y 45 from the near edge is 55 down.
    expect(marked.light(200, 55)).toBeLessThan(clean.light(200, 55) - 150);
    for (const [x, y] of [
      [100, 55],
      [200, 90],
      [200, 10],
      [250, 55],
    ])
      expect(marked.at(x, y)).toEqual(clean.at(x, y));
    expect(whole([knot], 'underside').rgba).toEqual(whole([], 'underside').rgba);
    expect(whole([{ ...knot, face: 'both' }], 'underside').rgba).not.toEqual(whole([], 'underside').rgba);
  });
  it('carries it on in the strip that is cut there, turned over with it, and not in its neighbour', () => {
    const cut = (y: number, faceDown: boolean) => {
      const slot = {
        id: `s${y}`,
        species: 'maple_sugar',
        length: { mm: 300 },
        width: { mm: 40 },
        thickness: { mm: 25 },
      };
      const timeline = run({
        ...demoJobs[1],
        brief: undefined,
        targets: [],
        boards: [board([knot])],
        assemblies: [
          {
            id: 'a',
            name: 'a',
            repeat: 1,
            slots: [{ ...slot, strip: { board: 'b', at: { x: 0, y }, faceDown } }],
          },
        ],
        steps: [
          {
            id: 'rip',
            kind: 'rip',
            inputs: [],
            output: 'o',
            assembly: 'a',
            saw: 'table-full',
            fence: 'shared',
          },
        ],
      });
      return shade(timeline.steps[0].pieces[0].blank, 'face');
    };
    // 25 to 65 across holds the knot's middle at 45, so 20 from the strip's far edge.
    expect(cut(25, false).light(200, 20)).toBeLessThan(cut(25, false).light(100, 20) - 100);
    expect(cut(25, true).light(200, 20)).toBeGreaterThan(cut(25, false).light(200, 20) + 100);
    expect(Math.abs(cut(60, false).light(200, 20) - cut(60, false).light(100, 20))).toBeLessThan(90);
  });
  it('draws sapwood light in a dark wood, a stain and a split dark', () => {
    const dark = (faults: Fault[]) =>
      shade(boardBlank({ ...board(faults), species: 'walnut_black' }), 'face');
    const sap: Fault = { id: 's', kind: 'sapwood', face: 'both', x: 0, y: 0, length: 300, width: 20 };
    expect(dark([sap]).light(150, 92)).toBeGreaterThan(dark([]).light(150, 92) + 100);
    const stain: Fault = { ...knot, kind: 'stain' };
    expect(whole([stain]).light(200, 55)).toBeLessThan(whole([]).light(200, 55));
    const split: Fault = { id: 'c', kind: 'split', face: 'both', x: 0, y: 40, length: 80, width: 20 };
    const column = (p: ReturnType<typeof whole>) =>
      Math.min(...Array.from({ length: 20 }, (_, i) => p.light(40, 40 + i)));
    expect(column(whole([split]))).toBeLessThan(column(whole([])) - 150);
  });
});
