import {
  type BuildDocument,
  type Finding,
  type FindingCode,
  LONGEST_BOARD_MM,
  type Phrase,
  type Step,
} from '../document';
import {
  doesWork,
  limitOf,
  type Machine,
  machineFacts,
  machinesThat,
  takesEndGrain,
  worksText,
} from '../kit';
import { patternOf } from '../plan';
import { extents, type Vec3 } from '../solid';
import { asFlattening, glueUps, greatestSize, machineOfStep, roomOf, slicings } from '../steps';
import { counted } from '../units';
import type { ReviewContext } from './context';
import { isEndGrain } from './limits';
import { sawOfStep } from './sawing';

const note = (
  code: FindingCode,
  step: string,
  message: Phrase[],
  numbers: Record<string, number>,
): Finding => ({
  code,
  step,
  severity: 'note',
  message,
  numbers,
  fixes: [],
});

/** Why a machine does not take a piece, with the number; undefined where it does. */
export function refusal(
  machine: Machine,
  [length, width, thickness]: Vec3,
  after: number,
): Phrase[] | undefined {
  const { name, maxWidth, maxThickness, minLength, minThickness } = machine;
  const reaches = limitOf(machine, 'maxLength');
  if (!doesWork(machine, 'flatten'))
    return [`${name} ${worksText(machineFacts(machine).does)}, and the piece is `, { mm: width }, ' wide'];
  if (reaches > 0 && length > reaches)
    return [`${name} reaches over `, { mm: reaches }, ' and the piece is ', { mm: length }, ' long'];
  if (maxWidth.mm > 0 && width > maxWidth.mm)
    return [`${name} takes `, { mm: maxWidth.mm }, ' and the piece is ', { mm: width }, ' wide'];
  if (length < minLength.mm)
    return [`${name} needs `, { mm: minLength.mm }, ' and the piece is ', { mm: length }, ' long'];
  if (maxThickness.mm > 0 && thickness > maxThickness.mm)
    return [`${name} opens to `, { mm: maxThickness.mm }, ' and the piece is ', { mm: thickness }, ' thick'];
  if (after < minThickness.mm)
    return [`${name} goes down to `, { mm: minThickness.mm }, ' and ', { mm: after }, ' is to be left'];
  return undefined;
}

/** Another machine than the one asked for, with the number that ruled it out. */
export function otherMachine(step: Step, { build, timeline, before }: ReviewContext): Finding[] {
  const { brief, shop } = build;
  if (roomOf(step).machining?.over === 'both') return noPlaner(step, build);
  const flat = asFlattening(step);
  if (!flat || !brief || flat.machine === brief.flattenWith) return [];
  const asked = shop.machines.find(({ id }) => id === brief.flattenWith);
  const used = shop.machines.find(({ id }) => id === flat.machine);
  const pieces = before(step);
  if (!used || pieces.length === 0) return [];
  if (!asked)
    return [
      note(
        'other-machine',
        step.id,
        [
          `The machine this job was planned for is not in its kit: ${used.name} does it, `,
          { mm: greatestSize(pieces, 'width') },
          ' wide.',
        ],
        { machines: shop.machines.length },
      ),
    ];
  const sizes = pieces.map(({ blank }) => extents(blank));
  const size: Vec3 = [
    Math.min(...sizes.map((s) => s[0])),
    Math.max(...sizes.map((s) => s[1])),
    Math.max(...sizes.map((s) => s[2])),
  ];
  const after = timeline.steps.find(({ id }) => id === step.id)?.least[2] ?? size[2];
  // The brief asks for the panel's machine: end grain never goes through knives, whatever that is.
  if (pieces.some(isEndGrain) && !takesEndGrain(asked)) return [];
  const why = refusal(asked, size, after);
  // The machine asked for would do, and another one was chosen by hand: nothing to say.
  if (!why) return [];
  return [
    note('other-machine', step.id, [`${used.name} instead of ${asked.name}: `, ...why, '.'], {
      length: size[0],
      width: size[1],
      thickness: size[2],
    }),
  ];
}

/** Strips milled on something else because the kit has no planer. */
function noPlaner(step: Step, build: BuildDocument): Finding[] {
  const { shop } = build;
  const used = machineOfStep(step, build);
  const faceMm =
    roomOf(step)
      .takesOff?.(step)
      .find(({ dimension }) => dimension === 'thickness')?.max ?? 0;
  if (!used || machinesThat(shop, 'mill').length > 0) return [];
  return [
    note(
      'no-planer',
      step.id,
      [
        `The kit has no planer: strips are brought to thickness with ${used.name}, `,
        { mm: faceMm },
        ' off each face. Choose another machine, or enter a planer in the Kit.',
      ],
      { planers: 0, face: faceMm },
    ),
  ];
}

/** Another saw than the one asked for, because that does not cut deep enough. */
export function otherSaw(step: Step, context: ReviewContext): Finding[] {
  const { build, before } = context;
  const { brief, shop } = build;
  const asked = shop.saws.find(({ id }) => id === brief?.saw);
  const used = sawOfStep(step, context);
  const entered = before(step);
  if (!asked || !used || asked.id === used.id || asked.depth.mm === 0 || entered.length === 0) return [];
  const through = roomOf(step).sawing?.through(step) ?? 'thickness';
  const depth = greatestSize(entered, through);
  if (depth <= asked.depth.mm) return [];
  return [
    note(
      'other-saw',
      step.id,
      [
        `${used.name} instead of ${asked.name}: that cuts `,
        { mm: asked.depth.mm },
        ' deep, and the wood stands ',
        { mm: depth },
        ' high.',
      ],
      { depth, most: asked.depth.mm, kerf: used.kerf.mm },
    ),
  ];
}

/** Several panels alike: whether each is glued up by itself or all are cut from one, and what decides. */
export function alike(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const quantity = build.brief?.quantity ?? 1;
  const [first] = glueUps(build);
  if (quantity < 2 || !build.brief) return [];
  if (build.brief.pattern !== 'panel') return sharedPanels(step, quantity, { build, timeline });
  if (step.id !== first?.id) return [];
  const { finished } = timeline;
  const entry = timeline.steps.find(({ id }) => id === step.id);
  if (!finished || !entry) return [];
  const name = patternOf(build.brief.pattern).name.toLowerCase();
  const inOne = slicings(build).length > 0;
  if (inOne)
    return [
      note(
        'alike',
        step.id,
        [
          `${counted(quantity, 'piece')} alike are cut from one ${name}, `,
          { mm: entry.greatest[0] },
          ' long: its boards, its clamps and its weight must allow that.',
        ],
        { pieces: quantity, length: entry.greatest[0] },
      ),
    ];
  const long = quantity * entry.greatest[0];
  return [
    note(
      'alike',
      step.id,
      [
        `${counted(quantity, 'piece')} alike are glued up one by one, each `,
        { mm: entry.greatest[0] },
        ' long. Cut from one long panel they would need strips of about ',
        { mm: long },
        long > LONGEST_BOARD_MM ? ', longer than boards are sold: ' : '; boards are sold up to ',
        { mm: LONGEST_BOARD_MM },
        '.',
      ],
      { pieces: quantity, length: entry.greatest[0], inOne: long, longest: LONGEST_BOARD_MM },
    ),
  ];
}

/** Several blocks alike: their slices come from panels that they share. */
function sharedPanels(
  step: Step,
  quantity: number,
  { build, timeline }: Pick<ReviewContext, 'build' | 'timeline'>,
): Finding[] {
  if (slicings(build)[0]?.id !== step.id) return [];
  const entry = timeline.steps.find(({ id }) => id === step.id);
  if (!entry || entry.entered.length === 0) return [];
  const long = greatestSize(entry.entered, 'length');
  return [
    note(
      'alike',
      step.id,
      [
        `${counted(quantity, 'piece')} alike are laid from the slices of ${counted(entry.entered.length, 'panel')} up to `,
        { mm: long },
        ' long: what the first cut takes and what stays in hand is lost once a panel, not once a piece.',
      ],
      { pieces: quantity, panels: entry.entered.length, length: long },
    ),
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Several pieces alike: each glued up by itself, or cut from one, and what decides. */
    alike: true;
    /** The kit has no planer; another machine brings strips to thickness. */
    'no-planer': true;
    /** Another machine than the one asked for, and the number that ruled it out. */
    'other-machine': true;
    /** Another saw than the one asked for, since that does not cut deep enough. */
    'other-saw': true;
  }
}
