import { falling } from '../units';
import { type BuildDocument, DIMENSIONS, type DimensionName, type Finding } from '../document';
import { run } from '../run';
import { type Axis, extents } from '../solid';
import { stepTitle } from '../steps';
import { isExplained } from './explained';
import { workedClamps, workedGlue } from './gluing';
import { pieceWorked, SAME_MM, workedSize, workedTolerance } from './size';
import { number, type Sum, type Unit, valueOf, type Worked } from './sums';

/** Numbers of a finding by their names. */
type Numbers = Readonly<Record<string, number>>;

/** A calculation with nothing but numbers of a finding; undefined where its numbers are not of that kind. */
interface Formula {
  /** The numbers it wants. */
  keys: readonly string[];
  of: (numbers: Numbers) => { title: string; sum: Sum; unit: Unit } | undefined;
}
const difference = (
  title: string,
  from: readonly [key: string, name: string],
  less: readonly [key: string, name: string],
  { result, unit = 'length' }: { result?: string; unit?: Unit } = {},
): Formula => ({
  keys: [from[0], less[0], ...(result ? [result] : [])],
  of: (numbers) => {
    const [a, b] = [numbers[from[0]], numbers[less[0]]];
    if (a < b || (result && Math.abs(a - b - numbers[result]) > SAME_MM)) return undefined;
    return {
      title,
      unit,
      sum: { is: 'less', from: number(a, unit, from[1]), of: [number(b, unit, less[1])] },
    };
  },
});
/** A trim that takes more from one side: the pattern lies off the middle by half of what is more. */
const drift = (one: string, other: string): Formula => ({
  keys: ['drift', one, other],
  of: (numbers) => {
    const [most, least] = [one, other].toSorted(falling((a) => numbers[a]));
    return {
      title: 'Off the middle by',
      unit: 'length',
      sum: {
        is: 'over',
        top: {
          is: 'less',
          from: number(numbers[most], 'length', `off one side (${most})`),
          of: [number(numbers[least], 'length', `off the other (${least})`)],
        },
        under: number(2, 'count', 'half of it on each side'),
      },
    };
  },
});
/** Cuts from both faces against the thickness: what they have to spare, or what they leave between them. */
const fromBothFaces: Formula = {
  keys: ['thickness', 'depth', 'meets'],
  of: ({ thickness, depth, meets }) => {
    const both: Sum = {
      is: 'times',
      of: [number(2, 'count', 'one cut from each face'), number(depth, 'length', 'deepest cut of the saw')],
    };
    const thick = number(thickness, 'length', 'thickness here');
    return {
      title: meets < 0 ? 'Left between two cuts, one from each face' : 'To spare where two cuts meet',
      unit: 'length',
      sum: meets < 0 ? { is: 'less', from: thick, of: [both] } : { is: 'less', from: both, of: [thick] },
    };
  },
};
/** A size that follows, against what it must be: whichever is larger less the other. */
const missesBy: Formula = {
  keys: ['comes', 'must', 'off'],
  of: ({ comes, must }) => {
    const [is, wanted] = [
      number(comes, 'length', 'what it comes to'),
      number(must, 'length', 'what it must be'),
    ];
    return {
      title: comes > must ? 'Too long by' : 'Too short by',
      unit: 'length',
      sum: comes > must ? { is: 'less', from: is, of: [wanted] } : { is: 'less', from: wanted, of: [is] },
    };
  },
};
/** A leaf as it comes out, less what the saw runs off, against what it must have. */
const leafMargin: Formula = {
  keys: ['leaf', 'off', 'wanted', 'spare'],
  of: ({ leaf, off, wanted, spare }) => {
    const has = number(leaf, 'length', 'a leaf from the middle');
    const run = number(off, 'length', 'the saw may run off by');
    const must = number(wanted, 'length', 'what a leaf must have');
    return {
      title: spare < 0 ? 'Short by' : 'To spare',
      unit: 'length',
      sum:
        spare < 0
          ? { is: 'less', from: { is: 'add', of: [must, run] }, of: [has] }
          : { is: 'less', from: has, of: [run, must] },
    };
  },
};
/** Edges off a right angle: twice the error at each joint that was not paired. */
const turnsInAll: Formula = {
  keys: ['error', 'joints', 'total'],
  of: ({ error, joints }) => ({
    title: 'Degrees in all',
    unit: 'count',
    sum: {
      is: 'times',
      of: [
        number(joints, 'count', 'joints whose edges were planed one by one'),
        number(2, 'count', 'edges at each'),
        number(error, 'share', 'degrees that the tool may be off'),
      ],
    },
  }),
};
const FORMULAS: readonly Formula[] = [
  missesBy,
  leafMargin,
  turnsInAll,
  difference('Short by', ['need', 'what the face must lose'], ['off', 'what is taken off it'], {
    result: 'short',
  }),
  difference(
    'Stays in the piece',
    ['snipe', 'how far the machine cuts deeper'],
    ['cut', 'what later cuts take off'],
    {
      result: 'short',
    },
  ),
  difference('Lacks', ['reached', 'size to reach'], ['least', 'smallest that comes'], { result: 'lacks' }),
  difference('More than the chamfer by', ['off', 'what comes off'], ['chamfer', 'depth of the chamfer']),
  fromBothFaces,
  difference('Comes out by', ['depth', 'how deep it is'], ['thickness', 'thickness of the wood'], {
    result: 'over',
  }),
  difference('Short by', ['depth', 'how deep it is'], ['cutting', 'reach of the cutter'], {
    result: 'short',
  }),
  difference('Too wide by', ['width', 'width here'], ['limit', 'widest that goes'], { result: 'over' }),
  difference('Too wide by', ['width', 'width here'], ['most', 'widest that goes']),
  difference('Too long by', ['length', 'length here'], ['most', 'longest that goes'], { result: 'over' }),
  difference('Too short by', ['least', 'least that goes'], ['length', 'length here'], { result: 'short' }),
  difference('Too short by', ['needed', 'needed'], ['blank', 'length of the blank']),
  difference('Not reached by', ['depth', 'how much lower it lies'], ['off', 'what is taken off'], {
    result: 'short',
  }),
  difference(
    'Deeper than the saw cuts by',
    ['thickness', 'thickness here'],
    ['depth', 'deepest cut of the saw'],
  ),
  difference('Thinner than the kerf by', ['kerf', 'kerf of the saw'], ['trim', 'least that is cut off']),
  difference(
    'Less than the size may be off by',
    ['likely', 'usual error, nine times in ten'],
    ['margin', 'margin'],
  ),
  difference(
    'Most that what went in can leave',
    ['measured', 'what was measured'],
    ['more', 'more than went in can leave'],
  ),
  difference(
    'Over the time of the glue by',
    ['used', 'time that laying up takes'],
    ['has', 'time that the glue leaves'],
    { unit: 'time' },
  ),
  drift('start', 'end'),
  drift('near', 'far'),
  {
    keys: ['needed', 'length', 'row', 'missing'],
    of: ({ needed, length, row }) => ({
      title: 'Slices that are missing',
      unit: 'count',
      sum: {
        is: 'up',
        of: {
          is: 'over',
          top: {
            is: 'less',
            from: number(needed, 'length', 'length that is needed with the trims'),
            of: [number(length, 'length', 'length that the rows give')],
          },
          under: number(row, 'length', 'one row'),
        },
      },
    }),
  },
  {
    keys: ['moves', 'length', 'moisture'],
    of: ({ moves, length, moisture }) => ({
      title: 'One side moves past the other by',
      unit: 'length',
      sum: {
        is: 'times',
        of: [
          number(length, 'length', 'length of the joint across the grain'),
          number(moisture, 'count', 'change of moisture in a year, %'),
          number(moves / (length * moisture), 'share', 'how much more one side swells, for each %'),
        ],
      },
    }),
  },
];

/** Where a number of a finding is looked for among the pieces of its step. */
const SIZE_KEYS: Record<string, DimensionName> = { width: 'width', length: 'length', thickness: 'thickness' };

/** The size of a piece of the finding's step that is one of its numbers, followed back to what was cut. */
function sizes(build: BuildDocument, { step: id, numbers, dimension }: Finding): Worked[] {
  const timeline = run(build);
  const entry = timeline.steps.find((step) => step.id === id);
  const step = build.steps.find((each) => each.id === id);
  if (!entry || !step) return [];
  const at = timeline.steps.indexOf(entry);
  const asked = new Set(Object.keys(numbers).flatMap((key) => SIZE_KEYS[key] ?? []));
  if (dimension) asked.add(dimension);
  return [...asked].flatMap((name): Worked[] => {
    const axis = DIMENSIONS.indexOf(name) as Axis;
    const values = Object.values(numbers);
    const is = (piece: (typeof entry.pieces)[number]) =>
      values.some((value) => Math.abs(extents(piece.blank)[axis] - value) < SAME_MM);
    const goesIn = entry.entered.find(is);
    const piece = goesIn ?? entry.pieces.find(is);
    const worked = piece && pieceWorked({ build, timeline }, piece, { axis, before: goesIn ? at : at + 1 });
    return worked
      ? [{ ...worked, title: `${upper(name)} ${goesIn ? 'before' : 'after'} “${stepTitle(build, step)}”` }]
      : [];
  });
}

const upper = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Which sums of a glue-up a finding is about, by the numbers it names. */
function ofGlue(build: BuildDocument, { code, step, numbers }: Finding): (Worked | undefined)[] {
  if (build.steps.find(({ id }) => id === step)?.kind !== 'glue') return [];
  if (code === 'glue-short') return [workedGlue(build, step)];
  return 'longEnough' in numbers || 'force' in numbers ? [workedClamps(build, step)] : [];
}

/** The formulas that the numbers of a finding fill. */
const formulasOf = ({ numbers }: Finding) =>
  FORMULAS.flatMap(({ keys, of }) =>
    keys.every((key) => Number.isFinite(numbers[key])) ? (of(numbers) ?? []) : [],
  );

/**
 * How the numbers of a finding came about: what it names as more or less, the size of the piece it is about, the clamps or the glue of
 * its glue-up, the size that comes out and how far off that may be. Empty where its numbers are limits and settings alone,
 * which stand in the kit and on the card as they were entered.
 */
export const workedFinding = (build: BuildDocument, finding: Finding): Worked[] =>
  isExplained(finding.code) ? sumsOf(build, finding) : [];

/** The same of any finding, whether or not one of its kind always has a sum. */
export function sumsOf(build: BuildDocument, finding: Finding): Worked[] {
  const { code, numbers, dimension } = finding;
  const own = formulasOf(finding).map((made) => ({
    ...made,
    source:
      'From the numbers of the warning itself. Limits are those of the kit, and a machine’s manual comes before them; movement is by the coefficients of the woods.',
  }));
  const target = dimension && code.startsWith('target-') ? [workedSize(build, dimension)] : [];
  const tolerance = dimension && 'likely' in numbers ? workedTolerance(build, dimension) : undefined;
  const error = tolerance && Math.abs(valueOf(tolerance.sum) - numbers.likely) < SAME_MM ? [tolerance] : [];
  return [...own, ...target, ...sizes(build, finding), ...error, ...ofGlue(build, finding)].filter(
    (worked) => worked !== undefined,
  );
}
