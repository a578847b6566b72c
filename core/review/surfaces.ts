import type { Finding, Step } from '../document';
import { machinesThat, tearsAcross } from '../kit';
import { extents, grainOf, lowestOpen } from '../solid';
import {
  asFlattening,
  type FlattenStep,
  freshFrom,
  leastSize,
  machineOfStep,
  noiseOf,
  roomOf,
} from '../steps';
import { counted } from '../units';
import type { ReviewContext } from './context';
import { sharedChange } from './ways';

/** Fibres that stand nearer than this to the feed's cross direction are across it: cosine of 30 degrees. */
const ACROSS = Math.cos((30 * Math.PI) / 180);
/** A face that must lose all that comes off, less than this is nothing to speak of, in steps of the shop. */
const WORTH_STEPS = 1;

/** Flattening takes the same off each face in all: as much more as is wanted, the thickness staying as it is. */
const deeper = (step: FlattenStep, off: { top: number; bottom: number }) => ({
  do: 'setStep' as const,
  step: step.id,
  change: { top: { mm: off.top }, bottom: { mm: off.bottom } },
});

/** What flattening leaves: a part that lies too low for it, a hollow or a step that was noted, one face taken alone. */
export function flattening(step: Step, context: ReviewContext): Finding[] {
  const flat = asFlattening(step);
  return flat ? [...tooLow(flat, context), ...notedHollow(flat, context), ...oneFace(flat, context)] : [];
}

/** A part thinner than its neighbours that the knives do not reach. */
function tooLow(step: FlattenStep, context: ReviewContext): Finding[] {
  const noise = noiseOf(context.build.shop);
  const least = Math.max(noise, context.build.shop.noticeableStep.mm);
  const out: Finding[] = [];
  for (const [face, off, top] of [
    ['upper', step.top.mm, true],
    ['lower', step.bottom.mm, false],
  ] as const) {
    const depth = Math.max(
      0,
      // More cells than this in one face are slices and blocks of one thickness.
      ...context
        .before(step)
        .map(({ blank }) => (blank.cells.length <= MOST_PARTS ? lowestOpen(blank, top) : 0)),
    );
    const short = depth - off;
    if (short < least) continue;
    out.push({
      code: 'flattening-misses',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        'One part lies ',
        { mm: depth },
        ` below the ${face} face, and flattening takes `,
        ...(off > noise ? [{ mm: off }] : ['nothing']),
        ' off it: ',
        { mm: short },
        ' stay rough there, and the part comes out thinner.',
      ],
      numbers: { depth, off, short },
      fixes: [
        {
          label: `Take more off the ${face} face, less off the other`,
          edit: deeper(step, {
            top: step.top.mm + (top ? short : -short),
            bottom: step.bottom.mm + (top ? -short : short),
          }),
        },
        {
          label: `Take more off the ${face} face`,
          edit: deeper(step, {
            top: step.top.mm + (top ? short : 0),
            bottom: step.bottom.mm + (top ? 0 : short),
          }),
        },
      ].filter(({ edit }) => edit.change.top.mm >= 0 && edit.change.bottom.mm >= 0),
    });
  }
  return out;
}
const MOST_PARTS = 120;

/** A hollow under the straightedge, or a step at a joint, noted after the clamps: does flattening take it away? */
function notedHollow(step: FlattenStep, context: ReviewContext): Finding[] {
  const plan = freshFrom(context.build, step)?.plan;
  const hollow = plan?.hollow?.mm ?? 0;
  const worst = (plan?.joints ?? [])
    .map(({ joint, step: height }) => ({ joint, mm: height?.mm ?? 0 }))
    .reduce((most, each) => (each.mm > most.mm ? each : most), { joint: 0, mm: 0 });
  const noise = noiseOf(context.build.shop);
  const total = step.top.mm + step.bottom.mm;
  // A hollow on one face is as much of a crown on the other: both must be taken down. A step may go from either face.
  const [need, words] =
    2 * hollow >= worst.mm ? [2 * hollow, 'A hollow of '] : [worst.mm, `A step at joint ${worst.joint} of `];
  const short = need - total;
  if (need <= noise || short <= noise) return [];
  const size = leastSize(context.before(step), 'thickness');
  const more = sharedChange(step.top.mm, step.bottom.mm, short);
  return [
    {
      code: 'hollow-deeper-than-flattening',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        words,
        { mm: need === worst.mm ? worst.mm : hollow },
        ' was noted after the clamps',
        need === worst.mm ? '. ' : ': flat on both faces takes twice that. ',
        'This step takes ',
        ...(total > noise ? [{ mm: total }] : ['nothing']),
        ' off both faces together: ',
        { mm: short },
        ' more is needed, and the piece then comes out at ',
        { mm: Math.max(0, size - total - short) },
        '.',
      ],
      numbers: { hollow, need, off: total, short, thickness: size - total - short },
      fixes: more
        ? [
            { label: 'Take it off both faces', edit: deeper(step, { top: more[0], bottom: more[1] }) },
            {
              label: 'Take it off, and accept the thickness',
              edit: {
                do: 'many',
                edits: [
                  deeper(step, { top: more[0], bottom: more[1] }),
                  {
                    do: 'setAim',
                    dimension: 'thickness',
                    aim: {
                      aim: 'fixed',
                      value: { mm: (context.timeline.finished?.least[2] ?? size - total) - short },
                    },
                  },
                ],
              },
            },
          ]
        : [],
    },
  ];
}

/** All that comes off comes off one face: what was inside then lies outside on that side alone, and the piece cups. */
function oneFace(step: FlattenStep, context: ReviewContext): Finding[] {
  const { settingStep } = context.build.shop;
  const [less, more] = [Math.min(step.top.mm, step.bottom.mm), Math.max(step.top.mm, step.bottom.mm)];
  if (less > noiseOf(context.build.shop) || more < WORTH_STEPS * settingStep.mm) return [];
  const face = step.top.mm > step.bottom.mm ? 'upper' : 'lower';
  return [
    {
      code: 'one-face-only',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        'All of ',
        { mm: more },
        ` comes off the ${face} face: the fresh face dries or swells first, and the piece cups. Take the same off both.`,
      ],
      numbers: { off: more, other: less },
      fixes: [{ label: 'Half off each face', edit: deeper(step, { top: more / 2, bottom: more / 2 }) }],
    },
  ];
}

/** Strips that lie across the feed of a planer: knives lift their fibres and can throw them back. */
export function crossFeed(step: Step, context: ReviewContext): Finding[] {
  const { machining } = roomOf(step);
  if (!machining || machining.over === 'edges') return [];
  const machine = machineOfStep(step, context.build);
  if (!machine || !tearsAcross(machine)) return [];
  const across = context
    .before(step)
    .flatMap(({ blank }) => blank.cells)
    .filter((cell) => Math.abs(grainOf(cell)[1]) > ACROSS);
  if (across.length === 0) return [];
  const longest = Math.max(...across.map((cell) => extents({ cells: [cell] })[1]));
  return [
    {
      code: 'cross-grain-in-planer',
      step: step.id,
      severity: 'warning',
      message: [
        `${counted(across.length, 'strip')} ${across.length === 1 ? 'lies' : 'lie'} across the feed of ${machine.name}, up to `,
        { mm: longest },
        ' of it. Knives that meet fibres from the side tear them out.',
      ],
      numbers: { strips: across.length, length: longest },
      fixes: machinesThat(context.build.shop, 'flatten')
        .filter((other) => !tearsAcross(other))
        .map((other) => ({
          label: `Use ${other.name}`,
          edit: { do: 'useMachine' as const, step: step.id, machine: other.id },
        })),
      caution:
        'Wood that lies across the feed can break out under the knives and be thrown back. Sand it, use a router sled or hand planes; the machine’s manual comes first.',
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A part lies lower than flattening reaches. */
    'flattening-misses': true;
    /** A hollow that was noted is deeper than flattening takes. */
    'hollow-deeper-than-flattening': true;
    /** Flattening takes one face alone. */
    'one-face-only': true;
    /** Strips lie across the feed of a planer. */
    'cross-grain-in-planer': true;
  }
}
