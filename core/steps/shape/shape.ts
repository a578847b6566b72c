import { boxOf, type Loop, offset, rectangle, type Region, reversed, subtracted } from '../../curve';
import { counted } from '../../units';
import { offDial } from '../operation';
import type { StepRoom } from '../room';
import type { StepBase } from '../../document';
import {
  type Blank,
  book,
  bookVolumes,
  EMPTY,
  emptyLedger,
  extents,
  type Form,
  formInCell,
  IDENTITY,
  type Ledger,
  type Plane,
  type Rigid,
  splitBlank,
  takeOut,
  toOrigin,
} from '../../solid';
import type { Length } from '../../units';
import { sawThat } from '../begin';
import { isStopped, type Outcome, type RunContext, sawOf, stopAt } from '../context';
import type { WorkPiece } from '../timeline';
import { bentWrong, drawnOutline, leftSharp, type OutlineCorner } from './outline';

/** Saws every piece to an outline, seen from above or from the near edge; x from its left end. */
export interface ShapeStep extends StepBase {
  kind: 'shape';
  saw?: string;
  seen?: 'face' | 'edge';
  outline?: OutlineCorner[];
  /** So much larger all round than it is drawn, smaller with a minus; as drawn if missing. */
  larger?: Length;
  /** Left outside the line, for the cutter that cleans it up along a template afterwards; 0 if missing. */
  cleanUp?: Length;
  settings?: Record<string, unknown>;
}

/** The most corners of one outline. */
export const MOST_CORNERS = 400;

/** Keeps what lies inside every plane; what lies outside is booked. */
function keepInside(
  blank: Blank,
  planes: readonly Plane[],
  kerfMm: number,
  ledger: Ledger,
): { blank: Blank; ledger: Ledger } {
  let kept = blank;
  let booked = ledger;
  for (const at of planes) {
    if (kept.cells.length === 0) break;
    const [inside, rest] = splitBlank(kept, at);
    if (rest.cells.length === 0) continue;
    const [kerf, off] = kerfMm > 0 ? splitBlank(rest, { ...at, offset: at.offset + kerfMm }) : [EMPTY, rest];
    booked = book(book(booked, 'kerf', kerf), 'offcut', off);
    kept = inside;
  }
  return { blank: kept, ledger: booked };
}

/** Planes of an outline's edges, pointing out; undefined where it has a hollow or no area. Corners in mm. */
export function outlinePlanes(
  corners: readonly { readonly x: number; readonly y: number }[],
  seen: 'face' | 'edge',
): Plane[] | undefined {
  const area = corners.reduce((sum, p, i) => {
    const q = corners[(i + 1) % corners.length];
    return sum + p.x * q.y - q.x * p.y;
  }, 0);
  if (corners.length < 3 || Math.abs(area) < 1e-6) return undefined;
  const round = area > 0 ? corners : corners.toReversed();
  const planes: Plane[] = [];
  for (const [i, p] of round.entries()) {
    const q = round[(i + 1) % round.length];
    const long = Math.hypot(q.x - p.x, q.y - p.y);
    if (long < 1e-6) continue;
    const n = { x: (q.y - p.y) / long, y: (p.x - q.x) / long };
    const offset = n.x * p.x + n.y * p.y;
    if (round.some((r) => n.x * r.x + n.y * r.y > offset + 1e-6)) return undefined;
    planes.push({ normal: seen === 'face' ? [n.x, n.y, 0] : [n.x, 0, n.y], offset });
  }
  return planes;
}

/**
 * Saws every piece to an outline with arcs or hollows: ends and edges that it has in common with its box as plain cuts, the rest as what
 * is hollow around it. What the saw takes is kerf, what the cutter cleans up is chips, what falls off is offcut.
 */
function sawnRound(
  step: ShapeStep,
  inputs: readonly WorkPiece[],
  { loop, kerfMm, cleanUpMm }: { loop: Loop; kerfMm: number; cleanUpMm: number },
): Outcome {
  const seen = step.seen ?? 'face';
  const { x0, y0, x1, y1 } = boxOf([loop]);
  const box: Loop = rectangle({ x: x0 - 1, y: y0 - 1 }, x1 - x0 + 2, y1 - y0 + 2);
  const grown = (by: number): Region => (by > 0 ? offset(loop, by) : [loop]);
  const waste: Region = [box, reversed(loop)];
  const offcut: Region = subtracted([box], grown(cleanUpMm + kerfMm));
  const chips: Region = cleanUpMm > 0 ? [...grown(cleanUpMm), reversed(loop)] : [];
  const planes = outlinePlanes(
    [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ],
    seen,
  ) as Plane[];
  const toForm: Rigid = seen === 'face' ? IDENTITY : [1, 0, 0, 0, 0, 0, 1, 0, 0, -1, 0, 0];
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const whole = toOrigin(piece.blank);
    const [, wide, thick] = extents(whole);
    const [z0, z1] = seen === 'face' ? [0, thick] : [-wide, 0];
    const cut = keepInside(whole, planes, kerfMm, lost);
    lost = cut.ledger;
    if (cut.blank.cells.length === 0) return besideIt(step);
    const prism = (region: Region): Form => ({ kind: 'prism', region, z0: z0 - 1, z1: z1 + 1 });
    const taken = takeOut(cut.blank, `${step.id}.outline`, {
      form: prism(waste),
      toForm,
      plug: prism(offcut),
    });
    if (taken.blank.cells.length === 0) return besideIt(step);
    const cleaned = cleanUpMm > 0 ? formsIn(cut.blank, prism(chips), toForm) : {};
    const kerf = Object.fromEntries(
      Object.entries(taken.lost).map(([id, mm3]) => [id, mm3 - (taken.plug[id] ?? 0) - (cleaned[id] ?? 0)]),
    );
    lost = bookVolumes(bookVolumes(bookVolumes(lost, 'kerf', kerf), 'chips', cleaned), 'offcut', taken.plug);
    pieces.push({ ...piece, blank: toOrigin(taken.blank) });
  }
  return { pieces, lost };
}

/** Volume of a form in a blank, by species, mm3. */
function formsIn(blank: Blank, form: Form, toForm: Rigid): Record<string, number> {
  const out: Record<string, number> = {};
  for (const cell of blank.cells)
    out[cell.origin.species] = (out[cell.origin.species] ?? 0) + formInCell(form, cell, toForm);
  return out;
}

const besideIt = (step: ShapeStep) =>
  stopAt(step, 'nothing-left', ['The outline lies beside the piece: nothing is left of it.'], {
    numbers: { left: 0, corners: step.outline?.length ?? 0 },
  });

/** Saws every piece to an outline. A shape that only stands in the documents changes nothing, and a note says so. */
export function runShape(step: ShapeStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  if (!step.outline || !step.saw) return { pieces: [...inputs], lost: emptyLedger() };
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const corners = step.outline.map(({ x, y }) => ({ x: x.mm, y: y.mm }));
  const bent = bentWrong(step.outline);
  if (bent) return stopAt(step, 'outline-not-round', bent.words, { numbers: bent.numbers });
  const loop = drawnOutline(step);
  if (!loop) {
    const larger = step.larger?.mm ?? 0;
    return stopAt(
      step,
      'outline-not-round',
      larger < 0 && drawnOutline({ outline: step.outline })
        ? [
            'Drawn smaller by ',
            { mm: -larger },
            ' all round, the outline comes apart, or nothing is left of it.',
          ]
        : [`The outline of ${corners.length} corners crosses itself, or has no area.`],
      { numbers: { corners: corners.length, larger } },
    );
  }
  for (const { corner, takes, side } of leftSharp(step.outline))
    context.notes.push({
      code: 'corner-left-sharp',
      step: step.id,
      severity: 'warning',
      message:
        takes === undefined
          ? [`Corner ${corner} stays sharp: only a corner between two straight sides is rounded or cut off.`]
          : [
              `Corner ${corner} stays sharp: it would take `,
              { mm: takes },
              ' of a side that is ',
              { mm: side },
              ' long.',
            ],
      numbers: { corner, side, ...(takes === undefined ? {} : { takes }) },
      fixes: [
        {
          label: `Leave corner ${corner} sharp`,
          edit: {
            do: 'setStep',
            step: step.id,
            change: {
              outline: step.outline.map((each, i) => {
                const { radius: _radius, clip: _clip, ...rest } = each;
                return i === corner - 1 ? rest : each;
              }),
            },
          },
        },
      ],
    });
  const straight = loop.every(({ bulge }) => !bulge);
  const planes = straight ? outlinePlanes(loop, step.seen ?? 'face') : undefined;
  if (!planes || (step.cleanUp?.mm ?? 0) > 0)
    return sawnRound(step, inputs, { loop, kerfMm: saw.kerf.mm, cleanUpMm: step.cleanUp?.mm ?? 0 });
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const cut = keepInside(toOrigin(piece.blank), planes, saw.kerf.mm, lost);
    if (cut.blank.cells.length === 0) return besideIt(step);
    lost = cut.ledger;
    pieces.push({ ...piece, blank: toOrigin(cut.blank) });
  }
  return { pieces, lost };
}

/** The room of shaping. */
export const shape: StepRoom<ShapeStep> = {
  kind: 'shape',
  name: 'Outline',
  group: 'Shape',
  says: 'Saws every piece to an outline of straight sides, arcs and round corners, with hollows or without.',
  subtitle: ({ outline }) =>
    outline ? `an outline of ${counted(outline.length, 'corner')}` : 'no outline yet: sizes pass through',
  fields: {
    saw: { is: 'id', of: 'saw', loose: true, label: 'Saw', optional: true, carried: true },
    seen: {
      is: 'choice',
      label: 'Outline seen from',
      options: [
        { value: 'face', label: 'Above' },
        { value: 'edge', label: 'The near edge' },
      ],
      optional: true,
    },
    outline: {
      is: 'list',
      label: 'Its line',
      most: MOST_CORNERS,
      of: {
        is: 'group',
        fields: {
          x: { is: 'length' },
          y: { is: 'length' },
          rise: { is: 'length', optional: true },
          arc: { is: 'length', optional: true },
          through: { is: 'group', fields: { x: { is: 'length' }, y: { is: 'length' } }, optional: true },
          curve: { is: 'flag', optional: true },
          radius: { is: 'length', optional: true },
          clip: { is: 'length', optional: true },
        },
      },
      optional: true,
    },
    larger: {
      is: 'length',
      label: 'Larger all round (smaller with a minus)',
      optional: true,
      least: -2000,
      most: 2000,
    },
    cleanUp: { is: 'length', label: 'Left for the cutter to clean up', optional: true, most: 20 },
    settings: { is: 'plain', optional: true },
  },
  flow: {},
  begin: (at) => ({ saw: sawThat(at, 'crosscut') }),
  run: runShape,
  held: ({ outline, saw }) => !(outline && saw),
  took: ({ saw }, kerfMm) => (saw ? [{ from: 'kerf', mm: kerfMm }] : []),
  sawing: {
    work: () => ['crosscut'],
    through: ({ seen }) => (seen === 'edge' ? 'width' : 'thickness'),
    carried: { across: () => true },
  },
  needsSettled: true,
  operations: ({ cleanUp }) => [
    {
      say: [
        cleanUp && cleanUp.mm > 0
          ? 'Saw outside the line; the cutter cleans up the rest along a template.'
          : 'Saw along the line.',
      ],
      ...offDial('outside the line', cleanUp ?? { mm: 0 }),
    },
  ],
  labour: { setUp: 20, each: 15 },
  caution: 'Relief cuts first; the blade guide just above the wood. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    shape: ShapeStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** An outline that crosses itself, has no area, or bends over more than half a circle. */
    'outline-not-round': true;
    /** A corner of an outline that cannot be rounded or cut off as it is set. */
    'corner-left-sharp': true;
  }
}
