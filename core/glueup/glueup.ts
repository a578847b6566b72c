import { falling, inTurn, rising, sumOf, upwards } from '../units';
import { type BuildDocument, DIMENSIONS } from '../document';
import {
  type Axis,
  type Blank,
  bounds,
  type Cell,
  contacts,
  GRAIN_SIDES,
  type GrainSide,
  jointSide,
  type Vec3,
} from '../solid';
import { type GlueStep, glueUpAt, stepName, type Timeline, type TimelineStep } from '../steps';
import { type PlaneElastic, planeOf } from '../wood';

/** Parts that lie side by side in the direction the clamps press: a board, as far as pressing goes. */
export interface Course {
  /** Numbers of its parts, from 1, in the order of the lay-up. */
  parts: number[];
  pieces: string[];
  /** Where it lies in the direction of the clamps, mm. */
  from: number;
  to: number;
  species: string;
  /** Which way its grain runs, seen from the joints. */
  grain: 'along' | 'upright' | 'across';
  sawn: 'flat' | 'quarter';
}

/** One glue line: where two courses meet. */
export interface GlueLine {
  /** Counted from 1, in the order of the lay-up. */
  joint: number;
  /** Its place in the direction of the clamps, mm. */
  at: number;
  /** Its stretch along the joints, mm. */
  from: number;
  to: number;
  heightMm: number;
  areaMm2: number;
  /** The weaker of both sides. */
  side: GrainSide;
}

/** One glue-up, as its planning sees it: courses pressed together and the lines between. */
export interface GlueUp {
  step: GlueStep;
  name: string;
  /** Axes of the piece: along the joints, in the direction of the clamps, and through the thickness of the joints. */
  axes: { run: Axis; press: Axis; depth: Axis };
  /** Size in those directions, mm. */
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  courses: Course[];
  lines: GlueLine[];
  parts: number;
  /** Blanks alike glued up in this step, and the mass of one, kg. */
  blanks: number;
  massKg: number;
  /** All area glued in one blank, mm2: the lines, and ends that meet within a course. */
  areaMm2: number;
  /** Area of joints by their weaker side, mm2. */
  sides: Record<GrainSide, number>;
  /** Ends that meet within a course. */
  endJoints: number;
  /** Parts lie askew or in one another's way: no clamp presses all joints at once. */
  askew: boolean;
  /** Thinnest part in the direction of the clamps, mm. */
  thinnestMm: number;
  species: string[];
}

/** Faces nearer than this in the direction of the clamps are one line, mm; parts are as uneven as saws leave them. */
const SAME = 0.05;

const midOf = ({ vertices }: Cell): Vec3 =>
  [0, 1, 2].map((a) => sumOf(vertices, (v) => v[a]) / vertices.length) as unknown as Vec3;

/**
 * Which part each cell of a glued blank belongs to, by the order of the lay-up: slices of one panel share their cells'
 * names. By its place where a reading changed the cells.
 */
export function ownersOf(entry: TimelineStep): number[] {
  const laid = entry.laid ?? [];
  const blank = entry.pieces[0].blank;
  const works = new Map(entry.entered.map((piece) => [piece.id, piece.blank.cells.length] as const));
  const counts = laid.map(({ piece }) => works.get(piece) ?? 0);
  if (sumOf(counts) === blank.cells.length)
    return counts.flatMap((n, i) => Array.from({ length: n }, () => i));
  return blank.cells.map((cell) => {
    const mid = midOf(cell);
    const inside = laid.findIndex(({ min, max }) =>
      [0, 1, 2].every((a) => mid[a] >= min[a] - 1e-6 && mid[a] <= max[a] + 1e-6),
    );
    return Math.max(0, inside);
  });
}

/** The wood that most of a course is made of, and how its grain and rings lie to the joints. */
function woodOf(cells: readonly Cell[], axes: GlueUp['axes']): Pick<Course, 'species' | 'grain' | 'sawn'> {
  const share = new Map<string, number>();
  const towards = [0, 0, 0];
  let across = 0;
  for (const cell of cells) {
    const box = bounds({ cells: [cell] });
    const size = [0, 1, 2].reduce((product, a) => product * (box.max[a] - box.min[a]), 1);
    share.set(cell.origin.species, (share.get(cell.origin.species) ?? 0) + size);
    const grain = cell.toLog.slice(8, 11).map(Math.abs);
    for (const a of [0, 1, 2]) towards[a] += size * grain[a];
    // The radius at the cell's middle, turned back into the blank: does it lie in the direction of the clamps?
    const mid = midOf(cell);
    const log = [0, 1].map((r) => {
      const row = cell.toLog.slice(4 * r, 4 * r + 4);
      return row[0] * mid[0] + row[1] * mid[1] + row[2] * mid[2] + row[3];
    });
    const radius = Math.hypot(log[0], log[1]) || 1;
    const along = [0, 1, 2].map((a) => (cell.toLog[a] * log[0] + cell.toLog[4 + a] * log[1]) / radius);
    across += size * (Math.abs(along[axes.press]) > Math.abs(along[axes.depth]) ? 1 : -1);
  }
  const species = [...share].toSorted(falling((a) => a[1]))[0]?.[0] ?? '';
  const greatest = Math.max(...towards);
  const grain =
    towards[axes.run] === greatest ? 'along' : towards[axes.depth] === greatest ? 'upright' : 'across';
  return { species, grain, sawn: across > 0 ? 'quarter' : 'flat' };
}

/** Parts whose stretches in the direction of the clamps overlap, as one course each; undefined where that is hopeless. */
function coursesOf(entry: TimelineStep, cells: Cell[][], axes: GlueUp['axes']): Course[] {
  const laid = (entry.laid ?? []).map((part, i) => ({ part, i }));
  const sorted = laid.toSorted(
    inTurn(
      rising(({ part }) => part.min[axes.press]),
      rising(({ i }) => i),
    ),
  );
  const groups: (typeof laid)[] = [];
  let top = -Infinity;
  for (const one of sorted) {
    if (one.part.min[axes.press] < top - SAME) groups[groups.length - 1].push(one);
    else groups.push([one]);
    top = Math.max(top, one.part.max[axes.press]);
  }
  const courses = groups.map(
    (group): Course => ({
      parts: group.map(({ i }) => i + 1).toSorted(upwards),
      pieces: group.map(({ part }) => part.piece),
      from: Math.min(...group.map(({ part }) => part.min[axes.press])),
      to: Math.max(...group.map(({ part }) => part.max[axes.press])),
      ...woodOf(
        group.flatMap(({ i }) => cells[i]),
        axes,
      ),
    }),
  );
  // Across the width the first part lies at the far edge: courses count from it, as the lay-up does.
  return axes.press === 1 ? courses.toReversed() : courses;
}

/** Lines between courses and the ends within them, from where faces of different parts touch. */
function linesOf(blank: Blank, owner: readonly number[], courses: readonly Course[], axes: GlueUp['axes']) {
  const courseOf = new Map(courses.flatMap(({ parts }, c) => parts.map((part) => [part - 1, c] as const)));
  const sides = Object.fromEntries(GRAIN_SIDES.map((side) => [side, 0])) as Record<GrainSide, number>;
  const found = new Map<
    number,
    { area: number; from: number; to: number; low: number; high: number; rank: number }
  >();
  const ends = new Set<string>();
  let areaMm2 = 0;
  let askew = false;
  const spans = blank.cells.map((cell) => bounds({ cells: [cell] }));
  for (const { a, b, areaMm2: area, normal } of contacts(blank)) {
    if (owner[a] === owner[b]) continue;
    areaMm2 += area;
    const side = jointSide(blank.cells[a], blank.cells[b], normal);
    sides[side] += area;
    const [ca, cb] = [courseOf.get(owner[a]) ?? 0, courseOf.get(owner[b]) ?? 0];
    if (ca === cb) {
      ends.add([owner[a], owner[b]].toSorted(upwards).join());
      if (Math.abs(normal[axes.press]) > 0.5) askew = true;
      continue;
    }
    if (Math.abs(normal[axes.press]) < 0.999) askew = true;
    const line = Math.min(ca, cb);
    const rank = GRAIN_SIDES.indexOf(side);
    const reach = (axis: Axis) => [
      Math.max(spans[a].min[axis], spans[b].min[axis]),
      Math.min(spans[a].max[axis], spans[b].max[axis]),
    ];
    const [from, to] = reach(axes.run);
    const [low, high] = reach(axes.depth);
    const before = found.get(line);
    found.set(line, {
      area: (before?.area ?? 0) + area,
      from: Math.min(before?.from ?? Infinity, from),
      to: Math.max(before?.to ?? -Infinity, to),
      low: Math.min(before?.low ?? Infinity, low),
      high: Math.max(before?.high ?? -Infinity, high),
      rank: Math.max(before?.rank ?? 0, rank),
    });
  }
  const lines = courses.slice(1).flatMap((course, i): GlueLine[] => {
    const line = found.get(i);
    if (!line) return [];
    return [
      {
        joint: i + 1,
        at: axes.press === 1 ? course.to : course.from,
        from: line.from,
        to: line.to,
        heightMm: line.high - line.low,
        areaMm2: line.area,
        side: GRAIN_SIDES[line.rank],
      },
    ];
  });
  return { lines, sides, areaMm2, endJoints: ends.size, askew };
}

const known = new WeakMap<Timeline, Map<string, GlueUp | undefined>>();

/** Reads a glue-up off the played build; undefined for any other step or one that was not reached. Read once a run. */
export function glueUpOf(build: BuildDocument, timeline: Timeline, stepId: string): GlueUp | undefined {
  const ofRun = known.get(timeline) ?? new Map<string, GlueUp | undefined>();
  known.set(timeline, ofRun);
  const asked = glueUpAt(build, stepId);
  if (!asked) return undefined;
  if (!ofRun.has(stepId)) ofRun.set(stepId, readGlueUp(timeline, asked));
  const read = ofRun.get(stepId);
  return read && { ...read, step: asked };
}

function readGlueUp(timeline: Timeline, step: GlueStep): GlueUp | undefined {
  const entry = timeline.steps.find(({ id }) => id === step.id);
  if (!entry?.laid || entry.laid.length < 2 || !entry.pieces[0]) return undefined;
  const { blank } = entry.pieces[0];
  const box = bounds(blank);
  // Rows lie beside one another: the clamps press across the rows, as their joints are the longer ones.
  const press = DIMENSIONS.indexOf(step.rows?.across ?? step.along) as Axis;
  const [p, q] = [0, 1, 2].filter((a) => a !== press) as [Axis, Axis];
  const size = (a: Axis) => box.max[a] - box.min[a];
  const [run, depth] = size(p) >= size(q) ? [p, q] : [q, p];
  const axes = { run, press, depth };
  const owner = ownersOf(entry);
  const cells: Cell[][] = entry.laid.map(() => []);
  owner.forEach((part, i) => cells[part].push(blank.cells[i]));
  const courses = coursesOf(entry, cells, axes);
  const { lines, sides, areaMm2, endJoints, askew } = linesOf(blank, owner, courses, axes);
  const blanks = entry.pieces.length;
  return {
    step,
    name: stepName(step),
    axes,
    lengthMm: size(run),
    widthMm: size(press),
    heightMm: size(depth),
    courses,
    lines,
    parts: entry.laid.length,
    blanks,
    massKg: entry.massKg / blanks,
    areaMm2,
    sides,
    endJoints,
    askew: askew || lines.length < 1,
    thinnestMm: Math.min(...courses.map(({ from, to }) => to - from)),
    species: [...new Set(blank.cells.map(({ origin }) => origin.species))],
  };
}

/** All glue-ups of a played build, in the order of the work. */
export const glueUpsOf = (build: BuildDocument, timeline: Timeline): GlueUp[] =>
  build.steps.flatMap(({ id }) => glueUpOf(build, timeline, id) ?? []);

/** A course as the elastic calculation sees it. */
export const planeOfCourse = ({ species, sawn, grain }: Course): PlaneElastic =>
  planeOf(species, sawn, grain);
