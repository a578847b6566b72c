import { DIMENSIONS, makerOf, ripOf, type BuildDocument, type Finding, type Fix, type Step } from '../build';
import { extents, type Axis } from '../solid';
import type { ReviewContext } from './review';
import { compareTarget } from './compare';
import { waysOut } from './ways';

/** Words before the size that is asked for; a free dimension never misses. */
const AIM_WORDS = { fixed: '', atLeast: 'at least ', atMost: 'at most ', free: '' } as const;

const trimOf = (build: BuildDocument): Extract<Step, { kind: 'trim' }> | undefined =>
  build.steps.findLast((step): step is Extract<Step, { kind: 'trim' }> => step.kind === 'trim');

/** The finished piece is not what was asked, with the trim or the new plan that makes it so. */
export function targetMissed({ build, timeline }: ReviewContext): Finding[] {
  const comparison = compareTarget(build, timeline);
  if (!comparison || !timeline.finished) return [];
  const { id, pieces } = timeline.finished;
  const wanted = build.brief?.quantity ?? 1;
  const fewer: Finding[] =
    pieces.length < wanted
      ? [
          {
            code: 'fewer-pieces',
            step: id,
            severity: 'warning',
            message: [{ count: pieces.length }, ' come out of ', { count: wanted }, ' asked for.'],
            numbers: { pieces: pieces.length, wanted },
            fixes: [],
          },
        ]
      : [];
  const missed = comparison
    .filter(({ fits }) => !fits)
    .map((row): Finding => {
      const over = row.differenceMm > 0;
      const axis = DIMENSIONS.indexOf(row.dimension) as Axis;
      return {
        code: over ? 'target-overshot' : 'target-not-reached',
        step: id,
        severity: 'warning',
        axis,
        message: [
          `The ${row.dimension} comes out at `,
          { mm: row.predictedMm },
          `; asked for: ${AIM_WORDS[build.targets[0][row.dimension].aim]}`,
          { mm: row.predictedMm - row.differenceMm },
          '. ',
          over ? 'Too much by ' : 'Short by ',
          { mm: Math.abs(row.differenceMm) },
          '.',
        ],
        numbers: { predicted: row.predictedMm, difference: row.differenceMm },
        fixes: [
          ...(over ? [] : waysOut(build, timeline, axis, -row.differenceMm)),
          ...targetFixes(build, axis, row.differenceMm),
        ],
      };
    });
  return [...fewer, ...missed];
}

function targetFixes(build: BuildDocument, axis: Axis, difference: number): Fix[] {
  const fixes: Fix[] = [];
  const trim = trimOf(build);
  const sides = axis === 0 ? (['start', 'end'] as const) : (['near', 'far'] as const);
  if (trim && axis < 2) {
    const [a, b] = sides;
    const each = difference / 2;
    const change = { [a]: { mm: trim[a].mm + each }, [b]: { mm: trim[b].mm + each } };
    if (difference > 0 && trim[a].mm + each >= 0 && trim[b].mm + each >= 0)
      fixes.push({ label: 'Change the trim', edit: { do: 'setStep', step: trim.id, change } });
  }
  const flatten = build.steps.findLast((step) => step.kind === 'flatten');
  if (axis === 2 && flatten?.kind === 'flatten') {
    const each = difference / 2;
    if (flatten.top.mm + each >= 0 && flatten.bottom.mm + each >= 0)
      fixes.push({
        label: 'Change what flattening takes',
        edit: {
          do: 'setStep',
          step: flatten.id,
          change: { top: { mm: flatten.top.mm + each }, bottom: { mm: flatten.bottom.mm + each } },
        },
      });
  }
  if (build.brief) fixes.push({ label: 'Plan the strips again', edit: { do: 'replan' } });
  return fixes;
}

/** Trims that take more from one side than the other move a centre strip off the centre. */
export function lopsidedTrim(step: Step, { build }: ReviewContext): Finding[] {
  if (step.kind !== 'trim' || step.uneven) return [];
  const out: Finding[] = [];
  for (const [a, b, axis, words] of [
    ['near', 'far', 1, 'edges'],
    ['start', 'end', 0, 'ends'],
  ] as const) {
    const difference = Math.abs(step[a].mm - step[b].mm);
    if (difference < build.shop.settingStep.mm / 2 || difference < 0.01) continue;
    const mean = { mm: (step[a].mm + step[b].mm) / 2 };
    out.push({
      code: 'lopsided-trim',
      step: step.id,
      severity: 'warning',
      axis,
      message: [
        `The trim takes `,
        { mm: step[a].mm },
        ` and `,
        { mm: step[b].mm },
        ` from the two ${words}: the pattern drifts by `,
        { mm: difference / 2 },
        '.',
      ],
      numbers: { [a]: step[a].mm, [b]: step[b].mm, drift: difference / 2 },
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
  const toleranceOf = (axis: Axis) => context.enteringTolerance(step, axis);
  const out: Finding[] = [];
  const check = (axis: Axis, margin: number, words: string, fixes: Fix[]) => {
    const { likelyMm, worstMm } = toleranceOf(axis);
    if (margin <= 0 || margin >= likelyMm) return;
    out.push({
      code: 'margin-below-tolerance',
      step: step.id,
      severity: 'warning',
      axis,
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
  const replan: Fix[] = context.build.brief
    ? [{ label: 'Plan again with the shop’s allowances', edit: { do: 'replan' } }]
    : [];
  if (step.kind === 'trim') {
    check(0, step.start.mm + step.end.mm, 'Trimming the ends', replan);
    check(1, step.near.mm + step.far.mm, 'Trimming the edges', replan);
  }
  if (step.kind === 'flatten') check(2, step.top.mm + step.bottom.mm, 'Flattening', replan);
  if (step.kind === 'slice') {
    const saw = context.build.shop.saws.find(({ id }) => id === step.saw);
    const blank = Math.min(...before.map((piece) => extents(piece.blank)[0]));
    const spare =
      blank - step.head.mm - (saw?.kerf.mm ?? 0) - step.count * (step.thickness.mm + (saw?.kerf.mm ?? 0));
    const rip = ripOf(context.build, makerOf(context.build, step.inputs[0] ?? '')?.id ?? '');
    const likely = step.count * (saw?.setting.likely.mm ?? 0);
    if (saw && spare >= 0 && spare < likely)
      out.push({
        code: 'margin-below-tolerance',
        step: step.id,
        severity: 'warning',
        axis: 0,
        message: [
          'After ',
          { count: step.count },
          ' slices ',
          { mm: spare },
          ' is left, less than the stop may be off by then: ',
          { mm: likely },
          ' nine times in ten. The last slice may be missing.',
        ],
        numbers: { margin: spare, likely, worst: step.count * saw.setting.worst.mm },
        fixes: rip
          ? [
              {
                label: 'Lengthen the strips',
                edit: { do: 'lengthenStrips', step: rip.id, byMm: 2 * likely },
              },
              ...replan,
            ]
          : replan,
      });
  }
  return [...out, ...sawnTrim(step, context)];
}

function sawnTrim(step: Step, { build }: ReviewContext): Finding[] {
  if (step.kind !== 'trim' || !('saw' in step.cutter)) return [];
  const id = step.cutter.saw;
  const saw = build.shop.saws.find((candidate) => candidate.id === id);
  const amounts = [step.start.mm, step.end.mm, step.near.mm, step.far.mm].filter((mm) => mm > 1e-6);
  const least = Math.min(...amounts);
  if (!saw || amounts.length === 0 || least >= saw.kerf.mm - 1e-6) return [];
  const plane = build.shop.machines.find(({ kind }) => kind === 'hand planes');
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
