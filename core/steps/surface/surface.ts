import { sumOf } from '../../units';
import { type BuildDocument, machineIdOf, makersOf, type StepBase } from '../../document';
import {
  doesWork,
  END_GRAIN_TIMES,
  ladderFor,
  type LadderAfter,
  LADDERS,
  LADDER_NAMES,
  machineFacts,
  type Need,
  SAND_MIN_PER_M2,
  SHEET_M2,
  takesOf,
} from '../../kit';
import { book, bounds, type Blank, across, emptyLedger, splitBlank, toOrigin } from '../../solid';
import type { Length } from '../../units';
import { checkRemoval, type Removal } from '../removal';
import type { Place } from '../begin';
import type { Outcome } from '../context';
import { faceAreas, isEndGrain } from '../faces';
import type { Fact } from '../fact';
import type { StepRoom, TakesOff } from '../room';
import type { WorkPiece } from '../timeline';
import { laidBefore, softened } from './edges';

/** Sands, scrapes or planes the faces ready for the finish. */
export interface SurfaceStep extends StepBase {
  kind: 'surface';
  by?: 'sand' | 'scrape' | 'plane';
  /** How the faces were made; decides the ladder, and what marks must go. */
  after?: LadderAfter;
  /** Grits, coarse to fine. Nothing comes off where none is given. */
  grits?: number[];
  /** Edges and ends too. */
  edges?: boolean;
  /** What comes off each face in all, where it was measured; what the ladder takes, if missing. */
  face?: Length;
  /** The grain is raised with water and knocked back with the last grit. */
  raise?: boolean;
  settings?: Record<string, unknown>;
}

/** A scraper or a smoothing plane takes so much off a face, mm: some shavings (common practice). */
const SHAVINGS_MM = 0.1;
/** Hours until raised grain is dry enough to be knocked back (common practice). */
const RAISED_H = 1;

/** What comes off each face, mm: measured, or what the ladder takes. A step that says nothing takes nothing. */
export function surfacedMm({ by = 'sand', grits = [], after = 'planed', face }: SurfaceStep): number {
  if (face?.mm) return face.mm;
  if (by !== 'sand') return SHAVINGS_MM;
  return sumOf(takesOf(grits, LADDERS[after].marksMm));
}

/** Whether a step says how it is done; one of an earlier file that does not changes nothing. */
const isSaid = ({ by, grits, face }: SurfaceStep): boolean =>
  by === 'scrape' || by === 'plane' || (grits?.length ?? 0) > 0 || (face?.mm ?? 0) > 0;

const removals = (step: SurfaceStep): Removal[] => {
  if (!isSaid(step)) return [];
  const mm = surfacedMm(step);
  return [
    { dimension: 'thickness', min: mm, max: mm },
    ...(step.edges
      ? ([
          { dimension: 'width', min: mm, max: mm },
          { dimension: 'length', min: mm, max: mm },
        ] as const)
      : []),
  ];
};

function runSurfacing(step: SurfaceStep, inputs: readonly WorkPiece[]): Outcome {
  let lost = emptyLedger();
  const off = removals(step);
  const cause = (step.by ?? 'sand') === 'sand' ? 'dust' : 'shaving';
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const bad = checkRemoval(step, piece, off);
    if (bad) return bad;
    let blank: Blank = toOrigin(piece.blank);
    const box = bounds(blank);
    for (const { dimension, min, max } of off) {
      const axis = dimension === 'length' ? 0 : dimension === 'width' ? 1 : 2;
      for (const [at, keepLow] of [
        [box.max[axis] - max, true],
        [box.min[axis] + min, false],
      ] as const) {
        const [low, high] = splitBlank(blank, across(axis, at));
        lost = book(lost, cause, keepLow ? high : low);
        blank = keepLow ? low : high;
      }
    }
    pieces.push({ ...piece, blank: toOrigin(blank) });
  }
  return { pieces, lost };
}

/** How the faces of pieces were made: end grain by itself, else by the last machine that went over them, or the saw that split them. */
function madeHow({ build, pieces, from }: Place): LadderAfter {
  if (isEndGrain(pieces)) return 'endGrain';
  for (const step of from ? makersOf(build, from) : []) {
    const id = step.off ? undefined : machineIdOf(step);
    const machine = build.shop.machines.find((each) => each.id === id);
    if (machine && (doesWork(machine, 'flatten') || doesWork(machine, 'mill')))
      return BY_CUT[machineFacts(machine).cuts];
    if (step.kind === 'resaw' && !step.off) return 'sawn';
  }
  return 'planed';
}
const BY_CUT: Record<ReturnType<typeof machineFacts>['cuts'], LadderAfter> = {
  knives: 'planed',
  plane: 'handPlaned',
  bit: 'routed',
  abrasive: 'sanded',
};

const m2 = (mm2: number) => mm2 / 1e6;

/** What is sanded, m2: faces, and edges with ends where they are done too; end grain counted as much more as it asks. */
function sandedM2(step: SurfaceStep, pieces: readonly WorkPiece[]): { m2: number; work: number } {
  const areas = faceAreas(pieces);
  const own = [areas.upper, areas.lower, ...(step.edges ? [areas.edges, areas.ends] : [])];
  return {
    m2: sumOf(own, ({ mm2 }) => m2(mm2)),
    work: sumOf(own, ({ mm2, endGrain }) => m2(mm2) * (1 - endGrain + END_GRAIN_TIMES * endGrain)),
  };
}

/** Sheets of each grit, whole ones. */
const sheetsFor = (work: number): number => Math.max(1, Math.ceil(work / SHEET_M2 - 1e-9));

const needs = (step: SurfaceStep, { pieces }: { pieces: readonly WorkPiece[] }): Need[] => {
  if ((step.by ?? 'sand') !== 'sand') return [];
  const { grits } = step;
  if (!grits?.length) return [{ what: 'supply', kind: 'abrasive' }];
  const { work } = sandedM2(step, pieces);
  return grits.map((grit) => ({
    what: 'supply',
    kind: 'abrasive',
    size: `P${grit}`,
    amount: sheetsFor(work),
  }));
};

function facts(step: SurfaceStep, build: BuildDocument, pieces: readonly WorkPiece[]): Fact[] {
  if (!isSaid(step)) return [];
  const { by = 'sand', grits = [], after = 'planed' } = step;
  const all = sandedM2(step, pieces);
  const takes = takesOf(grits, LADDERS[after].marksMm);
  const ladder = sumOf(takes);
  const scale = ladder > 0 ? surfacedMm(step) / ladder : 1;
  const rows: Fact[] =
    by === 'sand'
      ? grits.map((grit, i) => ({
          name: `P${grit}`,
          says: [
            { mm2: all.m2 * 1e6 },
            ', about ',
            { minutes: Math.max(1, Math.round(all.work * SAND_MIN_PER_M2)) },
            `, ${sheetsFor(all.work)} sheets, takes `,
            { fine: takes[i] * scale },
            ' off each face',
          ],
        }))
      : [
          {
            name: by === 'scrape' ? 'Scraper' : 'Smoothing plane',
            says: [{ mm2: all.m2 * 1e6 }, ', until the marks are gone'],
          },
        ];
  return [
    ...rows,
    {
      name: 'Off each face in all',
      says: [{ fine: surfacedMm(step) }, step.face ? ', as measured' : ', a guess until it is measured'],
    },
    ...(by === 'sand'
      ? [
          {
            name: 'Each grit is done',
            says: ['when pencil lines drawn all over are gone; wipe the dust off before the next'],
          },
        ]
      : []),
    ...(step.raise
      ? [
          {
            name: 'Raise the grain',
            says: [
              'wet it, let it dry an hour, knock it back lightly with the last grit; no pressure, or it rises again',
            ],
          },
        ]
      : []),
    ...softened(laidBefore(build, step), surfacedMm(step), step.edges === true),
  ];
}

/** Grits that go back, or skip so far that scratches stay: from one to the next the grains should not be less than 0.45 as wide (common practice). */
const LEAST_STEP = 0.45;

/** The room of surface. */
export const surface: StepRoom<SurfaceStep> = {
  kind: 'surface',
  name: 'Surface',
  group: 'Surface',
  says: 'Sands, scrapes or planes the faces ready for the finish; what that takes comes off.',
  subtitle: ({ by = 'sand', grits }) =>
    by === 'sand'
      ? (grits ?? []).map((grit) => `P${grit}`).join(', ')
      : by === 'scrape'
        ? 'scraped'
        : 'planed',
  fields: {
    by: {
      is: 'choice',
      label: 'With',
      options: [
        { value: 'sand', label: 'Abrasive' },
        { value: 'scrape', label: 'A scraper' },
        { value: 'plane', label: 'A smoothing plane' },
      ],
      optional: true,
      carried: true,
    },
    after: {
      is: 'choice',
      label: 'The faces are',
      options: LADDER_NAMES.map((value) => ({ value, label: LADDERS[value].name })) as never,
      when: ({ by = 'sand' }) => by === 'sand',
      optional: true,
      carried: true,
    },
    grits: {
      is: 'list',
      label: 'Grits, coarse to fine',
      most: 12,
      of: { is: 'number', least: 16, most: 3000, whole: true },
      when: ({ by = 'sand' }) => by === 'sand',
      optional: true,
      carried: true,
    },
    edges: { is: 'flag', label: 'Edges and ends too', optional: true, carried: true },
    raise: { is: 'flag', label: 'Raise the grain with water', optional: true, carried: true },
    face: {
      is: 'length',
      label: 'Off each face, as measured',
      most: 10,
      optional: true,
      carried: true,
    },
    settings: { is: 'plain', optional: true },
  },
  flow: {},
  begin: (at) => {
    const after = madeHow(at);
    return { by: 'sand', after, grits: [...ladderFor(at.build.shop, after)] };
  },
  needs,
  run: runSurfacing,
  held: (step) => !isSaid(step),
  takesOff: (step): TakesOff[] =>
    removals(step).map(({ dimension, min, max }) => ({
      dimension,
      min,
      max,
      sides: dimension === 'thickness' ? 'both faces' : dimension === 'width' ? 'both edges' : 'both ends',
      settings: ['face', 'face'],
    })),
  explains: (step, dimension, over) =>
    dimension === 'thickness' && isSaid(step)
      ? { ...step, face: { mm: Math.max(0.01, surfacedMm(step) + over / 2) } }
      : undefined,
  facts: (step, { build, entry }) => facts(step, build, entry.pieces),
  findings: (step, { build }) => {
    const grits = step.grits ?? [];
    const at = grits.findIndex(
      (grit, i) => i > 0 && (grit <= grits[i - 1] || grits[i - 1] / grit < LEAST_STEP),
    );
    if (at < 0 || (step.by ?? 'sand') !== 'sand') return [];
    const [before, next] = [grits[at - 1], grits[at]];
    return [
      {
        code: 'grits-out-of-order',
        step: step.id,
        severity: 'warning',
        message: [
          next <= before
            ? `P${next} comes after P${before}: it scratches deeper than what it follows.`
            : `From P${before} to P${next} is too far: the scratches of P${before} stay and show under the finish.`,
        ],
        numbers: { before, next },
        fixes: [
          {
            label: 'Use the shop’s usual ladder',
            edit: {
              do: 'setStep',
              step: step.id,
              change: { grits: [...ladderFor(build.shop, step.after ?? 'planed')] },
            },
          },
        ],
      },
    ];
  },
  needsSettled: true,
  keepsOutline: true,
  operations: ({ by = 'sand', grits = [], raise }) => [
    ...(by === 'sand'
      ? grits.map((grit) => ({
          say: ['Pencil lines across the faces; sand until the last one is gone.'],
          dial: { name: 'grit', value: `P${grit}` },
        }))
      : [{ say: [by === 'scrape' ? 'Scrape with the grain.' : 'Plane with the grain, thin shavings.'] }]),
    ...(raise ? [{ say: ['Wet the faces, let them dry, and knock the raised grain back.'] }] : []),
  ],
  labour: {
    setUp: 10,
    each: 40,
    minutes: (step, pieces) =>
      isSaid(step) && (step.by ?? 'sand') === 'sand'
        ? 10 +
          sandedM2(step, pieces).work * SAND_MIN_PER_M2 * ((step.grits?.length ?? 1) + (step.raise ? 1 : 0))
        : undefined,
    waits: ({ raise }) => (raise ? [{ of: 'rest', words: 'the raised grain dries', hours: RAISED_H }] : []),
  },
  caution:
    'Mask and collection for the dust: some woods irritate skin and lungs. No sanding over nails or stone.',
};

declare module '../../document/step' {
  interface StepKinds {
    surface: SurfaceStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** Grits that go back, or skip so far that scratches stay. */
    'grits-out-of-order': true;
  }
}
