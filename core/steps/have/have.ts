import { type GrainCut, Refusal, type StepBase } from '../../document';
import {
  type Blank,
  blankVolume,
  boxBlank,
  compensatedSum,
  emptyLedger,
  moveBlank,
  type Origin,
  quarterTurn,
  toOrigin,
  turnBlank,
} from '../../solid';
import { counted, type Length } from '../../units';
import { type Outcome, type RunContext, stopAt } from '../context';
import type { StepRoom } from '../room';
import { placeInLog, seedOf } from '../rip/log';
import { settingErrors } from '../tolerance';
import { speciesName } from '../../wood';

/** How the grain of a piece runs: along its length, across its width, or up, as in an end-grain block. */
export type GrainRun = 'length' | 'width' | 'thickness';

/** A board, blank or slab that is there already: so many alike, of one wood and size. */
export interface HaveStep extends StepBase {
  kind: 'have';
  species: string;
  count: number;
  length: Length;
  width: Length;
  thickness: Length;
  /** Along the length if missing. */
  grainAlong?: GrainRun;
  /** How its rings lie, seen on its end; as they happen to if missing. */
  cut?: GrainCut;
}

/** The most pieces alike that one step may bring in. */
export const MOST_HAD = 500;

/** A box of wood whose grain runs as said, from a place in a log that its name decides. */
function had({ species, length, width, thickness, grainAlong, cut }: HaveStep, id: string): Blank {
  const seed = seedOf(id);
  const origin: Origin = { board: `wood for ${id}`, species, seed, shade: seed };
  const box = (l: number, w: number, t: number) =>
    boxBlank([l, w, t], placeInLog(seed, w, t, { species, ...(cut ? { grain: cut } : {}) }), origin, id);
  switch (grainAlong) {
    case 'thickness':
      return toOrigin(turnBlank(box(thickness.mm, width.mm, length.mm), 'standOnEnd'));
    case 'width':
      return toOrigin(moveBlank(box(width.mm, length.mm, thickness.mm), quarterTurn(2, 1)));
    case 'length':
    case undefined:
      return box(length.mm, width.mm, thickness.mm);
  }
}

/** Brings in pieces as they are; all of their wood counts as wood in. */
export function runHave(step: HaveStep, context: RunContext): Outcome {
  for (const name of ['length', 'width', 'thickness'] as const) {
    const { mm } = step[name];
    if (!(Number.isFinite(mm) && mm > 0))
      return stopAt(step, 'no-size', [`What is there has no ${name}.`], {
        numbers: { [name]: mm },
        dimension: name,
      });
  }
  const { count } = step;
  if (!(Number.isInteger(count) && count > 0 && count <= MOST_HAD))
    return stopAt(step, 'bad-count', [`The number of pieces must be a whole number from 1 to ${MOST_HAD}.`], {
      numbers: { pieces: count, most: MOST_HAD },
    });
  const read = context.build.shop.settingStep.mm;
  const errors = (['length', 'width', 'thickness'] as const).map((name) =>
    settingErrors(context.sources, `${step.id}:${name}`, `${name} as measured on the piece`, {
      likely: { mm: read / 4 },
      worst: { mm: read / 2 },
      basis: 'common practice',
    }),
  );
  const pieces = Array.from({ length: count }, (_, i) => {
    const id = `${step.id}.${i + 1}`;
    return { id, blank: had(step, id), errors: [errors[0], errors[1], errors[2]] as const };
  });
  return {
    pieces,
    lost: emptyLedger(),
    woodInMm3: compensatedSum(pieces.map(({ blank }) => blankVolume(blank))),
  };
}

const grainOptions = [
  { value: 'length', label: 'Along the length' },
  { value: 'width', label: 'Across the width' },
  { value: 'thickness', label: 'Up: end grain above' },
] as const;

/** The room of what is there already. */
export const have: StepRoom<HaveStep> = {
  kind: 'have',
  name: 'What I have',
  group: 'Stock',
  says: 'Begins with a board, a blank or slabs that are there already, as they are.',
  subtitle: ({ count, species }) => `${counted(count, 'piece')} of ${speciesName(species)}`,
  fields: {
    species: { is: 'id', of: 'wood', label: 'Wood', carried: true },
    count: {
      is: 'number',
      label: 'How many',
      least: 0,
      most: MOST_HAD,
      card: { least: 1, most: MOST_HAD, whole: true },
      carried: true,
    },
    length: { is: 'length', label: 'Length', least: 1, most: 10_000, carried: true },
    width: { is: 'length', label: 'Width', least: 1, most: 5000, carried: true },
    thickness: { is: 'length', label: 'Thickness', least: 0.5, most: 1000, carried: true },
    grainAlong: { is: 'choice', label: 'Grain runs', options: grainOptions, optional: true, carried: true },
    cut: {
      is: 'choice',
      label: 'Rings on its end',
      options: [
        { value: 'flat', label: 'Flat' },
        { value: 'rift', label: 'Slanting' },
        { value: 'quarter', label: 'Upright' },
      ],
      optional: true,
      carried: true,
    },
  },
  flow: { source: true },
  begin: () => {
    throw new Refusal(['What is there begins a line of its own: say its wood and sizes first.']);
  },
  run: (step, _inputs, context) => runHave(step, context),
  operations: (step, { entry }) => [
    {
      say: [
        `Bring ${counted(entry.pieces.length, 'piece')} of ${speciesName(step.species)}, each `,
        step.length,
        ' long, ',
        step.width,
        ' wide.',
      ],
      dial: { name: 'thick', value: step.thickness },
    },
  ],
  labour: { setUp: 0, each: 0 },
};

declare module '../../document/step' {
  interface StepKinds {
    have: HaveStep;
  }
}
