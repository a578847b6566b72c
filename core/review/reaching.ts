import { axisOf, type Finding, type Fix, type Step } from '../document';
import { extents } from '../solid';
import {
  dialStep,
  isNoPasses,
  machineOfStep,
  noiseOf,
  passPlan,
  roomOf,
  type TakesOff,
  type WorkPiece,
} from '../steps';
import { counted, lengthText, longText, roundDownToStep } from '../units';
import type { ReviewContext } from './context';

/** The most pieces that are named one by one. */
const MOST_NAMED = 4;

/** What a size to reach finds: pieces that are smaller already, a dial that cannot, knives that are worn. */
export function reachingSize(step: Step, context: ReviewContext): Finding[] {
  return [
    ...(roomOf(step).takesOff?.(step) ?? []).flatMap((off) => tooSmall(step, off, context)),
    ...passesOfStep(step, context),
  ];
}

const sizeOf = ({ blank }: WorkPiece, { dimension }: TakesOff): number => extents(blank)[axisOf(dimension)];

/** Pieces that are smaller than the size to reach: nothing comes off them, and they stay rough. */
function tooSmall(step: Step, off: TakesOff, { build, before, enteringTolerance }: ReviewContext): Finding[] {
  const { to, reach, dimension } = off;
  if (!to || !reach) return [];
  const noise = noiseOf(build.shop);
  const pieces = before(step);
  const short = pieces.flatMap((piece, i) => {
    const missing = to.mm - sizeOf(piece, off);
    return missing > noise ? [{ piece: i + 1, missing }] : [];
  });
  if (short.length === 0) return [];
  const least = Math.min(...pieces.map((piece) => sizeOf(piece, off)));
  const { display } = build.shop;
  const stepMm = dialStep(build.shop);
  // What all of them have, less what the size may be off by and a step of the shop, so that the smallest comes clean.
  const clean = enteringTolerance(step, dimension).likelyMm + stepMm;
  const reached = roundDownToStep(least - clean, stepMm);
  const named = short.slice(0, MOST_NAMED);
  return [
    {
      code: 'smaller-than-reached',
      step: step.id,
      severity: 'warning',
      dimension,
      message: [
        `The ${dimension} is to come to `,
        { mm: to.mm },
        ', and ',
        ...named.flatMap(({ piece, missing }, i) => [
          `${i > 0 ? ', ' : ''}${pieces.length === 1 ? 'the piece' : `piece ${piece}`} lacks `,
          { mm: missing },
        ]),
        ...(short.length > named.length
          ? [` (and ${counted(short.length - named.length, 'more', 'more')})`]
          : []),
        ': nothing comes off there.',
      ],
      numbers: { reached: to.mm, least, lacks: to.mm - least, pieces: short.length },
      fixes:
        reached > 0
          ? [
              {
                label: `Bring all to ${lengthText(reached, display)}`,
                edit: { do: 'setStep', step: step.id, change: { [reach.to]: { mm: reached } } },
              },
            ]
          : [],
    },
  ];
}

/** The share of a turn that a step of the dial is, as one says it. */
const turnShare = (stepMm: number, pitchMm: number): string => {
  const parts = pitchMm / stepMm;
  return Math.abs(parts - Math.round(parts)) < 1e-6 && parts > 1 ? ` (1/${Math.round(parts)} of a turn)` : '';
};

/** Passes that cannot be set, and knives that are worn before they are through. */
function passesOfStep(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const entry = timeline.steps.find(({ id }) => id === step.id);
  const machine = machineOfStep(step, build);
  const plan = entry && machine && passPlan(step, entry, build);
  if (!plan || !machine) return [];
  const { display } = build.shop;
  if (isNoPasses(plan)) {
    if (plan.most !== undefined)
      return [
        {
          code: 'too-many-passes',
          step: step.id,
          severity: 'warning',
          dimension: 'thickness',
          message: [
            `That would be more than ${plan.most} passes of `,
            { mm: plan.biteMm },
            ` on ${machine.name}: take less off, or another machine.`,
          ],
          numbers: { most: plan.most, bite: plan.biteMm },
          fixes: [],
        },
      ];
    return [
      {
        code: 'dial-coarser-than-pass',
        step: step.id,
        severity: 'warning',
        dimension: 'thickness',
        message: [
          `One step of the dial of ${machine.name} is `,
          { mm: plan.stepMm },
          `${plan.pitchMm > 0 ? turnShare(plan.stepMm, plan.pitchMm) : ''}, ${timesText(plan.stepMm / plan.biteMm)} the `,
          { mm: plan.biteMm },
          ' that one pass may take: there are no settings to go by.',
        ],
        numbers: { dial: plan.stepMm, bite: plan.biteMm, times: plan.stepMm / plan.biteMm },
        fixes: coarser(step, plan.stepMm, machine.bite.mm, display),
      },
    ];
  }
  const { knives } = plan;
  if (!knives || knives.ranMm + knives.meetsMm <= knives.lastsMm) return [];
  const left = knives.lastsMm - knives.ranMm;
  return [
    {
      code: 'knives-worn',
      step: step.id,
      severity: 'note',
      message: [
        `The knives of ${machine.name} have run ${longText(knives.ranMm, display)} of the ${longText(knives.lastsMm, display)} that a set lasts, and this step is ${longText(knives.meetsMm, display)} more. `,
        left > 0
          ? `They are worn after ${longText(left, display)}: fresh ones before the last passes.`
          : 'Fresh ones first.',
      ],
      numbers: { ran: knives.ranMm, lasts: knives.lastsMm, meets: knives.meetsMm },
      fixes: [],
    },
  ];
}

/** How many times as much, to one decimal at most. */
const timesText = (ratio: number): string =>
  Math.abs(ratio - Math.round(ratio)) < 0.05 ? `${Math.round(ratio)} times` : `${ratio.toFixed(1)} times`;

/** A step of the dial a pass, where the machine itself takes that. */
const coarser = (
  step: Step,
  dialMm: number,
  most: number,
  display: Parameters<typeof lengthText>[1],
): Fix[] =>
  most > 0 && dialMm > most
    ? []
    : [
        {
          label: `Take ${lengthText(dialMm, display)} a pass`,
          edit: { do: 'setStep', step: step.id, change: { bite: { mm: dialMm } } },
        },
      ];

declare module '../document/finding' {
  interface FindingCodes {
    /** A piece is smaller than the size it is to come to. */
    'smaller-than-reached': true;
    /** One step of the dial is more than a pass may take. */
    'dial-coarser-than-pass': true;
    /** More passes than anybody makes. */
    'too-many-passes': true;
    /** Knives are worn before a step is through. */
    'knives-worn': true;
  }
}
