import { mustEdit } from '../core/edit';
import { cameraAt, layOut, scanScene, shadeRows, type View } from '../core/picture';
import { run } from '../core/run';
import { boxBlank, glueBlanks, takeOut } from '../core/solid';
import type { Feature, Timeline } from '../core/steps';
import { circle } from '../core/curve';
import { block } from './solid';
import { quietMs, type Row } from './timing';

const mm = (value: number) => ({ mm: value });
const low = (value: number) => ({ from: 'low' as const, by: mm(value) });
const middle = { from: 'middle' as const, by: mm(0) };

/** Forty features: four rows of nine holes, two hand holds, a juice groove and a rounded rim. */
const FORTY: Feature[] = [
  ...[0, 1, 2, 3].map(
    (i): Feature => ({
      id: `row-${i}`,
      kind: 'hole',
      side: 'upper',
      u: low(50),
      v: low(50 + i * 45),
      diameter: mm(10),
      row: { along: 'u', count: 9, margin: mm(50) },
    }),
  ),
  ...(['near', 'far'] as const).map(
    (side): Feature => ({
      id: side,
      kind: 'handHold',
      side,
      u: middle,
      v: low(20),
      length: mm(110),
      height: mm(16),
      depth: mm(11),
    }),
  ),
  {
    id: 'juice',
    kind: 'juice',
    side: 'upper',
    u: middle,
    v: middle,
    inset: mm(15),
    width: mm(10),
    depth: mm(4),
    radius: mm(15),
    floor: 'round',
  },
  {
    id: 'rim',
    kind: 'edge',
    side: 'upper',
    u: middle,
    v: middle,
    profile: 'roundOver',
    size: mm(4),
    which: 'all',
  },
];

/** What features cost: to play forward, and to draw. */
export function featureRows(): Row[] {
  const plain = block(8, 12);
  const cut = (features: Feature[]) =>
    mustEdit(plain, {
      do: 'addStep',
      kind: 'feature',
      after: plain.steps[plain.steps.length - 1].id,
      settings: { features, edges: 'finished' },
    });
  const forty = cut(FORTY);
  const holes = cut(FORTY.slice(0, 4));
  const [base, all, bored] = [plain, forty, holes].map((build) => quietMs(() => run(build)));
  const origin = { board: 'b', species: 'maple_sugar', seed: 1, shade: 1 };
  const panel = glueBlanks(
    Array.from({ length: 10 }, (_, i) =>
      boxBlank([1000, 60, 30], [0, 1, 0, -30, 0, 0, 1, 40, 1, 0, 0, 0], origin, `b${i}`),
    ),
    1,
  );
  const bore = quietMs(() => {
    let blank = panel;
    for (let i = 0; i < 200; i++)
      blank = takeOut(blank, 'h', {
        form: {
          kind: 'prism',
          region: [circle({ x: 25 + (i % 20) * 50, y: 30 + Math.floor(i / 20) * 60 }, 10)],
          z0: 0,
          z1: 30,
        },
        toForm: [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0],
      }).blank;
  });
  const picture = (timeline: Timeline, view: View | ReturnType<typeof cameraAt>) => {
    const scene = layOut(timeline.steps[timeline.steps.length - 1].pieces);
    return quietMs(() => {
      const scan = scanScene(scene, view, 0.6);
      shadeRows(scan, 0, scan.height, 1, new Uint8ClampedArray(scan.width * scan.height * 4));
    }, 4000);
  };
  const [before, after] = [run(plain), run(forty)];
  const turning = cameraAt(28, 40);
  const [plan, turned] = (['face', turning] as const).map(
    (view) => picture(after, view) / picture(before, view),
  );
  return [
    {
      what: '96 cells with 40 features (36 holes, hand holds, juice groove, rounded rim), against the plain block',
      measured: `${(all / base).toFixed(1)} times (${all.toFixed(1)} ms, ${base.toFixed(1)}); the 36 holes alone ${(bored / base).toFixed(1)}`,
      wanted: 'at most 3 times',
      met: all / base <= 3,
    },
    {
      what: '200 holes in a panel of 10 boards',
      measured: `${bore.toFixed(1)} ms`,
      wanted: 'under 50 ms',
      met: bore < 50,
    },
    {
      what: 'a picture with groove, holes and rounded rim, against the plain one: in plan, turned',
      measured: `${plan.toFixed(2)} and ${turned.toFixed(2)} times`,
      wanted: 'at most 1.3 and 2',
      met: plan <= 1.3 && turned <= 2,
    },
  ];
}
