import { type BuildDocument, type Finding, type Fix, firstOf, makersOf, type Step } from '../document';
import { dependentSizes, type SizeOutcome } from '../sizes';
import { roomOf } from '../steps';
import { lengthText } from '../units';
import type { ReviewContext } from './context';

/** Dependent sizes that miss what they must be: which piece to bring to which size, so that they do. */
export function sizesMissed({ build, timeline }: ReviewContext): Finding[] {
  return dependentSizes(build, timeline).flatMap((size) => {
    const { mm, missesMm } = size;
    const own = build.sizes?.find(({ id }) => id === size.id);
    const value = own?.wanted?.value?.mm;
    if (mm === undefined || missesMm === undefined || !own?.wanted || value === undefined) return [];
    const must = { fixed: '', atLeast: 'at least ', atMost: 'at most ', free: '' }[own.wanted.aim];
    return [
      {
        code: 'size-missed' as const,
        step: '',
        severity: 'warning' as const,
        message: [
          `“${size.name}” comes to `,
          { mm },
          ` and must be ${must}`,
          { mm: value },
          missesMm > 0 ? ': too long by ' : ': too short by ',
          { mm: Math.abs(missesMm) },
          '.',
        ],
        numbers: { comes: mm, must: value, off: missesMm },
        fixes: size.follows.flatMap((each) => bring(build, each, missesMm)),
      },
    ];
  });
}

/** The last step before a piece is finished that can bring a dimension to a size. */
function bring(
  build: BuildDocument,
  { output, rate }: SizeOutcome['follows'][number],
  missesMm: number,
): Fix[] {
  const mm = output.mm - missesMm / rate;
  const target = build.targets.find(({ id }) => id === output.target);
  if (!target || !(mm > 0)) return [];
  const can = (step: Step) => offOf(step) !== undefined;
  const offOf = (step: Step) =>
    roomOf(step)
      .takesOff?.(step)
      .find(({ dimension, reach }) => dimension === output.dimension && reach);
  const last = build.steps.find((step) => step.output === target.output);
  const step = last && can(last) ? last : firstOf(makersOf(build, target.output), can);
  const reach = step && offOf(step)?.reach;
  if (!step || !reach || step.done) return [];
  const what =
    build.targets.length > 1 && target.purpose ? `${target.purpose}, ${output.dimension}` : output.dimension;
  const to = lengthText(mm, build.shop.display);
  const edit = { do: 'setStep' as const, step: step.id, change: { [reach.to]: { mm } } };
  return [
    {
      label: `Bring the ${what} to ${to}`,
      edit:
        target[output.dimension].aim === 'free'
          ? edit
          : {
              do: 'many',
              edits: [
                edit,
                {
                  do: 'setAim',
                  dimension: output.dimension,
                  aim: { ...target[output.dimension], value: { mm } },
                  target: target.id,
                },
              ],
            },
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A size that follows from others is not what it must be. */
    'size-missed': true;
  }
}
