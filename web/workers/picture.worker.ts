import type { BoardStock, BuildDocument } from '../../core/document';
import {
  type Camera,
  cameraAt,
  type Frame,
  layOut,
  type Scan,
  scanScene,
  type Scene,
  shadeRows,
  type View,
  viewFrame,
} from '../../core/picture';
import { run } from '../../core/run';
import { boardBlank, type Timeline } from '../../core/steps';

/** A view at a given size of a pixel in mm, or as large as fits a box of pixels but no larger than `leastPxMm`. */
export type ViewWish =
  | { view: View; pxMm: number }
  | { view: 'turning'; camera: Camera; frame: Frame; pxMm: number; oiled: boolean }
  | { view: View | 'turning'; within: { width: number; height: number }; leastPxMm: number };

/** What is drawn: a job at one of its steps, or some pieces of it; or a board as it lies on the rack. */
export type PictureSubject =
  | { build: BuildDocument; step: string | undefined; pieces?: readonly string[] }
  | { board: BoardStock };

/** A wish for pictures. A newer wish from the same asker cancels the older one. */
export interface PictureWish {
  asker: string;
  wish: number;
  subject: PictureSubject;
  views: ViewWish[];
}

/** Rows of a picture that are ready. `scale` is 2 for the half-size preview. */
export interface PictureRows {
  asker: string;
  wish: number;
  view: View | 'turning';
  scale: 1 | 2;
  width: number;
  height: number;
  from: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
  last: boolean;
}

const newest = new Map<string, number>();
const queue: PictureWish[] = [];
let working = false;
/** The last builds played, so that another view or step of one costs nothing. */
const played: { key: string; timeline: Timeline }[] = [];

const pause = () =>
  new Promise<void>((done) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => done();
    port2.postMessage(0);
  });

const rest = () => new Promise<void>((done) => setTimeout(done, 40));

function timelineOf(build: BuildDocument): Timeline {
  const key = JSON.stringify([
    build.assemblies,
    build.boards,
    build.steps,
    build.shop.saws,
    build.shop.machines,
  ]);
  const known = played.find((entry) => entry.key === key);
  if (known) return known.timeline;
  const timeline = run(build);
  played.unshift({ key, timeline });
  played.length = Math.min(played.length, 3);
  return timeline;
}

/** While a strip is dragged, drawing rests: the hand needs the processor more. */
let held = false;

const cancelled = ({ asker, wish }: PictureWish) => newest.get(asker) !== wish;

/** Shades a scan in bands of about 12,000 samples, giving way to newer wishes between them. */
async function shade(
  request: PictureWish,
  view: View | 'turning',
  scan: Scan,
  { samples, scale, last }: { samples: 1 | 4; scale: 1 | 2; last: boolean },
): Promise<void> {
  const band = Math.max(1, Math.floor(12_000 / samples / scan.width));
  for (let from = 0; from < scan.height; from += band) {
    do await (held ? rest() : pause());
    while (held);
    if (cancelled(request)) return;
    const to = Math.min(scan.height, from + band);
    const rgba = new Uint8ClampedArray(scan.width * (to - from) * 4);
    shadeRows(scan, from, to, samples, rgba);
    const rows: PictureRows = {
      asker: request.asker,
      wish: request.wish,
      view,
      scale,
      width: scan.width,
      height: scan.height,
      from,
      rgba,
      last,
    };
    postMessage(rows, { transfer: [rgba.buffer] });
  }
}

/** A piece seen from a corner, where no eye of its own is wished for. */
const CORNER = cameraAt(28, 30);
const eyeOf = (view: View | 'turning'): View | Camera => (view === 'turning' ? CORNER : view);

/** The size of a pixel that a wish comes to. */
function pixelOf(wish: ViewWish, scene: Scene): number {
  if ('pxMm' in wish) return wish.pxMm;
  const frame = viewFrame(scene, eyeOf(wish.view));
  return Math.max(
    wish.leastPxMm,
    (frame.right - frame.left) / wish.within.width,
    (frame.top - frame.bottom) / wish.within.height,
  );
}

function sceneOf(subject: PictureSubject): Scene | undefined {
  if ('board' in subject) return layOut([{ id: subject.board.id, blank: boardBlank(subject.board) }]);
  const timeline = timelineOf(subject.build);
  const step = timeline.steps.find(({ id }) => id === subject.step) ?? timeline.steps.at(-1);
  const wanted = subject.pieces && new Set(subject.pieces);
  return step && layOut(wanted ? step.pieces.filter(({ id }) => wanted.has(id)) : step.pieces);
}

async function draw(request: PictureWish): Promise<void> {
  const scene = sceneOf(request.subject);
  if (!scene) return;
  const views = request.views.map((wish) => ({ wish, pxMm: pixelOf(wish, scene) }));
  const scan = (wish: ViewWish, pxMm: number): Scan =>
    'camera' in wish
      ? { ...scanScene(scene, wish.camera, pxMm, wish.frame), oiled: wish.oiled }
      : scanScene(scene, eyeOf(wish.view), pxMm);
  for (const { wish, pxMm } of views)
    await shade(request, wish.view, scan(wish, pxMm * 2), { samples: 1, scale: 2, last: false });
  for (const { wish, pxMm } of views) {
    if (cancelled(request)) return;
    await shade(request, wish.view, scan(wish, pxMm), { samples: 4, scale: 1, last: true });
  }
}

async function work(): Promise<void> {
  if (working) return;
  working = true;
  try {
    for (let next = queue.shift(); next; next = queue.shift()) if (!cancelled(next)) await draw(next);
  } finally {
    working = false;
  }
}

onmessage = ({ data }: MessageEvent<PictureWish | { asker: string; cancel: true } | { hold: boolean }>) => {
  if ('hold' in data) {
    held = data.hold;
    return;
  }
  if ('cancel' in data) {
    newest.delete(data.asker);
    return;
  }
  newest.set(data.asker, data.wish);
  queue.push(data);
  void work();
};
