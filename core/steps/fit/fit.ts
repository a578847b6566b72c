import type { BuildDocument, Finding, StepBase } from '../../document';
import { extents, toOrigin } from '../../solid';
import { roundToStep, roundUpToStep } from '../../units';
import type { Fact, Played } from '../fact';
import { passThrough, type StepRoom } from '../room';
import { movesOf, swingOf } from '../swing';
import type { WorkPiece } from '../timeline';
import { dialStep } from '../tolerance';
import type { FitPlace, FitReport } from './kind';
import { fittingKindOf, fittingName } from './kinds';
import type { Fitting, FittingKindName } from './model';

/** Something is fitted to the piece that does not move as it does: each held against a year of movement. */
export interface FitStep extends StepBase {
  kind: 'fit';
  fittings: Fitting[];
}

/** Minutes to fit one (a guess, common practice). */
const FITTING_MIN = 30;
/** The most fittings one step holds. */
export const MOST_FITTINGS = 40;

/** A piece as something is fitted to it, at the place where the job says that it will stand. */
export function fitPlaceOf(piece: WorkPiece, build: Pick<BuildDocument, 'place' | 'shop'>): FitPlace {
  const blank = toOrigin(piece.blank);
  const swing = swingOf(build);
  const stepMm = dialStep(build.shop);
  return {
    size: extents(blank),
    swing,
    moves: (axis, within) => movesOf(blank, axis, swing, within),
    up: (mm) => roundUpToStep(mm, stepMm),
  };
}

const isLength = (value: unknown): value is { mm: number } =>
  typeof value === 'object' && value !== null && 'mm' in value;

/** A fitting of a kind as it begins on a piece: sizes that this shop sets, large enough for the year. */
export function beginFitting(
  kind: FittingKindName,
  id: string,
  piece: WorkPiece,
  build: Pick<BuildDocument, 'place' | 'shop'>,
): Fitting {
  const at = fitPlaceOf(piece, build);
  const stepMm = dialStep(build.shop);
  const own = Object.entries(fittingKindOf({ kind }).begin(at)).map(([name, value]) => [
    name,
    isLength(value) ? { mm: roundToStep(value.mm, stepMm) } : value,
  ]);
  let fitting = { id, kind, ...Object.fromEntries(own) } as Fitting;
  // Rounded sizes may be a hair short of one another: what mends that is part of how it begins.
  for (let turns = 0; turns < MOST_TURNS; turns++) {
    const fix = fittingKindOf(fitting).report(fitting, at).problems[0]?.fixes[0];
    if (!fix?.change) break;
    fitting = { ...fitting, ...fix.change } as Fitting;
  }
  return fitting;
}
const MOST_TURNS = 6;

/** Every fitting of a step held against the first of its pieces; nothing where none comes in. */
export function fitReports(
  { fittings }: FitStep,
  { build, entry }: Played,
): { fitting: Fitting; report: FitReport<Fitting> }[] {
  const [piece] = entry.pieces;
  if (!piece) return [];
  const at = fitPlaceOf(piece, build);
  return fittings.map((fitting) => ({ fitting, report: fittingKindOf(fitting).report(fitting, at) }));
}

const pct = (n: number): string => `${Math.round(n * 10) / 10} %`;

/** Where the piece will stand and by what its movement is told, in words. */
export function placeFacts(build: Pick<BuildDocument, 'place' | 'shop'>): Fact[] {
  const { fitted, dry, damp, assumed, relation } = swingOf(build);
  return [
    {
      name: assumed ? 'Moisture, a heated house assumed' : 'Moisture where it will stand',
      says: [`${pct(dry)} to ${pct(damp)}, fitted at ${pct(fitted)}`],
    },
    {
      name: 'Movement told by',
      says: [relation === 'shrinkage' ? 'total shrinkage' : 'coefficients of change'],
    },
  ];
}

function findingsOf(step: FitStep, played: Played): Finding[] {
  return fitReports(step, played).flatMap(({ fitting, report }, i) =>
    report.problems.map(
      ({ code, severity, message, numbers, fixes }): Finding => ({
        code,
        step: step.id,
        severity,
        message: [`${fittingName(fitting)}: `, ...message],
        numbers: { ...numbers, at: i + 1 },
        fixes: fixes.map(({ label, change, edit }) => ({
          label: `${fittingName(fitting)}: ${label.charAt(0).toLowerCase()}${label.slice(1)}`,
          edit: edit ?? {
            do: 'setStep',
            step: step.id,
            change: {
              fittings: step.fittings.map((each) => (each.id === fitting.id ? { ...each, ...change } : each)),
            },
          },
        })),
      }),
    ),
  );
}

/** The room of fitting across the grain. */
export const fit: StepRoom<FitStep> = {
  kind: 'fit',
  name: 'Fit across the grain',
  group: 'Assemble',
  says: 'Breadboard ends, frames, aprons, walls: what is fitted to the piece, held against a year of movement.',
  subtitle: ({ fittings }) =>
    fittings.length === 0
      ? 'nothing fitted yet'
      : [...new Set(fittings.map(fittingName))].slice(0, 3).join(', ').toLowerCase(),
  fields: {
    fittings: {
      is: 'list',
      label: 'What is fitted',
      most: MOST_FITTINGS,
      of: { is: 'fitting' },
      carried: true,
    },
  },
  flow: {},
  begin: () => ({ fittings: [] }),
  run: passThrough,
  ownIds: ({ fittings }) => ({ fittings }),
  facts: (step, played) => [
    ...placeFacts(played.build),
    ...fitReports(step, played).flatMap(({ fitting, report }) =>
      report.facts.map((fact) => ({ ...fact, of: fitting.id })),
    ),
  ],
  findings: findingsOf,
  keepsOutline: true,
  operations: ({ fittings }) =>
    fittings.length > 0
      ? fittings.map((fitting) => ({ say: [`Fit: ${fittingName(fitting)}.`] }))
      : [{ say: ['Fit it across the grain, so that it can move.'] }],
  labour: { setUp: 10, each: 0, more: ({ fittings }) => FITTING_MIN * fittings.length },
};

declare module '../../document/step' {
  interface StepKinds {
    fit: FitStep;
  }
}
