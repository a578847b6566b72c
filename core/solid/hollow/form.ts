import { rising, sumOf, upwards } from '../../units';
import { areaOf, boxOf, type Box2, type Region } from '../../curve';
import { compose, inverse, movePoint, type Rigid } from '../rigid';
import type { Vec3 } from '../vec';

/** A region pushed along z from z0 to z1: exact however it is cut. */
export interface Prism {
  kind: 'prism';
  region: Region;
  z0: number;
  z1: number;
}

/** One level of a form: where it lies, the thickness it stands for, and what is hollow there. */
export interface Level {
  z: number;
  weight: number;
  region: Region;
}

/**
 * A form whose section changes along z: round floors, edge profiles, drill tips, and what is left of one hollow beside
 * another. Its levels belong to the form and never to a cell, so that parts of it add up to the whole whatever their own error.
 */
export interface Levels {
  kind: 'levels';
  levels: readonly Level[];
  z0: number;
  z1: number;
}

export type Form = Prism | Levels;

/** Wood that is gone from the cells that carry it: a form in a frame of its own, which stands fast in the log's. mm. */
export interface Hollow {
  /** The feature that made it. */
  feature: string;
  form: Form;
  /** Log to form. */
  fromLog: Rigid;
}

/** Nodes and weights of Gauss's rule on -1 to 1, by Newton's method on Legendre's polynomial (standard). */
function gauss(n: number): [number, number][] {
  return Array.from({ length: n }, (_, i) => {
    let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let slope = 1;
    for (let round = 0; round < 100; round++) {
      let [p, q] = [1, 0];
      for (let k = 1; k <= n; k++) [p, q] = [((2 * k - 1) * x * p - (k - 1) * q) / k, p];
      slope = (n * (x * p - q)) / (x * x - 1);
      const step = p / slope;
      x -= step;
      if (Math.abs(step) < 1e-16) break;
    }
    return [x, 2 / ((1 - x * x) * slope * slope)] as [number, number];
  });
}

/** How many levels a stretch of a smooth floor or profile has: 1e-8 of its volume. */
const SMOOTH = 8;
/** How many a stretch has where two forms cross, and its section may bend within. */
export const CROSSING = 24;
const NODES = new Map([SMOOTH, CROSSING].map((n) => [n, gauss(n)] as const));

/**
 * Places between z0 and z1 with the thickness each stands for. z = m + k sin t, with Gauss's nodes in t: what begins or ends like a
 * root, as every round floor does, is integrated as well as what is smooth.
 */
export function levelsBetween(z0: number, z1: number, count = CROSSING): { z: number; weight: number }[] {
  const [m, k] = [(z0 + z1) / 2, (z1 - z0) / 2];
  return (NODES.get(count) ?? gauss(count))
    .map(([x, w]) => {
      const t = (Math.PI / 2) * x;
      return { z: m + k * Math.sin(t), weight: w * (Math.PI / 2) * k * Math.cos(t) };
    })
    .sort(rising((a) => a.z));
}

/** A form whose region is told for every z, with breaks where it changes its rule. */
export function levelsForm(regionAt: (z: number) => Region, breaks: readonly number[]): Levels {
  const stops = [...new Set(breaks)].sort(upwards);
  const levels = stops
    .slice(1)
    .flatMap((to, i) => (to - stops[i] > 1e-9 ? levelsBetween(stops[i], to, SMOOTH) : []))
    .map(({ z, weight }) => ({ z, weight, region: regionAt(z) }));
  return { kind: 'levels', levels, z0: stops[0], z1: stops[stops.length - 1] };
}

const boxes = new WeakMap<Form, Box2>();
/** The box around a form, across its axis. */
export function formBox(form: Form): Box2 {
  let box = boxes.get(form);
  if (!box) {
    box = boxOf(form.kind === 'prism' ? form.region : form.levels.flatMap(({ region }) => region));
    boxes.set(form, box);
  }
  return box;
}

const volumes = new WeakMap<Form, number>();
/** Volume of a whole form, mm3. */
export function formVolume(form: Form): number {
  let mm3 = volumes.get(form);
  if (mm3 === undefined) {
    mm3 =
      form.kind === 'prism'
        ? areaOf(form.region) * (form.z1 - form.z0)
        : sumOf(form.levels, ({ weight, region }) => weight * areaOf(region));
    volumes.set(form, mm3);
  }
  return mm3;
}

/** The level of a form that opens most. */
export const widestOf = ({ levels }: Levels): Region =>
  levels.reduce<Region>((best, { region }) => (areaOf(region) > areaOf(best) ? region : best), []);

/** The least and greatest coordinates of a form after a motion. */
export function movedBox(form: Form, m: Rigid): { min: Vec3; max: Vec3 } {
  const { x0, y0, x1, y1 } = formBox(form);
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const x of [x0, x1])
    for (const y of [y0, y1])
      for (const z of [form.z0, form.z1]) {
        const p = movePoint(m, [x, y, z]);
        for (let a = 0; a < 3; a++) {
          if (p[a] < min[a]) min[a] = p[a];
          if (p[a] > max[a]) max[a] = p[a];
        }
      }
  return { min, max };
}

/** Of hollows only those whose box meets the box of a cell's corners: what a cut left behind falls away. */
export function hollowsAmong(
  hollows: readonly Hollow[],
  toLog: Rigid,
  vertices: readonly Vec3[],
): readonly Hollow[] | undefined {
  const near = hollows.filter(({ form, fromLog }) => {
    const { min, max } = movedBox(form, inverse(compose(fromLog, toLog)));
    return [0, 1, 2].every((a) => vertices.some((v) => v[a] > min[a]) && vertices.some((v) => v[a] < max[a]));
  });
  return near.length > 0 ? near : undefined;
}
