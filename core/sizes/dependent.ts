import {
  type BuildDocument,
  type DependentSize,
  DIMENSIONS,
  type DimensionName,
  type Target,
} from '../document';
import type { Timeline, TimelineStep } from '../steps';
import { type Formula, FormulaError, nameKey, namesIn, readFormula, workOut } from './formula';

/** A size that comes out of the job, as formulas call it. */
export interface OutputSize {
  name: string;
  mm: number;
  target: string;
  dimension: DimensionName;
}

/** A dependent size as it comes to now, or why it does not. */
export interface SizeOutcome {
  id: string;
  name: string;
  mm?: number;
  error?: string;
  /** Sizes that come out of the job and that it follows, with how much it changes for one more of each. */
  follows: { output: OutputSize; rate: number }[];
  /** By how much it misses what it must be, mm; missing where nothing is wanted, or it is met. */
  missesMm?: number;
}

const stepOf = (target: Target, { wanted, finished }: Timeline, first: boolean): TimelineStep | undefined =>
  wanted.find((each) => each.target === target.id)?.step ?? (first ? finished : undefined);

/**
 * The sizes that come out, by name: `length`, `width` and `thickness` of the first piece wanted, and of several pieces each with what
 * it is called before them. As predicted, or as measured.
 */
export function outputSizes(build: BuildDocument, timeline: Timeline): OutputSize[] {
  return build.targets.flatMap((target, i) => {
    const step = stepOf(target, timeline, i === 0);
    if (!step) return [];
    const purpose = nameKey(target.purpose)
      .replaceAll(/[^\p{L}\p{N} ]/gu, ' ')
      .replaceAll(/\s+/g, ' ')
      .trim();
    return DIMENSIONS.flatMap((dimension, axis): OutputSize[] => {
      const own = { mm: step.greatest[axis], target: target.id, dimension };
      return [
        ...(i === 0 ? [{ ...own, name: dimension as string }] : []),
        ...(build.targets.length > 1 && /^\p{L}/u.test(purpose)
          ? [{ ...own, name: `${purpose} ${dimension}` }]
          : []),
      ];
    });
  });
}

/** How far a size is from what it must be, mm; 0 where it is met. */
export function missed({ wanted }: Pick<DependentSize, 'wanted'>, mm: number, tolerance: number): number {
  const value = wanted?.value?.mm;
  if (!wanted || value === undefined || wanted.aim === 'free') return 0;
  const off = mm - value;
  if (Math.abs(off) <= tolerance) return 0;
  if (wanted.aim === 'atLeast') return Math.min(0, off);
  if (wanted.aim === 'atMost') return Math.max(0, off);
  return off;
}

/** The members of a circle that a name is in; undefined where it is in none. */
function circleOf(name: string, uses: ReadonlyMap<string, readonly string[]>): string[] | undefined {
  const walk = (at: string, path: readonly string[]): string[] | undefined => {
    for (const next of uses.get(at) ?? []) {
      if (next === name) return [...path, name];
      if (path.includes(next)) continue;
      const found = walk(next, [...path, next]);
      if (found) return found;
    }
    return undefined;
  };
  return walk(name, [name]);
}

/** All dependent sizes of a job as they come to now, in their order; each with its own reason where it does not. */
export function dependentSizes(build: BuildDocument, timeline: Timeline): SizeOutcome[] {
  const sizes = build.sizes ?? [];
  if (sizes.length === 0) return [];
  const outputs = outputSizes(build, timeline);
  // A size of one's own goes before one that comes out of the same name.
  const ownNames = sizes.map(({ name }) => nameKey(name));
  const free = outputs.filter(({ name }) => !ownNames.includes(name));
  const known = [...ownNames, ...free.map(({ name }) => name)];
  const { display, settingStep } = build.shop;
  const read = new Map<string, Formula>();
  const reasons = new Map<string, string>();
  sizes.forEach(({ id, formula }, i) => {
    const name = ownNames[i];
    const words = nameKey(name);
    if (!/^\p{L}[\p{L}\p{N} ]*$/u.test(words))
      reasons.set(id, 'A name begins with a letter, and has letters, numbers and spaces.');
    else if (ownNames.indexOf(name) !== i) reasons.set(id, `“${name}” stands twice.`);
    else
      try {
        read.set(name, readFormula(formula, known, display.system));
      } catch (error) {
        if (!(error instanceof FormulaError)) throw error;
        reasons.set(id, error.message);
      }
  });
  const uses = new Map([...read].map(([name, formula]) => [name, namesIn(formula)] as const));
  const valueWith = (change?: OutputSize) => {
    const done = new Map<string, number>();
    const value = (name: string): number => {
      const before = done.get(name);
      if (before !== undefined) return before;
      const formula = read.get(name);
      const output = free.find((each) => each.name === name);
      let mm: number;
      if (formula) mm = workOut(formula, value);
      else if (output)
        mm = output.mm + (change?.target === output.target && change.dimension === output.dimension ? 1 : 0);
      else throw new FormulaError(`“${name}” has no size yet.`);
      done.set(name, mm);
      return mm;
    };
    return value;
  };
  const now = valueWith();
  const tolerance = Math.max(0.005, settingStep.mm / 2);
  return sizes.map((size, i) => {
    const name = ownNames[i];
    const bare = { id: size.id, name: size.name, follows: [] };
    const reason = reasons.get(size.id);
    if (reason) return { ...bare, error: reason };
    const circle = circleOf(name, uses);
    if (circle)
      return { ...bare, error: `These follow from one another in a circle: ${circle.join(' → ')}.` };
    try {
      // What it uses may be in a circle of its own.
      const bad = [...reach(name, uses)].find((each) => circleOf(each, uses));
      if (bad) throw new FormulaError(`“${bad}” follows from itself: mend that first.`);
      const mm = now(name);
      const dims = free.filter(
        (each, at) =>
          free.findIndex((one) => one.target === each.target && one.dimension === each.dimension) === at,
      );
      const follows = dims.flatMap((output) => {
        const rate = valueWith(output)(name) - mm;
        return Math.abs(rate) > 1e-9 ? [{ output, rate }] : [];
      });
      const off = missed(size, mm, tolerance);
      return {
        ...bare,
        mm,
        follows,
        ...(mm <= 0 ? { error: 'Nothing is left: it comes to less than nothing.' } : {}),
        ...(off === 0 ? {} : { missesMm: off }),
      };
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      return { ...bare, error: error.message };
    }
  });
}

/** All names that a name leads to. */
function reach(name: string, uses: ReadonlyMap<string, readonly string[]>): Set<string> {
  const seen = new Set<string>();
  const open = [...(uses.get(name) ?? [])];
  while (open.length > 0) {
    const next = open.pop() as string;
    if (seen.has(next)) continue;
    seen.add(next);
    open.push(...(uses.get(next) ?? []));
  }
  return seen;
}
