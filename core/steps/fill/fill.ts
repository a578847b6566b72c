import type { Finding, StepBase } from '../../document';
import { extents } from '../../solid';
import { counted, countNeeded, type Length, sumOf } from '../../units';
import type { Fact, Played } from '../fact';
import { passThrough, type StepRoom } from '../room';

/** What knots and voids are filled with. */
export const FILLERS = [
  { value: 'epoxy', label: 'Epoxy', hours: 24, pourMm: 6, lossPct: 15 },
  { value: 'wax', label: 'Hard wax, melted', hours: 1, pourMm: 0, lossPct: 20 },
  { value: 'dust', label: 'Dust and glue', hours: 4, pourMm: 3, lossPct: 25 },
  { value: 'plug', label: 'A plug or patch of wood, glued', hours: 4, pourMm: 0, lossPct: 0 },
] as const;
export type Filler = (typeof FILLERS)[number]['value'];

/** One void, or several alike. */
export interface Void {
  shape: 'round' | 'long';
  length: Length;
  width: Length;
  depth: Length;
  count: number;
}

/** Fills knots, checks and voids before the last sanding. */
export interface FillStep extends StepBase {
  kind: 'fill';
  with: Filler;
  colour?: string;
  voids: Void[];
  hours?: number;
}

const MOST_VOIDS = 60;
const FILL_MIN = 5;

const fillerOf = (step: Pick<FillStep, 'with'>) =>
  FILLERS.find(({ value }) => value === step.with) ?? FILLERS[0];

/** Volume of voids alike, mm3: a round one is an ellipse of its length and width, a long one ends in half circles. */
export function voidMm3({ shape, length, width, depth, count }: Void): number {
  const [l, w] = [Math.max(length.mm, width.mm), Math.min(length.mm, width.mm)];
  const area = shape === 'round' ? (Math.PI * l * w) / 4 : (l - w) * w + (Math.PI * w * w) / 4;
  return count * area * depth.mm;
}

/** Pours, each no deeper than the filler takes: thicker heats and shrinks (common practice). */
const poursFor = (step: FillStep): number => {
  const { pourMm } = fillerOf(step);
  const deepest = Math.max(...step.voids.map(({ depth }) => depth.mm));
  return pourMm === 0 ? 1 : Math.max(1, countNeeded(deepest / pourMm));
};
const hoursOf = (step: FillStep): number => step.hours ?? fillerOf(step).hours;

function facts(step: FillStep): Fact[] {
  const { label, lossPct, pourMm } = fillerOf(step);
  const mm3 = sumOf(step.voids, (each) => voidMm3(each));
  if (step.voids.length === 0) return [];
  return [
    ...step.voids.map(
      (each, i): Fact => ({
        name: `${i + 1}. ${counted(each.count, each.shape === 'round' ? 'round void' : 'long void')}`,
        says: [{ ml: voidMm3(each) / 1000 }],
      }),
    ),
    ...(step.with === 'plug'
      ? []
      : [
          {
            name: 'To mix or melt',
            says: [
              { ml: (mm3 / 1000) * (1 + lossPct / 100) },
              `, ${lossPct} % of it for the pot`,
              step.colour ? `, ${step.colour}` : '',
            ],
          },
        ]),
    ...(pourMm > 0
      ? [
          {
            name: 'Layers',
            says: [
              `${poursFor(step)}, each no deeper than `,
              { mm: pourMm },
              `, ${hoursOf(step)} h between them`,
            ],
          },
        ]
      : []),
    { name: label, says: ['leave it proud and level it with the faces'] },
  ];
}

function findings(step: FillStep, { entry }: Played): Finding[] {
  const [piece] = entry.pieces;
  if (!piece) return [];
  const [l, w, t] = extents(piece.blank);
  return step.voids.flatMap((each, i): Finding[] => {
    const long = Math.max(each.length.mm, each.width.mm);
    const wide = Math.min(each.length.mm, each.width.mm);
    const over = each.depth.mm > t + 1e-6 || long > Math.max(l, w) + 1e-6 || wide > Math.min(l, w) + 1e-6;
    if (!over) return [];
    return [
      {
        code: 'void-too-large',
        step: step.id,
        severity: 'warning',
        message: [
          `Void ${i + 1} is `,
          each.length,
          ' by ',
          each.width,
          ', ',
          each.depth,
          ' deep: larger than the piece, which is ',
          { mm: l },
          ' by ',
          { mm: w },
          ' by ',
          { mm: t },
          '.',
        ],
        numbers: { at: i + 1, length: long, width: wide, depth: each.depth.mm, thickness: t },
        fixes: [
          {
            label: `Take void ${i + 1} out`,
            edit: {
              do: 'setStep',
              step: step.id,
              change: { voids: step.voids.filter((_, j) => j !== i) },
            },
          },
        ],
      },
    ];
  });
}

/** The room of filling. */
export const fill: StepRoom<FillStep> = {
  kind: 'fill',
  name: 'Fill knots and voids',
  group: 'Surface',
  says: 'Fills knots, checks and voids: how much, what colour, how long it waits.',
  subtitle: (step) =>
    step.voids.length === 0
      ? 'nothing to fill yet'
      : `${counted(
          sumOf(step.voids, ({ count }) => count),
          'void',
        )}, ${fillerOf(step).label.toLowerCase()}`,
  fields: {
    with: {
      is: 'choice',
      label: 'Filled with',
      options: FILLERS.map(({ value, label }) => ({ value, label })) as never,
      carried: true,
    },
    colour: { is: 'text', most: 60, label: 'Colour', optional: true, carried: true },
    hours: {
      is: 'number',
      least: 0,
      most: 240,
      usual: (step: FillStep) => hoursOf(step),
      label: 'Hours each layer hardens',
      optional: true,
      carried: true,
    },
    voids: {
      is: 'list',
      label: 'Void',
      most: MOST_VOIDS,
      carried: true,
      of: {
        is: 'group',
        fields: {
          shape: {
            is: 'choice',
            label: 'Shape',
            options: [
              { value: 'round', label: 'Round' },
              { value: 'long', label: 'Long' },
            ],
          },
          length: { is: 'length', label: 'Length', least: 0.1, most: 5000 },
          width: { is: 'length', label: 'Width', least: 0.1, most: 2000 },
          depth: { is: 'length', label: 'Depth', least: 0.1, most: 500 },
          count: { is: 'number', label: 'How many alike', least: 1, most: 500, whole: true },
        },
      },
    },
  },
  flow: {},
  begin: () => ({ with: 'epoxy', voids: [] }),
  run: passThrough,
  facts,
  findings,
  keepsOutline: true,
  operations: (step) =>
    Array.from({ length: poursFor(step) }, (_, i) => ({
      say: [`Mix, and pour layer ${i + 1} of ${poursFor(step)} into ${counted(step.voids.length, 'void')}.`],
    })),
  labour: {
    setUp: 10,
    each: 0,
    fixed: (step) => poursFor(step) * (10 + FILL_MIN * step.voids.length),
    rounds: (step) =>
      Array.from({ length: poursFor(step) }, (_, i) => ({
        of: 'coat' as const,
        words: `layer ${i + 1}`,
        minutes: 10 + FILL_MIN * step.voids.length,
        hours: hoursOf(step),
      })),
  },
  caution:
    'Gloves and long sleeves with epoxy: it makes skin allergic for good. Much of it in one pot heats and smokes.',
};

declare module '../../document/step' {
  interface StepKinds {
    fill: FillStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** A void larger than the piece that it is in. */
    'void-too-large': true;
  }
}
