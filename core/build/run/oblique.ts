import {
  book,
  extents,
  emptyLedger,
  moveBlank,
  quarterTurn,
  rotation,
  sawCut,
  toOrigin,
  type Axis,
  type Blank,
  type Plane,
  type Vec3,
} from '../../solid';
import type { Saw } from '../../kit';
import type { ObliqueStep } from '../document';
import { settingErrors } from '../tolerance';
import type { WorkPiece } from '../timeline';
import { isStopped, sawOf, stopAt, type Outcome, type RunContext } from './context';
import { checkSlices } from './cuts';

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
      { angle, least: LEAST_ANGLE, most: MOST_ANGLE },
    );
  return step.ends ? cutEnds(step, step.ends, inputs, saw, context) : cutSlices(step, inputs, saw, context);
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
      { thickness, room, head: step.head.mm },
      { axis: 0 },
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
  saw: Saw,
  context: RunContext,
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
        { needed, length: size[u] },
        { axis: u },
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
  settingErrors(context.sources, `${step.id}:angle`, `cut at an angle on ${saw.name}`, saw.setting);
  return { pieces, lost };
}
