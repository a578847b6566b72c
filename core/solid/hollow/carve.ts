import { type Region, subtracted } from '../../curve';
import { turnDirection, type Rigid } from '../rigid';
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

/** What of a region is left at a height beside what is hollow there. */
const leftAt = (region: Region, z: number, others: readonly Before[]): Region =>
  others.reduce<Region>((left, { form, m }) => subtracted(left, sectionAt(form, m, z)), region);

/**
 * A new form without what is hollow already, so that no wood is taken twice: in stretches along its axis, each exact where what lies
 * there runs the same way, else in levels. The parts stay in the new form’s frame.
 */
export function carved(form: Form, before: readonly Before[]): Form[] {
  const near = before.filter((other) => meets(form, other));
  if (near.length === 0) return [form];
  const spans = near.map((other) => {
    const { min, max } = movedBox(other.form, other.m);
    const alike = Math.abs(turnDirection(other.m, [0, 0, 1])[2]) > 1 - 1e-9;
    return { other, from: min[2], to: max[2], exact: alike && other.form.kind === 'prism' };
  });
  const stops = [form.z0, ...spans.flatMap(({ from, to }) => [from, to]), form.z1]
    .filter((z) => z >= form.z0 && z <= form.z1)
    .sort((a, b) => a - b);
  const parts: Form[] = [];
  for (let i = 0; i + 1 < stops.length; i++) {
    const [z0, z1] = [stops[i], stops[i + 1]];
    if (z1 - z0 < 1e-9) continue;
    const mid = (z0 + z1) / 2;
    const here = spans.filter(({ from, to }) => from < mid && to > mid);
    const others = here.map(({ other }) => other);
    if (form.kind === 'prism' && here.every(({ exact }) => exact)) {
      const region = leftAt(form.region, mid, others);
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
      levels: levels.map((level) => ({ ...level, region: leftAt(level.region, level.z, others) })),
    });
  }
  return parts;
}
