import { type Cell, dot, faceOffset, type Vec3 } from '../solid';
import {
  type BoardMarks,
  linearToByte,
  lookOf,
  markWood,
  oil,
  okLabToLinear,
  type Sample,
  woodAt,
} from '../wood';
import { Looker } from './hollowed';
import { axesOf, type Camera, type Frame, type Scene, type View, viewFrame } from './scene';

/** A picture being made: which face each pixel shows. Made once per view and size, then shaded in bands. */
export interface Scan {
  width: number;
  height: number;
  pxMm: number;
  left: number;
  top: number;
  view: View | Camera;
  /** Drawn as it would look with oil on it. */
  oiled?: boolean;
  /** Index into `faces`, -1 where nothing is. */
  hit: Int32Array;
  faces: { cell: Cell; normal: readonly number[]; offset: number }[];
  /** Looks into holes and grooves; undefined where the scene has none. */
  looker?: Looker;
}

/**
 * Finds what each pixel of a true projection shows: every face turned to the eye is scan converted into a depth
 * buffer. `pxMm` is the size of a pixel in mm. The frame is the scene's own, or a part of it looked at closely.
 */
export function scanScene(
  scene: Scene,
  view: View | Camera,
  pxMm: number,
  frame: Frame = viewFrame(scene, view),
): Scan {
  const width = Math.max(1, Math.round((frame.right - frame.left) / pxMm));
  const height = Math.max(1, Math.round((frame.top - frame.bottom) / pxMm));
  const hit = new Int32Array(width * height).fill(-1);
  const depth = new Float64Array(width * height).fill(-Infinity);
  const { right, up, eye } = axesOf(view);
  const faces: Scan['faces'] = [];
  for (const cell of scene.cells) {
    for (const face of cell.faces) {
      const facing = dot(face.normal, eye);
      if (facing <= 1e-6) continue;
      const index = faces.length;
      const offset = faceOffset(cell, face);
      faces.push({ cell, normal: face.normal, offset });
      const points = face.loop.map((i) => [
        (dot(cell.vertices[i], right) - frame.left) / pxMm,
        (frame.top - dot(cell.vertices[i], up)) / pxMm,
      ]);
      const [nr, nu] = [dot(face.normal, right), dot(face.normal, up)];
      const depthAt = (px: number, py: number) =>
        (offset - nr * (frame.left + px * pxMm) - nu * (frame.top - py * pxMm)) / facing;
      fillConvex(points, width, height, (x, y) => {
        const d = depthAt(x + 0.5, y + 0.5);
        const at = y * width + x;
        if (d > depth[at]) {
          depth[at] = d;
          hit[at] = index;
        }
      });
    }
  }
  const hollow = scene.cells.some(({ hollows }) => hollows);
  const looker = hollow ? new Looker(scene.cells, [-eye[0], -eye[1], -eye[2]], pxMm) : undefined;
  return {
    width,
    height,
    pxMm,
    left: frame.left,
    top: frame.top,
    view,
    hit,
    faces,
    ...(looker ? { looker } : {}),
  };
}

/** Visits the pixels whose centres lie in a convex polygon. */
function fillConvex(
  points: number[][],
  width: number,
  height: number,
  visit: (x: number, y: number) => void,
): void {
  const ys = points.map((p) => p[1]);
  const first = Math.max(0, Math.ceil(Math.min(...ys) - 0.5 - 1e-9));
  const last = Math.min(height - 1, Math.floor(Math.max(...ys) - 0.5 + 1e-9));
  for (let y = first; y <= last; y++) {
    let from = Infinity;
    let to = -Infinity;
    const line = y + 0.5;
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length];
      if (p[1] <= line === q[1] <= line) return;
      const x = p[0] + ((line - p[1]) / (q[1] - p[1])) * (q[0] - p[0]);
      if (x < from) from = x;
      if (x > to) to = x;
    });
    const start = Math.max(0, Math.ceil(from - 0.5 - 1e-9));
    const end = Math.min(width - 1, Math.floor(to - 0.5 + 1e-9));
    for (let x = start; x <= end; x++) visit(x, y);
  }
}

/** Sub-pixel places for one, two and four samples. */
const PLACES: Record<1 | 4, number[][]> = {
  1: [[0.5, 0.5]],
  4: [
    [0.375, 0.125],
    [0.875, 0.375],
    [0.125, 0.625],
    [0.625, 0.875],
  ],
};

/** How much the wood in a hollow darkens, at most, and how deep it is when half of that is reached, mm. */
const SHADE = { most: 0.3, half: 9 };

/** Light on wood that lies askew, as from the upper left: an edge that is rounded shows it. */
const slopeLight = (n: readonly number[], eye: readonly number[]): number => {
  const facing = n[0] * eye[0] + n[1] * eye[1] + n[2] * eye[2];
  return 0.8 + 0.2 * Math.max(0, facing) - 0.08 * n[0] + 0.1 * n[1];
};

/** Aims a sample at the wood of a cell, seen on a plane that looks out along `n`. */
function aim(sample: Sample, { toLog, origin }: Cell, n: readonly number[]): void {
  sample.look = lookOf(origin.species);
  sample.seed = origin.seed;
  sample.shade = origin.shade;
  sample.tone = origin.tone;
  sample.nx = toLog[0] * n[0] + toLog[1] * n[1] + toLog[2] * n[2];
  sample.ny = toLog[4] * n[0] + toLog[5] * n[1] + toLog[6] * n[2];
  sample.nz = toLog[8] * n[0] + toLog[9] * n[1] + toLog[10] * n[2];
}

/**
 * The colour behind an open place of a face: the eye goes on until it meets wood; false where it meets none. Leaves the sample aimed at
 * the wood it met.
 */
function colourBehind(
  scan: Scan,
  face: Scan['faces'][number],
  p: Vec3,
  { sample, lab, light }: { sample: Sample; lab: Float64Array; light: number },
): boolean {
  const { eye } = axesOf(scan.view);
  const seen = scan.looker?.from(face.cell, p);
  if (!seen) return false;
  const { cell, deep, normal = face.normal } = seen;
  const [px, py, pz] = [p[0] - eye[0] * deep, p[1] - eye[1] * deep, p[2] - eye[2] * deep];
  const { toLog, origin } = cell;
  aim(sample, cell, normal);
  const lx = toLog[0] * px + toLog[1] * py + toLog[2] * pz + toLog[3];
  const ly = toLog[4] * px + toLog[5] * py + toLog[6] * pz + toLog[7];
  const lz = toLog[8] * px + toLog[9] * py + toLog[10] * pz + toLog[11];
  woodAt(lx, ly, lz, sample, lab);
  const marks = origin.marks as BoardMarks | undefined;
  if (marks) markWood(marks, lx, ly, lz, sample.look, scan.pxMm, lab);
  if (scan.oiled) oil(lab);
  lab[0] *= deep > 0 ? slopeLight(normal, eye) * (1 - (SHADE.most * deep) / (deep + SHADE.half)) : light;
  return true;
}

/**
 * Shades rows `from` up to `to` of a scan into RGBA bytes, with 1 or 4 samples a pixel, averaged in linear light.
 * Pure: the same scan gives the same bytes, in a worker or in Node.
 */
export function shadeRows(
  scan: Scan,
  from: number,
  to: number,
  samples: 1 | 4,
  rgba: Uint8ClampedArray,
): void {
  const { right, up, eye } = axesOf(scan.view);
  const places = PLACES[samples];
  const turning = typeof scan.view !== 'string';
  const sample: Sample = {
    look: lookOf(''),
    seed: 0,
    shade: 0,
    nx: 0,
    ny: 0,
    nz: 0,
    px: scan.pxMm / Math.sqrt(samples),
  };
  const lab = new Float64Array(3);
  const linear = new Float64Array(3);
  let current = -1;
  let toLog: readonly number[] = [];
  let face = scan.faces[0];
  let facing = 1;
  let light = 1;
  let marks: BoardMarks | undefined;
  for (let y = from; y < to; y++) {
    for (let x = 0; x < scan.width; x++) {
      const index = scan.hit[y * scan.width + x];
      const at = ((y - from) * scan.width + x) * 4;
      if (index < 0) continue;
      if (index !== current) {
        current = index;
        face = scan.faces[index];
        const { cell, normal: n } = face;
        toLog = cell.toLog;
        // Turned about, the sides stand in a little shade, so that a solid looks like one; true views are evenly lit.
        light = turning ? 0.91 + 0.09 * n[2] - 0.05 * n[0] : 1;
        facing = n[0] * eye[0] + n[1] * eye[1] + n[2] * eye[2];
        marks = cell.origin.marks as BoardMarks | undefined;
        aim(sample, cell, n);
      }
      const n = face.normal;
      const looker = face.cell.hollows ? scan.looker : undefined;
      let hits = 0;
      let [red, green, blue] = [0, 0, 0];
      for (const [ox, oy] of places) {
        const h = scan.left + (x + ox) * scan.pxMm;
        const v = scan.top - (y + oy) * scan.pxMm;
        const flat0 = right[0] * h + up[0] * v;
        const flat1 = right[1] * h + up[1] * v;
        const flat2 = right[2] * h + up[2] * v;
        const d = (face.offset - n[0] * flat0 - n[1] * flat1 - n[2] * flat2) / facing;
        const px = flat0 + eye[0] * d;
        const py = flat1 + eye[1] * d;
        const pz = flat2 + eye[2] * d;
        if (looker?.opensAt(face.cell, px, py, pz)) {
          const met = colourBehind(scan, face, [px, py, pz], { sample, lab, light });
          aim(sample, face.cell, n);
          if (!met) continue;
          okLabToLinear(lab[0], lab[1], lab[2], linear);
          red += linear[0];
          green += linear[1];
          blue += linear[2];
          hits += 1;
          continue;
        }
        const lx = toLog[0] * px + toLog[1] * py + toLog[2] * pz + toLog[3];
        const ly = toLog[4] * px + toLog[5] * py + toLog[6] * pz + toLog[7];
        const lz = toLog[8] * px + toLog[9] * py + toLog[10] * pz + toLog[11];
        woodAt(lx, ly, lz, sample, lab);
        if (marks) markWood(marks, lx, ly, lz, sample.look, scan.pxMm, lab);
        if (scan.oiled) oil(lab);
        lab[0] *= light;
        okLabToLinear(lab[0], lab[1], lab[2], linear);
        red += linear[0];
        green += linear[1];
        blue += linear[2];
        hits += 1;
      }
      if (hits === 0) continue;
      rgba[at] = linearToByte(red / hits);
      rgba[at + 1] = linearToByte(green / hits);
      rgba[at + 2] = linearToByte(blue / hits);
      rgba[at + 3] = hits === samples ? 255 : Math.round((255 * hits) / samples);
    }
  }
}
