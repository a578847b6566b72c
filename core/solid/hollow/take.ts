import { keyOf } from '../../units';
import type { Blank } from '../blank';
import type { Cell } from '../cell';
import { compose, inverse, type Rigid } from '../rigid';
import type { Vec3 } from '../vec';
import { cellVolume } from '../wood';
import { type Before, carved, meets } from './carve';
import { type Form, type Hollow, movedBox } from './form';
import { formInCell } from './volume';

/** What a form took from a blank. */
export interface Taken {
  blank: Blank;
  /** Wood that is gone, by species, mm3. */
  lost: Record<string, number>;
  /** What of it lies within a part of the form, such as the plug of an opening that falls out whole, by species, mm3. */
  plug: Record<string, number>;
}

/** Less wood than this share of a cell is none: the cell is gone, so that nothing touches it any more. */
const NOTHING = 1e-9;

/** Whether a cell that is a box lies beside another; its first corner is its least, its seventh its greatest. */
function beside({ box, vertices }: Cell, { min, max }: { min: Vec3; max: Vec3 }): boolean {
  if (box === undefined) return false;
  const [low, high] = [vertices[0], vertices[6]];
  return (
    high[0] <= min[0] ||
    low[0] >= max[0] ||
    high[1] <= min[1] ||
    low[1] >= max[1] ||
    high[2] <= min[2] ||
    low[2] >= max[2]
  );
}

/**
 * Takes a form out of a blank: every cell that it meets gets it as a hollow, in the log's frame, without what was hollow there
 * already; cells of which nothing is left are gone. `toForm` is the motion from the blank's frame to the form's. `only` keeps
 * cells out that it must not touch. Pure; the wood of the blank before is that of the blank after and what is lost, to 1e-9.
 */
export function takeOut(
  blank: Blank,
  feature: string,
  { form, toForm, plug }: { form: Form; toForm: Rigid; plug?: Form },
): Taken {
  const lost: Record<string, number> = {};
  const out: Record<string, number> = {};
  const known = new Map<string, Form[]>();
  const names = new Map<Form, number>();
  const nameOf = (each: Form) => {
    if (!names.has(each)) names.set(each, names.size);
    return names.get(each) as number;
  };
  const keyBefore = ({ form: other, m }: Before): string => `${nameOf(other)}:${keyOf(m)}`;
  /** Whether what is hollow already takes a part of the form; told once for each. */
  const shares = (other: Before): boolean => {
    const key = keyBefore(other);
    const parts = known.get(key) ?? carved(form, [other]);
    known.set(key, parts);
    return parts.length !== 1 || parts[0] !== form;
  };
  /** The form without what is hollow already; the same for all cells that were hollowed alike. */
  const partsBeside = (before: readonly Before[]): Form[] => {
    if (before.length === 0) return [form];
    const key = before.map(keyBefore).join(';');
    const parts = known.get(key) ?? carved(form, before);
    known.set(key, parts);
    return parts;
  };
  const cells: Cell[] = [];
  const reach = movedBox(form, inverse(toForm));
  for (const cell of blank.cells) {
    if (beside(cell, reach)) {
      cells.push(cell);
      continue;
    }
    const whole = formInCell(form, cell, toForm);
    if (whole <= 0) {
      cells.push(cell);
      continue;
    }
    const before = (cell.hollows ?? [])
      .map(({ form: other, fromLog }) => ({
        form: other,
        m: compose(toForm, inverse(compose(fromLog, cell.toLog))),
      }))
      .filter((other) => meets(form, other) && shares(other));
    const fromLog = compose(toForm, inverse(cell.toLog));
    const own = partsBeside(before)
      .map((part) => ({ part, mm3: part === form ? whole : formInCell(part, cell, toForm) }))
      .filter(({ mm3 }) => mm3 > 0);
    if (own.length === 0) {
      cells.push(cell);
      continue;
    }
    const was = cellVolume(cell);
    const is = own.reduce((left, { mm3 }) => left - mm3, was);
    const hollows = own.map(({ part }): Hollow => ({ feature, form: part, fromLog }));
    const after: Cell = { ...cell, hollows: [...(cell.hollows ?? []), ...hollows], mm3: is };
    const gone = is <= NOTHING * was;
    const { species } = cell.origin;
    const taken = gone ? was : was - is;
    lost[species] = (lost[species] ?? 0) + taken;
    if (plug) out[species] = (out[species] ?? 0) + Math.min(taken, formInCell(plug, cell, toForm));
    if (!gone) cells.push(after);
  }
  return { blank: { cells }, lost, plug: out };
}
