import { sumOf } from '../../units';
import { perSize } from '../operation';
import type { StepRoom } from '../room';
import type { Finding, StepBase } from '../../document';
import { across, type Blank, book, emptyLedger, extents, splitBlank, toOrigin } from '../../solid';
import type { Length } from '../../units';
import { sawThat } from '../begin';
import { isStopped, type Outcome, type RunContext, sawOf, stopAt } from '../context';
import type { WorkPiece } from '../timeline';
import { addErrors, kerfErrors, settingErrors } from '../tolerance';

/** Saws every piece through its thickness into leaves alike, the lowest first. */
export interface ResawStep extends StepBase {
  kind: 'resaw';
  saw: string;
  leaves: number;
  /** Sawn from both edges first: so deep, the blade raised by so much each time; in one cut if missing. */
  edgesDeep?: Length;
  raise?: Length;
  /** How far the saw may run off the middle, and the thickness that each leaf must have. */
  offMiddle?: Length;
  wanted?: Length;
}

const MOST_LEAVES = 50;

/** A leaf thinner than this is none, mm. */
const LEAST_LEAF_MM = 0.1;

/**
 * How thick the leaves of a piece come out, the lowest first, mm: alike, or as measured. One leaf's gain is the others'
 * loss: those that nobody measured share what is left. Undefined where leaves and kerfs are more than the piece.
 */
function leavesOf(piece: string, room: number, leaves: number, measured?: ReadonlyMap<string, number>) {
  const given = Array.from({ length: leaves }, (_, i) => measured?.get(`${piece}.${i + 1}`));
  const known = sumOf(given, (mm) => mm ?? 0);
  const open = given.filter((mm) => mm === undefined).length;
  const each = open > 0 ? (room - known) / open : 0;
  if (known > room + 1e-6 || (open > 0 && each <= LEAST_LEAF_MM)) return undefined;
  return given.map((mm) => mm ?? each);
}

/**
 * Resaws every piece into leaves alike, the lowest first: (thickness - (n - 1) kerf) / n each; or as they were measured,
 * where the saw went off the middle.
 */
export function runResaw(step: ResawStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  const saw = sawOf(step, step.saw, context);
  if (isStopped(saw)) return saw;
  const { leaves } = step;
  if (!(Number.isInteger(leaves) && leaves >= 2 && leaves <= MOST_LEAVES))
    return stopAt(step, 'bad-count', [`A board is resawn into 2 to ${MOST_LEAVES} leaves.`], {
      numbers: { leaves },
    });
  let lost = emptyLedger();
  const pieces: WorkPiece[] = [];
  const errors = settingErrors(
    context.sources,
    `${step.id}:leaf`,
    `leaves resawn on ${saw.name}`,
    saw.setting,
    saw.id,
  );
  const kerf = kerfErrors(context.sources, saw);
  for (const piece of inputs) {
    const thick = extents(piece.blank)[2];
    const leaf = (thick - (leaves - 1) * saw.kerf.mm) / leaves;
    if (leaf <= LEAST_LEAF_MM)
      return stopAt(
        step,
        'leaves-too-thin',
        [
          `${leaves} leaves cannot be sawn from `,
          { mm: thick },
          ': the kerfs alone take ',
          { mm: (leaves - 1) * saw.kerf.mm },
          '.',
        ],
        { numbers: { leaves, thickness: thick, kerfs: (leaves - 1) * saw.kerf.mm }, dimension: 'thickness' },
      );
    const room = thick - (leaves - 1) * saw.kerf.mm;
    const sizes = leavesOf(piece.id, room, leaves, context.measuredLeaves);
    if (!sizes) context.notes.push(leavesTooThick(step, piece.id, thick, { kerf: saw.kerf.mm, context }));
    // What the leaves are beside their setting off the middle: what the kerfs really take is shared by all of them.
    const leafErrors = addErrors([errors, 1], [kerf, -(leaves - 1) / leaves]);
    let rest: Blank = toOrigin(piece.blank);
    let at = 0;
    for (let i = 0; i < leaves; i++) {
      const own = sizes?.[i] ?? leaf;
      const [low, above] = i === leaves - 1 ? [rest, undefined] : splitBlank(rest, across(2, at + own));
      pieces.push({
        id: `${piece.id}.${i + 1}`,
        blank: toOrigin(low),
        errors: [piece.errors[0], piece.errors[1], leafErrors],
      });
      if (!above) break;
      const [dust, next] = splitBlank(above, across(2, at + own + saw.kerf.mm));
      lost = book(lost, 'kerf', dust);
      rest = next;
      at += own + saw.kerf.mm;
    }
  }
  return { pieces, lost };
}

/** Leaves measured thicker than the board they came from: refused, with the sum. */
function leavesTooThick(
  { id, leaves }: ResawStep,
  piece: string,
  thick: number,
  { kerf, context: { measuredLeaves } }: { kerf: number; context: RunContext },
): Finding {
  const own = Array.from({ length: leaves }, (_, i) => `${piece}.${i + 1}`);
  const read = own.filter((leaf) => measuredLeaves?.has(leaf));
  const sum = sumOf(read.flatMap((leaf) => measuredLeaves?.get(leaf) ?? []));
  const kerfs = (leaves - 1) * kerf;
  return {
    code: 'more-than-went-in',
    step: id,
    severity: 'warning',
    dimension: 'thickness',
    message: [
      `${read.length} of ${leaves} leaves were measured as `,
      { mm: sum },
      ' together, the kerfs take ',
      { mm: kerfs },
      ': ',
      { mm: sum + kerfs },
      ', and the board is ',
      { mm: thick },
      read.length < leaves ? '. Nothing is left for the others. ' : '. That is more wood than went in. ',
      'Measure again.',
    ],
    numbers: { measured: sum, kerfs, sum: sum + kerfs, thickness: thick, more: sum + kerfs - thick },
    fixes: [
      {
        label: read.length > 1 ? 'Take the readings back' : 'Take the reading back',
        edit: {
          do: 'many',
          edits: read.map((leaf) => ({ do: 'measure', step: id, dimension: 'thickness', piece: leaf })),
        },
      },
    ],
  };
}

/** The room of resawing. */
export const resaw: StepRoom<ResawStep> = {
  kind: 'resaw',
  name: 'Resaw',
  group: 'Saw',
  says: 'Saws every board through its thickness into leaves alike.',
  subtitle: ({ leaves }) => `${leaves} leaves from every board`,
  fields: {
    saw: { is: 'id', of: 'saw', label: 'Saw', carried: true },
    leaves: {
      is: 'number',
      label: 'Leaves',
      least: 0,
      most: 200,
      card: { least: 2, most: MOST_LEAVES, whole: true },
    },
    wanted: {
      is: 'length',
      label: 'Thickness that a leaf must have',
      group: 'Off the middle, and from both edges',
      optional: true,
      carried: true,
    },
    offMiddle: {
      is: 'length',
      label: 'The saw may run off by',
      group: 'Off the middle, and from both edges',
      optional: true,
      most: 50,
      carried: true,
    },
    edgesDeep: {
      is: 'length',
      label: 'First from both edges, deep',
      group: 'Off the middle, and from both edges',
      optional: true,
      carried: true,
    },
    raise: {
      is: 'length',
      label: 'Raised each time by',
      when: ({ edgesDeep }) => (edgesDeep?.mm ?? 0) > 0,
      group: 'Off the middle, and from both edges',
      optional: true,
      carried: true,
    },
  },
  flow: { divides: () => true },
  begin: (at) => ({ saw: sawThat(at, 'resaw'), leaves: 2 }),
  run: runResaw,
  took: ({ leaves }, kerfMm) => [{ from: 'kerfs', mm: (leaves - 1) * kerfMm }],
  sawing: {
    work: () => ['resaw'],
    through: () => 'width',
    reach: true,
    words: {
      before: 'The board to resaw stands ',
      after: ' high',
      caution:
        'A tall resaw cut wanders and can pinch the blade: a high fence, a sharp wide blade, slow feed, hands clear. The saw’s manual comes first.',
    },
  },
  needsSettled: true,
  operations: (_step, played) =>
    perSize(played, 2, { verb: 'Resaw', noun: ['leaf', 'leaves'], dial: 'fence at' }),
  labour: { setUp: 15, each: 5 },
  each: { name: 'leaf', measured: 'thickness' },
  caution: 'A high fence, a sharp wide blade and slow feed; hands clear. The saw’s manual comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    resaw: ResawStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** The kerfs leave no wood for so many leaves. */
    'leaves-too-thin': true;
  }
}
