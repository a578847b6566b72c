import { type Edit, type Finding, type Fix, makerOf, type Step } from '../document';
import { glueUpOf, jointsOf, splitEdit, splitStrips } from '../glueup';
import { limitOf, type Machine, machineFacts, takesEndGrain } from '../kit';
import { flatteners, settable } from '../plan';
import { extents, grainAngle, grainSide, type Vec3 } from '../solid';
import {
  asFlattening,
  asGlueUp,
  greatestSize,
  helpersAdd,
  machineOfStep,
  roomOf,
  type TimelineStep,
} from '../steps';
import { lengthText, roundUpToStep, sectionsNeeded } from '../units';
import type { ReviewContext } from './context';
import { CARRIER_MM, endGrainByChoice, endGrainWay } from './rides';

const useMachine = (step: Step, machine: Machine): Fix => ({
  label: `Use ${machine.name}`,
  edit: { do: 'useMachine', step: step.id, machine: machine.id } satisfies Edit,
});

/** Whether any fibres of a piece stand upright: knives over its face would meet them. */
export const isEndGrain = (piece: TimelineStep['pieces'][number]): boolean =>
  piece.blank.cells.some((cell) => grainSide(grainAngle(cell, [0, 0, 1])) !== 'long grain');

/** Size of the piece as it enters the step, not as it leaves it. */
function entering(
  step: Step,
  context: ReviewContext,
): { size: Vec3; pieces: TimelineStep['pieces'] } | undefined {
  const before = context.before(step);
  if (before.length === 0) return undefined;
  const sizes = before.map((piece) => extents(piece.blank));
  return {
    pieces: before,
    size: [0, 1, 2].map((a) =>
      a === 1 ? Math.max(...sizes.map((s) => s[a])) : Math.min(...sizes.map((s) => s[a])),
    ) as unknown as Vec3,
  };
}

/** What a machine cannot take: too wide, too short, too thin, too thick, or end grain before knives. */
export function machineLimits(step: Step, context: ReviewContext): Finding[] {
  const { machining } = roomOf(step);
  if (!machining) return [];
  const { build } = context;
  const flatten = asFlattening(step);
  const machine = machineOfStep(step, build);
  const entered = entering(step, context);
  const after = context.timeline.steps.find(({ id }) => id === step.id);
  if (!machine || !entered || !after || !machining.any(step)) return [];
  const out: Finding[] = [];
  // The machine feeds what is on the piece with it: runners at its edges, sacrificial pieces at its ends.
  const size = (['length', 'width', 'thickness'] as const).map(
    (name, axis) => entered.size[axis] + (flatten ? helpersAdd(flatten, name) : 0),
  ) as unknown as Vec3;
  const endGrain = flatten !== undefined && entered.pieces.some(isEndGrain);
  const others = flatteners(context.build.shop, size, endGrain)
    .filter((m) => m.id !== machine.id && m.minThickness.mm <= after.least[2])
    .slice(0, 2)
    .map((m) => useMachine(step, m));
  const { maxWidth, minLength, minThickness, maxThickness } = machine;
  if (machining.over !== 'edges' && maxWidth.mm > 0 && size[1] > maxWidth.mm)
    out.push(tooWide(step, machine, size[1], { others, endGrain, context }));
  if (size[0] < minLength.mm)
    out.push({
      code: 'shorter-than-machine',
      step: step.id,
      severity: 'warning',
      dimension: 'length',
      message: [
        'The piece is ',
        { mm: size[0] },
        ` long; ${machine.name} needs at least `,
        { mm: minLength.mm },
        '.',
      ],
      numbers: { length: size[0], least: minLength.mm, short: minLength.mm - size[0] },
      fixes: flatten ? [...lengthened(flatten, machine, { length: size[0], context }), ...others] : [],
      caution:
        'A piece shorter than the distance between the rollers can tip, jam or be thrown back. The machine’s manual comes first.',
    });
  const longest = greatestSize(entered.pieces, 'length') + (flatten ? helpersAdd(flatten, 'length') : 0);
  const reaches = limitOf(machine, 'maxLength');
  if (reaches > 0 && longest > reaches)
    out.push({
      code: 'longer-than-machine',
      step: step.id,
      severity: 'warning',
      dimension: 'length',
      message: [
        'The piece is ',
        { mm: longest },
        ` long; ${machine.name} reaches over `,
        { mm: reaches },
        '.',
      ],
      numbers: { length: longest, most: reaches, over: longest - reaches },
      fixes: flatten ? others : [],
    });
  // The machine sees the carrier board and the piece on it as one.
  const carrier = flatten?.carrier?.mm ?? 0;
  const thin = after.least[2] + carrier;
  if (thin < minThickness.mm - 1e-6)
    out.push({
      code: 'thinner-than-machine',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        'This leaves ',
        { mm: thin },
        `${carrier > 0 ? ' with its carrier board' : ''}; ${machine.name} goes down to `,
        { mm: minThickness.mm },
        carrier > 0 ? '.' : ' without a carrier board.',
      ],
      numbers: { thickness: thin, least: minThickness.mm, carrier },
      fixes: flatten
        ? [
            ...(machineFacts(machine).carrier
              ? [
                  {
                    label: `On a carrier board of ${lengthText(CARRIER_MM, context.build.shop.display)}`,
                    edit: {
                      do: 'setStep' as const,
                      step: step.id,
                      change: { carrier: { mm: CARRIER_MM } },
                    },
                  },
                ]
              : []),
            ...others,
          ]
        : [],
      caution:
        'Thin wood can break up under the knives. Use a carrier board, or another way; the machine’s manual comes first.',
    });
  const dial = limitOf(machine, 'dial');
  const between = dial > 0 ? Math.abs(thin / dial - Math.round(thin / dial)) * dial : 0;
  if (machining.over !== 'edges' && between > 1e-3)
    out.push({
      code: 'between-dial-steps',
      step: step.id,
      severity: 'note',
      dimension: 'thickness',
      message: [
        `${machine.name} is to be set to `,
        { mm: thin },
        ', and its dial moves in steps of ',
        { mm: dial },
        ': the nearest is ',
        { mm: Math.round(thin / dial) * dial },
        '.',
      ],
      numbers: { set: thin, dial, off: between },
      fixes: [],
    });
  const high = greatestSize(entered.pieces, 'thickness') + carrier;
  if (maxThickness.mm > 0 && high > maxThickness.mm)
    out.push({
      code: 'thicker-than-machine',
      step: step.id,
      severity: 'warning',
      dimension: 'thickness',
      message: [
        carrier > 0 ? 'With its carrier board the piece is ' : 'The piece is ',
        { mm: high },
        ` thick; ${machine.name} opens to `,
        { mm: maxThickness.mm },
        '.',
      ],
      numbers: { thickness: high, most: maxThickness.mm, carrier },
      fixes: flatten ? others : [],
    });
  const chosen =
    endGrain && !takesEndGrain(machine) && endGrainByChoice(flatten, machine, { context, entry: after });
  if (chosen) out.push(chosen);
  else if (endGrain && !takesEndGrain(machine))
    out.push({
      code: 'end-grain-in-planer',
      step: step.id,
      severity: 'warning',
      message: [
        `End grain is to go through ${machine.name}: the block is `,
        { mm: size[0] },
        ' by ',
        { mm: size[1] },
        '. Junta does not plan this.',
      ],
      numbers: { length: size[0], width: size[1] },
      fixes: [...others, ...endGrainWay(flatten, context)],
      caution:
        'Knives that meet end grain can tear out the far edge, break the block and throw it back. Use a drum sander, a router sled or hand planes; the machine’s manual and local rules come first.',
    });
  return out;
}

/** Runners of so much at each edge hold without breaking off, mm; common practice: 1 1/2 in. */
const RUNNER_MM = 38.1;

/** Runners at both edges, longer than the piece, that make it long enough for its machine. */
function lengthened(
  step: { id: string; ends?: { mm: number }; runners?: { mm: number } },
  machine: Machine,
  { length, context }: { length: number; context: ReviewContext },
): Fix[] {
  if (machineFacts(machine).feeds !== true) return [];
  const { settingStep, display } = context.build.shop;
  const more = (machine.minLength.mm - length) / 2;
  const mm = (step.ends?.mm ?? 0) + roundUpToStep(more, settingStep.mm);
  return [
    {
      label: `Glue runners to both edges, ${lengthText(mm, display)} past each end`,
      edit: {
        do: 'setStep',
        step: step.id,
        change: { ends: { mm }, runners: { mm: Math.max(RUNNER_MM, step.runners?.mm ?? 0) } },
      },
    },
  ];
}

function tooWide(
  step: Step,
  machine: Machine,
  width: number,
  { others, endGrain, context }: { others: Fix[]; endGrain: boolean; context: ReviewContext },
): Finding {
  const { shop, brief } = context.build;
  const limit = machine.maxWidth.mm;
  const sections = sectionsNeeded(width, 0, shop.allowances.jointEdge.mm, limit);
  const canSplit =
    asFlattening(step) !== undefined && !endGrain && brief?.pattern === 'panel' && Number.isFinite(sections);
  const split: Fix[] = canSplit
    ? [{ label: `Glue as ${sections} sections`, edit: { do: 'replan', change: { sections } } }]
    : [];
  const joined = canSplit ? [`. Glued as `, { count: sections }, ' sections it would pass'] : [];
  return {
    code: 'wider-than-machine',
    step: step.id,
    severity: 'warning',
    dimension: 'width',
    message: ['The piece is ', { mm: width }, ` wide; ${machine.name} takes `, { mm: limit }, ...joined, '.'],
    numbers: { width, limit, over: width - limit, sections },
    fixes: asFlattening(step)
      ? [...split, ...(endGrain ? [] : inSections(step, limit, context)), ...others]
      : [],
  };
}

/** The glue-up before a flattening split on its joints into sections that the machine takes, each flattened by itself. */
export function inSections(
  step: Step,
  limit: number,
  { build, timeline }: Pick<ReviewContext, 'build' | 'timeline'>,
): Fix[] {
  const glue = asGlueUp(makerOf(build, step.inputs[0] ?? ''));
  const glueUp = glue && glueUpOf(build, timeline, glue.id);
  if (!glueUp || glueUp.axes.press !== 1 || glueUp.askew) return [];
  const edges = 2 * settable(build.shop, build.shop.allowances.jointEdge.mm);
  const widths = glueUp.courses.map(({ from, to }) => to - from);
  const counts = limit > edges ? splitStrips(widths, limit - edges) : undefined;
  if (!counts || counts.length < 2) return [];
  return [
    {
      label: `Split into ${counts.join(' + ')} and flatten each`,
      edit: splitEdit(build.shop, glueUp, jointsOf(counts), { machined: true }),
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A piece is wider than its machine takes. */
    'wider-than-machine': true;
    /** A piece is longer than its machine reaches over. */
    'longer-than-machine': true;
    /** A piece is shorter than its machine can feed. */
    'shorter-than-machine': true;
    /** A step leaves less than its machine goes down to. */
    'thinner-than-machine': true;
    /** A machine is to be set between two steps of its dial. */
    'between-dial-steps': true;
    /** A piece is thicker than its machine opens. */
    'thicker-than-machine': true;
    /** End grain is to go under knives. */
    'end-grain-in-planer': true;
  }
}
