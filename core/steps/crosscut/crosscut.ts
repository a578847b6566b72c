import { leastSize } from '../sizes';
import type { StepRoom } from '../room';
import type { StepBase } from '../../document';
import { across, book, emptyLedger, extents, sawCut } from '../../solid';
import { counted, type Length } from '../../units';
import { type CutWay, SQUARED_FIELDS } from '../deepcut';
import { allowed, sawThat, setDown } from '../begin';
import { isStopped, type Outcome, type RunContext, sawOf, stopAt } from '../context';
import type { WorkPiece } from '../timeline';
import { settingErrors } from '../tolerance';

/** Pieces cut to a length, measured from their start. */
export interface CrosscutStep extends StepBase {
  kind: 'crosscut';
  saw: string;
  length: Length;
  /** How it comes through, and the edge that the square stands on: in one cut, the near one, if missing. */
  way?: CutWay;
  square?: 'near' | 'far';
}

/** Cuts pieces to a length from their start; what is over is offcut. */
export function runCrosscut(step: CrosscutStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const piece of inputs) {
    const length = extents(piece.blank)[0];
    if (!(step.length.mm > 0) || step.length.mm > length + 1e-6)
      return stopAt(
        step,
        'too-short-to-cut',
        ['A piece of ', { mm: length }, ' cannot be cut to ', { mm: step.length.mm }, '.'],
        { numbers: { length, wanted: step.length.mm }, dimension: 'length' },
      );
    const cut = sawCut(piece.blank, across(0, step.length.mm), saw.kerf.mm);
    lost = book(book(lost, 'kerf', cut.kerf), 'offcut', cut.after);
    const errors = settingErrors(
      context.sources,
      `${step.id}:stop`,
      `length set by the stop of ${saw.name}`,
      saw.setting,
      saw.id,
    );
    pieces.push({ ...piece, blank: cut.before, errors: [errors, piece.errors[1], piece.errors[2]] });
  }
  return { pieces, lost };
}

/** The room of crosscutting. */
export const crosscut: StepRoom<CrosscutStep> = {
  kind: 'crosscut',
  name: 'Crosscut',
  group: 'Saw',
  says: 'Cuts every piece to one length, measured from its left end.',
  fields: {
    saw: { is: 'id', of: 'saw', label: 'Saw', carried: true },
    length: { is: 'length', label: 'Length', least: 1, most: 100_000 },
    ...SQUARED_FIELDS,
  },
  flow: {},
  begin: (at) => ({
    saw: sawThat(at, 'crosscut'),
    length: setDown(at, leastSize(at.pieces, 'length') - allowed(at, 'trimEnd').mm),
  }),
  run: runCrosscut,
  took: (_step, kerfMm) => [{ from: 'kerf', mm: kerfMm }],
  explains: (step, dimension, _over, measured) =>
    dimension === 'length' ? { ...step, length: { mm: measured } } : undefined,
  sawing: {
    work: () => ['crosscut'],
    through: () => 'thickness',
    reach: true,
    squares: true,
    carried: { across: () => true },
  },
  needsSettled: true,
  operations: (step, { entry }) => [
    {
      instead: 'cuts',
      say: [`Cut ${counted(entry.pieces.length, 'piece')} to length against a stop.`],
      dial: { name: 'stop at', value: step.length },
    },
  ],
  labour: { setUp: 5, each: 1 },
  caution: 'Fence and mitre gauge are not used together. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    crosscut: CrosscutStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** A piece is shorter than it is to be cut to. */
    'too-short-to-cut': true;
  }
}
