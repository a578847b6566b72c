import { viewFrame, type Scene, type View } from '../../core/picture';
import type { BenchScene } from '../../core/review';

/** A view's place on the bench, in CSS pixels. */
export interface Placed {
  view: View;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The three views at one scale, third-angle: the long edge under the face, the end at its right. */
export interface BenchLayout {
  /** Millimetres in one CSS pixel. */
  mmPerPx: number;
  face: Placed;
  edge: Placed;
  end: Placed;
  views: readonly Placed[];
  /** Drawn upright, a quarter turn against the clock: the length runs up, the far edge lies at the left. */
  upright: boolean;
}

const MARGIN = { left: 62, top: 46, right: 20, bottom: 16 };
const GAP = 22;

type Rect = Pick<Placed, 'left' | 'top' | 'width' | 'height'>;

/** A rectangle of a drawing `wide` px wide, after the drawing was turned upright. */
const turnedUp = <R extends Rect>(rect: R, wide: number): R => ({
  ...rect,
  left: rect.top,
  top: wide - rect.left - rect.width,
  width: rect.height,
  height: rect.width,
});

/** Fits the views of a scene into the room there is, all at one scale; upright on the longer way of a narrow room. */
export function layBench(
  scene: BenchScene,
  side: 'face' | 'underside',
  room: { width: number; height: number },
  upright = false,
): BenchLayout {
  const across = upright ? { width: room.height, height: room.width } : room;
  const { views, ...laid } = layAcross(scene, side, across);
  if (!upright) return { ...laid, views, upright };
  const [face, edge, end] = views.map((placed) => turnedUp(placed, across.width));
  return { mmPerPx: laid.mmPerPx, face, edge, end, views: [face, edge, end], upright };
}

/** So much larger a drawing must come out upright that it is turned, rather than left as it lies on the bench. */
const WORTH_TURNING = 1.15;

/** Whether a scene is drawn upright in a room: where that is taller than wide, and the drawing clearly larger so. */
export const standsBetter = (scene: BenchScene, room: { width: number; height: number }): boolean =>
  room.height > room.width &&
  layBench(scene, 'face', room).mmPerPx > WORTH_TURNING * layBench(scene, 'face', room, true).mmPerPx;

function layAcross(
  scene: BenchScene,
  side: 'face' | 'underside',
  room: { width: number; height: number },
): Omit<BenchLayout, 'upright' | 'views'> & { views: readonly [Placed, Placed, Placed] } {
  const whole: Scene = { cells: [], pieces: scene.pieces, box: scene.box };
  const size = (view: View) => {
    const frame = viewFrame(whole, view);
    return { w: frame.right - frame.left, h: frame.top - frame.bottom };
  };
  const [face, edge, end] = [size(side), size('edge'), size('end')];
  const across = room.width - MARGIN.left - MARGIN.right - GAP;
  const down = room.height - MARGIN.top - MARGIN.bottom - GAP;
  const mmPerPx = Math.max(
    (face.w + end.w) / Math.max(60, across),
    (face.h + edge.h) / Math.max(60, down),
    0.02,
  );
  const px = (mm: number) => mm / mmPerPx;
  const spare = across - px(face.w + end.w);
  const spareDown = down - px(face.h + edge.h);
  const left = MARGIN.left + Math.max(0, spare / 2);
  const top = MARGIN.top + Math.max(0, spareDown / 3);
  const placed: Record<'face' | 'edge' | 'end', Placed> = {
    face: { view: side, left, top, width: px(face.w), height: px(face.h) },
    edge: { view: 'edge', left, top: top + px(face.h) + GAP, width: px(edge.w), height: px(edge.h) },
    end: { view: 'end', left: left + px(face.w) + GAP, top, width: px(end.w), height: px(end.h) },
  };
  return { mmPerPx, ...placed, views: [placed.face, placed.edge, placed.end] };
}

/** One view alone with room around it, for a drawing over it. */
export function layOne(
  scene: BenchScene,
  view: View,
  room: { width: number; height: number },
  around: { left: number; top: number; right: number; bottom: number },
): { mmPerPx: number; views: readonly [Placed] } {
  const frame = viewFrame({ cells: [], pieces: scene.pieces, box: scene.box }, view);
  const [w, h] = [frame.right - frame.left, frame.top - frame.bottom];
  const across = Math.max(60, room.width - around.left - around.right);
  const down = Math.max(60, room.height - around.top - around.bottom);
  const mmPerPx = Math.max(w / across, h / down, 0.02);
  const left = around.left + Math.max(0, (across - w / mmPerPx) / 2);
  const top = around.top + Math.max(0, (down - h / mmPerPx) / 2);
  return { mmPerPx, views: [{ view, left, top, width: w / mmPerPx, height: h / mmPerPx }] };
}

/** A piece's rectangle on the face view, in CSS pixels relative to that view. */
export function onFace(
  scene: BenchScene,
  layout: BenchLayout,
  box: { min: readonly number[]; max: readonly number[] },
): Rect {
  const k = layout.mmPerPx;
  const fromTop =
    layout.face.view === 'underside' ? box.min[1] - scene.box.min[1] : scene.box.max[1] - box.max[1];
  const rect = {
    left: (box.min[0] - scene.box.min[0]) / k,
    top: fromTop / k,
    width: (box.max[0] - box.min[0]) / k,
    height: (box.max[1] - box.min[1]) / k,
  };
  return layout.upright ? turnedUp(rect, layout.face.height) : rect;
}
