import { sumOf } from '../units';
import { bounds, moveBlank, translation, type Blank, type Bounds, type Cell, type Vec3 } from '../solid';

/** A labelled piece with its place in the scene. */
export interface Piece {
  id: string;
  blank: Blank;
}

/** What stands on the bench: all cells in one frame, and the box of each piece. */
export interface Scene {
  cells: Cell[];
  pieces: { id: string; box: Bounds }[];
  box: Bounds;
}

/** Gap between loose pieces as a share of the whole, so that they read as loose at any size. */
const GAP_SHARE = 0.012;

/**
 * Lays pieces out on the bench: long ones one behind the other across their length, first at the far edge; slices in
 * a row along the length.
 */
export function layOut(pieces: readonly Piece[]): Scene {
  const whole = pieces.filter(({ blank }) => blank.cells.length > 0);
  if (whole.length === 0) return { cells: [], pieces: [], box: { min: [0, 0, 0], max: [1, 1, 1] } };
  const boxes = whole.map(({ blank }) => bounds(blank));
  const size = (i: number, axis: number) => boxes[i].max[axis] - boxes[i].min[axis];
  const sum = (axis: number) => sumOf(boxes, (_, i) => size(i, axis));
  const inRow = sum(0) < sum(1);
  const axis = inRow ? 0 : 1;
  const gap = whole.length > 1 ? Math.max(2, sum(axis) * GAP_SHARE) : 0;
  let at = inRow ? 0 : sum(1) + gap * (whole.length - 1);
  const scene: Scene = { cells: [], pieces: [], box: { min: [0, 0, 0], max: [0, 0, 0] } };
  whole.forEach(({ id, blank }, i) => {
    if (!inRow) at -= size(i, 1);
    const shift: Vec3 = inRow
      ? [at - boxes[i].min[0], -boxes[i].min[1], -boxes[i].min[2]]
      : [-boxes[i].min[0], at - boxes[i].min[1], -boxes[i].min[2]];
    const placed = moveBlank(blank, translation(shift));
    scene.cells.push(...placed.cells);
    scene.pieces.push({ id, box: bounds(placed) });
    at += inRow ? size(i, 0) + gap : -gap;
  });
  scene.box = bounds({ cells: scene.cells });
  return scene;
}

/** The sides of the bench a piece is drawn from. */
export type View = 'face' | 'underside' | 'edge' | 'end';

/** Right, up and towards the eye, for each view, in the piece's frame. Third-angle: edge below, end at the right. */
export const VIEWS: Record<View, { right: Vec3; up: Vec3; eye: Vec3 }> = {
  face: { right: [1, 0, 0], up: [0, 1, 0], eye: [0, 0, 1] },
  underside: { right: [1, 0, 0], up: [0, -1, 0], eye: [0, 0, -1] },
  edge: { right: [1, 0, 0], up: [0, 0, 1], eye: [0, -1, 0] },
  end: { right: [0, 0, -1], up: [0, 1, 0], eye: [1, 0, 0] },
};

/** An eye anywhere around a piece, in parallel projection: right, up and towards the eye, each of length one. */
export interface Camera {
  right: Vec3;
  up: Vec3;
  eye: Vec3;
}

/** An eye that looks from `yaw` round the upright and `pitch` above the bench, degrees; 0 and 90 look straight down. */
export function cameraAt(yaw: number, pitch: number): Camera {
  const [a, b] = [(yaw * Math.PI) / 180, (pitch * Math.PI) / 180];
  const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
  return { right: [ca, sa, 0], up: [-sa * sb, ca * sb, cb], eye: [sa * cb, -ca * cb, sb] };
}

/** The axes of a view or of an eye anywhere. */
export const axesOf = (view: View | Camera): Camera => (typeof view === 'string' ? VIEWS[view] : view);

/** A window on a view, along its own axes, mm. */
export interface Frame {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

/** Extent of a scene in a view: left, right, bottom and top along the view's own axes, mm. */
export function viewFrame(scene: Scene, view: View | Camera): Frame {
  const { right, up } = axesOf(view);
  const { min, max } = scene.box;
  const along = (v: Vec3) => {
    const low = v.map((n, a) => Math.min(n * min[a], n * max[a]));
    const high = v.map((n, a) => Math.max(n * min[a], n * max[a]));
    return [low[0] + low[1] + low[2], high[0] + high[1] + high[2]];
  };
  const [left, rightmost] = along(right);
  const [bottom, top] = along(up);
  return { left, right: rightmost, bottom, top };
}
