import {
  DIMENSIONS,
  type Finding,
  type FindingCode,
  type Fix,
  type Phrase,
  sawIdOf,
  type Step,
} from '../document';
import { gluingOf, type Saw } from '../kit';
import { blankVolumes, extents } from '../solid';
import { asTrim, noiseOf, roomOf, type TimelineStep } from '../steps';
import { density, findSpecies } from '../wood';
import type { ReviewContext } from './context';
import { planAgain } from './ways';

/** The saw of a step, where it has one. */
export function sawOfStep(step: Step, { build }: ReviewContext): Saw | undefined {
  return build.shop.saws.find(({ id }) => id === sawIdOf(step));
}

const useSaw = (step: Step, saw: Saw): Fix => ({
  label: `Use ${saw.name}`,
  edit: { do: 'useSaw', step: step.id, saw: saw.id },
});

const massOf = ({ blank }: TimelineStep['pieces'][number]): number =>
  Object.entries(blankVolumes(blank)).reduce((sum, [id, mm3]) => {
    const species = findSpecies(id);
    return sum + (species ? density(species) * mm3 * 1e-9 : 0);
  }, 0);

/** What a saw that the piece is carried over can take: how wide a crosscut, how wide a rip, how heavy a piece. */
export function sawCapacity(step: Step, context: ReviewContext): Finding[] {
  const saw = sawOfStep(step, context);
  const entered = context.before(step);
  const carried = roomOf(step).sawing?.carried;
  if (!saw || entered.length === 0 || !carried) return [];
  const sizes = entered.map(({ blank }) => extents(blank));
  const widest = Math.max(...sizes.map((size) => size[1]));
  const { saws } = context.build.shop;
  const out: Finding[] = [];
  const say = (
    code: FindingCode,
    message: Phrase[],
    { numbers, others, caution }: { numbers: Finding['numbers']; others: Saw[]; caution: string },
  ) =>
    out.push({
      code,
      step: step.id,
      severity: 'warning',
      dimension: 'width',
      message,
      numbers,
      fixes: others.map((other) => useSaw(step, other)),
      caution,
    });
  const crosscut = saw.crosscut?.mm ?? 0;
  if (crosscut > 0 && carried.across(step) && widest > crosscut)
    say(
      'wider-than-crosscut',
      ['The piece is ', { mm: widest }, ` wide; ${saw.name} crosscuts `, { mm: crosscut }, '.'],
      {
        numbers: { width: widest, most: crosscut },
        others: saws.filter(
          (other) => (other.crosscut?.mm ?? 0) === 0 || (other.crosscut?.mm ?? 0) >= widest,
        ),
        caution:
          'A piece wider than the sled or the gauge can carry tips and twists in the cut. Bring the saw to the piece instead.',
      },
    );
  const edges = carried.along?.(step) ?? Infinity;
  const rip = saw.rip?.mm ?? 0;
  const toFence = widest - edges;
  if (rip > 0 && Number.isFinite(edges) && toFence > rip)
    say(
      'wider-than-rip',
      [
        'To trim its edge the piece lies ',
        { mm: toFence },
        ` between blade and fence; ${saw.name} takes `,
        { mm: rip },
        '.',
      ],
      {
        numbers: { width: toFence, most: rip },
        others: saws.filter((other) => (other.rip?.mm ?? 0) === 0 || (other.rip?.mm ?? 0) >= toFence),
        caution: 'Without the fence a wide piece is not guided. Bring a guided saw to it, or plane the edge.',
      },
    );
  const { liftKg, hands } = gluingOf(context.build.shop);
  const heaviest = Math.max(...entered.map(massOf));
  if (crosscut > 0 && heaviest > liftKg * hands)
    say(
      'too-heavy-to-carry-over',
      [
        'The piece weighs ',
        { kg: heaviest },
        ` and is carried over ${saw.name}; this shop lifts `,
        { kg: liftKg * hands },
        '.',
      ],
      {
        numbers: { mass: heaviest, limit: liftKg * hands },
        others: saws.filter((other) => (other.crosscut?.mm ?? 0) === 0),
        caution:
          'A heavy piece tips off the table and pinches the blade. Bring the saw to the piece, or take a second pair of hands.',
      },
    );
  return out;
}

/** A cut that takes less than its saw may be off by: what it leaves may be a sliver, or nothing. */
export function cutMargins(step: Step, context: ReviewContext): Finding[] {
  const trim = asTrim(step);
  const saw = sawOfStep(step, context);
  if (!trim || !saw) return [];
  const noise = noiseOf(context.build.shop);
  const sides = [
    ['the left end', trim.start.mm, 'length'],
    ['the right end', trim.end.mm, 'length'],
    ['the near edge', trim.near.mm, 'width'],
    ['the far edge', trim.far.mm, 'width'],
  ] as const;
  const thin = sides.filter(([, mm]) => mm > noise && mm < saw.setting.likely.mm - noise);
  if (thin.length === 0) return [];
  const [side, mm, dimension] = thin.reduce((a, b) => (b[1] < a[1] ? b : a));
  return [
    {
      code: 'cut-below-tolerance',
      step: step.id,
      severity: 'warning',
      dimension,
      message: [
        `The cut takes `,
        { mm },
        ` off ${side}, less than ${saw.name} may be off by: `,
        { mm: saw.setting.likely.mm },
        ' nine times in ten. The blade may miss the wood.',
      ],
      numbers: { cut: mm, likely: saw.setting.likely.mm, worst: saw.setting.worst.mm },
      fixes: planAgain(context.build),
    },
  ];
}

/** A cut deeper than the saw reaches. */
export function sawReach(step: Step, context: ReviewContext): Finding[] {
  const { sawing } = roomOf(step);
  const saw = sawOfStep(step, context);
  if (!sawing?.reach || !saw) return [];
  const through = DIMENSIONS.indexOf(sawing.through(step));
  // A leaning blade goes through more wood than the piece is thick.
  const leans = sawing.upright?.(step) ?? 1;
  const words = sawing.words?.when?.(step) === false ? undefined : sawing.words;
  const deep = Math.max(0, ...context.before(step).map((piece) => extents(piece.blank)[through])) / leans;
  if (saw.depth.mm === 0 || deep <= saw.depth.mm) return [];
  const deeper = context.build.shop.saws.filter((other) => other.depth.mm >= deep);
  // Two cuts, one from each face, in one plane: only of an upright blade do they meet.
  const meets = leans === 1 ? 2 * saw.depth.mm - deep : undefined;
  return [
    {
      code: 'saw-cannot-reach',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        words?.before ?? 'The piece is ',
        { mm: deep },
        `${words?.after ?? ' thick'}; ${saw.name} cuts `,
        { mm: saw.depth.mm },
        ' deep in one pass.',
        ...(meets === undefined
          ? []
          : meets >= 0
            ? [' Two cuts, one from each face, meet with ', { mm: meets }, ' to spare.']
            : [
                ' Two cuts, one from each face, leave ',
                { mm: -meets },
                ' in the middle, to be sawn by hand.',
              ]),
      ],
      numbers: { thickness: deep, depth: saw.depth.mm, ...(meets === undefined ? {} : { meets }) },
      fixes: deeper.map((other) => ({
        label: `Use ${other.name}`,
        edit: { do: 'useSaw', step: step.id, saw: other.id },
      })),
      caution:
        words?.caution ??
        'A cut finished from the other side must meet the first one: keep the same edge against the fence.',
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A piece is wider than its saw crosscuts. */
    'wider-than-crosscut': true;
    /** A piece is wider than fits between blade and fence. */
    'wider-than-rip': true;
    /** A piece is heavier than the shop can carry over the saw. */
    'too-heavy-to-carry-over': true;
    /** A cut takes less than its saw may be off by. */
    'cut-below-tolerance': true;
    /** A cut is deeper than its saw reaches. */
    'saw-cannot-reach': true;
  }
}
