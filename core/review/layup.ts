import {
  type Finding,
  firstOf,
  type Fix,
  makerOf,
  makersOf,
  type Slot,
  type Step,
  DIMENSIONS,
} from '../document';
import { meetsAim } from '../plan';
import type { Axis } from '../solid';
import {
  asGlueUp,
  assemblyOf,
  asSlicing,
  type GlueStep,
  heldBack,
  leastSize,
  lengthForSlices,
  noiseOf,
  ripOf,
  sliceBefore,
  sliceIds,
  slicesFrom,
  type SliceStep,
  slicings,
  trims,
} from '../steps';
import { counted, rising, falling } from '../units';
import { targetTolerance } from './compare';
import type { ReviewContext } from './context';
import { acceptWay } from './target';
import { blankLacks, lessInHand, longerStrips, rowsGlueOf, rowWays } from './ways';

/** Parts that are placed one by one rather than butted: they may differ, and need not end together. */
const isPlaced = (step: GlueStep): boolean =>
  step.parts?.some(({ place }) => place?.x !== undefined || place?.about !== undefined) ?? false;

/** Neighbours of unequal thickness leave a step that has to be planed away. */
export function thicknessSteps(step: Step, context: ReviewContext): Finding[] {
  const glue = asGlueUp(step);
  const laid = context.timeline.steps.find(({ id }) => id === step.id)?.laid;
  if (!glue || !laid || isPlaced(glue) || glue.along === 'thickness' || glue.rows?.across === 'thickness')
    return [];
  const limit = context.build.shop.noticeableStep.mm;
  let worst = 0;
  let at = 0;
  for (let i = 1; i < laid.length; i++) {
    const [a, b] = [laid[i - 1], laid[i]];
    const difference = Math.abs(a.max[2] - a.min[2] - (b.max[2] - b.min[2]));
    if (difference > worst) [worst, at] = [difference, i];
  }
  if (worst < limit || at === 0) return [];
  const slots = assemblyOf(context.build, step.id)?.slots ?? [];
  const thickest = slots.reduce<Slot | undefined>(
    (a, b) => (a && a.thickness.mm >= b.thickness.mm ? a : b),
    undefined,
  );
  const thinnest = slots.reduce<Slot | undefined>(
    (a, b) => (a && a.thickness.mm <= b.thickness.mm ? a : b),
    undefined,
  );
  const fixes: Fix[] = [
    ...(thickest
      ? [
          {
            label: 'Saw all strips as thick as the thickest',
            edit: { do: 'setAllSlots' as const, step: step.id, change: { thickness: thickest.thickness } },
          },
        ]
      : []),
    ...(thinnest
      ? [
          {
            label: 'Bring all strips to the thinnest',
            edit: { do: 'setAllSlots' as const, step: step.id, change: { thickness: thinnest.thickness } },
          },
        ]
      : []),
  ];
  return [
    {
      code: 'thickness-step',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        'Parts ',
        { count: at },
        ' and ',
        { count: at + 1 },
        ' differ by ',
        { mm: worst },
        ' in thickness: a step at their joint.',
      ],
      numbers: { first: at, second: at + 1, step: worst, noticeable: limit },
      fixes,
    },
  ];
}

/** Strips of unequal length leave a ragged end. */
export function raggedEnds(step: Step, context: ReviewContext): Finding[] {
  const laid = context.timeline.steps.find(({ id }) => id === step.id)?.laid;
  // Rows of different lengths and placed parts are not flush by themselves: the trim after them is.
  const glue = asGlueUp(step);
  if (!glue || !laid || glue.rows || isPlaced(glue)) return [];
  const axis: Axis = glue.along === 'width' ? 0 : 1;
  // Strips laid across between shifted rows reach over all of them: like is held against like.
  const sizes = laid.filter(({ quarter }) => !quarter).map((part) => part.max[axis] - part.min[axis]);
  const ragged = Math.max(...sizes) - Math.min(...sizes);
  if (ragged < context.build.shop.noticeableStep.mm) return [];
  const slots = assemblyOf(context.build, step.id)?.slots ?? [];
  const [shortest, longest] = [
    slots.toSorted(rising((a) => a.length.mm))[0],
    slots.toSorted(falling((a) => a.length.mm))[0],
  ];
  const fixes: Fix[] =
    shortest && axis === 0
      ? [
          {
            label: 'Cut all strips as long as the longest',
            edit: { do: 'setAllSlots', step: step.id, change: { length: longest.length } },
          },
          {
            label: 'Cut all strips to the shortest',
            edit: { do: 'setAllSlots', step: step.id, change: { length: shortest.length } },
          },
        ]
      : [];
  return [
    {
      code: 'ragged-ends',
      step: step.id,
      severity: 'warning',
      dimension: DIMENSIONS[axis],
      message: [
        `The parts differ by `,
        { mm: ragged },
        ` in ${DIMENSIONS[axis]}: only what the shortest gives is a full piece.`,
      ],
      numbers: { difference: ragged, shortest: Math.min(...sizes) },
      fixes,
    },
  ];
}

/** Turning slices end for end makes a chequer only when the number of columns is even. */
export function oddChequer(step: Step, context: ReviewContext): Finding[] {
  const glue = asGlueUp(step);
  if (glue?.along !== 'length' || glue.turns?.turn !== 'endForEnd') return [];
  // Other patterns turn slices to other ends.
  if (context.build.brief && context.build.brief.pattern !== 'endGrain') return [];
  const slice = upstreamSlice(step, context);
  const rip = slice && ripOf(context.build, makerOf(context.build, slice.inputs[0])?.id ?? '');
  const slots = rip && context.build.assemblies.find(({ id }) => id === rip.assembly)?.slots;
  if (!rip || !slots || slots.length % 2 === 0 || new Set(slots.map((s) => s.species)).size < 2) return [];
  return [
    {
      code: 'odd-columns',
      step: step.id,
      severity: 'warning',
      dimension: 'width',
      message: [
        'The panel has ',
        { count: slots.length },
        ' strips. Turning slices end for end makes a chequer only with an even number: with an odd one each row repeats the last.',
      ],
      numbers: { columns: slots.length },
      fixes: [
        { label: `Add a strip: ${slots.length + 1}`, edit: { do: 'addStrip', step: rip.id } },
        ...(slots.length > 1
          ? [
              {
                label: `Remove the last: ${slots.length - 1}`,
                edit: { do: 'removeStrip' as const, step: rip.id, strip: slots[slots.length - 1].id },
              },
            ]
          : []),
      ],
    },
  ];
}

function upstreamSlice(step: Step, context: ReviewContext): SliceStep | undefined {
  return asSlicing(
    firstOf(makersOf(context.build, step.inputs[0] ?? ''), (each) => asSlicing(each) !== undefined),
  );
}

/** Fewer slices than asked for, or than the finished length needs. */
export function sliceCounts(step: Step, context: ReviewContext): Finding[] {
  const slicing = asSlicing(step);
  return slicing ? [...slicesThatFit(slicing, context), ...rowsNeeded(slicing, context)] : [];
}

function slicesThatFit(step: SliceStep, { build, timeline, before }: ReviewContext): Finding[] {
  const entry = timeline.steps.find(({ id }) => id === step.id);
  const saw = build.shop.saws.find(({ id }) => id === step.saw);
  const entered = before(step);
  if (!entry || !saw || entered.length === 0 || entry.wanted === undefined) return [];
  const spoilt = step.spoilt?.length ?? 0;
  const got = entry.pieces.length + spoilt;
  if (got >= entry.wanted) return [];
  const blank = leastSize(entered, 'length');
  // Slices that were measured are as thick as they are, whatever the stop was set to.
  const cut = entry.predicted ? { ...step, thickness: { mm: entry.greatest[0] } } : step;
  const needed = lengthForSlices(step.count, cut, saw.kerf.mm);
  const fits = slicesFrom(blank, cut, saw.kerf.mm);
  return [
    {
      code: 'slices-do-not-fit',
      step: step.id,
      severity: 'warning',
      dimension: 'length',
      message: [
        `${counted(entry.wanted, 'slice')} ${entry.wanted === 1 ? 'is' : 'are'} asked for and ${got} ${got === 1 ? 'fits' : 'fit'}: the blank is `,
        { mm: blank },
        ' and would have to be ',
        { mm: needed },
        ...(heldBack(step) > 0 ? [', of which ', { mm: heldBack(step) }, ' stay in hand'] : []),
        '.',
      ],
      numbers: {
        wanted: entry.wanted,
        fit: got,
        blank,
        needed,
        hold: heldBack(step),
        short: Math.max(0, needed - blank),
      },
      fixes: [
        ...longerStrips(build, step, blankLacks(build, timeline, cut, step.count)).map((edit) => ({
          label: 'Make the strips long enough',
          edit,
        })),
        ...lessInHand(build, step, blank),
        ...(fits > 0
          ? [
              {
                label: `Cut ${counted(fits, 'slice')}${entered.length > 1 ? ' from each' : ''}`,
                edit: { do: 'setStep' as const, step: step.id, change: { count: fits } },
              },
            ]
          : []),
      ],
    },
  ];
}

/** Rows missing from a length: counted only where the rows make it, and where it really comes out short. */
function rowsNeeded(step: SliceStep, { build, timeline }: ReviewContext): Finding[] {
  const glue = rowsGlueOf(build, step);
  // Rows of several panels are counted once, with the first of them.
  if (glue && sliceBefore(build, glue)?.id !== step.id) return [];
  const block = timeline.steps.find(({ id }) => id === glue?.id);
  const aim = build.targets[0]?.length;
  const { finished } = timeline;
  if (!glue || !block?.laid || !finished || !aim?.value || aim.aim === 'free' || aim.aim === 'atMost')
    return [];
  const after = build.steps.indexOf(glue);
  const trimmed = trims(build)
    .filter((trim) => build.steps.indexOf(trim) > after)
    .reduce((sum, { start, end }) => sum + start.mm + end.mm, 0);
  const short = aim.value.mm - finished.least[0];
  const made = Math.abs(block.least[0] - trimmed - finished.least[0]) < noiseOf(build.shop);
  if (!made || meetsAim(aim, finished.least[0], targetTolerance(build))) return [];
  const own = new Set(
    slicings(build).flatMap((each) => (rowsGlueOf(build, each)?.id === glue.id ? sliceIds(build, each) : [])),
  );
  const rows = block.laid.filter(({ piece }) => own.has(piece));
  if (rows.length === 0) return [];
  const row = rows[0].max[0] - rows[0].min[0];
  const between = block.laid.length > rows.length;
  const more = Math.ceil(short / row - 1e-6);
  return [
    {
      code: 'too-few-slices',
      step: step.id,
      severity: 'warning',
      dimension: 'length',
      message: [
        counted(rows.length, 'row'),
        ' of ',
        { mm: row },
        between ? ' and what lies between them give ' : rows.length === 1 ? ' gives ' : ' give ',
        { mm: block.least[0] },
        '; ',
        { mm: aim.value.mm + trimmed },
        ' is needed with the trims. ',
        more === 1 ? 'One slice is missing.' : `${more} slices are missing.`,
      ],
      numbers: {
        rows: rows.length,
        row,
        length: block.least[0],
        needed: aim.value.mm + trimmed,
        missing: more,
      },
      fixes: [
        ...rowWays(build, timeline, glue, short),
        ...acceptWay(build, 'length', finished.least[0]),
        ...(build.brief ? [{ label: 'Plan the strips again', edit: { do: 'replan' as const } }] : []),
      ],
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Neighbours of unequal thickness leave a step. */
    'thickness-step': true;
    /** Parts of unequal length leave a ragged end. */
    'ragged-ends': true;
    /** A chequer of an odd number of columns repeats its rows. */
    'odd-columns': true;
    /** Fewer slices fit the blank than are asked for. */
    'slices-do-not-fit': true;
    /** The rows do not make the length. */
    'too-few-slices': true;
  }
}
