import type { Finding, Fix, Step } from '../document';
import { edgeAngles, expectedForm, glueUpOf } from '../glueup';
import {
  asFlattening,
  asGlueUp,
  flattenAfter,
  type FlattenStep,
  freshFrom,
  leastSize,
  noiseOf,
  type WorkPiece,
} from '../steps';
import type { ReviewContext } from './context';

export type Face = 'upper' | 'lower';
export const FACES: readonly Face[] = ['upper', 'lower'];

/** What a face has over for the hollow it must lose. */
export interface FaceReserve {
  face: Face;
  /** What flattening takes off it, and what it must take to come clean, mm. */
  offMm: number;
  needMm: number;
  /** Measured at this step, or expected of the glue-up before it. */
  known: 'measured' | 'expected';
}

type Seen = Pick<ReviewContext, 'build' | 'timeline'>;

const offOf = (step: FlattenStep, face: Face): number => (face === 'upper' ? step.top.mm : step.bottom.mm);

/**
 * Wind, the gap under the fourth corner where three touch: with wedges under both low corners each face must lose half of
 * it (geometry: the surface is z = w x y over the rectangle, and lies w/4 to either side of the plane between its corners).
 */
const shareOfWind = (windMm: number): number => windMm / 2;

/** What was measured on the faces at this step; undefined where nothing was. */
function measured(step: FlattenStep): Record<Face, number> | undefined {
  const wind = shareOfWind(step.wind?.mm ?? 0);
  const [upper, lower] = [step.hollowTop?.mm ?? 0, step.hollowBottom?.mm ?? 0];
  return upper + lower + wind > 0 ? { upper: upper + wind, lower: lower + wind } : undefined;
}

/**
 * What each face must lose against what is taken off it: as measured at the step, else as expected of the glue-up it comes from.
 * What was noted after the clamps is held against both faces together (surfaces.ts) and has no place here. Empty where nobody can say.
 */
export function faceReserves(step: FlattenStep, { build, timeline }: Seen): FaceReserve[] {
  const own = measured(step);
  const fresh = freshFrom(build, step);
  const noted =
    (fresh?.plan?.hollow?.mm ?? 0) > 0 ||
    (fresh?.plan?.joints ?? []).some((joint) => (joint.step?.mm ?? 0) > 0);
  const expected = own || noted || !fresh ? undefined : expectedForm(build, timeline, fresh.id);
  if (!own && !expected) return [];
  return FACES.map((face) => ({
    face,
    offMm: offOf(step, face),
    needMm: own ? own[face] : (expected?.stepMm ?? 0) + (expected?.hollowMm ?? 0),
    known: own ? 'measured' : 'expected',
  }));
}

/** Hollow, cup and wind against what flattening takes off each face. */
export function hollows(step: Step, context: ReviewContext): Finding[] {
  const flat = asFlattening(step);
  if (!flat) return outOfSquare(step, context);
  const entered = context.before(step);
  if (entered.length === 0) return [];
  const noise = noiseOf(context.build.shop);
  const lacking = faceReserves(flat, context).filter(({ needMm, offMm }) => needMm - offMm > noise);
  // Of what is only expected, the face that lacks most speaks for both.
  const told =
    lacking[0]?.known === 'expected'
      ? [lacking.reduce((worst, each) => (each.offMm < worst.offMm ? each : worst))]
      : lacking;
  return told.map((reserve) => short(flat, reserve, { context, entered }));
}

function short(
  step: FlattenStep,
  { face, offMm, needMm, known }: FaceReserve,
  { context, entered }: { context: ReviewContext; entered: readonly WorkPiece[] },
): Finding {
  const missing = needMm - offMm;
  const thick = leastSize(entered, 'thickness');
  const deeper = needMm >= thick;
  const noise = noiseOf(context.build.shop);
  const other = face === 'upper' ? 'lower' : 'upper';
  const alone = offMm <= noise && offOf(step, other) > noise;
  const leaves = thick - step.top.mm - step.bottom.mm - missing;
  if (known === 'expected') {
    const fresh = freshFrom(context.build, step);
    const form = fresh && expectedForm(context.build, context.timeline, fresh.id);
    return {
      code: 'reserve-below-expected',
      step: step.id,
      severity: 'note',
      dimension: 'thickness',
      message: [
        `Out of the clamps its faces are expected to be uneven by `,
        { mm: needMm },
        ` (${form?.by ?? ''}: a step of `,
        { mm: form?.stepMm ?? 0 },
        ...(form && form.hollowMm > noise
          ? [', and a hollow of ', { mm: form.hollowMm }, ' from its edges']
          : []),
        '), and flattening takes ',
        ...(offMm > noise ? [{ mm: offMm }] : ['nothing']),
        ` off the ${face} one. Measure before you plane.`,
      ],
      numbers: { need: needMm, off: offMm, short: missing },
      fixes: [],
    };
  }
  return {
    code: 'face-short',
    step: step.id,
    severity: 'warning',
    dimension: 'thickness',
    message: [
      `The ${face} face must lose `,
      { mm: needMm },
      ' to come flat, and flattening takes ',
      ...(offMm > noise ? [{ mm: offMm }] : ['nothing']),
      ' off it: short by ',
      { mm: missing },
      '.',
      ...(deeper
        ? [' That is more than the piece is thick, ', { mm: thick }, ': nothing flat would be left.']
        : []),
      ...(alone
        ? [
            ` Straightened on the ${other} face alone the piece is `,
            { mm: needMm },
            ' thinner in the hollow than at its edges.',
          ]
        : []),
    ],
    numbers: { need: needMm, off: offMm, short: missing, thickness: thick, at: FACES.indexOf(face) },
    fixes: deeper || leaves <= 0 ? [] : ways(step, face, { missing, context, leaves }),
  };
}

const both = (step: FlattenStep, upper: number, lower: number) => ({
  do: 'setStep' as const,
  step: step.id,
  change: { top: { mm: upper }, bottom: { mm: lower } },
});

/** More off the face that lacks, from the other where that has it over, or from the thickness. */
function ways(
  step: FlattenStep,
  face: Face,
  { missing, context, leaves }: { missing: number; context: ReviewContext; leaves: number },
): Fix[] {
  const sign = face === 'upper' ? 1 : -1;
  const reserves = faceReserves(step, context);
  const spare =
    reserves.filter((each) => each.face !== face).map(({ offMm, needMm }) => offMm - needMm)[0] ?? 0;
  const more = both(
    step,
    step.top.mm + (face === 'upper' ? missing : 0),
    step.bottom.mm + (face === 'lower' ? missing : 0),
  );
  const { finished } = context.timeline;
  return [
    ...(spare >= missing - 1e-9
      ? [
          {
            label: `Take more off the ${face} face, less off the other`,
            edit: both(step, step.top.mm + sign * missing, step.bottom.mm - sign * missing),
          },
        ]
      : []),
    { label: `Take more off the ${face} face`, edit: more },
    {
      label: 'Take it off, and accept the thickness',
      edit: {
        do: 'many',
        edits: [
          more,
          {
            do: 'setAim',
            dimension: 'thickness',
            aim: { aim: 'fixed', value: { mm: (finished?.least[2] ?? leaves + missing) - missing } },
          },
        ],
      },
    },
  ];
}

/** Edges that are off a right angle make a row of boards hollow: by how much, and whether flattening reaches that. */
function outOfSquare(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const glue = asGlueUp(step);
  const glueUp = glue && !glue.done ? glueUpOf(build, timeline, glue.id) : undefined;
  const angles = glueUp && edgeAngles(build, glueUp);
  if (!glue || !glueUp || !angles || angles.hollowMm <= noiseOf(build.shop)) return [];
  const turned = angles.joints.filter(({ deg }) => deg > 0);
  const flat = flattenAfter(build, glue);
  const least = flat ? Math.min(flat.top.mm, flat.bottom.mm) : undefined;
  const short = least === undefined ? 0 : angles.hollowMm - least;
  const degrees = (deg: number) => `${Number(deg.toFixed(2))}°`;
  return [
    {
      code: 'edges-out-of-square',
      step: glue.id,
      severity: short > noiseOf(build.shop) ? 'warning' : 'note',
      dimension: 'thickness',
      message: [
        `${angles.tool} may be ${degrees(angles.errorDeg)} off a right angle: up to ${degrees(Math.max(...turned.map(({ deg }) => deg)))} at ${turned.length === 1 ? 'a joint' : `each of ${turned.length} joints`}, ${degrees(angles.totalDeg)} in all, a hollow of up to `,
        { mm: angles.hollowMm },
        ' across.',
        ...(least === undefined ? [] : [' Flattening takes ', { mm: least }, ' off each face at least.']),
      ],
      numbers: {
        error: angles.errorDeg,
        joints: turned.length,
        total: angles.totalDeg,
        hollow: angles.hollowMm,
        ...(least === undefined ? {} : { off: least }),
      },
      fixes: [
        {
          label: 'Plane each pair folded: errors cancel',
          edit: {
            do: 'planGlue',
            step: glue.id,
            change: { pairs: angles.joints.map(({ joint }) => ({ joint, how: 'folded' })) },
          },
        },
      ],
    },
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** What was measured on a face is deeper than flattening takes off it. */
    'face-short': true;
    /** A glue-up is expected to come out more uneven than flattening takes off. */
    'reserve-below-expected': true;
    /** Edges off a right angle make a glue-up hollow. */
    'edges-out-of-square': true;
  }
}
