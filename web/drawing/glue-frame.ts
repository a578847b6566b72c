import type { GlueUp } from '../../core/glueup';
import { type View, VIEWS } from '../../core/picture';
import type { BenchScene } from '../../core/review';
import type { Placed } from './layout';

/** Which way the eye looks at a glue-up so that its joints are lines. */
export const glueView = ({ axes }: GlueUp): View => (['end', 'edge', 'face'] as const)[axes.depth];

/** From a place in a glue-up (along the joints, in the direction of the clamps; mm) to the drawing, CSS pixels. */
export interface GlueFrame {
  /** Whether joints run from left to right; else they stand and everything is turned. */
  lying: boolean;
  mmPerPx: number;
  point: (run: number, press: number) => { x: number; y: number };
  /** From a place on the drawing back to millimetres along the joints. */
  runAt: (x: number, y: number) => number;
  /** The piece's rectangle. */
  box: { left: number; top: number; width: number; height: number };
}

/** The frame of the first blank of a scene under one placed view. */
export function glueFrame(glueUp: GlueUp, scene: BenchScene, placed: Placed, mmPerPx: number): GlueFrame {
  const { right, up } = VIEWS[placed.view];
  const piece = scene.pieces[0]?.box ?? scene.box;
  const horizontal = right.findIndex((n) => n !== 0);
  const vertical = up.findIndex((n) => n !== 0);
  const { run, press } = glueUp.axes;
  const x = (at: number) =>
    placed.left +
    (right[horizontal] > 0 ? at - scene.box.min[horizontal] : scene.box.max[horizontal] - at) / mmPerPx;
  const y = (at: number) =>
    placed.top + (up[vertical] > 0 ? scene.box.max[vertical] - at : at - scene.box.min[vertical]) / mmPerPx;
  const lying = run === horizontal;
  const point = (r: number, p: number) => {
    const [a, b] = [piece.min[run] + r, piece.min[press] + p];
    return lying ? { x: x(a), y: y(b) } : { x: x(b), y: y(a) };
  };
  const corners = [point(0, 0), point(glueUp.lengthMm, glueUp.widthMm)];
  const left = Math.min(...corners.map((c) => c.x));
  const top = Math.min(...corners.map((c) => c.y));
  const origin = point(0, 0);
  const unit = point(1, 0);
  return {
    lying,
    mmPerPx,
    point,
    runAt: (px, py) =>
      lying ? (px - origin.x) / (unit.x - origin.x) : (py - origin.y) / (unit.y - origin.y),
    box: {
      left,
      top,
      width: Math.abs(corners[1].x - corners[0].x),
      height: Math.abs(corners[1].y - corners[0].y),
    },
  };
}
