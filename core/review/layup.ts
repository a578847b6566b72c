import type { Finding, Fix, GlueStep, Step, TrimStep } from '../build';
import { assemblyOf, firstOf, makerOf, makersOf, ripOf, usersOf } from '../build';
import { AXIS_NAMES, extents, type Axis } from '../solid';
import type { ReviewContext } from './review';

/** Parts that are placed one by one rather than butted: they may differ, and need not end together. */
const isPlaced = (step: GlueStep): boolean =>
  step.parts?.some(({ place }) => place?.x !== undefined || place?.about !== undefined) ?? false;

/** What a trim takes off the pattern's length: where one end loses more on purpose, twice the other. */
const trimmed = ({ start, end, uneven }: TrimStep): number =>
  uneven ? 2 * Math.min(start.mm, end.mm) : start.mm + end.mm;

/** Neighbours of unequal thickness leave a step that has to be planed away. */
export function thicknessSteps(step: Step, context: ReviewContext): Finding[] {
  const laid = context.timeline.steps.find(({ id }) => id === step.id)?.laid;
  if (
    step.kind !== 'glue' ||
    !laid ||
    isPlaced(step) ||
    step.along === 'thickness' ||
    step.rows?.across === 'thickness'
  )
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
  const thinnest = slots.length
    ? slots.reduce((a, b) => (b.thickness.mm < a.thickness.mm ? b : a))
    : undefined;
  const fixes: Fix[] = thinnest
    ? [
        {
          label: 'Bring all strips to the thinnest',
          edit: { do: 'setAllSlots', step: step.id, change: { thickness: thinnest.thickness } },
        },
      ]
    : [];
  return [
    {
      code: 'thickness-step',
      step: step.id,
      severity: 'warning',
      axis: 2,
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
  if (step.kind !== 'glue' || !laid || step.rows || isPlaced(step)) return [];
  const axis: Axis = step.along === 'width' ? 0 : 1;
  const sizes = laid.map((part) => part.max[axis] - part.min[axis]);
  const ragged = Math.max(...sizes) - Math.min(...sizes);
  if (ragged < context.build.shop.noticeableStep.mm) return [];
  const shortest = assemblyOf(context.build, step.id)?.slots.reduce((a, b) =>
    b.length.mm < a.length.mm ? b : a,
  );
  const fixes: Fix[] =
    shortest && axis === 0
      ? [
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
      axis,
      message: [
        `The parts differ by `,
        { mm: ragged },
        ` in ${AXIS_NAMES[axis]}: only what the shortest gives is a full piece.`,
      ],
      numbers: { difference: ragged, shortest: Math.min(...sizes) },
      fixes,
    },
  ];
}

/** Turning slices end for end makes a chequer only when the number of columns is even. */
export function oddChequer(step: Step, context: ReviewContext): Finding[] {
  if (step.kind !== 'glue' || step.along !== 'length' || step.turns?.turn !== 'endForEnd') return [];
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
      axis: 1,
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
                edit: { do: 'removeStrip' as const, step: rip.id, piece: slots[slots.length - 1].id },
              },
            ]
          : []),
      ],
    },
  ];
}

function upstreamSlice(step: Step, context: ReviewContext): Step | undefined {
  return firstOf(makersOf(context.build, step.inputs[0] ?? ''), ({ kind }) => kind === 'slice');
}

/** Fewer slices than asked for, or than the finished length needs. */
export function sliceCounts(step: Step, context: ReviewContext): Finding[] {
  if (step.kind !== 'slice') return [];
  const { build, timeline } = context;
  const entry = timeline.steps.find(({ id }) => id === step.id);
  const saw = build.shop.saws.find(({ id }) => id === step.saw);
  const rip = ripOf(build, makerOf(build, step.inputs[0] ?? '')?.id ?? '');
  if (!entry || !saw) return [];
  const got = entry.pieces.length;
  const out: Finding[] = [];
  if (entry.wanted !== undefined && got < entry.wanted) {
    const blank = Math.min(...context.before(step).map((piece) => extents(piece.blank)[0]));
    const needed = step.head.mm + saw.kerf.mm + step.count * (step.thickness.mm + saw.kerf.mm);
    const short = Math.max(0, needed - blank);
    out.push({
      code: 'slices-do-not-fit',
      step: step.id,
      severity: 'warning',
      axis: 0,
      message: [
        { count: entry.wanted },
        ' slices are asked for and ',
        { count: got },
        ' fit: the blank is ',
        { mm: blank },
        ' and would have to be ',
        { mm: needed },
        '.',
      ],
      numbers: { wanted: entry.wanted, fit: got, blank, needed, short },
      fixes: [
        ...(rip
          ? [
              {
                label: 'Make the strips long enough',
                edit: { do: 'lengthenStrips' as const, step: rip.id, byMm: short },
              },
            ]
          : []),
        { label: `Cut ${got} slices`, edit: { do: 'setStep', step: step.id, change: { count: got } } },
      ],
    });
  }
  return [...out, ...rowsNeeded(step, context)];
}

function rowsNeeded(step: Extract<Step, { kind: 'slice' }>, { build, timeline }: ReviewContext): Finding[] {
  const glue = firstOf(usersOf(build, step.output), ({ kind }) => kind === 'glue');
  const block = timeline.steps.find(({ id }) => id === glue?.id);
  const aim = build.targets[0]?.length;
  if (!glue || !block?.laid || !aim?.value || aim.aim === 'free' || aim.aim === 'atMost') return [];
  const trims = build.steps.reduce((sum, s) => sum + (s.kind === 'trim' ? trimmed(s) : 0), 0);
  const row = block.laid[0].max[0] - block.laid[0].min[0];
  const short = aim.value.mm + trims - block.greatest[0];
  if (short <= 1e-6) return [];
  const more = Math.ceil(short / row - 1e-6);
  const saw = build.shop.saws.find(({ id }) => id === step.saw);
  const rip = ripOf(build, makerOf(build, step.inputs[0] ?? '')?.id ?? '');
  const fixes: Fix[] = [
    {
      label: `Lay in ${more} more`,
      edit: { do: 'addRows', step: glue.id, rows: more },
    },
  ];
  if (rip && saw) fixes.push({ label: 'Plan the strips again', edit: { do: 'replan' } });
  return [
    {
      code: 'too-few-slices',
      step: step.id,
      severity: 'warning',
      axis: 0,
      message: [
        { count: block.laid.length },
        ' rows of ',
        { mm: row },
        ' give ',
        { mm: block.greatest[0] },
        '; ',
        { mm: aim.value.mm + trims },
        ' is needed with the trims. ',
        { count: more },
        more === 1 ? ' slice is missing.' : ' slices are missing.',
      ],
      numbers: {
        rows: block.laid.length,
        row,
        length: block.greatest[0],
        needed: aim.value.mm + trims,
        missing: more,
      },
      fixes: build.brief ? fixes : fixes.slice(0, 1),
    },
  ];
}
