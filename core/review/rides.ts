import { type Finding, type Step, usersOf } from '../document';
import { limitOf, type Machine, machineFacts, practiceOf, takesEndGrain } from '../kit';
import { extents } from '../solid';
import {
  asFlattening,
  chamferLasts,
  type FlattenStep,
  HOLDS,
  isNoPasses,
  machineOfStep,
  noiseOf,
  passPlan,
  roomOf,
  type TimelineStep,
} from '../steps';
import { counted, lengthText, offText, sumOf } from '../units';
import type { ReviewContext } from './context';

/** A carrier board as most shops have one, mm: 3/4 in (common practice). */
export const CARRIER_MM = 19.05;
/** A chamfer on end grain is cut so much deeper than what comes off, mm: it must be there after the last pass. */
const CHAMFER_OVER_MM = 0.5;
/** The most that comes off end grain under knives in a pass, mm (common practice of those who do it: 1/20 mm). */
export const END_GRAIN_BITE_MM = 0.05;

/** What a piece rides on, is held by and leaves behind on its machine. */
export function riding(step: Step, context: ReviewContext): Finding[] {
  const flat = asFlattening(step);
  const machine = machineOfStep(step, context.build);
  const entry = context.timeline.steps.find(({ id }) => id === step.id);
  if (!machine || !entry || context.before(step).length === 0) return [];
  return [
    ...snipeStays(step, machine, context),
    ...(flat
      ? [
          ...chamferGone(flat, machine, { context, entry }),
          ...rocks(flat, machine, context),
          ...meetsHold(flat, machine, { context, entry }),
        ]
      : []),
  ];
}

const NOTHING_OFF: readonly [number, number] = [0, 0];
const mmOf = (length: { mm: number } = { mm: 0 }): number => length.mm;

/** What later cuts take off the ends of a piece, the lesser end, mm: trims and the first cut and rest of a slicing. */
function cutOffLater(step: Step, { build }: ReviewContext): number {
  let [left, right] = NOTHING_OFF;
  for (const later of usersOf(build, step.output)) {
    for (const off of roomOf(later).takesOff?.(later) ?? [])
      if (off.dimension === 'length') [left, right] = [left + off.min, right + off.max];
    const slice = later as { head?: { mm: number }; hold?: { mm: number } };
    // Lying another way, its ends are other ends.
    if (roomOf(later).flow.turns) break;
    if (roomOf(later).flow.divides) return Math.min(left + mmOf(slice.head), right + mmOf(slice.hold));
  }
  return Math.min(left, right);
}

/** Snipe that no later cut takes away, and no sacrificial piece carries. */
function snipeStays(step: Step, machine: Machine, context: ReviewContext): Finding[] {
  const snipe = limitOf(machine, 'snipe');
  const { machining } = roomOf(step);
  if (!(snipe > 0) || !machining || machining.over === 'edges' || !machining.any(step)) return [];
  const carried = (step as { ends?: { mm: number } }).ends?.mm ?? 0;
  const later = cutOffLater(step, context);
  const short = snipe - Math.max(later, carried);
  const noise = noiseOf(context.build.shop);
  if (short <= noise) return [];
  return [
    {
      code: 'snipe-stays',
      step: step.id,
      severity: 'warning',
      dimension: 'length',
      message: [
        `${machine.name} cuts deeper up to `,
        { mm: snipe },
        ' from each end, and later cuts take ',
        ...(later > noise ? [{ mm: later }] : ['nothing']),
        ' off: ',
        { mm: short },
        ' of it stays in the piece.',
      ],
      numbers: { snipe, cut: later, short },
      fixes: asFlattening(step)
        ? [
            {
              label: `Sacrificial pieces of ${lengthText(snipe, context.build.shop.display)} at both ends`,
              edit: { do: 'setStep', step: step.id, change: { ends: { mm: snipe } } },
            },
          ]
        : [],
    },
  ];
}

type Here = { context: ReviewContext; entry: TimelineStep };

/** End grain that goes under knives by choice: does its chamfer outlast what comes off? */
function chamferGone(step: FlattenStep, machine: Machine, { context, entry }: Here): Finding[] {
  if (takesEndGrain(machine) || practiceOf(context.build.shop).endGrain !== 'light' || step.backed) return [];
  const chamfer = step.chamfer?.mm ?? 0;
  const plan = passPlan(step, entry, context.build);
  if (!(chamfer > 0) || !plan || isNoPasses(plan)) return [];
  const noise = noiseOf(context.build.shop);
  return plan.faces.flatMap(({ face, passes }): Finding[] => {
    const { goneWith, overMm } = chamferLasts(chamfer, passes);
    if (overMm > noise) return [];
    const off = chamfer - overMm;
    const depth = Math.max(step.top.mm, step.bottom.mm) + CHAMFER_OVER_MM;
    return [
      {
        code: 'chamfer-gone',
        step: step.id,
        severity: 'warning',
        dimension: 'thickness',
        message: [
          `The chamfer of the ${face} face, `,
          { mm: chamfer },
          `, is gone with pass ${goneWith ?? passes.length} of ${passes.length}: `,
          { mm: off },
          ' comes off there. The last passes break out the far edge.',
        ],
        numbers: {
          chamfer,
          off,
          pass: goneWith ?? passes.length,
          passes: passes.length,
          at: face === 'upper' ? 0 : 1,
        },
        fixes: [
          {
            label: `Chamfer ${lengthText(depth, context.build.shop.display)} on every edge`,
            edit: { do: 'setStep', step: step.id, change: { chamfer: { mm: depth } } },
          },
        ],
        caution: END_GRAIN_CAUTION,
      },
    ];
  });
}

const END_GRAIN_CAUTION =
  'Knives that meet end grain can break the block and throw it back: stand to the side, sharp knives, the finest passes, every edge chamfered or backed, hand holds included. Where the machine’s manual forbids it, it is not done.';

/** The plan of who puts end grain through a planer by choice; undefined where the shop does not, or nothing keeps its edges. */
export function endGrainByChoice(
  step: FlattenStep,
  machine: Machine,
  { context, entry }: Here,
): Finding | undefined {
  if (practiceOf(context.build.shop).endGrain !== 'light') return undefined;
  const chamfer = step.chamfer?.mm ?? 0;
  const bite = step.bite?.mm ?? 0;
  if (!(chamfer > 0 || step.backed) || !(bite > 0) || bite > END_GRAIN_BITE_MM + 1e-9) return undefined;
  const plan = passPlan(step, entry, context.build);
  const passes = plan && !isNoPasses(plan) ? sumOf(plan.faces, (face) => face.passes.length) : 0;
  const size = extents(context.before(step)[0].blank);
  const keeps = chamfer > 0 ? chamfer - Math.max(step.top.mm, step.bottom.mm) : 0;
  return {
    code: 'end-grain-by-choice',
    step: step.id,
    severity: 'note',
    message: [
      `This shop puts end grain through ${machine.name}: ${counted(passes, 'pass', 'passes')} of at most `,
      { mm: bite },
      step.backed ? ', its edges backed' : keeps > 0 ? ', its chamfer ' : ', its chamfer used up',
      ...(!step.backed && keeps > 0 ? [{ mm: keeps }, ' over at the end'] : []),
      '; ',
      { mm: size[0] + 2 * (step.ends?.mm ?? 0) },
      ' long where the machine needs ',
      { mm: machine.minLength.mm },
      '.',
    ],
    numbers: { passes, bite, chamfer, length: size[0], least: machine.minLength.mm },
    fixes: [],
    caution: END_GRAIN_CAUTION,
  };
}

/** What makes end grain under knives a plan, in a shop that does it: a chamfer that outlasts, and the finest passes. */
export const endGrainWay = (step: FlattenStep, { build }: ReviewContext) =>
  practiceOf(build.shop).endGrain === 'light'
    ? [
        {
          label: `Chamfer every edge, ${offText(END_GRAIN_BITE_MM, build.shop.display)} a pass`,
          edit: {
            do: 'setStep' as const,
            step: step.id,
            change: {
              chamfer: { mm: Math.max(step.top.mm, step.bottom.mm) + CHAMFER_OVER_MM },
              bite: { mm: END_GRAIN_BITE_MM },
            },
          },
        },
      ]
    : [];

/** A twisted board rocks under rollers that press it flat: it comes out as twisted as it went in. */
function rocks(step: FlattenStep, machine: Machine, { build }: ReviewContext): Finding[] {
  const wind = step.wind?.mm ?? 0;
  if (wind <= noiseOf(build.shop) || step.wedges || machineFacts(machine).feeds !== true) return [];
  return [
    {
      code: 'twisted-on-rollers',
      step: step.id,
      severity: 'warning',
      message: [
        `The board stands off by `,
        { mm: wind },
        ` at one corner: the rollers of ${machine.name} press it flat and let it spring back. On a carrier, with wedges of `,
        { mm: wind / 2 },
        ' under the two corners that stand off, it stays as it lies.',
      ],
      numbers: { wind, wedge: wind / 2 },
      fixes: [
        {
          label: 'Carrier and wedges under it',
          edit: {
            do: 'setStep',
            step: step.id,
            change: { wedges: true, ...(step.carrier ? {} : { carrier: { mm: CARRIER_MM } }) },
          },
        },
      ],
    },
  ];
}

/** A cutter that comes down to what holds the piece. */
function meetsHold(step: FlattenStep, machine: Machine, { context, entry }: Here): Finding[] {
  const high = step.holdHeight?.mm ?? 0;
  const how = HOLDS.find(({ value }) => value === step.hold);
  if (!(high > 0) || !how || how.value === 'none') return [];
  const last = entry.least[2] + (step.carrier?.mm ?? 0);
  const clear = last - high;
  if (clear > noiseOf(context.build.shop)) return [];
  return [
    {
      code: 'cutter-meets-hold',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        `${how.label} ${how.value === 'stops' ? 'stand' : 'stands'} `,
        { mm: high },
        ` high, and ${machine.name} comes down to `,
        { mm: last },
        ': it would cut into what holds the piece.',
      ],
      numbers: { high, last, over: -clear },
      fixes: [],
      caution:
        'A cutter that meets a stop or a screw throws pieces of it. Keep all that holds lower than the last pass.',
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Snipe is longer than later cuts take off. */
    'snipe-stays': true;
    /** A chamfer on end grain is gone before the last pass. */
    'chamfer-gone': true;
    /** End grain goes under knives because the shop does so, with what keeps its edges. */
    'end-grain-by-choice': true;
    /** A twisted board is pressed flat by rollers. */
    'twisted-on-rollers': true;
    /** A cutter comes down to what holds the piece. */
    'cutter-meets-hold': true;
  }
}
