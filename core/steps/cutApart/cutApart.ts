import { leastSize } from '../sizes';
import { axisOf, type StepBase } from '../../document';
import { across, book, emptyLedger, extents, sawCut, toOrigin } from '../../solid';
import { counted, type Length } from '../../units';
import { sawThat, setDown } from '../begin';
import { isStopped, type Outcome, type RunContext, sawOf, stopAt } from '../context';
import type { StepRoom } from '../room';
import type { WorkPiece } from '../timeline';
import { addErrors, type Errors, settingErrors } from '../tolerance';

/** Cuts every piece into two, and takes a band out between them where one is bad. */
export interface CutApartStep extends StepBase {
  kind: 'cutApart';
  saw: string;
  /** What of a piece is shared out: its width, ripped lengthwise; or its length, cut across. */
  along: 'width' | 'length';
  /** The part at the near edge, or at the left end. */
  first: Length;
  /** The band beside it that is cut out and not used; one cut only, if missing. */
  out?: Length;
}

/** Two cuts are one where the band between them is no wider, mm. */
const LEAST_BAND_MM = 0.01;

const isBand = (out: Length | undefined): out is Length => out !== undefined && out.mm > LEAST_BAND_MM;
const edgeOf = ({ along }: CutApartStep) => (along === 'width' ? 'the near edge' : 'the left end');

/** What the two parts of a piece are called: the one at its near edge or left end, and the other. */
export const apartIds = (piece: string): [first: string, second: string] => [`${piece}.a`, `${piece}.b`];

/** How much is lost where something is cut apart: a kerf, or a band with a kerf on both sides, mm. */
export const lostApart = (out: Length | undefined, kerfMm: number): number => {
  return isBand(out) ? out.mm + 2 * kerfMm : kerfMm;
};

/** Cuts pieces into a first and a second part; kerf and band are lost. Refused where nothing would be left of one of them. */
export function runCutApart(step: CutApartStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const kerf = saw.kerf.mm;
  const axis = axisOf(step.along);
  const gone = lostApart(step.out, kerf);
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  const set = settingErrors(
    context.sources,
    `${step.id}:fence`,
    `${step.along} cut apart at the fence of ${saw.name}`,
    saw.setting,
    saw.id,
  );
  for (const piece of inputs) {
    const size = extents(piece.blank)[axis];
    if (!(step.first.mm > 0) || step.first.mm + gone >= size - 1e-6)
      return stopAt(
        step,
        'nothing-left-apart',
        [
          'A piece of ',
          { mm: size },
          ' cannot be cut ',
          { mm: step.first.mm },
          ` from ${edgeOf(step)}: with `,
          { mm: gone },
          ' cut out beside it nothing is left of one part.',
        ],
        { numbers: { size, first: step.first.mm, gone }, dimension: step.along },
      );
    const cut = sawCut(toOrigin(piece.blank), across(axis, step.first.mm), kerf);
    lost = book(lost, 'kerf', cut.kerf);
    let rest = cut.after;
    if (isBand(step.out)) {
      const second = sawCut(rest, across(axis, step.first.mm + kerf + step.out.mm), kerf);
      lost = book(book(lost, 'offcut', second.before), 'kerf', second.kerf);
      rest = second.after;
    }
    const errors = (own: Errors): WorkPiece['errors'] => {
      const [length, width, thick] = piece.errors;
      return axis === 0 ? [own, width, thick] : [length, own, thick];
    };
    const [a, b] = apartIds(piece.id);
    pieces.push(
      { ...piece, id: a, blank: toOrigin(cut.before), errors: errors(set) },
      {
        ...piece,
        id: b,
        blank: toOrigin(rest),
        errors: errors(addErrors([piece.errors[axis], 1], [set, -1])),
      },
    );
  }
  return { pieces, lost };
}

/** The room of cutting apart. */
export const cutApart: StepRoom<CutApartStep> = {
  kind: 'cutApart',
  name: 'Cut apart',
  group: 'Saw',
  says: 'Cuts a piece into two, and takes a band out between them where one is bad.',
  subtitle: ({ along, out }) =>
    `${along === 'width' ? 'lengthwise' : 'across'}, ${isBand(out) ? 'a band taken out' : 'one cut'}`,
  fields: {
    saw: { is: 'id', of: 'saw', label: 'Saw', carried: true },
    along: {
      is: 'choice',
      label: 'How it is cut',
      options: [
        { value: 'width', label: 'Lengthwise: the width in two' },
        { value: 'length', label: 'Across: the length in two' },
      ],
    },
    first: {
      is: 'length',
      label: ({ along }) => (along === 'width' ? 'Part at the near edge' : 'Part at the left end'),
      least: 0.5,
      most: 100_000,
    },
    out: { is: 'length', label: 'Band taken out', optional: true },
  },
  flow: { divides: () => true },
  begin: (at) => ({
    saw: sawThat(at, 'rip'),
    along: 'width',
    first: setDown(at, leastSize(at.pieces, 'width') / 2),
  }),
  run: runCutApart,
  took: ({ out }, kerfMm) => [
    isBand(out) ? { from: 'kerfs', mm: 2 * kerfMm } : { from: 'kerf', mm: kerfMm },
    ...(isBand(out) ? [{ from: 'band', mm: out.mm }] : []),
  ],
  sawing: {
    setBy: 'fence',
    work: ({ along }) => [along === 'width' ? 'rip' : 'crosscut'],
    through: () => 'thickness',
    reach: true,
    carried: { across: ({ along }) => along === 'length' },
  },
  needsSettled: true,
  operations: (step, { entry }) => [
    {
      say: [
        `Cut ${counted(entry.pieces.length / 2, 'piece')} apart, ${edgeOf(step)} against the ${step.along === 'width' ? 'fence' : 'stop'}.`,
      ],
      dial: { name: step.along === 'width' ? 'fence at' : 'stop at', value: step.first },
    },
    ...(isBand(step.out)
      ? [
          {
            say: ['Cut the bad band off the other part.'],
            dial: { name: 'cut off', value: step.out },
          },
        ]
      : []),
  ],
  labour: { setUp: 10, each: 3 },
  each: { name: 'part' },
  caution:
    'A glued panel can close on the blade: riving knife in, and stand out of the line of the cut. A narrow band comes off on the far side of the blade. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    cutApart: CutApartStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** Nothing would be left of one part of a piece that is cut apart. */
    'nothing-left-apart': true;
  }
}
