import { leastSize } from '../sizes';
import { counted } from '../../units';
import type { StepRoom } from '../room';
import { type StepBase, DIMENSIONS } from '../../document';
import type { Saw } from '../../kit';
import {
  type Axis,
  type Blank,
  book,
  emptyLedger,
  extents,
  moveBlank,
  type Plane,
  quarterTurn,
  rotation,
  sawCut,
  toOrigin,
  type Vec3,
} from '../../solid';
import type { Length } from '../../units';
import { sawThat } from '../begin';
import { isStopped, type Outcome, type RunContext, sawOf, stopAt } from '../context';
import { checkSlices, MOST_SLICES } from '../slice/slice';
import type { WorkPiece } from '../timeline';
import { settingErrors } from '../tolerance';

/**
 * Cuts at an angle. `mitre`: the saw stands upright and crosses the face at the angle to the length. `bevel`: the
 * blade leans along the length. `ripBevel`: the blade leans across the width, for rhombus sticks. Slices are cut
 * against a stop, `thickness` across the cut; the first begins `head` past the corner, and its kerf falls before it.
 * Mitred slices are laid with the cut along the length. With `ends` only those ends are cut, to a point on the long edge.
 */
export interface ObliqueStep extends StepBase {
  kind: 'oblique';
  saw: string;
  tilt: 'mitre' | 'bevel' | 'ripBevel';
  angleDegrees: number;
  head: Length;
  thickness: Length;
  count: number;
  ends?: 'start' | 'end' | 'both';
  long?: 'near' | 'far';
  /** The corner as it was measured, degrees: both ends that meet there are cut at half of it. Nothing is checked where it is 0 or missing. */
  corner?: number;
}

/** Angles a saw can be trusted with, degrees; nearer to the length or the square a cut is no pattern any more. */
export const LEAST_ANGLE = 10;

export const MOST_ANGLE = 90;

/** The two axes a cut leans between: along the first, rising in the second. */
const LEANS: Record<ObliqueStep['tilt'], readonly [Axis, Axis]> = {
  mitre: [0, 1],
  bevel: [0, 2],
  ripBevel: [1, 2],
};

/** Sine and cosine of an angle in degrees, exact for the square. */
export function turnOf(degrees: number): { sin: number; cos: number } {
  if (degrees === 90) return { sin: 1, cos: 0 };
  const radians = (degrees * Math.PI) / 180;
  return { sin: Math.sin(radians), cos: Math.cos(radians) };
}

const plane = (axes: readonly [Axis, Axis], along: number, rising: number, offset: number): Plane => {
  const normal = [0, 0, 0];
  normal[axes[0]] = along;
  normal[axes[1]] = rising;
  return { normal: normal as unknown as Vec3, offset };
};

/**
 * How many slices of a thickness an oblique cut gives: across the cut there are `length` sin - `width` cos of whole
 * wood, of which the head is lost; the last kerf falls in the corner. Sizes in mm.
 */
export const obliqueRoom = (length: number, width: number, degrees: number): number => {
  const { sin, cos } = turnOf(degrees);
  return length * sin - width * cos;
};

/** Carries out an oblique cut: slices at an angle, or mitred ends. */
export function runOblique(step: ObliqueStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const { angleDegrees: angle } = step;
  if (!(angle >= LEAST_ANGLE && angle <= MOST_ANGLE))
    return stopAt(
      step,
      'bad-angle',
      [
        `An angle of ${Number.isFinite(angle) ? Math.round(angle * 100) / 100 : '–'}° is not one Junta plans: from ${LEAST_ANGLE}° to ${MOST_ANGLE}°. Nearer to 0° the cut runs almost along the strips and never leaves the panel.`,
      ],
      { numbers: { angle, least: LEAST_ANGLE, most: MOST_ANGLE } },
    );
  return step.ends
    ? cutEnds(step, step.ends, inputs, { saw, context })
    : cutSlices(step, inputs, saw, context);
}

function cutSlices(step: ObliqueStep, inputs: readonly WorkPiece[], saw: Saw, context: RunContext): Outcome {
  const thickness = step.thickness.mm;
  const bad = checkSlices(step);
  if (bad) return bad;
  const axes = LEANS[step.tilt];
  const { sin, cos } = turnOf(step.angleDegrees);
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  const errors = settingErrors(
    context.sources,
    `${step.id}:stop`,
    `slices set by the stop of ${saw.name}`,
    saw.setting,
    saw.id,
  );
  let room = 0;
  inputs.forEach((piece, index) => {
    const size = extents(piece.blank);
    room = obliqueRoom(size[axes[0]], size[axes[1]], step.angleDegrees);
    let at = step.head.mm;
    if (at + thickness > room + 1e-6) {
      lost = book(lost, 'offcut', piece.blank);
      return;
    }
    const at0 = plane(axes, sin, -cos, at - saw.kerf.mm);
    const first = sawCut(toOrigin(piece.blank), at0, saw.kerf.mm);
    lost = book(book(lost, 'offcut', first.before), 'kerf', first.kerf);
    let rest = first.after;
    for (let i = 0; i < step.count && at + thickness <= room + 1e-6; i++) {
      const cut = sawCut(rest, plane(axes, sin, -cos, at + thickness), saw.kerf.mm);
      lost = book(lost, 'kerf', cut.kerf);
      rest = cut.after;
      at += thickness + saw.kerf.mm;
      const lineage = inputs.length > 1 ? `${step.id}.${index + 1}` : step.id;
      pieces.push({
        id: `${lineage}.${i + 1}`,
        blank: layAlong(cut.before, step),
        errors:
          step.tilt === 'mitre'
            ? [piece.errors[1], errors, piece.errors[2]]
            : [
                step.tilt === 'bevel' ? errors : piece.errors[0],
                step.tilt === 'ripBevel' ? errors : piece.errors[1],
                piece.errors[2],
              ],
      });
    }
    lost = book(lost, 'offcut', rest);
  });
  if (pieces.length === 0)
    return stopAt(
      step,
      'no-slice-fits',
      [
        'Not one slice of ',
        { mm: thickness },
        ` fits at ${step.angleDegrees}°: between the corners there are `,
        { mm: Math.max(0, room) },
        ' across the cut, and the head takes ',
        { mm: step.head.mm },
        '.',
      ],
      { numbers: { thickness, room, head: step.head.mm }, dimension: 'length' },
    );
  return { pieces, lost, wanted: step.count * inputs.length };
}

/** A mitred slice is laid down with its cut along the length; sticks and bevelled slices lie as they were. */
function layAlong(blank: Blank, { tilt, angleDegrees }: ObliqueStep): Blank {
  if (tilt !== 'mitre') return toOrigin(blank);
  const turned = angleDegrees === 90 ? quarterTurn(2, -1) : rotation(2, (-angleDegrees * Math.PI) / 180);
  return toOrigin(moveBlank(blank, turned));
}

function cutEnds(
  step: ObliqueStep,
  ends: 'start' | 'end' | 'both',
  inputs: readonly WorkPiece[],
  { saw, context }: { saw: Saw; context: RunContext },
): Outcome {
  const [u, v] = LEANS[step.tilt];
  const { sin, cos } = turnOf(step.angleDegrees);
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const size = extents(piece.blank);
    const needed = ((ends === 'both' ? 2 : 1) * size[v] * cos) / sin;
    if (needed >= size[u])
      return stopAt(
        step,
        'too-short-to-mitre',
        [
          'The cut runs ',
          { mm: needed },
          ` along the piece at ${step.angleDegrees}°, and the piece is `,
          { mm: size[u] },
          ' long.',
        ],
        { numbers: { needed, length: size[u] }, dimension: DIMENSIONS[u] },
      );
    let blank = toOrigin(piece.blank);
    // The rising coordinate is taken from the edge that keeps its full length.
    const near = step.long !== 'far';
    const rise = near ? cos : -cos;
    if (ends !== 'start') {
      const offset = size[u] * sin + (near ? 0 : -size[v] * cos);
      const cut = sawCut(blank, plane([u, v], sin, rise, offset), saw.kerf.mm);
      lost = book(book(lost, 'kerf', cut.kerf), 'offcut', cut.after);
      blank = cut.before;
    }
    if (ends !== 'end') {
      const cut = sawCut(blank, plane([u, v], -sin, rise, near ? 0 : -size[v] * cos), saw.kerf.mm);
      lost = book(book(lost, 'kerf', cut.kerf), 'offcut', cut.after);
      blank = cut.before;
    }
    pieces.push({ ...piece, blank });
  }
  openMitre(step, inputs, context);
  settingErrors(context.sources, `${step.id}:angle`, `cut at an angle on ${saw.name}`, saw.setting, saw.id);
  return { pieces, lost };
}

/** Angles nearer than this are one, degrees. */
const SAME_ANGLE = 0.01;

/**
 * How a mitre opens that is not cut at half its corner: both halves off, the line of width / sin (cut) opens by its tangent at the end
 * (geometry). Length of the line and how far it opens, mm.
 */
export function mitreOpens(
  widthMm: number,
  cutDegrees: number,
  cornerDegrees: number,
): { line: number; opens: number } {
  const line = widthMm / turnOf(cutDegrees).sin;
  return { line, opens: line * Math.tan((Math.abs(cornerDegrees - 2 * cutDegrees) * Math.PI) / 180) };
}

/** A corner that was measured and is not twice the cut: its joint stays open. */
function openMitre(step: ObliqueStep, inputs: readonly WorkPiece[], context: RunContext): void {
  const { corner, angleDegrees, tilt } = step;
  if (!corner || tilt !== 'mitre' || inputs.length === 0) return;
  if (Math.abs(corner - 2 * angleDegrees) < SAME_ANGLE) return;
  const width = extents(inputs[0].blank)[1];
  const { line, opens } = mitreOpens(width, angleDegrees, corner);
  const half = Math.round((corner / 2) * 100) / 100;
  context.notes.push({
    code: 'mitre-opens',
    step: step.id,
    severity: 'warning',
    message: [
      `Half of a corner of ${corner}° is ${half}°. Cut at ${angleDegrees}°, the mitre line of `,
      { mm: line },
      ' stands open by ',
      { mm: opens },
      ' at its end.',
    ],
    numbers: { corner, half: corner / 2, cut: angleDegrees, line, opens },
    fixes: [
      {
        label: 'Cut it at half the measured corner',
        edit: { do: 'setStep', step: step.id, change: { angleDegrees: corner / 2 } },
      },
    ],
  });
}

/** The room of oblique cuts. */
export const oblique: StepRoom<ObliqueStep> = {
  kind: 'oblique',
  name: 'Oblique cut',
  group: 'Saw',
  says: 'Cuts slices or ends at an angle: a mitre, a bevel, or sticks with a leaning blade.',
  subtitle: ({ ends, angleDegrees }, { count }) =>
    ends
      ? `ends cut at ${angleDegrees}°`
      : `${count === undefined ? '–' : counted(count, 'piece')} at ${angleDegrees}°`,
  fields: {
    saw: { is: 'id', of: 'saw', label: 'Saw', carried: true },
    tilt: {
      is: 'choice',
      options: [
        { value: 'mitre', label: 'Across the face' },
        { value: 'bevel', label: 'Blade leans along the length' },
        { value: 'ripBevel', label: 'Blade leans across the width' },
      ],
    },
    angleDegrees: {
      is: 'number',
      label: ({ tilt }) =>
        tilt === 'ripBevel' ? 'Blade to the face, degrees' : 'Cut to the length, degrees',
      card: { least: LEAST_ANGLE, most: MOST_ANGLE },
    },
    thickness: { is: 'length', label: 'Width across the cut', least: 0.5, when: ({ ends }) => !ends },
    count: {
      is: 'number',
      label: 'Pieces',
      least: 0,
      most: MOST_SLICES,
      card: { least: 1, most: MOST_SLICES, whole: true },
      when: ({ ends }) => !ends,
    },
    head: { is: 'length', label: 'Cut off first', when: ({ ends }) => !ends, fallback: { mm: 0 } },
    ends: {
      is: 'choice',
      options: [
        { value: 'start', label: 'Left end' },
        { value: 'end', label: 'Right end' },
        { value: 'both', label: 'Both ends' },
      ],
      optional: true,
    },
    long: {
      is: 'choice',
      options: [
        { value: 'near', label: 'Near edge' },
        { value: 'far', label: 'Far edge' },
      ],
      optional: true,
    },
    corner: {
      is: 'number',
      label: 'Corner as measured, degrees; 0 if it was not',
      optional: true,
      least: 0,
      most: 2 * MOST_ANGLE,
      when: ({ ends, tilt }) => ends !== undefined && tilt === 'mitre',
    },
  },
  flow: { divides: ({ ends }) => !ends },
  begin: (at) => ({
    saw: sawThat(at, 'crosscut'),
    tilt: 'mitre',
    angleDegrees: 45,
    ends: 'both',
    long: 'near',
    head: { mm: 0 },
    thickness: { mm: Math.max(1, leastSize(at.pieces, 'width')) },
    count: 1,
  }),
  run: runOblique,
  took: ({ ends, count }, kerfMm, cut) =>
    ends ? [{ from: 'kerf', mm: kerfMm }] : [{ from: 'kerfs', mm: ((cut ?? count) + 1) * kerfMm }],
  explains: (step, dimension, _over, measured) =>
    !step.ends && step.tilt === 'mitre' && dimension === 'width'
      ? { ...step, thickness: { mm: measured } }
      : undefined,
  sawing: {
    work: () => ['crosscut'],
    through: () => 'thickness',
    reach: true,
    upright: ({ tilt, angleDegrees }) => (tilt === 'mitre' ? 1 : turnOf(angleDegrees).sin),
    carried: { across: () => true },
    words: {
      before: 'The leaning cut is ',
      after: ' deep',
      when: ({ tilt, angleDegrees }) => tilt !== 'mitre' && turnOf(angleDegrees).sin < 1,
    },
  },
  needsSettled: true,
  operations: (step, { entry }) => [
    {
      say: ['Set the angle of the cut, and try it on a scrap.'],
      dial: {
        name: step.tilt === 'mitre' ? 'cut against the edge' : 'blade against the table',
        value: `${step.angleDegrees}°`,
      },
    },
    step.ends
      ? { say: ['Cut the ends at this angle.'] }
      : {
          say: [`Cut ${counted(entry.pieces.length, 'piece')} against the stop.`],
          dial: { name: 'stop at', value: step.thickness },
        },
  ],
  labour: { setUp: 15, each: 2 },
  gives: ({ ends, tilt, angleDegrees, count, thickness }) =>
    ends
      ? undefined
      : { count, words: `pieces at ${angleDegrees}° of`, mm: thickness.mm, fromPanel: tilt === 'mitre' },
  each: { name: 'slice' },
  caution: 'A leaning blade can trap the offcut: it must be free to fall away. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    oblique: ObliqueStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** An angle that no saw here is trusted with. */
    'bad-angle': true;
    /** The cut runs further along a piece than it is long. */
    'too-short-to-mitre': true;
    /** A mitre that is not cut at half the measured corner: its joint stays open. */
    'mitre-opens': true;
  }
}
