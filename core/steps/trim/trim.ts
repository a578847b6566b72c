import type { Rest, StepRoom } from '../room';
import { type Cutter, type StepBase, axisOf } from '../../document';
import { across, type Blank, book, bounds, emptyLedger, type Ledger, sawCut, toOrigin } from '../../solid';
import type { Length } from '../../units';
import { allowed, sawThat } from '../begin';
import { type CutWay, SQUARED_FIELDS } from '../deepcut';
import { isStopped, machineOf, type Outcome, type RunContext, sawOf, stopAt } from '../context';
import { checkRemoval, reaching, type Removal, removalFrom, restOptions, takeOff } from '../removal';
import type { WorkPiece } from '../timeline';
import { type Errors, settingErrors } from '../tolerance';

/** Ends and edges cut to size: amounts at the start and end of the length, and at the near and far edge. */
export interface TrimStep extends StepBase {
  kind: 'trim';
  cutter: Cutter;
  /** One side is meant to lose more than the other: what stands over there is no part of the pattern. */
  uneven?: boolean;
  start: Length;
  end: Length;
  near: Length;
  far: Length;
  /** Width and length to reach: what comes off follows from what enters. */
  toWidth?: Length;
  widthRest?: Rest;
  toLength?: Length;
  lengthRest?: Rest;
  /** How it comes through, the edge that the square stands on, and the end that lengths are measured from: in one cut, near, left, if missing. */
  way?: CutWay;
  square?: 'near' | 'far';
  measureFrom?: 'left' | 'right';
}

/** Trims long edges first, then ends. A saw's kerf lies outside the finished line. */
export function runTrim(step: TrimStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const removals: Removal[] = [
    { dimension: 'width', min: step.near.mm, max: step.far.mm, to: step.toWidth?.mm },
    { dimension: 'length', min: step.start.mm, max: step.end.mm, to: step.toLength?.mm },
  ];
  const setting = cutterSetting(step, step.cutter, context);
  if ('stop' in setting) return setting;
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const own = removals.map((removal) => removalFrom(removal, piece));
    const bad = checkRemoval(step, piece, own);
    if (bad) return bad;
    const cut = setting.trim(piece.blank, own, lost);
    lost = cut.ledger;
    const errors = [0, 1, 2].map((a) => {
      const taken = own.find(({ dimension, min, max }) => axisOf(dimension) === a && min + max > 0);
      return taken
        ? settingErrors(
            context.sources,
            `${step.id}:${a}`,
            `trimmed with ${setting.name}`,
            setting.spread,
            setting.id,
          )
        : piece.errors[a];
    });
    if (cut.blank.cells.length === 0)
      return stopAt(step, 'nothing-left', ['Nothing is left of the piece after this trim.'], {
        numbers: {
          left: 0,
        },
      });
    pieces.push({ ...piece, blank: toOrigin(cut.blank), errors: errors as [Errors, Errors, Errors] });
  }
  return { pieces, lost };
}

function cutterSetting(step: TrimStep, cutter: Cutter, context: RunContext) {
  if ('saw' in cutter) {
    const saw = sawOf(step, cutter.saw, context);
    if (isStopped(saw)) return saw;
    const trim = (blank: Blank, removals: readonly Removal[], ledger: Ledger) =>
      sawOff(blank, removals, saw.kerf.mm, ledger);
    return { id: saw.id, name: saw.name, spread: saw.setting, trim };
  }
  const machine = machineOf(step, cutter.machine, context, 'trim');
  if (isStopped(machine)) return machine;
  const trim = (blank: Blank, removals: readonly Removal[], ledger: Ledger) =>
    takeOff(blank, removals, machine, ledger);
  return { id: machine.id, name: machine.name, spread: machine.setting, trim };
}

function sawOff(
  blank: Blank,
  removals: readonly Removal[],
  kerfMm: number,
  ledger: Ledger,
): { blank: Blank; ledger: Ledger } {
  let kept = blank;
  let booked = ledger;
  // All amounts are measured on the piece as it came: with slanted ends, a cut edge would take corners along.
  const box = bounds(kept);
  for (const { dimension, min, max } of removals) {
    const axis = axisOf(dimension);
    if (max > 0) {
      const cut = sawCut(kept, across(axis, box.max[axis] - max), kerfMm);
      kept = cut.before;
      booked = book(book(booked, 'kerf', cut.kerf), 'offcut', cut.after);
    }
    if (min > 0) {
      const cut = sawCut(kept, across(axis, box.min[axis] + min - kerfMm), kerfMm);
      kept = cut.after;
      booked = book(book(booked, 'kerf', cut.kerf), 'offcut', cut.before);
    }
  }
  return { blank: kept, ledger: booked };
}

/** The room of trimming. */
export const trim: StepRoom<TrimStep> = {
  kind: 'trim',
  name: 'Trim',
  group: 'Saw',
  says: 'Cuts ends and edges to the finished size: long edges first, then the ends.',
  subtitle: () => 'long edges first, then the ends',
  fields: {
    cutter: { is: 'cutter', label: 'Trim with', carried: true },
    uneven: { is: 'flag', optional: true },
    toLength: { is: 'length', label: 'Length to reach', optional: true, most: 100_000 },
    lengthRest: {
      is: 'choice',
      options: restOptions('end', 'left end', 'right end'),
      label: 'How the ends share it',
      when: ({ toLength }) => (toLength?.mm ?? 0) > 0,
      optional: true,
    },
    toWidth: { is: 'length', label: 'Width to reach', optional: true },
    widthRest: {
      is: 'choice',
      options: restOptions('edge', 'near edge', 'far edge'),
      label: 'How the edges share it',
      when: ({ toWidth }) => (toWidth?.mm ?? 0) > 0,
      optional: true,
    },
    start: { is: 'length', label: 'Off the left end', fallback: { mm: 0 } },
    end: { is: 'length', label: 'Off the right end', fallback: { mm: 0 } },
    near: { is: 'length', label: 'Off the near edge', fallback: { mm: 0 } },
    far: { is: 'length', label: 'Off the far edge', fallback: { mm: 0 } },
    ...SQUARED_FIELDS,
    measureFrom: {
      is: 'choice',
      options: [
        { value: 'left', label: 'Left end' },
        { value: 'right', label: 'Right end' },
      ],
      label: 'Lengths are measured from',
      group: 'How it is cut',
      optional: true,
      carried: true,
    },
  },
  flow: {},
  begin: (at) => ({
    cutter: { saw: sawThat(at, 'crosscut') },
    start: allowed(at, 'trimEnd'),
    end: allowed(at, 'trimEnd'),
    near: allowed(at, 'trimEdge'),
    far: allowed(at, 'trimEdge'),
  }),
  run: runTrim,
  takesOff: ({ start, end, near, far, toLength, lengthRest, toWidth, widthRest }) => [
    {
      dimension: 'length',
      min: start.mm,
      max: end.mm,
      sides: 'ends',
      margin: 'Trimming the ends',
      settings: ['start', 'end'],
      ...reaching(toLength, lengthRest),
      reach: { to: 'toLength', rest: 'lengthRest' },
    },
    {
      dimension: 'width',
      min: near.mm,
      max: far.mm,
      sides: 'edges',
      margin: 'Trimming the edges',
      settings: ['near', 'far'],
      ...reaching(toWidth, widthRest),
      reach: { to: 'toWidth', rest: 'widthRest' },
    },
  ],
  sawing: {
    setBy: 'trim',
    work: ({ start, end, near, far }) => [
      ...(start.mm + end.mm > 0 ? (['crosscut'] as const) : []),
      ...(near.mm + far.mm > 0 ? (['rip'] as const) : []),
    ],
    through: () => 'thickness',
    reach: true,
    squares: true,
    carried: {
      across: ({ start, end }) => start.mm + end.mm > 0,
      along: ({ near, far }) => Math.min(...[near.mm, far.mm].filter((mm) => mm > 0)),
    },
  },
  needsSettled: true,
  operations: (step, { entry }) => {
    const [length, width] = entry.greatest;
    // A saw's cuts are listed in their order, edges and ends.
    if ('saw' in step.cutter)
      return [{ instead: 'cuts', say: ['Bring it to size.'], dial: { name: 'long', value: { mm: length } } }];
    return [
      ...(step.near.mm + step.far.mm > 0 || step.toWidth
        ? [{ say: ['Bring the edges to width.'], dial: { name: 'wide', value: { mm: width } } }]
        : []),
      { say: ['Bring the ends to length.'], dial: { name: 'long', value: { mm: length } } },
    ];
  },
  labour: { setUp: 15, each: 5 },
  caution: 'Support the piece beside the blade; offcuts must not bind. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    trim: TrimStep;
  }
}
