import { asShare, keyOf, rising, sumOf } from '../units';
import { areaOf, clipConvex as clipConvexRegion, joined, type Loop, type Region } from '../curve';
import type { Blank } from './blank';
import type { Form, Hollow } from './hollow/form';
import { sectionAt } from './hollow/section';
import { compose, inverse, type Rigid } from './rigid';
import { type Cell, type Face, faceOffset, grainOf } from './cell';
import { type Axis, cross, dot, normalized, type Vec3 } from './vec';

/** Faces whose planes lie nearer than this are taken as one plane; must exceed the cutter's THIN. mm. */
const GAP = 1e-3;
/** Contacts smaller than this are crumbs of floating point, mm2. */
const CRUMB = 1e-2;

/** What a joint's side shows: long grain glues, end grain hardly. */
export type GrainSide = 'long grain' | 'sloped' | 'end grain';

/** The sides from the strongest joint to the weakest. */
export const GRAIN_SIDES: readonly GrainSide[] = ['long grain', 'sloped', 'end grain'];

/** Two cells touching along a plane. */
export interface Contact {
  a: number;
  b: number;
  areaMm2: number;
  normal: Vec3;
  /** Mean of the outline's corners, in the blank's frame. */
  at: Vec3;
  /** The corners of what both share, in the blank's frame. */
  outline: () => Vec3[];
}

interface Outline {
  cell: number;
  hollows: readonly Hollow[] | undefined;
  toLog: Rigid;
  sign: 1 | -1;
  offset: number;
  points: [number, number][];
  minU: number;
  maxU: number;
  minV: number;
  maxV: number;
  /** It is the whole rectangle of these bounds. */
  rectangle: boolean;
}

/**
 * All contacts between cells of a blank: opposite faces on one plane whose outlines overlap. Works for any
 * orientation. With an axis only those across it, which is all there can be between parts butted along it. 2,000 cells take
 * some tens of milliseconds.
 */
export function contacts(blank: Blank, axis?: Axis): Contact[] {
  const groups = new Map<string, { normal: Vec3; u: Vec3; v: Vec3; outlines: Outline[] }>();
  // Faces of upright cells share their directions: each is told once.
  const directions = new Map<Vec3, { normal: Vec3; key: string }>();
  const directionOf = (of: Vec3) => {
    const before = directions.get(of);
    if (before) return before;
    const normal = canonical(of);
    const direction = { normal, key: keyOf(normal) };
    directions.set(of, direction);
    return direction;
  };
  blank.cells.forEach((cell, index) => {
    for (const face of cell.faces) {
      if (axis !== undefined && Math.abs(face.normal[axis]) <= 1e-6) continue;
      const { normal, key } = directionOf(face.normal);
      let group = groups.get(key);
      if (!group) {
        const u = normalized(cross(normal, Math.abs(normal[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]));
        group = { normal, u, v: cross(normal, u), outlines: [] };
        groups.set(key, group);
      }
      group.outlines.push(outlineOf(cell, index, face, group));
    }
  });
  return [...groups.values()].flatMap((group) => contactsOfDirection(group));
}

function canonical(n: Vec3): Vec3 {
  const lead = Math.abs(n[0]) > 1e-7 ? n[0] : Math.abs(n[1]) > 1e-7 ? n[1] : n[2];
  return lead < 0 ? [0 - n[0], 0 - n[1], 0 - n[2]] : n;
}

function outlineOf(
  cell: Cell,
  index: number,
  face: Face,
  frame: { normal: Vec3; u: Vec3; v: Vec3 },
): Outline {
  const points: [number, number][] = [];
  let minU = Infinity;
  let maxU = -Infinity;
  let minV = Infinity;
  let maxV = -Infinity;
  for (const i of face.loop) {
    const u = dot(cell.vertices[i], frame.u);
    const v = dot(cell.vertices[i], frame.v);
    points.push([u, v]);
    if (u < minU) minU = u;
    if (u > maxU) maxU = u;
    if (v < minV) minV = v;
    if (v > maxV) maxV = v;
  }
  const rectangle =
    points.length === 4 && points.every(([u, v]) => (u === minU || u === maxU) && (v === minV || v === maxV));
  const sign = dot(face.normal, frame.normal) > 0 ? 1 : -1;
  if (sign < 0) points.reverse();
  return {
    cell: index,
    hollows: cell.hollows,
    toLog: cell.toLog,
    sign,
    points,
    offset: sign * faceOffset(cell, face),
    minU,
    maxU,
    minV,
    maxV,
    rectangle,
  };
}

function contactsOfDirection(group: { normal: Vec3; u: Vec3; v: Vec3; outlines: Outline[] }): Contact[] {
  const sorted = [...group.outlines].sort(rising((a) => a.offset));
  const found: Contact[] = [];
  let start = 0;
  for (let i = 1; i <= sorted.length; i++) {
    if (i < sorted.length && sorted[i].offset - sorted[i - 1].offset < GAP) continue;
    found.push(...contactsOfPlane(sorted.slice(start, i), group));
    start = i;
  }
  return found;
}

function contactsOfPlane(outlines: Outline[], frame: { normal: Vec3; u: Vec3; v: Vec3 }): Contact[] {
  // Faces that all look one way touch nothing: the outside of a blank.
  if (outlines.every(({ sign }) => sign === outlines[0].sign)) return [];
  const bySweep = outlines.sort(rising((a) => a.minU));
  const found: Contact[] = [];
  let open: Outline[] = [];
  for (const outline of bySweep) {
    open = open.filter((other) => other.maxU > outline.minU + 1e-9);
    for (const other of open) {
      if (other.sign === outline.sign || other.maxV <= outline.minV || outline.maxV <= other.minV) continue;
      const shared =
        outline.rectangle && other.rectangle
          ? sharedRectangle(outline, other)
          : clipConvex(outline.points, other.points);
      const areaMm2 = polygonArea(shared) - openedIn(shared, { one: other, two: outline, frame });
      if (areaMm2 < CRUMB) continue;
      const mid = [0, 1].map((k) => sumOf(shared, (p) => p[k]) / shared.length);
      const inBlank = ([u, v]: readonly number[]) =>
        [0, 1, 2].map(
          (k) => u * frame.u[k] + v * frame.v[k] + outline.offset * frame.normal[k],
        ) as unknown as Vec3;
      found.push({
        a: other.cell,
        b: outline.cell,
        areaMm2,
        normal: frame.normal,
        at: inBlank(mid),
        outline: () => shared.map(inBlank),
      });
    }
    open.push(outline);
  }
  return found;
}

/**
 * What of a contact is open: where a hollow of either cell reaches its plane, there is nothing to touch. A hollow that both carry
 * counts once. mm2.
 */
function openedIn(
  shared: readonly [number, number][],
  { one, two, frame }: { one: Outline; two: Outline; frame: { normal: Vec3; u: Vec3; v: Vec3 } },
): number {
  if (!one.hollows && !two.hollows) return 0;
  const polygon = shared.map(([x, y]) => ({ x, y }));
  const { u, v, normal: n } = frame;
  // The contact's plane as a frame of its own: u, v, and along the normal.
  const toPlane: Rigid = [...u, 0, ...v, 0, ...n, 0];
  const seen = new Set<Form>();
  let open: Region = [];
  for (const { hollows, toLog, offset } of [one, two])
    for (const { form, fromLog } of hollows ?? []) {
      if (seen.has(form)) continue;
      seen.add(form);
      const m = compose(toPlane, inverse(compose(fromLog, toLog)));
      const section = sectionAt(form, m, offset);
      // Hollows of one cell keep clear of each other; two cells may be opened at one place from either side.
      open =
        one.hollows && two.hollows
          ? section.reduce<Region>((all, loop) => joinedOf(all, loop), open)
          : [...open, ...section];
    }
  return areaOf(clipConvexRegion(open, polygon));
}

const joinedOf = (all: Region, loop: Loop): Region =>
  areaOf([loop]) < 0 ? [...all, loop] : joined(all, [loop]);

/** What two rectangles along the same directions share, counter-clockwise: most faces are rectangles. */
function sharedRectangle(a: Outline, b: Outline): [number, number][] {
  const [u0, u1] = [Math.max(a.minU, b.minU), Math.min(a.maxU, b.maxU)];
  const [v0, v1] = [Math.max(a.minV, b.minV), Math.min(a.maxV, b.maxV)];
  return [
    [u0, v0],
    [u1, v0],
    [u1, v1],
    [u0, v1],
  ];
}

/** Clips a convex polygon by another, both counter-clockwise (Sutherland and Hodgman 1974). */
function clipConvex(subject: [number, number][], clip: [number, number][]): [number, number][] {
  let out = subject;
  for (let i = 0; i < clip.length && out.length > 0; i++) {
    const [ax, ay] = clip[i];
    const [bx, by] = clip[(i + 1) % clip.length];
    const inside = (p: [number, number]) => (bx - ax) * (p[1] - ay) - (by - ay) * (p[0] - ax);
    const next: [number, number][] = [];
    out.forEach((p, j) => {
      const q = out[(j + 1) % out.length];
      const dp = inside(p);
      const dq = inside(q);
      if (dp >= 0) next.push(p);
      if (dp * dq < 0) {
        const t = dp / (dp - dq);
        next.push([p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])]);
      }
    });
    out = next;
  }
  return out;
}

const polygonArea = (points: readonly [number, number][]): number =>
  points.reduce((sum, p, i) => {
    const q = points[(i + 1) % points.length];
    return sum + p[0] * q[1] - q[0] * p[1];
  }, 0) / 2;

/** Angle between a cell's grain and a joint plane, degrees from 0 (long grain) to 90 (end grain). */
export const grainAngle = (cell: Cell, normal: Vec3): number =>
  (Math.asin(asShare(Math.abs(dot(grainOf(cell), normal)))) * 180) / Math.PI;

/** Long grain up to 20 degrees, end grain from 70, sloped between. */
export function grainSide(angleDegrees: number): GrainSide {
  if (angleDegrees <= 20) return 'long grain';
  return angleDegrees >= 70 ? 'end grain' : 'sloped';
}

/** What a joint is worth: the weaker of its two sides. */
export function jointSide(a: Cell, b: Cell, normal: Vec3): GrainSide {
  const rank = (cell: Cell) => GRAIN_SIDES.indexOf(grainSide(grainAngle(cell, normal)));
  return GRAIN_SIDES[Math.max(rank(a), rank(b))];
}
