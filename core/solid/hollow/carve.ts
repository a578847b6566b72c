import { distinct, upwards } from '../../units';
import { alongArc, onCircle, type Region, sidesOf, subtracted } from '../../curve';
import { movePoint, turnDirection, type Rigid } from '../rigid';
import { type Form, formBox, levelsBetween, movedBox } from './form';
import { sectionAt } from './section';

/** A form that is hollow already, and the motion from its frame to that of the new one. */
export interface Before {
  form: Form;
  m: Rigid;
}

/** Whether what is hollow already may reach into a new form, by their boxes. */
export const meets = (form: Form, { form: other, m }: Before): boolean => {
  const own = formBox(form);
  const { min, max } = movedBox(other, m);
  return (
    min[0] < own.x1 &&
    max[0] > own.x0 &&
    min[1] < own.y1 &&
    max[1] > own.y0 &&
    min[2] < form.z1 &&
    max[2] > form.z0
  );
};

/** What is hollow already, as it is seen along a form’s axis: the same section all along where it runs the same way. */
interface Span {
  other: Before;
  from: number;
  to: number;
  fixed?: Region;
}

/** What of a region is left at a height beside what is hollow there. */
const leftAt = (region: Region, z: number, spans: readonly Span[]): Region =>
  spans.reduce<Region>(
    (left, { other: { form, m }, fixed }) => subtracted(left, fixed ?? sectionAt(form, m, z)),
    region,
  );

/** The most breaks of one form: more are those of a curve, which its levels follow. */
const MOST_BREAKS = 24;

/**
 * Heights at which the section of a prism that lies across the axis jumps or bends: its sharp corners at both ends, and the tops of its arcs.
 * Between them a section grows evenly, so that levels add up to what it is.
 */
function breaksOf({ form, m }: Before): number[] {
  if (form.kind !== 'prism' || Math.abs(turnDirection(m, [0, 0, 1])[2]) > 1 - 1e-9) return [];
  const heights: number[] = [];
  const put = (x: number, y: number) => {
    for (const z of [form.z0, form.z1]) heights.push(movePoint(m, [x, y, z])[2]);
  };
  for (const loop of form.region) {
    const sides = sidesOf(loop);
    sides.forEach(({ a, arc }, i) => {
      const before = sides[(i + sides.length - 1) % sides.length];
      if (!arc || !before.arc) put(a.x, a.y);
      if (!arc) return;
      // Where an arc runs level: its normal lies along the axis as seen in its own plane.
      const level = Math.atan2(m[9], m[8]);
      for (const angle of [level, level + Math.PI])
        if (alongArc(arc, angle) < 1) {
          const { x, y } = onCircle(arc, angle);
          put(x, y);
        }
    });
  }
  const once = distinct(heights);
  return once.length <= MOST_BREAKS ? once : [];
}

/**
 * A new form without what is hollow already, so that no wood is taken twice: in stretches along its axis, each exact where what lies
 * there runs the same way, else in levels. The parts stay in the new form’s frame.
 */
export function carved(form: Form, before: readonly Before[]): Form[] {
  const near = before.filter((other) => meets(form, other));
  if (near.length === 0) return [form];
  const spans = near.map((other): Span => {
    const { min, max } = movedBox(other.form, other.m);
    const [from, to] = [min[2], max[2]];
    const alike = Math.abs(turnDirection(other.m, [0, 0, 1])[2]) > 1 - 1e-9;
    return alike && other.form.kind === 'prism'
      ? { other, from, to, fixed: sectionAt(other.form, other.m, (from + to) / 2) }
      : { other, from, to };
  });
  const stops = [form.z0, ...spans.flatMap(({ other, from, to }) => [from, to, ...breaksOf(other)]), form.z1]
    .filter((z) => z >= form.z0 && z <= form.z1)
    .sort(upwards);
  const parts: Form[] = [];
  let untouched = true;
  const beside = (region: Region, z: number, here: readonly Span[]): Region => {
    const left = leftAt(region, z, here);
    if (left !== region) untouched = false;
    return left;
  };
  for (let i = 0; i + 1 < stops.length; i++) {
    const [z0, z1] = [stops[i], stops[i + 1]];
    if (z1 - z0 < 1e-9) continue;
    const mid = (z0 + z1) / 2;
    const here = spans.filter(({ from, to }) => from < mid && to > mid);
    if (form.kind === 'prism' && here.every(({ fixed }) => fixed)) {
      const region = beside(form.region, mid, here);
      if (region.length > 0) parts.push({ kind: 'prism', region, z0, z1 });
      continue;
    }
    const levels =
      form.kind === 'levels'
        ? form.levels.filter(({ z }) => z > z0 && z <= z1)
        : levelsBetween(z0, z1).map((level) => ({ ...level, region: form.region }));
    parts.push({
      kind: 'levels',
      z0,
      z1,
      levels: levels.map((level) => ({ ...level, region: beside(level.region, level.z, here) })),
    });
  }
  // By their boxes they might have met, and do not.
  return untouched ? [form] : parts;
}
