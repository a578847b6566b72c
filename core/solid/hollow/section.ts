import { sumOf, upwards } from '../../units';
import {
  alongArc,
  asPolygon,
  clipHalf,
  onCircle,
  placed,
  type Point,
  type Region,
  sidesOf,
} from '../../curve';
import { turnDirection, type Rigid } from '../rigid';
import type { Form, Level, Levels } from './form';

/** Two forms stand alike when their axes differ by less than this, as a cosine. */
const ALIKE = 1e-9;

/** How near chords keep to an outline that is seen askew, mm. */
const CHORD = 0.02;

/** A region under a motion that keeps the plane: turned, shifted, and turned over where z looks back. */
function moved(region: Region, m: Rigid, back: boolean): Region {
  if (!back) {
    const turn = Math.atan2(m[4], m[0]);
    return placed(region, { x: m[3], y: m[7] }, turn);
  }
  // z looks back: the outline is seen from the other side, and walked the other way round.
  return region.map((loop) => {
    const seen = loop.map(({ x, y, bulge }) => ({
      x: m[0] * x + m[1] * y + m[3],
      y: m[4] * x + m[5] * y + m[7],
      bulge: -(bulge ?? 0),
    }));
    return seen.map((_, i) => {
      const { x, y } = seen[(seen.length - i) % seen.length];
      return { x, y, bulge: -(seen[seen.length - 1 - i].bulge ?? 0) };
    });
  });
}

/** The stretches of a line y' = at that lie in a region; along x'. The line runs through `from` along `u`. */
export function chordsOf(region: Region, from: Point, u: Point): [number, number][] {
  const cuts: number[] = [];
  const side = (r: Point) => u.x * (r.y - from.y) - u.y * (r.x - from.x);
  const keep = (p: Point) => cuts.push((p.x - from.x) * u.x + (p.y - from.y) * u.y);
  for (const { a: p, b: q, arc } of region.flatMap(sidesOf)) {
    const [a, b] = [side(p), side(q)];
    const crosses = a < 0 !== b < 0;
    if (!arc) {
      if (crosses) keep({ x: p.x + (a / (a - b)) * (q.x - p.x), y: p.y + (a / (a - b)) * (q.y - p.y) });
      continue;
    }
    const away = -side({ x: arc.cx, y: arc.cy }) / arc.r;
    if (Math.abs(away) > 1 && !crosses) continue;
    const axis = Math.atan2(u.x, -u.y);
    const half = Math.acos(Math.max(-1, Math.min(1, away)));
    const hits = [axis - half, axis + half].map((angle) => ({ angle, t: alongArc(arc, angle) }));
    const on = hits.filter(({ t }) => t < 1);
    // Ends on other sides: one crossing, the likelier where both lie at an end; on the same: none or both.
    const taken = crosses
      ? [hits.reduce((best, each) => (Math.abs(each.t - 0.5) < Math.abs(best.t - 0.5) ? each : best))]
      : on.length === 2
        ? on
        : [];
    for (const { angle } of taken) keep(onCircle(arc, angle));
  }
  cuts.sort(upwards);
  const out: [number, number][] = [];
  for (let i = 0; i + 1 < cuts.length; i += 2)
    if (cuts[i + 1] - cuts[i] > 1e-9) out.push([cuts[i], cuts[i + 1]]);
  return out;
}

const twiceArea = (corners: readonly Point[]): number =>
  sumOf(corners, (p, i) => {
    const q = corners[(i + 1) % corners.length];
    return p.x * q.y - q.x * p.y;
  });

/** Corners walked the way round that another outline is walked, counter-clockwise if none is named. */
const walkedAs = (corners: Point[], like = 1): Point[] =>
  twiceArea(corners) * like < 0 ? corners.reverse() : corners;

/** The layers of a form: one for a prism; for one of levels the stretch that each level stands for. */
function layersOf(form: Form): { z0: number; z1: number; region: Region }[] {
  if (form.kind === 'prism') return [form];
  let at = form.z0;
  return form.levels.map(({ z, weight, region }, i) => {
    // Gauss's weights fill the stretch: where a stretch without wood lies between, the level's own middle counts.
    const begin = i === 0 || z - weight > at ? Math.max(form.z0, Math.min(z, z - weight / 2)) : at;
    at = begin + weight;
    return { z0: begin, z1: at, region };
  });
}

/**
 * What another form’s plane z = at cuts out of a form, in the plane’s coordinates; `m` is the motion from the form to the plane’s
 * frame. Exact where their axes run alike; where they stand square to one another, in the form’s chords; else in chords of its
 * outline.
 */
export function sectionAt(form: Form, m: Rigid, at: number): Region {
  const axis = turnDirection(m, [0, 0, 1]);
  if (Math.abs(axis[2]) > 1 - ALIKE) {
    const back = axis[2] < 0;
    const z = back ? m[11] - at : at - m[11];
    if (z < form.z0 - 1e-9 || z > form.z1 + 1e-9) return [];
    if (form.kind === 'prism') return moved(form.region, m, back);
    const level = nearestLevel(form, z);
    return level ? moved(level.region, m, back) : [];
  }
  if (Math.abs(axis[2]) < ALIKE) return squareSection(form, m, at);
  return leaningSection(form, m, at);
}

/** The level nearest to a height: its own where a stretch is taken at the same places. */
const nearestLevel = ({ levels }: Levels, z: number): Level | undefined =>
  levels.reduce<Level | undefined>(
    (best, each) => (!best || Math.abs(each.z - z) < Math.abs(best.z - z) ? each : best),
    undefined,
  );

/** Axes square to one another: each chord of the outline, pushed along the form’s axis, is a rectangle. */
function squareSection(form: Form, m: Rigid, at: number): Region {
  // Points of the form at height `at`: m[8] x + m[9] y + m[11] = at is a line in the form’s own plane.
  const long = Math.hypot(m[8], m[9]);
  const n = { x: m[8] / long, y: m[9] / long };
  const d = (at - m[11]) / long;
  const from = { x: n.x * d, y: n.y * d };
  const u = { x: -n.y, y: n.x };
  const to = (k: number, z: number): Point => {
    const [x, y] = [from.x + u.x * k, from.y + u.y * k];
    return { x: m[0] * x + m[1] * y + m[2] * z + m[3], y: m[4] * x + m[5] * y + m[6] * z + m[7] };
  };
  if (form.kind === 'prism')
    return chordsOf(form.region, from, u).map(([a, b]) =>
      walkedAs([to(a, form.z0), to(b, form.z0), to(b, form.z1), to(a, form.z1)]),
    );
  return stacked(form, (region) => chordsOf(region, from, u)).map((corners) =>
    walkedAs(corners.map(([k, z]) => to(k, z))),
  );
}

/** Chords of levels as outlines: levels that have as many chords stand one on the other, joined by straight sides. */
function stacked(form: Levels, chords: (region: Region) => [number, number][]): [number, number][][] {
  const rows = form.levels.map(({ z, region }) => ({ z, chords: chords(region) }));
  const out: [number, number][][] = [];
  let first = 0;
  for (let i = 1; i <= rows.length; i++) {
    const count = rows[first].chords.length;
    if (i < rows.length && rows[i].chords.length === count) continue;
    const run = rows.slice(first, i);
    const low = first === 0 ? form.z0 : (rows[first - 1].z + rows[first].z) / 2;
    const high = i === rows.length ? form.z1 : (rows[i - 1].z + rows[i].z) / 2;
    for (let k = 0; k < count; k++) {
      const side = (at: 0 | 1): [number, number][] => run.map((row) => [row.chords[k][at], row.z]);
      const ends = (at: 0 | 1): [number, number][] => [
        [run[0].chords[k][at], low],
        ...side(at),
        [run[run.length - 1].chords[k][at], high],
      ];
      out.push([...ends(1), ...ends(0).reverse()]);
    }
    first = i;
  }
  return out;
}

/** A leaning axis: the outline between the form’s ends, seen along its axis on the plane. */
function leaningSection(form: Form, m: Rigid, at: number): Region {
  return layersOf(form).flatMap(({ z0, z1, region }) => {
    const fine: Region = region.map((loop) => asPolygon(loop, CHORD));
    // z = (at - m[11] - m[8] x - m[9] y) / m[10] must lie between z0 and z1.
    const long = Math.hypot(m[8], m[9]);
    const [a, b] = [m[8] / long, m[9] / long];
    const limit = (z: number) => (at - m[11] - m[10] * z) / long;
    const [low, high] = [limit(z0), limit(z1)].sort(upwards);
    const within = clipHalf(clipHalf(fine, a, b, high), -a, -b, -low);
    return within.map((loop) =>
      walkedAs(
        loop.map(({ x, y }) => {
          const z = (at - m[11] - m[8] * x - m[9] * y) / m[10];
          return {
            x: m[0] * x + m[1] * y + m[2] * z + m[3],
            y: m[4] * x + m[5] * y + m[6] * z + m[7],
          };
        }),
        twiceArea(loop),
      ),
    );
  });
}
