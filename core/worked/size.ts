import { sumOf } from '../units';
import { type BuildDocument, DIMENSIONS, type DimensionName, type Step } from '../document';
import { run } from '../run';
import { type Axis, extents } from '../solid';
import { stepTitle, type Timeline, type TimelineStep, type WorkPiece } from '../steps';
import { number, type Sum, valueOf, type Worked } from './sums';

/** Sizes nearer than this are one, mm. */
export const SAME_MM = 1e-6;
/** The most steps a size is followed back through. */
const MOST_DEEP = 60;

interface Walk {
  build: BuildDocument;
  timeline: Timeline;
}

const sizeOf = (piece: WorkPiece, axis: Axis): number => extents(piece.blank)[axis];
const AXES: readonly Axis[] = [0, 1, 2];

/** The step that a piece came out of before `before`. */
function makerOfPiece({ timeline }: Walk, piece: WorkPiece, before: number): number {
  for (let i = before - 1; i >= 0; i--)
    if (timeline.steps[i].pieces.some(({ id }) => id === piece.id)) return i;
  return -1;
}

/** What one piece measures after a step, followed back to what was ripped, sliced or was there. */
function pieceSum(walk: Walk, piece: WorkPiece, at: { step: number; axis: Axis; deep: number }): Sum {
  const { build, timeline } = walk;
  const { step, axis, deep } = at;
  const entry = timeline.steps[step];
  const size = sizeOf(piece, axis);
  const source = build.steps.find(({ id }) => id === entry.id) as Step;
  const end = number(size, 'length', `${DIMENSIONS[axis]} after ${stepTitle(build, source)}`);
  if (deep > MOST_DEEP || entry.predicted !== undefined) return end;
  if (entry.laid && entry.entered.length > 1) return laidSum(walk, entry, { step, deep, size, end });
  // One piece in, one out: what it measured before, less what the step took.
  const before =
    entry.entered.find(({ id }) => id === piece.id) ??
    (entry.entered.length === entry.pieces.length ? entry.entered[entry.pieces.indexOf(piece)] : undefined);
  if (!before) return end;
  const from = makerOfPiece(walk, before, step);
  if (from < 0) return end;
  // A turn changes the names of sizes: the one that is as large now is the one it was.
  const same = AXES.find((each) => Math.abs(sizeOf(before, each) - size) < SAME_MM);
  const was = Math.abs(sizeOf(before, axis) - size) < SAME_MM ? axis : (same ?? axis);
  const earlier = pieceSum(walk, before, { step: from, axis: was, deep: deep + 1 });
  const taken = sizeOf(before, was) - size;
  if (Math.abs(taken) < SAME_MM) return earlier;
  if (taken < 0) return end;
  const less = number(taken, 'length', `${stepTitle(build, source)} takes`);
  return earlier.is === 'less'
    ? { ...earlier, of: [...earlier.of, less] }
    : { is: 'less', from: earlier, of: [less] };
}

/** A glued size as the sum of its parts, alike ones multiplied; where they do not add up, the size as it came out. */
function laidSum(
  walk: Walk,
  entry: TimelineStep,
  { step, deep, size, end }: { step: number; deep: number; size: number; end: Sum },
): Sum {
  for (const along of AXES) {
    const total = sumOf(entry.entered, (part) => sizeOf(part, along));
    if (Math.abs(total - size) > SAME_MM) continue;
    const groups: { sum: Sum; count: number }[] = [];
    for (const part of entry.entered) {
      const from = makerOfPiece(walk, part, step);
      const sum =
        from < 0
          ? number(sizeOf(part, along), 'length', `${DIMENSIONS[along]} of a part`)
          : pieceSum(walk, part, { step: from, axis: along, deep: deep + 1 });
      const known = groups.find((each) => JSON.stringify(each.sum) === JSON.stringify(sum));
      if (known) known.count += 1;
      else groups.push({ sum, count: 1 });
    }
    const terms = groups.map(
      ({ sum, count }): Sum =>
        count === 1 ? sum : { is: 'times', of: [number(count, 'count', 'parts alike'), sum] },
    );
    return terms.length === 1 ? terms[0] : { is: 'add', of: terms };
  }
  // Parts lie along this axis: each is as long as the whole.
  const alike = AXES.find((each) =>
    entry.entered.every((part) => Math.abs(sizeOf(part, each) - size) < SAME_MM),
  );
  const [first] = entry.entered;
  const from = first && alike !== undefined ? makerOfPiece(walk, first, step) : -1;
  return from < 0 || alike === undefined
    ? end
    : pieceSum(walk, first, { step: from, axis: alike, deep: deep + 1 });
}

/**
 * How a size of one piece in the middle of the work is made up, as it is before step `before`. Undefined where the steps do not add
 * up to it, or where there is nothing to add: the size as it was cut.
 */
export function pieceWorked(
  walk: Walk,
  piece: WorkPiece,
  { axis, before }: { axis: Axis; before: number },
): Omit<Worked, 'title'> | undefined {
  const step = makerOfPiece(walk, piece, before);
  if (step < 0) return undefined;
  const sum = pieceSum(walk, piece, { step, axis, deep: 0 });
  if (sum.is === 'number' || Math.abs(valueOf(sum) - sizeOf(piece, axis)) > 1e-3) return undefined;
  return {
    sum,
    unit: 'length',
    source:
      'Adding and taking away: exact, as far as saws and machines are set so. How far off that may be is said beside each size.',
  };
}

/** The piece that is wanted, the largest in a dimension, and the step it comes out of. */
function comesOut(
  build: BuildDocument,
  dimension: DimensionName,
  target: BuildDocument['targets'][number] | undefined,
) {
  const timeline = run(build);
  const wanted = timeline.wanted.find((each) => each.target === target?.id)?.step ?? timeline.finished;
  const axis = DIMENSIONS.indexOf(dimension) as Axis;
  const piece = wanted?.pieces.find((each) => Math.abs(sizeOf(each, axis) - wanted.greatest[axis]) < SAME_MM);
  return { timeline, wanted, axis, piece };
}

/**
 * How a size that comes out is made up, from what was ripped, sliced or there to the last cut. Undefined where it does not
 * come out, or the steps do not add up to it (curves, oblique cuts): nothing is shown then that could not be checked.
 */
export function workedSize(
  build: BuildDocument,
  dimension: DimensionName,
  target = build.targets[0],
): Worked | undefined {
  const { timeline, wanted, axis, piece } = comesOut(build, dimension, target);
  const step = wanted ? timeline.steps.indexOf(wanted) : -1;
  if (!piece || step < 0) return undefined;
  const sum = pieceSum({ build, timeline }, piece, { step, axis, deep: 0 });
  if (Math.abs(valueOf(sum) - sizeOf(piece, axis)) > 1e-3) return undefined;
  return {
    title: `${dimension.charAt(0).toUpperCase()}${dimension.slice(1)} that comes out`,
    sum,
    unit: 'length',
    source:
      'Adding and taking away: exact, as far as saws and machines are set so. How far off that may be is said beside each size.',
  };
}

/** How far off a size may be, nine times in ten: independent errors add up as the root of their squares (GUM, JCGM 100:2008, 5.1.2). */
export function workedTolerance(
  build: BuildDocument,
  dimension: DimensionName,
  target = build.targets[0],
): Worked | undefined {
  const { timeline, axis, piece } = comesOut(build, dimension, target);
  if (!piece) return undefined;
  const squares = Object.entries(piece.errors[axis]).flatMap(([id, share]): Sum[] => {
    const source = timeline.sources.get(id);
    if (!source || share === 0 || source.likelyMm === 0) return [];
    const one: Sum = {
      is: 'times',
      of: [
        number(Math.abs(share), 'count', `how often “${source.label}” counts`),
        number(source.likelyMm, 'length', `usual error of “${source.label}” (${source.basis})`),
      ],
    };
    return [{ is: 'times', of: [one, one] }];
  });
  if (squares.length === 0) return undefined;
  return {
    title: `Usual error of the ${dimension}, nine times in ten`,
    sum: { is: 'root', of: { is: 'add', of: squares } },
    unit: 'length',
    source:
      'Independent errors as the root of the sum of their squares (JCGM 100:2008, GUM, 5.1.2). The errors of machines are common practice until this shop measures its own.',
  };
}
