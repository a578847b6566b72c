import {
  type Finding,
  type FindingCode,
  type Fix,
  makersOf,
  type Phrase,
  sawIdOf,
  type Step,
} from '../document';
import { gluingOf, type Saw } from '../kit';
import { extents } from '../solid';
import {
  asGlueUp,
  asTrim,
  CUT_WAYS,
  cutsThrough,
  type CutWay,
  greatestSize,
  massOf,
  noiseOf,
  reachOf,
  roomOf,
  wayOf,
  wayThrough,
} from '../steps';
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
  const heaviest = Math.max(...entered.map(({ blank }) => massOf(blank)));
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
  const through = sawing.through(step);
  // A leaning blade goes through more wood than the piece is thick.
  const leans = sawing.upright?.(step) ?? 1;
  const words = sawing.words?.when?.(step) === false ? undefined : sawing.words;
  const deep = greatestSize(context.before(step), through) / leans;
  if (saw.depth.mm === 0 || deep <= saw.depth.mm) return [];
  const deeper = context.build.shop.saws.filter((other) => other.depth.mm >= deep);
  // Cuts from both faces, in one plane: only of an upright blade do they meet.
  const inStages = sawing.squares === true && leans === 1;
  const reach = reachOf(saw);
  if (inStages && wayOf(step) !== 'one') return stages(step, saw, deep, deeper);
  const meets = leans === 1 ? 2 * saw.depth.mm - deep : undefined;
  const way = wayThrough(deep, reach);
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
                ' in the middle',
                ...(inStages && way === 'third' ? thirdCut(deep, reach) : [', to be sawn by hand.']),
              ]),
      ],
      numbers: { thickness: deep, depth: saw.depth.mm, ...(meets === undefined ? {} : { meets }) },
      fixes: [
        ...deeper.map((other) => ({
          label: `Use ${other.name}`,
          edit: { do: 'useSaw' as const, step: step.id, saw: other.id },
        })),
        ...(inStages ? [throughBy(step, way)] : []),
      ],
      caution:
        words?.caution ??
        'A cut finished from the other side must meet the first one: keep the same edge against the fence.',
    },
  ];
}

const throughBy = (step: Step, way: CutWay): Fix => ({
  label: CUT_WAYS.find(({ value }) => value === way)?.label ?? way,
  edit: { do: 'setStep', step: step.id, change: { way } },
});

const thirdCut = (deep: number, reach: ReturnType<typeof reachOf>): Phrase[] => [
  '. A third cut without the guide, ',
  { mm: Math.min(deep, reach.freeMm) },
  ' from one face, meets the other with ',
  { mm: cutsThrough('third', deep, reach).overMm },
  ' to spare.',
];

/** Cuts from both faces as they are chosen: do they meet? */
function stages(step: Step, saw: Saw, deep: number, deeper: readonly Saw[]): Finding[] {
  const way = wayOf(step);
  const reach = reachOf(saw);
  const { overMm } = cutsThrough(way, deep, reach);
  const numbers = { thickness: deep, guided: reach.guidedMm, free: reach.freeMm, over: overMm };
  const caution =
    'Keep the square on the same long edge when the piece is turned over. A saw without its guide is held by hand alone: only in the kerf that is there, and both hands on it.';
  if (way === 'hand' || overMm >= -1e-6)
    return [
      {
        code: 'cut-in-stages',
        step: step.id,
        severity: 'note',
        dimension: 'thickness',
        message: [
          `The piece is `,
          { mm: deep },
          ' thick, cut from both faces',
          ...(way === 'third' ? [' and once more without the guide'] : []),
          ...(overMm >= 0
            ? [': the cuts meet with ', { mm: overMm }, ' to spare.']
            : [': ', { mm: -overMm }, ' in the middle is sawn by hand.']),
        ],
        numbers,
        fixes: [],
        caution,
      },
    ];
  const next = wayThrough(deep, reach);
  return [
    {
      code: 'cuts-do-not-meet',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        'The piece is ',
        { mm: deep },
        ` thick, and the cuts with ${saw.name} leave `,
        { mm: -overMm },
        ' in the middle.',
        ...(next === 'third' ? [' A third cut without the guide would meet.'] : []),
      ],
      numbers,
      fixes: [
        throughBy(step, next),
        ...deeper.map((other) => ({
          label: `Use ${other.name}, in one cut`,
          edit: {
            do: 'many' as const,
            edits: [
              { do: 'useSaw' as const, step: step.id, saw: other.id },
              { do: 'setStep' as const, step: step.id, change: { way: undefined } },
            ],
          },
        })),
      ],
      caution,
    },
  ];
}

/** Ends of a glued panel that are cut before its long edges are parallel: there is nothing for the square to stand on. */
export function endsBeforeEdges(step: Step, { build, before }: ReviewContext): Finding[] {
  const { sawing, takesOff } = roomOf(step);
  const edges = takesOff?.(step).find(({ dimension }) => dimension === 'width');
  if (!sawing?.squares || sawing.carried?.across(step) !== true || (edges && edges.min + edges.max > 0))
    return [];
  for (const earlier of makersOf(build, step.inputs[0] ?? '')) {
    const cut = roomOf(earlier)
      .takesOff?.(earlier)
      .find(({ dimension }) => dimension === 'width');
    if (cut && cut.min + cut.max > 0) return [];
    if (roomOf(earlier).flow.turns || roomOf(earlier).flow.divides) return [];
    const glue = asGlueUp(earlier);
    if (!glue) continue;
    if (glue.along !== 'width' || glue.rows) return [];
    const width = greatestSize(before(step), 'width');
    return [
      {
        code: 'ends-before-edges',
        step: step.id,
        severity: 'note',
        dimension: 'length',
        message: [
          'The ends are cut while the long edges are as they came out of the clamps, ',
          { mm: width },
          ' apart: make them parallel first, or the square has nothing to stand on.',
        ],
        numbers: { width },
        fixes: [],
      },
    ];
  }
  return [];
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
    /** Cuts from both faces, as chosen, and how they meet. */
    'cut-in-stages': true;
    /** Cuts from both faces leave wood between them. */
    'cuts-do-not-meet': true;
    /** Ends are cut before the long edges are parallel. */
    'ends-before-edges': true;
    /** A cut is deeper than its saw reaches. */
    'saw-cannot-reach': true;
  }
}
