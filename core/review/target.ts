import {
  type BuildDocument,
  type Finding,
  type Fix,
  sawIdOf,
  type Step,
  type DimensionName,
  type Target,
  timesMade,
} from '../document';
import { KERF_OFF, machineFacts, machinesThat } from '../kit';
import {
  asSlicing,
  asTrim,
  flattenings,
  leastSize,
  lengthForSlices,
  noiseOf,
  roomOf,
  type SliceStep,
  stepTitle,
  trims,
} from '../steps';
import { counted, lengthText } from '../units';
import { compareTarget } from './compare';
import type { ReviewContext } from './context';
import { longerStrips, planAgain, sharedChange, waysOut } from './ways';

/** Words before the size that is asked for; a free dimension never misses. */
const AIM_WORDS = { fixed: '', atLeast: 'at least ', atMost: 'at most ', free: '' } as const;

/** The finished piece is not what was asked, with the trim or the new plan that makes it so. */
export function targetMissed(context: ReviewContext): Finding[] {
  return context.build.targets.flatMap((target) => oneMissed(context, target));
}

const countAtOnce = (target: Target, pieces: number): Fix => ({
  label: `Count ${pieces} at once`,
  edit: { do: 'setTarget', target: target.id, change: { atOnce: pieces } },
});

function oneMissed({ build, timeline }: ReviewContext, target: Target): Finding[] {
  const comparison = compareTarget(build, timeline, target);
  const first = target === build.targets[0];
  const finished = first
    ? timeline.finished
    : timeline.wanted.find((each) => each.target === target.id)?.step;
  if (!comparison || !finished) return [];
  const { id, pieces } = finished;
  const wanted = target.atOnce ?? (build.brief ? (build.brief.quantity ?? 1) : pieces.length);
  const whose = build.targets.length > 1 && target.purpose ? `${target.purpose}: the` : 'The';
  const fewer: Finding[] =
    pieces.length < wanted
      ? [
          {
            code: 'fewer-pieces',
            step: id,
            severity: 'warning',
            message: [
              `${pieces.length} of ${wanted} asked for ${pieces.length === 1 ? 'comes' : 'come'} out.`,
            ],
            numbers: { pieces: pieces.length, wanted },
            fixes: target.atOnce === undefined ? [] : [countAtOnce(target, pieces.length)],
          },
        ]
      : [];
  const more: Finding[] =
    !build.brief && pieces.length > (target.atOnce ?? 1) && target.quantity > (target.atOnce ?? 1)
      ? [
          {
            code: 'more-at-once',
            step: id,
            severity: 'warning',
            message: [
              `${pieces.length} come out at once and ${target.atOnce ?? 1} ${(target.atOnce ?? 1) === 1 ? 'is' : 'are'} counted: for ${target.quantity} wanted, its steps would be gone through ${timesMade(build, target)} times.`,
            ],
            numbers: { pieces: pieces.length, counted: target.atOnce ?? 1, wanted: target.quantity },
            fixes: [countAtOnce(target, pieces.length)],
          },
        ]
      : [];
  const missed = comparison
    .filter(({ fits }) => !fits)
    .map((row): Finding => {
      const over = row.differenceMm > 0;
      const { dimension } = row;
      return {
        code: over ? 'target-overshot' : 'target-not-reached',
        step: id,
        severity: 'warning',
        dimension,
        message: [
          `${whose} ${row.dimension} comes out at `,
          { mm: row.predictedMm },
          `; asked for: ${AIM_WORDS[target[row.dimension].aim]}`,
          target[row.dimension].value ?? { mm: row.predictedMm - row.differenceMm },
          '. ',
          over ? 'Too much by ' : 'Short by ',
          { mm: Math.abs(row.differenceMm) },
          '.',
        ],
        numbers: { predicted: row.predictedMm, difference: row.differenceMm },
        fixes: [
          ...(first && !over ? waysOut(build, timeline, dimension, -row.differenceMm) : []),
          ...(first ? targetFixes(build, dimension, row.differenceMm) : []),
          ...acceptWay(build, dimension, row.predictedMm, target),
        ],
      };
    });
  return [...fewer, ...more, ...missed];
}

/** The size that comes out, mm, becomes the size that is wanted; no way where that dimension is free. */
export function acceptWay(
  build: BuildDocument,
  dimension: DimensionName,
  comesMm: number,
  target: Target | undefined = build.targets[0],
): Fix[] {
  if (!target?.[dimension].value) return [];
  return [
    {
      label: `Accept ${lengthText(comesMm, build.shop.display)}`,
      edit: {
        do: 'setAim',
        dimension,
        ...(target === build.targets[0] ? {} : { target: target.id }),
        aim: { aim: 'fixed', value: { mm: comesMm } },
      },
    },
  ];
}

/** The trim or the flattening that takes the difference; a new plan. */
function targetFixes(build: BuildDocument, dimension: DimensionName, difference: number): Fix[] {
  const fixes: Fix[] = [];
  const trim = trims(build).at(-1);
  if (trim && dimension !== 'thickness' && difference > 0) {
    const [a, b] = dimension === 'length' ? (['start', 'end'] as const) : (['near', 'far'] as const);
    const each = difference / 2;
    const change = { [a]: { mm: trim[a].mm + each }, [b]: { mm: trim[b].mm + each } };
    fixes.push({
      label: 'Trim more, the same off both sides',
      edit: { do: 'setStep', step: trim.id, change },
    });
  }
  if (dimension === 'thickness')
    for (const flatten of flattenings(build).toReversed()) {
      const off = sharedChange(flatten.top.mm, flatten.bottom.mm, difference);
      if (off)
        fixes.push({
          label:
            difference < 0
              ? `Take less off: ${stepTitle(build, flatten)}`
              : `Take more off: ${stepTitle(build, flatten)}`,
          edit: {
            do: 'setStep',
            step: flatten.id,
            change: { top: { mm: off[0] }, bottom: { mm: off[1] } },
          },
        });
    }
  if (build.brief) fixes.push({ label: 'Plan the strips again', edit: { do: 'replan' } });
  return fixes;
}

/** Trims that take more from one side than the other move a centre strip off the centre. */
export function lopsidedTrim(step: Step, { build }: ReviewContext): Finding[] {
  const trim = asTrim(step);
  if (!trim || trim.uneven) return [];
  const out: Finding[] = [];
  for (const [a, b, dimension, words] of [
    ['near', 'far', 'width', 'edges'],
    ['start', 'end', 'length', 'ends'],
  ] as const) {
    const difference = Math.abs(trim[a].mm - trim[b].mm);
    const noise = noiseOf(build.shop);
    if (difference < build.shop.settingStep.mm / 2 || difference < noise) continue;
    const mean = { mm: (trim[a].mm + trim[b].mm) / 2 };
    out.push({
      code: 'lopsided-trim',
      step: step.id,
      severity: 'warning',
      dimension,
      message: [
        `The trim takes `,
        ...(trim[a].mm > noise ? [{ mm: trim[a].mm }] : ['nothing']),
        ` and `,
        ...(trim[b].mm > noise ? [{ mm: trim[b].mm }] : ['nothing']),
        ` from the two ${words}: the pattern drifts by `,
        { mm: difference / 2 },
        '.',
      ],
      numbers: { [a]: trim[a].mm, [b]: trim[b].mm, drift: difference / 2 },
      fixes: [
        {
          label: 'Trim both alike',
          edit: { do: 'setStep', step: step.id, change: { [a]: mean, [b]: mean } },
        },
      ],
    });
  }
  return out;
}

/** A margin thinner than the tolerance of what it has to absorb is no margin; and a sawn one needs room for the kerf. */
export function thinMargins(step: Step, context: ReviewContext): Finding[] {
  const before = context.before(step);
  if (before.length === 0) return [];
  const toleranceOf = (dimension: DimensionName) => context.enteringTolerance(step, dimension);
  const noise = noiseOf(context.build.shop);
  const out: Finding[] = [];
  const check = (dimension: DimensionName, margin: number, words: string, fixes: Fix[]) => {
    const { likelyMm, worstMm } = toleranceOf(dimension);
    if (margin <= noise || margin >= likelyMm - noise) return;
    out.push({
      code: 'margin-below-tolerance',
      step: step.id,
      severity: 'warning',
      dimension,
      message: [
        `${words} leaves `,
        { mm: margin },
        ', less than the size may be off by then: ',
        { mm: likelyMm },
        ' nine times in ten, ',
        { mm: worstMm },
        ' at worst.',
      ],
      numbers: { margin, likely: likelyMm, worst: worstMm },
      fixes,
    });
  };
  const replan = planAgain(context.build);
  for (const { dimension, min, max, margin } of roomOf(step).takesOff?.(step) ?? [])
    if (margin) check(dimension, min + max, margin, replan);
  const slicing = asSlicing(step);
  if (slicing) out.push(...sliceMargin(slicing, context, replan));
  return [...out, ...sawnTrim(step, context)];
}

/** What is left of a blank past its slices, what stays in hand with it, is less than the stop may be off by then. */
function sliceMargin(step: SliceStep, { build, before }: ReviewContext, replan: Fix[]): Finding[] {
  const saw = build.shop.saws.find(({ id }) => id === step.saw);
  if (!saw) return [];
  const blank = leastSize(before(step), 'length');
  const spare = blank - lengthForSlices(step.count, { ...step, hold: { mm: 0 } }, saw.kerf.mm);
  const kerf = saw.kerfOff ?? KERF_OFF;
  // The stop is off alike at every slice, and the kerf at every cut; the two are not off together.
  const likely = Math.hypot(step.count * saw.setting.likely.mm, (step.count + 1) * kerf.likely.mm);
  const noise = noiseOf(build.shop);
  if (spare < -noise || spare >= likely - noise) return [];
  return [
    {
      code: 'margin-below-tolerance',
      step: step.id,
      severity: 'warning',
      dimension: 'length',
      message: [
        `After ${counted(step.count, 'slice')} `,
        ...(spare <= noise ? ['nothing'] : [{ mm: spare }]),
        ' is left, less than the stop and the kerf may be off by then: ',
        { mm: likely },
        ' nine times in ten. The last slice may be missing.',
      ],
      numbers: {
        margin: Math.max(0, spare),
        likely,
        worst: step.count * saw.setting.worst.mm + (step.count + 1) * kerf.worst.mm,
      },
      fixes: [
        ...longerStrips(build, step, 2 * likely - spare).map((edit) => ({
          label: 'Lengthen the strips',
          edit,
        })),
        ...replan,
      ],
    },
  ];
}

function sawnTrim(step: Step, { build }: ReviewContext): Finding[] {
  const saw = build.shop.saws.find(({ id }) => id === sawIdOf(step));
  const amounts = (roomOf(step).takesOff?.(step) ?? [])
    .flatMap(({ min, max }) => [min, max])
    .filter((mm) => mm > 1e-6);
  const least = Math.min(...amounts);
  if (!saw || amounts.length === 0 || least >= saw.kerf.mm - 1e-6) return [];
  const plane = machinesThat(build.shop, 'trim').find((each) => machineFacts(each).byHand === 'places');
  return [
    {
      code: 'trim-thinner-than-kerf',
      step: step.id,
      severity: 'warning',
      message: [
        'A sawn trim of ',
        { mm: least },
        ` is thinner than the kerf of ${saw.name}, `,
        { mm: saw.kerf.mm },
        ': the blade runs half in the air and wanders.',
      ],
      numbers: { trim: least, kerf: saw.kerf.mm },
      fixes: [
        ...build.shop.saws
          .filter((other) => other.kerf.mm <= least)
          .map((other) => ({
            label: `Use ${other.name}`,
            edit: { do: 'useSaw' as const, step: step.id, saw: other.id },
          })),
        ...(plane
          ? [
              {
                label: `Plane it: ${plane.name}`,
                edit: { do: 'useCutter' as const, step: step.id, cutter: { machine: plane.id } },
              },
            ]
          : []),
      ],
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Fewer pieces come out than are asked for. */
    'fewer-pieces': true;
    /** More pieces come out at once than are counted: too many would be made. */
    'more-at-once': true;
    /** A dimension comes out larger than asked for. */
    'target-overshot': true;
    /** A dimension comes out smaller than asked for. */
    'target-not-reached': true;
    /** A trim takes more from one side, and the pattern drifts. */
    'lopsided-trim': true;
    /** A margin is less than the size may be off by then. */
    'margin-below-tolerance': true;
    /** A sawn trim is thinner than the kerf. */
    'trim-thinner-than-kerf': true;
  }
}
