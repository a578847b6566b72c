import { leastSize } from '../sizes';
import { counted } from '../../units';
import type { StepRoom } from '../room';
import { Refusal, type StepBase } from '../../document';
import { book, emptyLedger, extents, sliceBlank, toOrigin } from '../../solid';
import type { Length } from '../../units';
import { allowed, sawThat } from '../begin';
import { isStopped, type Outcome, type RunContext, sawOf, stopAt, thinnerSaws } from '../context';
import type { WorkPiece } from '../timeline';
import { settingErrors } from '../tolerance';
import { heldBack, slicesFrom } from './slicing';

/** Cut across into equal slices against a stop, after cutting off the head. */
export interface SliceStep extends StepBase {
  kind: 'slice';
  saw: string;
  head: Length;
  thickness: Length;
  count: number;
  /** What must stay in hand after the last slice; nothing if missing. */
  hold?: Length;
}

/** Most slices one step may give: more is a slip of the finger. */
export const MOST_SLICES = 2000;

/** The finding that slices cannot be cut as set, whatever the piece; undefined where they can. */
export function checkSlices(step: Pick<SliceStep, 'id' | 'thickness' | 'head' | 'count'>) {
  const thickness = step.thickness.mm;
  if (!(thickness > 0 && Number.isFinite(thickness)) || !(step.head.mm >= 0))
    return stopAt(
      step,
      'no-size',
      ['A slice needs a thickness above zero, and the head cannot be negative.'],
      { numbers: { thickness, head: step.head.mm } },
    );
  if (!(Number.isInteger(step.count) && step.count > 0 && step.count <= MOST_SLICES))
    return stopAt(
      step,
      'bad-count',
      [`The number of slices must be a whole number from 1 to ${MOST_SLICES}.`],
      { numbers: { slices: step.count } },
    );
  return undefined;
}

/** Slices every piece against a stop, and stops where the rest must stay in hand. What is left of it is offcut. */
export function runSlice(step: SliceStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const thickness = step.thickness.mm;
  const bad = checkSlices(step);
  if (bad) return bad;
  if (saw.kerf.mm > thickness)
    context.notes.push({
      code: 'kerf-thicker-than-slice',
      step: step.id,
      severity: 'warning',
      message: [
        `The kerf of ${saw.name}, `,
        { mm: saw.kerf.mm },
        ', is more than the slice, ',
        { mm: thickness },
        '.',
      ],
      numbers: { kerf: saw.kerf.mm, thickness },
      fixes: thinnerSaws(step.id, saw, thickness, context.build.shop.saws),
    });
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  const stopErrors = settingErrors(
    context.sources,
    `${step.id}:stop`,
    `slice thickness set by the stop of ${saw.name}`,
    saw.setting,
    saw.id,
  );
  inputs.forEach((piece, index) => {
    const fit = Math.min(step.count, slicesFrom(extents(piece.blank)[0], step, saw.kerf.mm));
    const cut = sliceBlank(piece.blank, 0, {
      headMm: step.head.mm,
      thicknesses: Array(fit).fill(thickness),
      kerfMm: saw.kerf.mm,
    });
    lost = book(book(book(lost, 'kerf', cut.kerf), 'offcut', cut.head), 'offcut', cut.tail);
    cut.slices.forEach((slice, i) => {
      const lineage = inputs.length > 1 ? `${step.id}.${index + 1}` : step.id;
      pieces.push({
        id: `${lineage}.${i + 1}`,
        blank: toOrigin(slice),
        errors: [stopErrors, piece.errors[1], piece.errors[2]],
      });
    });
  });
  if (pieces.length === 0) {
    const length = inputs[0] ? extents(inputs[0].blank)[0] : 0;
    return stopAt(
      step,
      'no-slice-fits',
      [
        'Not one slice of ',
        { mm: thickness },
        ' fits: the blank is ',
        { mm: length },
        ' long and the head takes ',
        { mm: step.head.mm + saw.kerf.mm },
        ...(heldBack(step) > 0 ? [', and ', { mm: heldBack(step) }, ' must stay in hand'] : []),
        '.',
      ],
      { numbers: { thickness, length, head: step.head.mm, hold: heldBack(step) }, dimension: 'length' },
    );
  }
  return { pieces, lost, wanted: step.count * inputs.length };
}

/** The room of slicing. */
export const slice: StepRoom<SliceStep> = {
  kind: 'slice',
  name: 'Slice',
  group: 'Saw',
  says: 'Cuts a panel across into equal slices against a stop.',
  subtitle: (_step, { count }) => `${count === undefined ? '–' : counted(count, 'slice')} against a stop`,
  fields: {
    saw: { is: 'id', of: 'saw', label: 'Saw', carried: true },
    thickness: { is: 'length', label: 'Slice thickness', least: 0.5 },
    count: {
      is: 'number',
      label: 'Slices',
      least: 0,
      most: MOST_SLICES,
      card: { least: 1, most: MOST_SLICES, whole: true },
    },
    head: { is: 'length', label: 'Cut off first', fallback: { mm: 0 } },
    hold: { is: 'length', label: 'Left in hand after the last', optional: true, carried: true },
  },
  flow: { divides: () => true },
  begin: (at) => {
    const saw = sawThat(at, 'crosscut');
    const kerf = at.build.shop.saws.find(({ id }) => id === saw)?.kerf.mm ?? 0;
    const own = {
      saw,
      head: allowed(at, 'sliceHead'),
      thickness: { mm: leastSize(at.pieces, 'thickness') },
      hold: allowed(at, 'sliceTail'),
    };
    const length = leastSize(at.pieces, 'length');
    const count = Math.min(MOST_SLICES, slicesFrom(length, own, kerf));
    if (count < 1)
      throw new Refusal([
        'Not one slice of ',
        own.thickness,
        ' fits: the blank is ',
        { mm: length },
        ' long, the head takes ',
        own.head,
        ' and ',
        own.hold,
        ' stay in hand.',
      ]);
    return { ...own, count };
  },
  run: runSlice,
  took: ({ head, count }, kerfMm, cut) => [
    { from: 'kerfs', mm: ((cut ?? count) + (head.mm > 0 ? 1 : 0)) * kerfMm },
  ],
  explains: (step, dimension, _over, measured) =>
    dimension === 'length' ? { ...step, thickness: { mm: measured } } : undefined,
  sawing: {
    work: () => ['crosscut'],
    through: () => 'thickness',
    reach: true,
    carried: { across: () => true },
  },
  needsSettled: true,
  operations: (step, { entry }) => [
    ...(step.head.mm > 0
      ? [{ say: ['Cut off the head of each blank first.'], dial: { name: 'cut off', value: step.head } }]
      : []),
    {
      say: [`Cut ${counted(entry.pieces.length, 'slice')} against the stop, one after the other.`],
      dial: { name: 'stop at', value: step.thickness },
    },
  ],
  labour: { setUp: 10, each: 1.5 },
  gives: ({ count, thickness }) => ({ count, words: 'slices of', mm: thickness.mm, fromPanel: true }),
  each: { name: 'slice' },
  caution: 'A stop block stays clear of the blade, so that a slice cannot jam. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    slice: SliceStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** A number of pieces that cannot be cut. */
    'bad-count': true;
    /** The kerf is more than the slice. */
    'kerf-thicker-than-slice': true;
    /** Not one slice fits the blank. */
    'no-slice-fits': true;
  }
}
