import { axisOf, DIMENSIONS, type Finding, type Fix, type Step } from '../document';
import { machineFacts, machinesThat } from '../kit';
import { bounds, type Cell, dot, extents, type Vec3 } from '../solid';
import { amountsOf, machineOfStep, roomOf, type TakesOff } from '../steps';
import { findSpecies, materialOf, speciesName } from '../wood';
import type { ReviewContext } from './context';
import { sawOfStep } from './sawing';

const neverUnderKnives = ({ origin }: Cell): boolean => materialOf(origin.species).knives === 'never';

/** Which way a sheet's own normal lies in the piece: its log's y. */
const sheetNormal = ({ toLog }: Cell): Vec3 => [toLog[4], toLog[5], toLog[6]];

/** One side that something comes off: on which dimension, which end of it, how much and by which setting, mm. */
interface Side {
  dimension: (typeof DIMENSIONS)[number];
  upper: boolean;
  mm: number;
  setting: string;
}

const sidesOf = ({ dimension, min, max, settings }: TakesOff): Side[] =>
  [
    { dimension, upper: false, mm: min, setting: settings[0] },
    { dimension, upper: true, mm: max, setting: settings[1] },
  ].filter(({ mm }) => mm > 0);

/** Parts of a piece that stand in what comes off one side of it. */
function within(cells: readonly Cell[], { dimension, upper, mm }: Side): Cell[] {
  const axis = axisOf(dimension);
  const box = bounds({ cells });
  return cells.filter((cell) => {
    const own = bounds({ cells: [cell] });
    return upper ? own.max[axis] > box.max[axis] - mm + 1e-9 : own.min[axis] < box.min[axis] + mm - 1e-9;
  });
}

/** What tools do to sheets and metals: metal under knives or a saw, and a sheet whose face is taken through. */
export function materialFindings(step: Step, context: ReviewContext): Finding[] {
  return [...underKnives(step, context), ...underSaw(step, context), ...throughFace(step, context)];
}

function underKnives(step: Step, context: ReviewContext): Finding[] {
  const { machining, takesOff } = roomOf(step);
  const machine = machineOfStep(step, context.build);
  if (!machine || machineFacts(machine).cuts === 'abrasive') return [];
  const sides = (takesOff?.(step) ?? []).flatMap(sidesOf);
  for (const { blank } of context.before(step))
    for (const side of sides) {
      const [metal] = within(blank.cells, side).filter(neverUnderKnives);
      if (!metal) continue;
      const { species } = metal.origin;
      const { caution, instead } = materialOf(species);
      const work = machining?.work;
      return [
        {
          code: 'metal-under-knives',
          step: step.id,
          severity: 'warning',
          dimension: side.dimension,
          message: [
            `${machine.name} takes `,
            { mm: side.mm },
            ` off the ${side.dimension}, and ${speciesName(species).toLowerCase()} lies in it${instead ? `: ${instead}` : ''}.`,
          ],
          numbers: { off: side.mm },
          fixes: [
            ...(work ? machinesThat(context.build.shop, work) : [])
              .filter((other) => machineFacts(other).cuts === 'abrasive')
              .map(
                (other): Fix => ({
                  label: `Use ${other.name}`,
                  edit: { do: 'useMachine', step: step.id, machine: other.id },
                }),
              ),
            nothingOff(step, side),
          ],
          ...(caution ? { caution } : {}),
        },
      ];
    }
  return [];
}

const nothingOff = (step: Step, { dimension, upper, setting }: Side): Fix => ({
  label:
    dimension === 'thickness'
      ? `Take nothing off the ${upper ? 'upper' : 'lower'} face`
      : `Take nothing off the ${dimension}`,
  edit: { do: 'setStep', step: step.id, change: { ...amountsOf(step, dimension), [setting]: { mm: 0 } } },
});

function underSaw(step: Step, context: ReviewContext): Finding[] {
  const saw = sawOfStep(step, context);
  if (!saw || !roomOf(step).sawing) return [];
  const entered = context.before(step);
  const pieces = entered.length
    ? entered
    : (context.timeline.steps.find(({ id }) => id === step.id)?.pieces ?? []);
  const metal = pieces.flatMap(({ blank }) => blank.cells).filter(neverUnderKnives);
  if (metal.length === 0) return [];
  const thick = Math.max(...metal.map((cell) => Math.min(...extents({ cells: [cell] }))));
  return [
    {
      code: 'metal-under-saw',
      step: step.id,
      severity: 'warning',
      message: [
        `${saw.name} meets ${speciesName(metal[0].origin.species).toLowerCase()} here, `,
        { mm: thick },
        ' thick. A blade for wood is not made for it: cut metal to size before it is glued in, or with a blade and a speed made for it.',
      ],
      numbers: { thickness: thick },
      fixes: [],
      caution:
        'Metal on a blade for wood grabs, throws hot chips and can break teeth off. The saw’s manual says what it may cut; eye protection.',
    },
  ];
}

function throughFace(step: Step, context: ReviewContext): Finding[] {
  const sides = (roomOf(step).takesOff?.(step) ?? []).flatMap(sidesOf);
  for (const side of sides)
    for (const { blank } of context.before(step))
      for (const cell of within(blank.cells, side)) {
        const { species } = cell.origin;
        const face = findSpecies(species)?.faceMm;
        const normal: Vec3 = [0, 1, 2].map((axis) =>
          axis === axisOf(side.dimension) ? 1 : 0,
        ) as unknown as Vec3;
        if (!face || side.mm < face || Math.abs(dot(sheetNormal(cell), normal)) < 0.7) continue;
        const { instead } = materialOf(species);
        return [
          {
            code: 'through-face',
            step: step.id,
            severity: 'warning',
            dimension: side.dimension,
            message: [
              'This takes ',
              { mm: side.mm },
              ` off ${speciesName(species).toLowerCase()}, whose face is about `,
              { mm: face },
              `${instead ? ` thick: ${instead}` : ' thick'}.`,
            ],
            numbers: { off: side.mm, face },
            fixes: [nothingOff(step, side)],
          },
        ];
      }
  return [];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Metal lies in what knives or a bit would take off. */
    'metal-under-knives': true;
    /** A saw would go through metal. */
    'metal-under-saw': true;
    /** More comes off a sheet than its face is thick. */
    'through-face': true;
  }
}
